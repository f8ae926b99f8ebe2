import type { SyntaxNode, SyntaxTree } from "../syntax/index.js";
import type { Span } from "./sound.js";

/** A statement whose tree is not what the language means, with the code that shows it. */
export interface Misread extends Span {
  readonly code: string;
}

/**
 * The statements in which the grammar gets the rank of operators wrong, as the language's facts describe it.
 * Nothing can be said of the expressions in them.
 */
export function misreadStatements(tree: SyntaxTree): Misread[] {
  const { misreads, statementLists, memberLists } = tree.language;
  const kinds = Object.keys(misreads);
  if (kinds.length === 0) return [];
  const result: Misread[] = [];
  for (let n = 0; n < tree.size; n++) {
    const node = tree.node(n);
    if (!kinds.includes(node.kind) || !node.firstPart?.is(misreads[node.kind]!)) continue;
    let statement: SyntaxNode = node;
    for (const above of node.ancestors()) {
      if (above.is(statementLists) || above.is(memberLists)) break;
      statement = above;
    }
    result.push({ start: statement.start, end: statement.end, code: node.text });
  }
  return result;
}
