import { modulesOnly, topLevel, type ImportFacts, type ImportStatement } from "../import-facts.js";
import type { SyntaxNode } from "../node.js";

/** `require "a"` and `require_relative "a"`. */
export const rubyImports: ImportFacts = {
  ...modulesOnly,
  read: (tree) => topLevel(tree).flatMap((node) => fromStatement(node) ?? []),
  wholeImports: { hide: false },
  write([first], { quote }) {
    const { module, form } = first!;
    return `${form === "relative" ? "require_relative" : "require"} ${quote}${module}${quote}`;
  },
};

function fromStatement(node: SyntaxNode): ImportStatement | undefined {
  const method = node.is("call") ? node.child("method")?.text : undefined;
  if (node.child("receiver") || (method !== "require" && method !== "require_relative")) return undefined;
  const given = node.child("arguments")?.parts ?? [];
  if (given.length !== 1 || !given[0]!.is("string")) return undefined;
  const module = given[0]!.text.slice(1, -1);
  const form = method === "require_relative" ? "relative" : undefined;
  return { node, module, form, imports: [{ module, form, node }], takesMore: false };
}
