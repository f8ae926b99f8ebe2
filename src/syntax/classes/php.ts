import { escaped, member, typeWords, type ClassFacts, type DeclaredMember } from "../class-facts.js";
import type { SyntaxNode } from "../node.js";

function memberIn(node: SyntaxNode): DeclaredMember[] {
  const isStatic = node.parts.some((part) => part.is("static_modifier"));
  if (node.is("method_declaration")) return member(node, "method", { isStatic });
  if (!node.is("property_declaration")) return [];
  return node.parts
    .filter((part) => part.is("property_element"))
    .flatMap((part) =>
      member(part, "field", { isStatic, name: part.child("name")?.text.replace(/^\$/, "") }),
    );
}

/** Classes, interfaces, traits and enums of PHP. */
export const phpClasses: ClassFacts = {
  kinds: [
    "class_declaration",
    "interface_declaration",
    "trait_declaration",
    "enum_declaration",
    "anonymous_class",
  ],
  nameOf: (node) => node.child("name")?.text,
  parentsOf: (node) =>
    [...node.parts, ...(node.child("body")?.parts ?? [])]
      .filter((part) => part.is(["base_clause", "class_interface_clause", "use_declaration"]))
      .flatMap((part) => typeWords(part.text.replace(/^(extends|implements|use)\b|\{[\s\S]*$/g, ""))),
  membersOf: (node) => {
    const body = node.child("body") ?? node.parts.find((part) => part.is("declaration_list"));
    return (body?.parts ?? []).flatMap(memberIn);
  },
  declaring: (name) => new RegExp(`\\b(?:class|interface|trait|enum)\\s+${escaped(name)}\\b`, "i"),
  deriving: (name) => new RegExp(`\\b(?:extends|implements|use)\\b[^{;]*\\b${escaped(name)}\\b`, "i"),
};
