import type { SyntaxNode } from "../../core.js";

/** Where exceptions of code go no further: what a function throws is caught where it is called. */
const ENDS = ["method_declaration", "constructor_declaration", "lambda_expression", "class_body"];

/** The `catch` clauses that catch what a piece of code throws, from the inside out. */
export function handlersAround(code: SyntaxNode): SyntaxNode[] {
  const found: SyntaxNode[] = [];
  let inside = code;
  for (const above of code.ancestors()) {
    if (above.is(ENDS)) break;
    const isTry = above.is(["try_statement", "try_with_resources_statement"]);
    if (isTry && !inside.is(["catch_clause", "finally_clause"]))
      found.push(...above.parts.filter((part) => part.is("catch_clause")));
    inside = above;
  }
  return found;
}

/** Does code that lists exceptions, a clause or a head, name one of these? With a package or without. */
export function namesException(text: string, wanted: readonly string[]): boolean {
  return text.split(/[^\w.]+/).some((word) => wanted.includes(word.split(".").at(-1)!));
}

/** The part of a `catch` clause that says what it catches. */
export const caughtBy = (clause: SyntaxNode): string => clause.firstPart?.text ?? "";
