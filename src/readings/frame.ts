import { valueOf } from "../analysis/index.js";
import {
  jumpOf,
  shapeOf,
  significantChildren,
  treesEqual,
  unwrapped,
  type SyntaxNode,
} from "../syntax/index.js";

/** A statement with the place in it where a value goes: it is assigned, returned, passed or thrown. */
export interface Frame {
  readonly statement: SyntaxNode;
  readonly value: SyntaxNode;
  /** The value goes behind this node, which is declared without one, and not in its place. */
  readonly isUnset?: true;
  /** Where what stays begins, if statements ahead of this one stay as well. */
  readonly from?: number;
  /** Code behind the statement that is run ahead of it from now on. */
  readonly ahead?: { readonly start: number; readonly end: number };
}

/** Two pieces of code that are the same but for one value each. */
export interface Difference {
  readonly one: SyntaxNode;
  readonly other: SyntaxNode;
}

/**
 * The one value by which two statements differ: what each of them assigns, returns, passes on or throws; undefined where
 * they differ otherwise. The smallest such value counts.
 */
export function differenceOf(one: SyntaxNode, other: SyntaxNode): Difference | undefined {
  const path: Difference[] = [];
  let at: Difference | undefined = { one, other };
  while (at) {
    path.push(at);
    at = inside(at);
  }
  return path.findLast((pair) => isValuePlace(pair.one, one) && isValuePlace(pair.other, other));
}

/** The only children by which two nodes of the same kind differ. */
function inside({ one, other }: Difference): Difference | undefined {
  const [a, b] = [open(one), open(other)];
  if (a.kind !== b.kind || a.isLeaf || b.isLeaf || a.is(a.tree.language.strings)) return undefined;
  const [left, right] = [a, b].map((node) => significantChildren(node.tree, node.id)) as [number[], number[]];
  if (left.length !== right.length) return undefined;
  const apart = left.flatMap((n, i) => (treesEqual(a.tree, n, b.tree, right[i]!) ? [] : [i]));
  const [i] = apart;
  return apart.length === 1 && i !== undefined
    ? { one: a.tree.node(left[i]!), other: b.tree.node(right[i]!) }
    : undefined;
}

function open(node: SyntaxNode): SyntaxNode {
  return node.tree.node(unwrapped(node.tree, node.id));
}

/** May any other expression stand in the place of this one, within a statement, and be evaluated as often? */
export function isValuePlace(node: SyntaxNode, statement: SyntaxNode): boolean {
  const { language } = node.tree;
  if (!node.named || node.same(statement) || node.is(language.notExpressions)) return false;
  if (language.flow.takesVariable(node)) return false;
  const { parent } = node;
  if (!parent) return false;
  if (parent.is(language.argumentLists)) {
    const call = callAround(parent);
    if (!call) return jumpAround(parent) !== undefined && parent.parts.length === 1;
    return isWhole(call, statement) || isValuePlace(call, statement);
  }
  if (parent.is(language.parenthesized) || parent.is(language.suspensions))
    return isWhole(parent, statement) ? jumpOf(parent) !== undefined : isValuePlace(parent, statement);
  // An operand that is always evaluated.
  if (parent.is(language.binary) && shapeOf(parent) === undefined) return isValuePlace(parent, statement);
  if (jumpOf(parent) === "return" || jumpOf(parent) === "throw") return isWhole(parent, statement);
  const assignment = assignmentWith(node);
  return assignment !== undefined && (isWhole(assignment, statement) || isValuePlace(assignment, statement));
}

function callAround(list: SyntaxNode): SyntaxNode | undefined {
  const { calls, flow } = list.tree.language;
  let call = list.parent;
  if (call && !call.is(calls) && call.parts.length === 1) call = call.parent;
  return call && (call.is(calls) || call.is(flow.missing.creations)) ? call : undefined;
}

/** `return x`, where the grammar puts what is returned into a list. */
function jumpAround(list: SyntaxNode): SyntaxNode | undefined {
  const { parent } = list;
  return parent && jumpOf(parent) === "return" ? parent : undefined;
}

/** The assignment or declaration whose value a node is. */
function assignmentWith(node: SyntaxNode): SyntaxNode | undefined {
  const { parent } = node;
  return parent && valueOf(parent)?.same(node) === true ? parent : undefined;
}

