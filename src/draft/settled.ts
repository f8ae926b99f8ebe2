import { compile, matchOneAt } from "../pattern/index.js";
import type { ContextName } from "../syntax/index.js";
import { Parts } from "./build.js";
import type { Generalised } from "./generalise.js";
import type { Instance } from "./instances.js";
import { endOf, startOf } from "./run.js";

/** Combinations of kinds of holes that are tried before a draft is given up. */
const MOST_KINDS = 300;
const CONTEXTS: readonly (ContextName | undefined)[] = [
  undefined,
  "expression",
  "statement",
  "member",
  "type",
  "file",
];

/**
 * Finds out of what kind the holes are, and where the code stands: for each surroundings the first combination with which the
 * pattern fits the old code of every instance.
 */
export function* settled(
  drafted: Generalised,
  instances: readonly Instance[],
): Generator<{ readonly parts: Parts; readonly context: ContextName | undefined }> {
  const { opened, was } = drafted;
  for (const context of CONTEXTS) {
    let tried = 0;
    for (const kinds of combinations(opened.map((one) => one.kinds))) {
      if (tried++ > MOST_KINDS) break;
      opened.forEach(({ hole }, i) => (hole.kind = kinds[i]!));
      const parts = new Parts();
      const isFit =
        instances.every((instance) => fits(parts, was, context, instance)) &&
        reads(parts, drafted, context, instances[0]!);
      if (!isFit) continue;
      yield { parts, context };
      break;
    }
  }
}

function reads(
  parts: Parts,
  { becomes }: Generalised,
  context: ContextName | undefined,
  { after }: Instance,
): boolean {
  if (after.nodes.length === 0) return true;
  try {
    compile(parts.snippet(becomes, context), after.tree.language.id);
    return true;
  } catch {
    // A hole by itself is no pattern, but may well be what is left.
    return becomes.texts.every((text) => text.trim() === "");
  }
}

function fits(
  parts: Parts,
  was: Generalised["was"],
  context: ContextName | undefined,
  { before }: Instance,
): boolean {
  const { tree, nodes } = before;
  try {
    const compiled = compile(parts.snippet(was, context), tree.language.id);
    const [start, end] = [startOf(before), endOf(before)];
    for (let n = nodes[0]!; n < tree.after[nodes[0]!]! && tree.starts[n] === start; n++) {
      const match = matchOneAt(compiled, tree, n);
      if (match && match.start === start && Math.abs(match.end - end) <= 1) return true;
    }
    return false;
  } catch {
    return false;
  }
}

/** All choices of one of each list, the first of all first; those that differ in little come early. */
function* combinations<T>(lists: readonly (readonly T[])[]): Generator<T[]> {
  const places = lists.map(() => 0);
  const most = lists.reduce((sum, list) => sum + list.length - 1, 0);
  function* withSum(at: number, sum: number): Generator<T[]> {
    if (at === lists.length) {
      if (sum === 0) yield places.map((place, i) => lists[i]![place]!);
      return;
    }
    for (let place = 0; place < lists[at]!.length && place <= sum; place++) {
      places[at] = place;
      yield* withSum(at + 1, sum - place);
    }
  }
  for (let sum = 0; sum <= most; sum++) yield* withSum(0, sum);
}
