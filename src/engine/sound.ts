import { countErrors, type SyntaxNode, type SyntaxTree } from "../syntax/index.js";

/** Part of a file; offsets in UTF-16 code units. */
export interface Span {
  readonly start: number;
  readonly end: number;
}

/**
 * The functions of a file with errors that can be relied on all the same: no error in them, and none when they
 * are parsed alone. None in a language whose grammar reads all that the language allows, since there an error
 * is the code's own.
 */
export function soundFunctions(tree: SyntaxTree): Span[] {
  const { functions, grammarIsPartial } = tree.language;
  if (!grammarIsPartial) return [];
  const result: Span[] = [];
  for (let n = 0; n < tree.size; n++) {
    const node = tree.node(n);
    if (!node.is(functions)) continue;
    if (tree.errors.some((error) => error >= n && error < tree.after[n]!) || !parsesAlone(node)) continue;
    result.push({ start: node.start, end: node.end });
    n = tree.after[n]! - 1;
  }
  return result;
}

function parsesAlone(node: SyntaxNode): boolean {
  const { language } = node.tree;
  return language.contexts
    .filter(({ name }) => name === "file" || name === "member" || name === "statement")
    .some(({ before, after }) => countErrors(before + node.text + after, language) === 0);
}
