import type { Hole } from "../pattern/index.js";
import type { Condition } from "./condition.js";
import {
  escapes,
  leavesEarly,
  neverWritten,
  not,
  onlyUse,
  sideEffectFree,
  unchangedDuring,
  usedAfter,
} from "./conditions.js";

/** A condition as a value, and as an author writes it. */
export interface WrittenCondition {
  readonly condition: Condition;
  readonly source: string;
  /** What it is imported for. */
  readonly imports: readonly string[];
}

/** The conditions about one hole, with what writes them. */
export const ABOUT_HOLE = {
  sideEffectFree: (hole: Hole): WrittenCondition => ({
    condition: sideEffectFree(hole),
    source: `sideEffectFree(${hole.name})`,
    imports: ["sideEffectFree"],
  }),
  onlyUse: (hole: Hole): WrittenCondition => ({
    condition: onlyUse(hole),
    source: `onlyUse(${hole.name})`,
    imports: ["onlyUse"],
  }),
  notUsedAfter: (hole: Hole): WrittenCondition => ({
    condition: not(usedAfter(hole)),
    source: `not(usedAfter(${hole.name}))`,
    imports: ["not", "usedAfter"],
  }),
  staysInside: (hole: Hole): WrittenCondition => ({
    condition: not(escapes(hole)),
    source: `not(escapes(${hole.name}))`,
    imports: ["escapes", "not"],
  }),
  reachesItsEnd: (hole: Hole): WrittenCondition => ({
    condition: not(leavesEarly(hole)),
    source: `not(leavesEarly(${hole.name}))`,
    imports: ["leavesEarly", "not"],
  }),
} as const;

/** The conditions about a hole and the statements that another one stands for. */
export const ABOUT_HOLE_IN = {
  neverWritten: (hole: Hole, body: Hole): WrittenCondition => ({
    condition: neverWritten(hole, { in: body }),
    source: `neverWritten(${hole.name}, { in: ${body.name} })`,
    imports: ["neverWritten"],
  }),
  unchangedDuring: (hole: Hole, body: Hole): WrittenCondition => ({
    condition: unchangedDuring(hole, { during: body }),
    source: `unchangedDuring(${hole.name}, { during: ${body.name} })`,
    imports: ["unchangedDuring"],
  }),
} as const;

/** All conditions that can be asked about a hole, beside the other holes of its rule. */
export function conditionsAbout(hole: Hole, others: readonly Hole[]): WrittenCondition[] {
  const { kind } = hole;
  const bodies = others.filter((other) => other !== hole && other.kind === "statements");
  const { sideEffectFree, onlyUse, notUsedAfter, staysInside, reachesItsEnd } = ABOUT_HOLE;
  const isValue = kind === "expression" || kind === "name";
  return [
    ...(isValue || kind === "statement" ? [sideEffectFree(hole)] : []),
    ...(isValue
      ? bodies.flatMap((body) => Object.values(ABOUT_HOLE_IN).map((make) => make(hole, body)))
      : []),
    ...(kind === "name" ? [onlyUse(hole), notUsedAfter(hole), staysInside(hole)] : []),
    ...(kind === "statements" || kind === "statement" ? [reachesItsEnd(hole)] : []),
  ];
}
