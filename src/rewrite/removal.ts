import type { SyntaxNode } from "../syntax/index.js";
import type { Edit } from "./edits.js";

/** The edit that takes a statement out, with its line where it has one to itself; a comment behind it stays. */
export function removal({ tree, start, end }: Pick<SyntaxNode, "tree" | "start" | "end">): Edit {
  const { text: code } = tree;
  const separated = new RegExp(`^[ \\t]*(?:${tree.language.statementSeparator ?? ""}[ \\t]*)?`);
  const rest = /^[ \t]*(\r?\n)?/.exec(code.slice(end))!;
  const line = tree.lineStart(tree.lineAt(start));
  const isAlone = rest[1] !== undefined && code.slice(line, start).trim() === "";
  return isAlone
    ? { start: line, end: end + rest[0].length, text: "" }
    : { start, end: end + separated.exec(code.slice(end))![0].length, text: "" };
}
