import {
  escaped,
  member,
  typeWords,
  withBranches,
  type ClassFacts,
  type DeclaredMember,
} from "../class-facts.js";
import type { SyntaxNode } from "../node.js";

const CONDITIONS = ["preproc_if", "preproc_ifdef", "preproc_else", "preproc_elif", "preproc_elifdef"];

/** The innermost declarator: a name, an operator, a conversion. */
function innermost(
  declarator: SyntaxNode | undefined,
): { node: SyntaxNode; isFunction: boolean } | undefined {
  let at = declarator;
  let isFunction = false;
  while (at && !at.isLeaf && !at.is(["operator_name", "operator_cast", "destructor_name"])) {
    if (at.is("function_declarator")) isFunction = true;
    at = at.child("declarator") ?? at.firstPart;
  }
  return at && { node: at, isFunction };
}

function memberIn(node: SyntaxNode, className: string | undefined): DeclaredMember[] {
  if (!node.is(["field_declaration", "function_definition", "declaration"])) return [];
  const isStatic = node.parts.some((part) => part.is("storage_class_specifier") && part.text === "static");
  const declarators = node.children.filter((child) => child.field === "declarator");
  return declarators.flatMap((declarator): DeclaredMember[] => {
    const found = innermost(declarator);
    if (!found) return [];
    const { node: name, isFunction } = found;
    if (name.is("operator_name"))
      return member(node, "operator", { name: name.text.replace(/^operator\s*/, ""), isStatic });
    if (name.is("operator_cast"))
      return member(node, "conversion", { name: name.text.replace(/^operator\s*|\s*\([\s\S]*$/g, "") });
    if (name.text === className) return member(node, "constructor", { name: name.text });
    return member(node, isFunction ? "method" : "field", { name: name.text, isStatic });
  });
}

/** Classes and structs of C++, where they are defined. */
export const cppClasses: ClassFacts = {
  kinds: ["class_specifier", "struct_specifier", "union_specifier"],
  nameOf: (node) => (node.child("body") ? node.child("name")?.text : undefined),
  parentsOf: (node) =>
    node.parts
      .filter((part) => part.is("base_class_clause"))
      .flatMap((part) => typeWords(part.text.replace(/^:|\b(public|private|protected|virtual)\b/g, ""))),
  membersOf: (node) => {
    const name = node.child("name")?.text;
    let isOpen = !node.is("class_specifier");
    return withBranches(node.child("body")?.parts ?? [], CONDITIONS).flatMap((part) => {
      if (part.is("access_specifier")) isOpen = part.text.startsWith("public");
      const found = memberIn(part.is("template_declaration") ? part.lastPart! : part, name);
      return found.map((one) => ({ ...one, isOpen }));
    });
  },
  declaring: (name) =>
    new RegExp(
      `\\b(?:class|struct|union|enum)\\s+(?:class\\s+)?(?:\\w+\\s+)?${escaped(name)}\\s*(?:final\\s*)?[:{]` +
        `|\\btypedef\\b[^;]*\\b${escaped(name)}\\s*;|\\busing\\s+${escaped(name)}\\s*=|#\\s*define\\s+${escaped(name)}\\b`,
    ),
  deriving: (name) => new RegExp(`\\b(?:class|struct)\\s+[^{;]*:[^{;]*\\b${escaped(name)}\\b`),
};
