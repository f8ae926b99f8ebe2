import { functionAround, isDefinedInProject, operatorOf } from "../analysis/index.js";
import { oncePerNode, partsOfBranch, shapeOf, type SyntaxNode } from "../syntax/index.js";

/** A branch by its parts: what is tested, and the statements of each way; none where a way is left out. */
export interface Ways {
  readonly test: SyntaxNode;
  /** The statements for a test that is true; the one expression of a conditional. */
  readonly yes: readonly SyntaxNode[];
  readonly no: readonly SyntaxNode[];
}

/** Is it an operator that evaluates both of its sides: `a + b`, of a kind of nodes with others that do not? */
export function isPlainOperator(node: SyntaxNode): boolean {
  const shape = shapeOf(node);
  return shape?.is === "shortCircuit" && shape.runsIf[operatorOf(node)] === undefined;
}

/** The kinds of nodes that branch. */
export function branchKinds(shapes: SyntaxNode["tree"]["language"]["flow"]["shapes"]): string[] {
  return Object.entries(shapes).flatMap(([kind, shape]) =>
    typeof shape === "object" && shape.is === "branch" ? [kind] : [],
  );
}

/** The ways of a branch; undefined for what is none, or for one way of a longer chain of tests (`elif`). */
export const waysOf = oncePerNode<Ways | undefined>(readWays);

function readWays(node: SyntaxNode): Ways | undefined {
  const shape = shapeOf(node);
  if (shape?.is !== "branch") return undefined;
  const [then, [test], otherwise] = partsOfBranch(node, shape);
  if (!test || otherwise.length > 1) return undefined;
  const [one, other] = [then.flatMap(statementsOf), otherwise.flatMap(statementsOf)];
  return shape.negated ? { test, yes: other, no: one } : { test, yes: one, no: other };
}

/** The statements of one way, whatever stands around them. */
export function statementsOf(way: SyntaxNode): readonly SyntaxNode[] {
  const { language } = way.tree;
  if (way.is(language.statementLists)) return way.parts;
  if (way.is(language.flow.wrappers)) return way.parts.flatMap(statementsOf);
  return [way];
}

/** The expression that a statement is. */
export function expressionOf(statement: SyntaxNode): SyntaxNode {
  const { expressionStatement } = statement.tree.language;
  const [only] = statement.parts;
  return statement.is(expressionStatement) && only && statement.parts.length === 1 ? only : statement;
}

/** Does a node stand among statements, so that what it gives is not used? */
export function isStatement({ parent, field, tree }: SyntaxNode): boolean {
  const { statementLists, flow } = tree.language;
  if (!parent) return true;
  if (parent.is(statementLists) || parent.is(flow.wrappers)) return true;
  // The only statement of a branch or a loop, without braces.
  const shape = shapeOf(parent);
  if (shape === undefined || !/statement$|_clause$/.test(parent.kind)) return false;
  if (shape.is === "branch") return [shape.then, shape.otherwise].includes(field ?? "");
  return (shape.is === "loop" || shape.is === "each") && shape.body === field;
}

/** The statement after a node, or before it, in the same list. */
export function neighbour(node: SyntaxNode, side: "before" | "after"): SyntaxNode | undefined {
  const { parent, tree } = node;
  if (!parent?.is(tree.language.statementLists)) return undefined;
  return side === "after" ? node.nextPart : node.previousPart;
}

/** Is a statement the last of a function, where what it comes to is what the function gives? */
export function isGiven(node: SyntaxNode): boolean {
  return node.tree.language.flow.lastIsGiven && isLast(node);
}

/**
 * May somebody see what a statement comes to, in a language where every statement comes to something? What walks something
 * with a block makes nothing of the block's value, unless the project has a method of its own of that name.
 */
export function isValueSeen(node: SyntaxNode): boolean {
  const { flow } = node.tree.language;
  const taker = flow.takerOf(node);
  const method = taker?.parent?.child("method")?.text;
  if (!taker || method === undefined || !flow.walksByBlock.test(method)) return taker !== undefined;
  return isDefinedInProject(method, node.tree) !== undefined;
}

/** Is a statement the last of a function? */
export function isLast(node: SyntaxNode): boolean {
  const { parent } = node;
  if (!parent || neighbour(node, "after")) return false;
  const owner = functionAround(node);
  return (
    owner !== undefined && (owner.same(parent) || owner.same(parent.parent)) && !isStatementOfTry(parent)
  );
}

/** Is a body more than its statements, such as one with `rescue` or `ensure`? */
function isStatementOfTry(body: SyntaxNode): boolean {
  return body.parts.some((part) => /^(rescue|ensure|else)$/.test(part.kind));
}
