import { operatorOf } from "../analysis/index.js";
import { removal, textAt, type Edit } from "../rewrite/index.js";
import { jumpOf, oncePerNode, shapeOf, type SyntaxNode } from "../syntax/index.js";
import { unnegated, type Demand } from "./presence-test.js";
import { statementsOf, waysOf } from "./ways.js";

/** What a loop does for those items only that pass one or more tests. */
export interface Passing {
  /** What all must hold, in the order in which it is asked. */
  readonly demands: readonly Demand[];
  /** The statements that are run for what passes. */
  readonly run: readonly SyntaxNode[];
  /** The edit within the loop's body that no longer asks for one of the demands; undefined where it cannot be taken out. */
  without(demand: Demand): Edit | undefined;
}

const passing = oncePerNode<Passing | undefined>(readPassing);

/**
 * The body of a loop as what is run for some items only: all of it stands in a branch, or what does not pass goes on with
 * the next item first, with braces or without, negated, joined with other tests.
 */
export function passingOf(body: SyntaxNode): Passing | undefined {
  return passing(body);
}

function readPassing(body: SyntaxNode): Passing | undefined {
  const [branch, ...others] = statementsOf(body);
  const ways = branch && waysOf(branch);
  if (!ways) return undefined;
  const { test, yes, no } = ways;
  if (yes.length > 0 === no.length > 0) return undefined;
  const isYes = yes.length > 0;
  const way = isYes ? yes : no;
  const goesOn = way.length === 1 && jumpOf(way[0]!) === "continue" && way[0]!.parts.length === 0;
  const isGuard = goesOn && others.length > 0;
  if (!isGuard && others.length > 0) return undefined;
  const demands = demandsOf(test, isGuard ? !isYes : isYes);
  const whole = (): Edit => (isGuard ? removal(branch) : unwrapped(body, branch, way));
  const without = (demand: Demand): Edit | undefined =>
    demands.length === 1 ? whole() : withoutOperand(demand.test, test);
  return { demands, run: isGuard ? others : way, without };
}

/** What must hold for a condition to come out one way, operand by operand, negations seen through. */
function demandsOf(condition: SyntaxNode, wanted: boolean): Demand[] {
  const { test, isTrue } = unnegated(condition, wanted);
  const shape = shapeOf(test);
  const runs = shape?.is === "shortCircuit" ? shape.runsIf[operatorOf(test)] : undefined;
  if (runs !== (isTrue ? "true" : "false")) return [{ test, isTrue }];
  return [test.firstPart!, test.lastPart!].flatMap((one) => demandsOf(one, isTrue));
}

/** What is run, in place of the branch that it stands in. */
function unwrapped(body: SyntaxNode, branch: SyntaxNode, way: readonly SyntaxNode[]): Edit {
  const { tree, start, end } = branch;
  const list = way[0]!.parent;
  const isBlock = list?.is(tree.language.statementLists) === true && branch.holds(list);
  // A loop without braces takes those of the branch.
  const isWhole = body.same(branch) && isBlock;
  const range = isWhole ? list : { start: way[0]!.start, end: way.at(-1)!.end };
  const inner = isBlock && !isWhole ? insideOf(list, range) : range;
  return { start, end, text: textAt(tree, inner, tree.indentAt(start)) };
}

/** Statements of a block with the comments around them, as far as those have lines of their own. */
function insideOf({ tree, children }: SyntaxNode, range: { readonly start: number; readonly end: number }) {
  const all = children.filter((one) => one.is(tree.language.comments));
  const comments = all.filter((one) => tree.firstOnLine(one.start) === one.start);
  const start = Math.min(range.start, ...comments.map((one) => one.start));
  const end = Math.max(range.end, ...all.map((one) => one.end));
  return { start, end };
}

/** A condition without one of its operands, which goes with the operator beside it. */
function withoutOperand(operand: SyntaxNode, condition: SyntaxNode): Edit | undefined {
  let side = operand;
  while (!side.same(condition) && side.parent && shapeOf(side.parent)?.is !== "shortCircuit")
    side = side.parent;
  const { parent, start, end } = side;
  if (!parent || !condition.holds(parent)) return undefined;
  const [left, right] = [parent.firstPart!, parent.lastPart!];
  return side.same(left) ? { start, end: right.start, text: "" } : { start: left.end, end, text: "" };
}
