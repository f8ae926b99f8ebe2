import {
  escaped,
  member,
  typeWords,
  withBranches,
  type ClassFacts,
  type DeclaredMember,
} from "../class-facts.js";
import type { SyntaxNode } from "../node.js";

/** Calls that define methods by their names. */
const DEFINES =
  /^(attr_reader|attr_accessor|define_method|def_delegator|def_delegators|alias_method|delegate)$/;

function memberIn(node: SyntaxNode): DeclaredMember[] {
  if (node.is("method")) return member(node, "method");
  if (node.is("singleton_method"))
    return member(node, "method", { isStatic: node.child("object")?.text === "self" });
  if (node.is("alias")) return member(node, "method");
  if (node.is("singleton_class"))
    return bodyParts(node)
      .flatMap(memberIn)
      .map((one) => ({ ...one, isStatic: true }));
  const called = node.is("call") ? (node.child("method")?.text ?? "") : "";
  // `private def x` and the like.
  if (/^(private|protected|public|module_function)$/.test(called))
    return (node.child("arguments")?.parts ?? []).flatMap(memberIn);
  if (!DEFINES.test(called)) return [];
  return (node.child("arguments")?.parts ?? [])
    .filter((part) => part.is(["simple_symbol", "string"]))
    .flatMap((part) => member(node, "method", { name: part.text.replace(/^:|["']/g, "") }));
}

const bodyOf = (node: SyntaxNode): SyntaxNode | undefined =>
  node.child("body") ?? node.child("block")?.child("body");

const CONDITIONS = [
  "if",
  "unless",
  "then",
  "else",
  "elsif",
  "begin",
  "rescue",
  "ensure",
  "if_modifier",
  "unless_modifier",
  "case",
  "when",
  "case_match",
  "in_clause",
];

const bodyParts = (node: SyntaxNode): SyntaxNode[] => withBranches(bodyOf(node)?.parts ?? [], CONDITIONS);

/** `Class.new(Hash) do … end` and `refine Hash do … end` add to a class, and so does a single method of an object. */
const isMade = (node: SyntaxNode): boolean =>
  node.is("call") &&
  ((node.child("receiver")?.text === "Class" && node.child("method")?.text === "new") ||
    (node.child("receiver") === undefined && node.child("method")?.text === "refine"));

/** Classes and modules of Ruby, opened again or made on the spot. */
export const rubyClasses: ClassFacts = {
  kinds: ["class", "module", "call"],
  nameOf: (node) => (node.is("call") ? undefined : typeWords(node.child("name")?.text ?? "")[0]),
  parentsOf(node) {
    if (node.is("call"))
      return isMade(node)
        ? (node.child("arguments")?.parts ?? []).flatMap((part) => typeWords(part.text))
        : [];
    const mixed = bodyParts(node).filter((part) => /^(include|prepend|extend)\b/.test(part.text));
    return [node.child("superclass"), ...mixed].flatMap((part) =>
      typeWords((part?.text ?? "").replace(/^(<|include|prepend|extend)/, "")),
    );
  },
  membersOf: (node) => bodyParts(node).flatMap(memberIn),
  declaring: (name) =>
    new RegExp(
      `\\b(?:class|module)\\s+(?:\\w+::)*${escaped(name)}\\b|\\brefine\\s+${escaped(name)}\\b|^\\s*${escaped(name)}\\s*=[^=]`,
      "m",
    ),
  deriving: (name) =>
    new RegExp(
      `\\bclass\\s+[\\w:]+\\s*<\\s*(?:::)?${escaped(name)}\\b|\\bClass\\.new\\(\\s*${escaped(name)}\\b|\\b(?:include|prepend|extend|refine)\\s+${escaped(name)}\\b`,
    ),
};
