import {
  escaped,
  member,
  typeWords,
  withBranches,
  type ClassFacts,
  type DeclaredMember,
} from "../class-facts.js";
import type { SyntaxNode } from "../node.js";

const CONDITIONS = [
  "if_statement",
  "elif_clause",
  "else_clause",
  "try_statement",
  "except_clause",
  "finally_clause",
  "with_statement",
  "for_statement",
  "while_statement",
  "match_statement",
  "case_clause",
  "block",
];

function memberIn(node: SyntaxNode): DeclaredMember[] {
  if (node.is("decorated_definition")) {
    const definition = node.child("definition");
    const marks = node.parts.filter((part) => part.is("decorator")).map((part) => part.text);
    if (!definition?.is("function_definition")) return [];
    const isMethod = marks.every((mark) =>
      /^@(staticmethod|classmethod|functools\.|abstractmethod)/.test(mark),
    );
    return member(definition, isMethod ? "method" : "property", {
      isStatic: marks.some((mark) => /^@(staticmethod|classmethod)/.test(mark)),
    });
  }
  if (node.is("function_definition")) return member(node, "method");
  if (node.is("class_definition")) return member(node, "field");
  const assignment = node.is("expression_statement") ? node.firstPart : undefined;
  const left = assignment?.is("assignment") ? assignment.child("left") : undefined;
  return left?.is("identifier") ? member(node, "field", { name: left.text, isStatic: true }) : [];
}

/** Classes of Python, with what their bodies assign. */
export const pythonClasses: ClassFacts = {
  kinds: ["class_definition"],
  nameOf: (node) => node.child("name")?.text,
  parentsOf: (node) =>
    (node.child("superclasses")?.parts ?? [])
      .filter((part) => !part.is("keyword_argument"))
      .flatMap((part) => typeWords(part.text).slice(0, 1)),
  membersOf: (node) => withBranches(node.child("body")?.parts ?? [], CONDITIONS).flatMap(memberIn),
  declaring: (name) => new RegExp(`\\bclass\\s+${escaped(name)}\\b|^${escaped(name)}\\s*=`, "m"),
  deriving: (name) => new RegExp(`\\bclass\\s+\\w+\\s*\\([^)]*\\b${escaped(name)}\\b`),
};
