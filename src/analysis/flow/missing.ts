import type { SyntaxNode } from "../../syntax/index.js";

/** Is this the language's literal for a value that is missing? */
export function isMissing(value: SyntaxNode): boolean {
  const { literals } = value.tree.language.flow.missing;
  return value.is(literals) || literals.includes(value.text);
}
