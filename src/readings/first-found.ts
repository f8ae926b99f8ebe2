import { isMissing } from "../analysis/index.js";
import type { Hole } from "../pattern/index.js";
import { jumpOf, oncePerNode, type SyntaxNode } from "../syntax/index.js";
import { frameOf, madeAhead, unsetAhead } from "./collecting.js";
import { givenBy, saysMore, truthOf } from "./flagged.js";
import { assignedBy } from "./frame.js";
import type { Reading } from "./reading.js";
import { SiftedReading, type SiftedLoop } from "./sifting.js";
import { sieved, walkAt, type Sifted } from "./walk.js";
import { isLast, isStatement, neighbour } from "./ways.js";

/** A loop that looks for the first item that passes a test. */
export interface Sought extends Sifted {
  /** What is kept of that item. */
  readonly value: SyntaxNode;
  /** What comes out where there is no such item; undefined where that is a missing value which nobody writes. */
  readonly otherwise: SyntaxNode | undefined;
  /** The variable that is set; undefined where the function returns what was found. */
  readonly name: SyntaxNode | undefined;
}

/**
 * A loop that looks for the first item that passes a test, and is left there: it sets a variable that held a plain value ahead of
 * it, or returns what was found, with a default behind it. What comes in its place is a value; its parts stand in
 * `match.sought`.
 */
export function firstFound(items: Hole): Reading {
  return new SiftedReading(items, {
    whyNot: "this loop does not only look for the first item that passes a test",
    at: soughtAt,
    part: (what) => ({ sought: what }),
  });
}

const soughtAt = oncePerNode<SiftedLoop<Sought> | undefined>((loop) => {
  const walk = isStatement(loop) ? walkAt(loop) : undefined;
  const found = walk && !walk.fn ? sieved(walk, keptBy) : undefined;
  if (!walk || !found || found.sieves.length === 0) return undefined;
  const { items, item } = walk;
  const { to, value } = found.done;
  const common = { loop, items, item, sieves: found.sieves, value };
  if (!to) {
    const next = neighbour(loop, "after");
    if (!next && isLast(loop) && loop.tree.language.flow.missing.endGives) {
      const statement = [...value.ancestors()].find((one) => jumpOf(one) === "return")!;
      return {
        what: { ...common, otherwise: undefined, name: undefined },
        nodes: [loop],
        frame: { statement, value },
      };
    }
    const otherwise = next && givenBy(next);
    if (!otherwise || isTruth(otherwise)) return undefined;
    return {
      what: { ...common, otherwise, name: undefined },
      nodes: [loop, next],
      frame: { statement: next, value: otherwise },
    };
  }
  const unset = unsetAhead(loop, to);
  if (unset)
    return {
      what: { ...common, otherwise: undefined, name: to },
      nodes: [unset.statement, loop],
      frame: { statement: unset.statement, value: unset.behind, isUnset: true },
    };
  const made = madeAhead(loop, to);
  if (!made || !isPlain(made.empty) || !to.isLeaf || isTruth(made.empty)) return undefined;
  return {
    what: { ...common, otherwise: made.empty, name: made.list },
    nodes: [made.first, ...made.between, loop],
    frame: frameOf(made, loop),
  };
});

/** What is done with the first item that passes: `first = x; break`, `return x`. */
function keptBy([first, ...more]: readonly SyntaxNode[]):
  { readonly to: SyntaxNode | undefined; readonly value: SyntaxNode } | undefined {
  if (!first) return undefined;
  if (jumpOf(first) === "return") {
    const value = more.length === 0 ? givenBy(first) : undefined;
    return value && !isPlain(value) ? { to: undefined, value } : undefined;
  }
  const given = assignedBy(first);
  const [last, ...rest] = more;
  const stops = last !== undefined && jumpOf(last) === "break" && last.parts.length === 0;
  if (!given || given.declares || saysMore(given) || !stops || rest.length > 0 || isPlain(given.value))
    return undefined;
  return { to: given.target, value: given.value };
}

/** A literal, which can stand anywhere. */
function isPlain(value: SyntaxNode): boolean {
  if (/^unary/.test(value.kind) && value.parts.length === 1) return isPlain(value.firstPart!);
  const { literals, plainValues } = value.tree.language;
  return isMissing(value) || (value.isLeaf && value.is([...literals, ...plainValues])) || isTruth(value);
}

const isTruth = (value: SyntaxNode): boolean => truthOf(value) !== undefined;