/** Is this all of a statement, but for what is written around an expression or a single declaration to make it one? */
function isWhole(node: SyntaxNode, statement: SyntaxNode): boolean {
  for (let at: SyntaxNode | undefined = node; at && !at.same(statement); at = at.parent) {
    const above: SyntaxNode | undefined = at.parent;
    if (!above) return false;
    const others = above.parts.filter((part) => !part.same(at) && !isNotation(part));
    if (others.length > 0) return false;
  }
  return statement.holds(node);
}

/** Does a part stand beside a declared name and evaluate nothing: its type, its modifiers? */
function isNotation(part: SyntaxNode): boolean {
  const { modifiers, modifierLists } = part.tree.language;
  return (
    part.field === "type" ||
    part.is(modifiers) ||
    part.is(modifierLists) ||
    /_qualifier$|_specifier$/.test(part.kind)
  );
}

/** The single assignment or declaration that a statement is, with the name or place that it writes and its value. */
export function assignedBy(
  statement: SyntaxNode,
): { readonly target: SyntaxNode; readonly value: SyntaxNode; readonly declares: boolean } | undefined {
  const { flow } = statement.tree.language;
  let at: SyntaxNode | undefined = statement;
  for (let depth = 0; at && depth < 4; depth++) {
    // Something more is done with what is assigned: `-(x = 1)`.
    if (/unary|not_operator/.test(at.kind) || at.is(statement.tree.language.suspensions)) return undefined;
    const table = flow.assignments[at.kind];
    if (table) {
      const value = valueOf(at);
      const target = at.child(table.target) ?? at.firstPart;
      if (!value || !target || !isPlain(at) || flow.takesVariable(value)) return undefined;
      return { target, value, declares: !at.same(statement) && /declarator/.test(at.kind) };
    }
    const inner: SyntaxNode[] = at.parts.filter((part) => !isNotation(part));
    at = inner.length === 1 ? inner[0] : undefined;
  }
  return undefined;
}

/** `=`, and not `+=` or `&=`. */
function isPlain(assignment: SyntaxNode): boolean {
  const { language } = assignment.tree;
  if (assignment.is(language.augmented)) return false;
  const operator = assignment.children.find(
    (child) => /^[^\w\s]*=$/.test(child.text) && child.end > assignment.start,
  );
  return operator === undefined || operator.text === "=";
}

/** What is evaluated in a statement ahead of a value in it, and is more than a name. */
export function evaluatedAhead({ statement, value }: Frame): SyntaxNode[] {
  const result: SyntaxNode[] = [];
  for (let at = value; !at.same(statement) && at.parent; at = at.parent) {
    const target = assignmentWith(at) && targetOf(at.parent);
    for (const part of at.parent.parts) {
      if (part.end > at.start || isNotation(part) || part.is(part.tree.language.operators)) continue;
      // Of a target only what it is found by is evaluated first.
      const pieces = target?.same(part) ? part.parts.filter((piece) => piece.field !== "name") : [part];
      result.push(...pieces.filter((piece) => !piece.isLeaf && !isCalledByName(piece)));
    }
  }
  return result;
}

function targetOf(assignment: SyntaxNode): SyntaxNode | undefined {
  const table = assignment.tree.language.flow.assignments[assignment.kind];
  return table && (assignment.child(table.target) ?? assignment.firstPart);
}

/** The method in `hive.weigh(…)`, which is looked up and not evaluated. */
function isCalledByName(piece: SyntaxNode): boolean {
  const { calls, memberReads } = piece.tree.language;
  return (
    piece.field === "function" && piece.parent?.is(calls) === true && piece.is(memberReads) && isPath(piece)
  );
}

/** A name, or members of one. */
export function isPath(node: SyntaxNode): boolean {
  const { memberReads, calls } = node.tree.language;
  const [base] = node.parts;
  if (node.is(calls)) return false;
  if (node.isLeaf) return true;
  if (node.is(memberReads)) return base !== undefined && isPath(base);
  // `$x` is a node with the name in it.
  return node.parts.length === 1 && base!.isLeaf && !node.is(node.tree.language.indexReads);
}
