import type { SyntaxNode, TextRange } from "../syntax/index.js";
import type { Code } from "./codes.js";

/** A sentence that supports an answer, and where in the code it was learnt (1-based line). */
export interface Evidence {
  /** What it is about, whatever the words. */
  readonly code: Code;
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

/** A case in which new and old behave differently, with what it is about and where it was learnt. */
export const caution = evidence;

/** A sentence with its code, and the node or the 1-based line that it was learnt from. */
function evidence(code: Code, says: string, at?: SyntaxNode | number): Evidence {
  if (at === undefined) return { code, says };
  if (typeof at === "number") return { code, says, line: at };
  return { code, says, line: at.line, range: at.range };
}

const make =
  (is: Answer["is"]) =>
  (code: Code, says: string, at?: SyntaxNode | number): Answer => ({
    is,
    evidence: evidence(code, says, at),
  });

export const yes = make("yes");
export const no = make("no");
export const unknown = make("unknown");

/** The weakest of several answers: no before unknown before yes. The first of equals. */
export function weakest(answers: readonly [Answer, ...Answer[]]): Answer {
  const rank = { no: 0, unknown: 1, yes: 2 };
  return answers.reduce((worst, answer) => (rank[answer.is] < rank[worst.is] ? answer : worst));
}
