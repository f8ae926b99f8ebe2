import type { ImportStatement, ImportStyle, SyntaxTree } from "../../syntax/index.js";

/** How a file writes its imports; where it has none, how it writes its strings and ends its statements. */
export function styleOf(tree: SyntaxTree, statements: readonly ImportStatement[]): ImportStyle {
  const { text, language } = tree;
  const code = statements.map(({ node }) => node.text);
  const quoted = (code.length > 0 ? code : [text]).join("\n");
  const single = quoted.split("'").length;
  const double = quoted.split('"').length;
  const { statementSeparator } = language;
  const ends = code.length > 0 ? code : text.split("\n").map((line) => line.trimEnd());
  const withEnd = ends.filter((line) => line.endsWith(statementSeparator)).length;
  return {
    quote: single > double ? "'" : '"',
    end: withEnd > 0 || text.trim() === "" ? statementSeparator : "",
    pad: /\{\S/.test(code.join("\n")) ? "" : " ",
    isOther:
      statements.length > 0
        ? statements.every((statement) => statement.isOther ?? false)
        : language.imports.usesOther(tree),
  };
}
