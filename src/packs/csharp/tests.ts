import { csharp, type Hole, type Snippet } from "../../index.js";

/** A way of asking whether something is null. */
export interface NullTest {
  readonly there: Snippet;
  readonly gone: Snippet;
  /** Is an operator asked that a class may define itself? */
  readonly byOperator: boolean;
}

/** The ways of asking whether what a hole stands for is null. */
export function nullTests(subject: Hole): readonly NullTest[] {
  return [
    { there: csharp`${subject} != null`, gone: csharp`${subject} == null`, byOperator: true },
    { there: csharp`${subject} is not null`, gone: csharp`${subject} is null`, byOperator: false },
  ];
}
