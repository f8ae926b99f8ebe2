import { regionsOf } from "../embed/index.js";
import type { Edit } from "../rewrite/index.js";
import { loadGrammars, offsetOf, parseFile, type SyntaxNode, type TextPlace } from "../syntax/index.js";

/**
 * The comment that keeps the statement around a place from a rule, as an edit that puts it on a line of its own above. Undefined
 * where no such line can be: in a file of several pieces of code, or where the statement does not begin its line.
 */
export async function keepComment(
  path: string,
  text: string,
  place: TextPlace,
  rule: string,
): Promise<Edit | undefined> {
  const [region, ...more] = (await regionsOf(path, text)) ?? [];
  if (!region?.isWhole || more.length > 0) return undefined;
  await loadGrammars([region.language]);
  const tree = parseFile(text, region.language);
  const at = tree.nodeAt(offsetOf(text, place));
  const { statementLists, memberLists, lineComments } = region.language;
  const isStatement = (node: SyntaxNode): boolean =>
    (node.parent?.is([...statementLists, ...memberLists]) ?? false) &&
    tree.firstOnLine(node.start) === node.start;
  const statement = [at, ...at.ancestors()].find(isStatement);
  if (!statement) return undefined;
  const line = text.lastIndexOf("\n", statement.start - 1) + 1;
  const indent = text.slice(line, statement.start);
  const end = text.includes("\r\n") ? "\r\n" : "\n";
  return {
    start: line,
    end: line,
    text: `${indent}${lineComments[0]!} uvran-keep ${rule}: left as it is${end}`,
  };
}
