import { escaped, member, typeWords, type ClassFacts } from "../class-facts.js";
import type { SyntaxNode } from "../node.js";

const HEADS = ["superclass", "super_interfaces", "extends_interfaces"];

/** What may be declared in a class, and is seen by its name in those derived from it. */
const TYPES = ["class_declaration", "interface_declaration", "enum_declaration", "record_declaration"];

function bodyOf(node: SyntaxNode): SyntaxNode | undefined {
  return node.child("body") ?? node.parts.find((part) => part.is("class_body"));
}

/** Classes of Java, those without a name too. */
export const javaClasses: ClassFacts = {
  kinds: [
    "class_declaration",
    "interface_declaration",
    "enum_declaration",
    "record_declaration",
    "annotation_type_declaration",
    "object_creation_expression",
  ],
  nameOf: (node) => node.child("name")?.text,
  parentsOf(node) {
    if (node.is("object_creation_expression"))
      return bodyOf(node) ? typeWords(node.child("type")?.text ?? "") : [];
    return node.parts
      .filter((part) => part.is(HEADS))
      .flatMap((part) => typeWords(part.text.replace(/^(extends|implements)\b/, "")));
  },
  membersOf(node) {
    const body = bodyOf(node);
    const parts = body?.parts.flatMap((part) => (part.is("enum_body_declarations") ? part.parts : [part]));
    return (parts ?? []).flatMap((part) => {
      const isStatic = part.parts.some((one) => one.is("modifiers") && one.has("static"));
      if (part.is("method_declaration")) return member(part, "method", { isStatic });
      if (part.is("constructor_declaration")) return member(part, "constructor");
      if (part.is(TYPES)) return member(part, "field");
      if (!part.is(["field_declaration", "constant_declaration"])) return [];
      return part.parts
        .filter((one) => one.is("variable_declarator"))
        .flatMap((one) => member(one, "field", { isStatic }));
    });
  },
  declaring: (name) => new RegExp(`\\b(?:class|interface|enum|record)\\s+${escaped(name)}\\b`),
  deriving: (name) =>
    new RegExp(
      `\\b(?:extends|implements)\\b[^{;]*\\b${escaped(name)}\\b|\\bnew\\s+(?:[\\w.]+\\.)?${escaped(name)}\\b[^;{]*\\{`,
    ),
};
