import type { SyntaxNode } from "../../../core.js";
import { inner } from "./brackets.js";

/** Does a function use the object that it is called on? */
export function usesThis(value: SyntaxNode): boolean {
  const of = inner(value);
  return (
    of.is([
      "function_expression",
      "generator_function",
      "function_declaration",
      "generator_function_declaration",
    ]) && [...of.descendants()].some((node) => node.is("this"))
  );
}
