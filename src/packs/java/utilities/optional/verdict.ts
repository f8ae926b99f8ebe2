import { surroundingsOf, yes } from "../../../../core.js";
import type { Answer, FileTogether, SyntaxTree } from "../../../../core.js";
import { Doubts } from "./doubts.js";
import { Members } from "./members.js";
import { fileMoved } from "./moved-file.js";
import { Refusal } from "./refusal.js";

/** What becomes of a project that uses the library's type: edits to its files, or what stands against them. */
export type Verdict =
  | { readonly files: readonly FileTogether[]; readonly doubts: Doubts; readonly says: Answer }
  | { readonly refused: Refusal; readonly others: number };

/** Undefined where another file leads, or nothing names the type. */
export function verdictOn(tree: SyntaxTree, hasOr: boolean): Verdict | undefined {
  const members = new Members(tree);
  if (members.naming[0] !== tree) return undefined;
  const doubts = new Doubts();
  const refused: Refusal[] = [];
  const files: FileTogether[] = [];
  for (const one of members.reached) {
    try {
      const edits = fileMoved(one, { members, doubts, hasOr });
      if (edits.length > 0) files.push({ path: surroundingsOf(one).path, text: one.text, edits });
    } catch (error) {
      if (!(error instanceof Refusal)) throw error;
      refused.push(error);
    }
  }
  if (members.guessed) doubts.isGuessed(members.guessed);
  const [first, ...others] = refused;
  if (first) return { refused: first, others: others.length };
  const where = files.length === 1 ? "one file" : `${files.length} files`;
  const says = yes("form.fits", `all that \`Optional\` is used for is understood, in ${where}`);
  return { files, doubts, says };
}
