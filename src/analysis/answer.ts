import type { SyntaxNode, TextRange } from "../syntax/index.js";
import type { Code } from "./codes.js";
import { surroundingsOf } from "./project.js";

/** A sentence that supports an answer, and where in the code it was learnt (1-based line). */
export interface Evidence {
  /** What it is about, whatever the words. */
  readonly code: Code;
  readonly says: string;
  readonly line?: number;
  /** The code it was learnt from, where that is known. */
  readonly range?: TextRange;
  /** The file of that code, where it is known. */
  readonly path?: string;
}

/** What analysis answers: never a guess. Unknown is an answer of its own and never counts as yes. */
export interface Answer {
  readonly is: "yes" | "no" | "unknown";
  readonly evidence: Evidence;
}

/** A case in which new and old behave differently, with what it is about and where it was learnt. */
export const caution = evidence;

/** Where something was learnt: a node, other evidence from there, or nothing but a 1-based line. */
type Place = SyntaxNode | Pick<Evidence, "line" | "range" | "path"> | number;

/** A sentence with its code, and where it was learnt. */
function evidence(code: Code, says: string, at?: Place): Evidence {
  if (at === undefined) return { code, says };
  if (typeof at === "number") return { code, says, line: at };
  const { line, range } = at;
  const path = "tree" in at ? surroundingsOf(at.tree).path || undefined : at.path;
  return {
    code,
    says,
    ...(line === undefined ? {} : { line }),
    ...(range === undefined ? {} : { range }),
    ...(path === undefined ? {} : { path }),
  };
}

const make =
  (is: Answer["is"]) =>
  (code: Code, says: string, at?: Place): Answer => ({
    is,
    evidence: evidence(code, says, at),
  });

/** The answer yes, with what it is about, the sentence that supports it, and where it was learnt. */
export const yes = make("yes");
/** The answer no, with its evidence. */
export const no = make("no");
/** The answer for what cannot be told, with the reason. */
export const unknown = make("unknown");

/** The weakest of several answers: no before unknown before yes. The first of equals. */
export function weakest(answers: readonly [Answer, ...Answer[]]): Answer {
  const rank = { no: 0, unknown: 1, yes: 2 };
  return answers.reduce((worst, answer) => (rank[answer.is] < rank[worst.is] ? answer : worst));
}
