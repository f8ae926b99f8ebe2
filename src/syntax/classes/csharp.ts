import {
  escaped,
  member,
  typeWords,
  withBranches,
  type ClassFacts,
  type DeclaredMember,
} from "../class-facts.js";
import type { SyntaxNode } from "../node.js";

const CONDITIONS = ["preproc_if", "preproc_elif", "preproc_else"];

const modifiersOf = (node: SyntaxNode): string[] =>
  node.parts.filter((part) => part.is("modifier")).map((part) => part.text);

/** A property without bodies, which no derived class can give one. */
function isAutomatic(property: SyntaxNode): boolean {
  const modifiers = modifiersOf(property);
  if (["virtual", "abstract", "override", "extern"].some((one) => modifiers.includes(one))) return false;
  if (property.closest(["interface_declaration"])) return false;
  const accessors = property.child("accessors")?.parts ?? [];
  return accessors.length > 0 && accessors.every((one) => !one.child("body"));
}

function memberIn(node: SyntaxNode): DeclaredMember[] {
  const isStatic = modifiersOf(node).includes("static");
  switch (node.kind) {
    case "method_declaration":
      return member(node, "method", { isStatic, type: node.child("returns")?.text });
    case "constructor_declaration":
      return member(node, "constructor");
    case "property_declaration":
      return member(node, "property", {
        isStatic,
        isPlain: isAutomatic(node),
        type: node.child("type")?.text,
      });
    case "indexer_declaration":
      return member(node, "method", { name: "[]" });
    case "operator_declaration":
      return member(node, "operator", { name: node.child("operator")?.text, isStatic: true });
    case "conversion_operator_declaration":
      return member(node, "conversion", { name: node.child("type")?.text, isStatic: true });
    case "field_declaration":
    case "event_field_declaration":
      return [...node.descendants()]
        .filter((one) => one.is("variable_declarator"))
        .flatMap((one) => member(one, "field", { isStatic, type: one.parent?.child("type")?.text }));
    case "event_declaration":
      return member(node, "property");
    default:
      return node.is(csharpClasses.kinds) ? member(node, "field") : [];
  }
}

/** Classes, structs, interfaces, records, enums and delegates of C#. */
export const csharpClasses: ClassFacts = {
  kinds: [
    "class_declaration",
    "struct_declaration",
    "interface_declaration",
    "record_declaration",
    "enum_declaration",
    "delegate_declaration",
  ],
  nameOf: (node) => node.child("name")?.text,
  parentsOf: (node) =>
    node.parts
      .filter((part) => part.is("base_list"))
      .flatMap((part) => typeWords(part.text.replace(/^:/, ""))),
  membersOf: (node) => withBranches(node.child("body")?.parts ?? [], CONDITIONS).flatMap(memberIn),
  declaring: (name) =>
    new RegExp(
      `\\b(?:class|struct|interface|enum|record)\\s+(?:class\\s+|struct\\s+)?${escaped(name)}\\b` +
        `|\\bdelegate\\s+[^;(]*\\s${escaped(name)}\\s*[<(]|\\busing\\s+${escaped(name)}\\s*=`,
    ),
  deriving: (name) =>
    new RegExp(`\\b(?:class|struct|interface|record)\\s+[^{;]*:[^{;]*\\b${escaped(name)}\\b`),
};
