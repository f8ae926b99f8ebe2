import type { SyntaxNode, TextRange } from "../syntax/index.js";

/** A sentence that supports an answer, and where in the code it was learnt (1-based line). */
export interface Evidence {
  readonly says: string;
  readonly line?: number;
  /** The code it was learnt from, where that is known. */
  readonly range?: TextRange;
}

/** What analysis answers: never a guess. Unknown is an answer of its own and never counts as yes. */
export interface Answer {
  readonly is: "yes" | "no" | "unknown";
  readonly evidence: Evidence;
}

const make =
  (is: Answer["is"]) =>
  (says: string, at?: SyntaxNode | number): Answer => {
    if (at === undefined) return { is, evidence: { says } };
    if (typeof at === "number") return { is, evidence: { says, line: at } };
    return { is, evidence: { says, line: at.line, range: at.range } };
  };

export const yes = make("yes");
export const no = make("no");
export const unknown = make("unknown");

/** The weakest of several answers: no before unknown before yes. The first of equals. */
export function weakest(answers: readonly [Answer, ...Answer[]]): Answer {
  const rank = { no: 0, unknown: 1, yes: 2 };
  return answers.reduce((worst, answer) => (rank[answer.is] < rank[worst.is] ? answer : worst));
}
