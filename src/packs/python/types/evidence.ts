import { isMissing, typeOf } from "../../../core.js";
import type { SyntaxNode } from "../../../core.js";

/** What a name stands for where that is found out at the moment: the types of parameters. */
export type Assumed = (name: SyntaxNode) => ReadonlySet<string> | undefined;

const NUMBERS = ["int", "float"];
const BUILTIN = /^(str|int|float|bool|bytes|list|dict|set|tuple|frozenset|complex)$/;
const NONE = "None";

/** The types that a value can have, `None` among them; undefined where the code does not say. */
export function kindsOf(node: SyntaxNode, assumed: Assumed): ReadonlySet<string> | undefined {
  const both = (...parts: (SyntaxNode | undefined)[]): ReadonlySet<string> | undefined =>
    union(parts.map((part) => part && kindsOf(part, assumed)));
  if (node.is("parenthesized_expression")) return kindsOf(node.firstPart!, assumed);
  if (isMissing(node)) return new Set([NONE]);
  if (node.is(["comparison_operator", "not_operator"])) return new Set(["bool"]);
  if (node.is("concatenated_string")) return kindsOf(node.firstPart!, assumed);
  if (node.is(["tuple", "expression_list"])) return new Set(["tuple"]);
  if (node.is("conditional_expression")) return both(node.parts[0], node.parts[2]);
  if (node.is("boolean_operator")) return ofBoolean(node, assumed);
  if (node.is("binary_operator")) return ofOperation(node, assumed);
  if (node.is("unary_operator")) return kindsOf(node.lastPart!, assumed);
  const known = node.is("identifier") ? assumed(node) : undefined;
  if (known) return known;
  const type = typeOf(node);
  if (!type) return undefined;
  const isOwn = type.declared?.as === "class";
  return isOwn || (type.module === undefined && BUILTIN.test(type.name)) ? new Set([type.name]) : undefined;
}

/** All of them together; undefined where one is not known. */
export function union(sets: readonly (ReadonlySet<string> | undefined)[]): ReadonlySet<string> | undefined {
  return sets.every((one) => one !== undefined) ? new Set(sets.flatMap((one) => [...one])) : undefined;
}

function ofBoolean(node: SyntaxNode, assumed: Assumed): ReadonlySet<string> | undefined {
  const left = kindsOf(node.child("left")!, assumed);
  const right = kindsOf(node.child("right")!, assumed);
  if (!left || !right) return undefined;
  // What is missing gives way to the other side.
  const first = node.child("operator")?.text === "or" ? [...left].filter((one) => one !== NONE) : [...left];
  return new Set([...first, ...right]);
}

function ofOperation(node: SyntaxNode, assumed: Assumed): ReadonlySet<string> | undefined {
  const operator = node.child("operator")!.text;
  const left = single(kindsOf(node.child("left")!, assumed));
  if (operator === "%" && left === "str") return new Set(["str"]);
  const right = single(kindsOf(node.child("right")!, assumed));
  if (left === undefined || right === undefined) return undefined;
  if (operator === "*" && right === "int" && /^(str|list|tuple|bytes)$/.test(left)) return new Set([left]);
  if (NUMBERS.includes(left) && NUMBERS.includes(right)) {
    if (operator === "**") return undefined;
    return new Set([operator === "/" || left === "float" || right === "float" ? "float" : "int"]);
  }
  return operator === "+" && left === right && /^(str|list|tuple|bytes)$/.test(left)
    ? new Set([left])
    : undefined;
}

/** The one type that an operand can have; with what is missing the operation would fail. */
function single(kinds: ReadonlySet<string> | undefined): string | undefined {
  const [only, ...more] = [...(kinds ?? [])].filter((one) => one !== NONE);
  return more.length === 0 ? only : undefined;
}

/** One type for several, and whether the value may be missing; undefined where they have nothing in common. */
export function typeFor(kinds: ReadonlySet<string>): { name: string; mayBeMissing: boolean } | undefined {
  const there = [...kinds].filter((one) => one !== NONE);
  const mayBeMissing = kinds.has(NONE);
  if (there.length === 0) return mayBeMissing ? { name: NONE, mayBeMissing: false } : undefined;
  const [only, ...more] = there;
  if (more.length === 0) return { name: only!, mayBeMissing };
  return there.every((one) => NUMBERS.includes(one)) ? { name: "float", mayBeMissing } : undefined;
}
