import { baseOf, stepsFrom, type SyntaxNode } from "../../index.js";

/** One operand of a chain of `&&`, as a test of something or as the read that the tests protect. */
export interface Operand {
  readonly node: SyntaxNode;
  /** What is tested for being there. */
  readonly subject: SyntaxNode;
  /** Is it tested for being missing (`a != null`), and not for being true? */
  readonly exact: boolean;
}

/** The operands of `a && b && c`, from left to right. */
export function operandsOf(and: SyntaxNode): Operand[] {
  const left = and.child("left");
  const right = and.child("right");
  if (!left || !right) return [];
  return [...(isAnd(left) ? operandsOf(left) : [operand(left)]), operand(right)];
}

export function isAnd(node: SyntaxNode | undefined): boolean {
  return node?.is("binary_expression") === true && node.child("operator")?.kind === "&&";
}

function operand(node: SyntaxNode): Operand {
  const left = node.child("left");
  const isTest = node.is("binary_expression") && node.child("operator")?.kind === "!=";
  if (isTest && left && node.child("right")?.is(["null", "undefined"]))
    return { node, subject: left, exact: true };
  return { node, subject: node, exact: false };
}

const STEPS = ["member_expression", "subscript_expression", "call_expression"];

/** Is it a name, `this`, or properties and items of one, with nothing called on the way? */
export function isPlainAccess(node: SyntaxNode): boolean {
  if (node.is(["identifier", "this"])) return true;
  if (!node.is(["member_expression", "subscript_expression"])) return false;
  const index = node.child("index");
  if (index && !index.is(["identifier", "number", "string", "this"])) return false;
  const base = baseOf(node);
  return base !== undefined && isPlainAccess(base);
}

/** The steps behind `base` where all of them may stand behind `?.`; none if one may not. */
export function optionalSteps(base: SyntaxNode, longer: SyntaxNode): SyntaxNode[] {
  const steps = stepsFrom(base, longer);
  const isBarred = (step: SyntaxNode): boolean =>
    !step.is(STEPS) ||
    step.child("arguments")?.is("template_string") === true ||
    step.child("property")?.is("private_property_identifier") === true;
  return steps.some(isBarred) ? [] : steps;
}
