import {
  escapes,
  leavesEarly,
  neverWritten,
  not,
  onlyUse,
  sideEffectFree,
  unchangedDuring,
  usedAfter,
  type Condition,
  type Hole,
} from "uvran/core";

/** A condition as a value, and as an author writes it. */
export interface Offered {
  readonly condition: Condition;
  readonly source: string;
  readonly imports: readonly string[];
}

/** The conditions of the library that can be asked about a hole, beside the other holes of its rule. */
export function offersFor(hole: Hole, all: readonly Hole[]): Offered[] {
  const { name, kind } = hole;
  const bodies = all.filter((other) => other !== hole && other.kind === "statements");
  const found: Offered[] = [];
  const offer = (condition: Condition, source: string, ...imports: string[]): void =>
    void found.push({ condition, source, imports });
  if (["expression", "name", "statement"].includes(kind))
    offer(sideEffectFree(hole), `sideEffectFree(${name})`, "sideEffectFree");
  if (kind === "expression" || kind === "name") {
    for (const body of bodies) {
      offer(
        unchangedDuring(hole, { during: body }),
        `unchangedDuring(${name}, { during: ${body.name} })`,
        "unchangedDuring",
      );
      offer(neverWritten(hole, { in: body }), `neverWritten(${name}, { in: ${body.name} })`, "neverWritten");
    }
  }
  if (kind === "name") {
    offer(onlyUse(hole), `onlyUse(${name})`, "onlyUse");
    offer(not(usedAfter(hole)), `not(usedAfter(${name}))`, "not", "usedAfter");
    offer(not(escapes(hole)), `not(escapes(${name}))`, "escapes", "not");
  }
  if (kind === "statements" || kind === "statement")
    offer(not(leavesEarly(hole)), `not(leavesEarly(${name}))`, "leavesEarly", "not");
  return found;
}
