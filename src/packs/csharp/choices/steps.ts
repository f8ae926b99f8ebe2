import { isSideEffectFree, sameCode } from "../../../core.js";
import type { SyntaxNode } from "../../../core.js";
import { withoutParentheses, withParentheses } from "../../family/parentheses.js";

/** Conditional operators one after the other: each condition with what it gives, and what is left. */
export interface Steps {
  readonly whole: SyntaxNode;
  readonly steps: readonly { readonly condition: SyntaxNode; readonly value: SyntaxNode }[];
  readonly otherwise: SyntaxNode;
}

/** Reads conditional operators that stand in each other's last place; undefined for one alone, and within another. */
export function stepsAt(whole: SyntaxNode): Steps | undefined {
  const below = withParentheses(whole);
  const above = below.parent;
  if (above?.is("conditional_expression") && above.child("alternative")?.same(below)) return undefined;
  const steps: { condition: SyntaxNode; value: SyntaxNode }[] = [];
  let at = whole;
  while (at.is("conditional_expression")) {
    const [condition, value, rest] = [
      at.child("condition"),
      at.child("consequence"),
      at.child("alternative"),
    ];
    if (!condition || !value || !rest) return undefined;
    steps.push({ condition: withoutParentheses(condition), value });
    at = withoutParentheses(rest);
  }
  return steps.length >= 2 ? { whole, steps, otherwise: at } : undefined;
}

/** What all conditions compare, and with which constants; undefined where they ask different things. */
export interface Cases {
  readonly subject: SyntaxNode;
  readonly constants: readonly SyntaxNode[];
}

const isConstant = (node: SyntaxNode): boolean =>
  /_literal$/.test(node.kind) ||
  (node.is("member_access_expression") && /^[A-Z]\w*(\.[A-Z]\w*)+$/.test(node.text));

/** Reads the conditions as questions for one value: `n == 1`, `n == 2`. */
export function casesOf({ steps }: Steps): Cases | undefined {
  let subject: SyntaxNode | undefined;
  const constants: SyntaxNode[] = [];
  for (const { condition } of steps) {
    const [left, right] = [condition.child("left"), condition.child("right")];
    if (!condition.is("binary_expression") || condition.child("operator")?.text !== "==" || !left || !right)
      return undefined;
    const [asked, constant] = isConstant(right) ? [left, right] : [right, left];
    if (!isConstant(constant) || isConstant(asked) || (subject && !sameCode(subject, asked)))
      return undefined;
    subject ??= asked;
    constants.push(constant);
  }
  const isDouble = constants.some((one, n) => constants.slice(0, n).some((other) => sameCode(one, other)));
  return subject && !isDouble && isSideEffectFree(subject).is !== "no" ? { subject, constants } : undefined;
}
