import { ABOUT_HOLE, ABOUT_HOLE_IN, builtin, type WrittenCondition } from "../rules/index.js";
import { isBuiltin } from "../analysis/index.js";
import type { Parts } from "./build.js";
import { isCallee } from "./code-kinds.js";
import { drafted } from "./drafted.js";
import type { Generalised, Opened } from "./generalise.js";
import type { Instance } from "./instances.js";
import type { DraftHole } from "./model.js";

/** A condition that a drafted rule may ask. */
export interface Proposed extends WrittenCondition {
  /** Must it be asked for the rewrite to be right, or may it be, to leave out what nobody edited? */
  readonly isNeeded: boolean;
  /** Is it said where it does not hold for an edit, and is therefore not asked? */
  readonly isWeighty: boolean;
}

/** The conditions that a person would ask of such a rule, and those that may tell edited places from others. */
export function conditionsFor(made: Generalised, parts: Parts, instances: readonly Instance[]): Proposed[] {
  const found: Proposed[] = [];
  const add = (written: WrittenCondition, isNeeded: boolean, isWeighty = false): void => {
    if (!found.some((other) => other.source === written.source))
      found.push({ ...written, isNeeded, isWeighty });
  };
  const { opened } = made;
  const isOne = ({ hole }: Opened): boolean => ["expression", "name"].includes(hole.kind);
  const bodies = opened.filter(({ hole }) => hole.kind === "statements");
  const eaches = made.becomes.parts.filter((part) => part.is === "each");
  const inPieces = new Set<DraftHole>(
    eaches.flatMap(({ pieces }) =>
      pieces.flatMap(({ pattern }) =>
        pattern.parts.flatMap((part) => (part.is === "hole" ? [part.hole] : [])),
      ),
    ),
  );
  const order = (code: Generalised["was"]): DraftHole[] => [
    ...new Set(
      code.parts.flatMap((part) =>
        part.is === "hole" && part.hole.kind === "expression" ? [part.hole] : [],
      ),
    ),
  ];
  const [before, after] = [order(made.was), order(made.becomes)];
  const moved = after.filter((hole, i) => {
    const ahead = before.slice(0, before.indexOf(hole));
    return before.includes(hole) && after.slice(i + 1).some((other) => ahead.includes(other));
  });
  for (const one of opened) {
    const { hole, times } = one;
    if (hole.kind !== "expression" && hole.kind !== "statement") continue;
    const again = times.after !== times.before || moved.includes(hole);
    const value = parts.hole(hole);
    add(ABOUT_HOLE.sideEffectFree(value), again && !inPieces.has(hole), true);
  }
  for (const one of opened.filter(isOne)) {
    const value = parts.hole(one.hole);
    for (const { hole } of bodies) {
      const body = parts.hole(hole);
      const isIn = inPieces.has(one.hole);
      const isName = one.hole.kind === "name";
      const isKept = one.isOwn && bodies.some(({ isBetween }) => isBetween);
      if (isName) add(ABOUT_HOLE_IN.neverWritten(value, body), isIn || isKept);
      else add(ABOUT_HOLE_IN.unchangedDuring(value, body), isIn);
    }
    if (one.hole.kind === "name" && one.isOwn) {
      const isGone = one.times.after < one.times.before;
      add(ABOUT_HOLE.notUsedAfter(value), isGone);
      const isHeld = bodies.some(({ isBetween }) => isBetween);
      add(ABOUT_HOLE.staysInside(value), isHeld);
      add(ABOUT_HOLE.onlyUse(value), false);
    }
  }
  for (const { hole, isBetween } of bodies) add(ABOUT_HOLE.reachesItsEnd(parts.hole(hole)), isBetween);
  for (const name of builtinsIn(instances, made))
    add({ condition: builtin(name), source: `builtin(${JSON.stringify(name)})`, imports: ["builtin"] }, true);
  add({ condition: drafted(), source: "drafted()", imports: ["drafted"] }, true);
  return found;
}

/** The names that the pattern calls and that the language itself defines. */
function builtinsIn([first]: readonly Instance[], { was }: Generalised): string[] {
  const { tree, nodes } = first!.before;
  const words = was.texts.flatMap((text) => text.match(/[\p{L}_][\p{L}\p{N}_]*/gu) ?? []);
  const at = tree.node(nodes[0]!);
  const isCalled = (name: string): boolean => at.tree.named(name).some((n) => isCallee(tree, n));
  return [...new Set(words)].filter(
    (name) => tree.language.builtins.includes(name) && isCalled(name) && isBuiltin(name, at).is === "yes",
  );
}
