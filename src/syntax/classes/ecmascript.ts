import { escaped, member, typeWords, type ClassFacts, type DeclaredMember } from "../class-facts.js";
import type { SyntaxNode } from "../node.js";

function memberIn(node: SyntaxNode): DeclaredMember[] {
  const isStatic = node.has("static");
  if (node.is("method_definition")) {
    if (node.has("get") || node.has("set")) return member(node, "property", { isStatic });
    return member(node, node.child("name")?.text === "constructor" ? "constructor" : "method", { isStatic });
  }
  const name = (node.child("name") ?? node.child("property"))?.text;
  return node.is(["public_field_definition", "field_definition", "property_signature"])
    ? member(node, "field", { isStatic, name })
    : [];
}

/** Classes of JavaScript and TypeScript. */
export const ecmascriptClasses: ClassFacts = {
  kinds: [
    "class_declaration",
    "class",
    "abstract_class_declaration",
    "interface_declaration",
    "enum_declaration",
  ],
  nameOf: (node) => node.child("name")?.text,
  parentsOf: (node) =>
    node.parts
      .filter((part) => part.is(["class_heritage", "extends_type_clause"]))
      .flatMap((part) => typeWords(part.text.replace(/\b(extends|implements)\b/g, ","))),
  membersOf: (node) => (node.child("body")?.parts ?? []).flatMap(memberIn),
  declaring: (name) => new RegExp(`\\b(?:class|interface|enum|type)\\s+${escaped(name)}\\b`),
  deriving: (name) => new RegExp(`\\bextends\\b[^{;]*\\b${escaped(name)}\\b`),
};
