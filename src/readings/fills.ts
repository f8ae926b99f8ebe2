import { operatorOf, valueOf } from "../analysis/index.js";
import { jumpOf, oncePerNode, sameCode, shapeOf, type SyntaxNode } from "../syntax/index.js";
import { assignedBy, type Frame } from "./frame.js";
import { asksFor, bare, presenceOf, type PresenceTest } from "./presence-test.js";
import { isGiven, isLast, isPlainOperator, isStatement, neighbour, waysOf } from "./ways.js";

/** A place that is given a value where it has none, however that is spelt. */
export interface Fill {
  readonly place: SyntaxNode;
  readonly value: SyntaxNode;
  readonly test: PresenceTest;
  /** All that spells it. */
  readonly nodes: readonly SyntaxNode[];
  /** The statement that the filling goes into, and the code in it that it takes the place of. */
  readonly frame?: Frame;
}

function fillsOf(node: SyntaxNode): Fill[] {
  const shape = shapeOf(node);
  if (shape?.is === "branch") return [...byBranch(node), ...byGuard(node)];
  if (shape?.is === "shortCircuit") return byOperator(node);
  return byAssignment(node);
}

/** `if (x == null) x = v;`, with nothing done otherwise. */
function byBranch(node: SyntaxNode): Fill[] {
  const ways = waysOf(node);
  if (!ways || !isStatement(node)) return [];
  const { yes, no } = ways;
  const [way] = [...yes, ...no];
  if (!way || yes.length + no.length !== 1) return [];
  const assigned = writtenBy(way);
  if (!assigned) return [];
  const test = presenceOf(ways.test);
  if (test.isThere === yes.length > 0 || !asksForPlace(test, assigned.target)) return [];
  const { target: place, value, assignment } = assigned;
  const frame = { statement: way, value: assignment };
  return [{ place, value, test, nodes: [node], frame }];
}

/** `if (x) return x; x = v; return x;`, `if (x) return; x = v;` as the last of a function. */
function byGuard(node: SyntaxNode): Fill[] {
  const ways = waysOf(node);
  if (!ways) return [];
  const { yes, no } = ways;
  const [way] = [...yes, ...no];
  if (!way || yes.length + no.length !== 1 || jumpOf(way) !== "return") return [];
  const made = neighbour(node, "after");
  const last = made && neighbour(made, "after");
  const assigned = made && writtenBy(made);
  if (!assigned) return [];
  const test = presenceOf(ways.test);
  if (test.isThere !== yes.length > 0 || !asksForPlace(test, assigned.target)) return [];
  const { target: place, value } = assigned;
  if (!last) {
    const given = returned(way);
    // The assignment itself is what the function gives, or there is nothing that it gives.
    const { lastIsGiven } = node.tree.language.flow;
    const isSame = given
      ? sameCode(given, place) && isGiven(made)
      : !lastIsGiven && way.parts.length === 0 && isLast(made);
    const frame = { statement: made, value: assigned.assignment };
    return isSame ? [{ place, value, test, nodes: [node, made], frame }] : [];
  }
  const [early, late] = [returned(way), returned(last)];
  if (!early || !late || !sameCode(early, place) || !sameCode(late, place)) return [];
  const frame = { statement: last, value: late };
  return [{ place, value, test, nodes: [node, made, last], frame }];
}

/** What a `return` gives, or the last statement of a function where that is the same. */
function returned(statement: SyntaxNode): SyntaxNode | undefined {
  if (jumpOf(statement) !== "return") return undefined;
  const [only] = statement.parts;
  const values = only?.is(statement.tree.language.argumentLists) ? only.parts : statement.parts;
  return values.length === 1 ? values[0] : undefined;
}

/** `x ?? (x = v)`, `x || (x = v)`; `x == null && (x = v)` where only the writing counts. */
function byOperator(node: SyntaxNode): Fill[] {
  const shape = shapeOf(node);
  const [left, right] = [node.firstPart, node.lastPart];
  const assigned = right && writtenBy(bare(right));
  if (shape?.is !== "shortCircuit" || !left || !assigned) return [];
  const { target: place, value } = assigned;
  const test = askedByOperator(shape.runsIf[operatorOf(node)], left);
  if (!test || !asksForPlace(test, place)) return [];
  const isOperand = test.by === "truth" && test.isThere;
  if (!isOperand && !isAlone(node)) return [];
  return [{ place, value, test, nodes: [node] }];
}

/** The test by which an operator decides that its right side is needed: what is there keeps it from running. */
function askedByOperator(runsIf: string | undefined, left: SyntaxNode): PresenceTest | undefined {
  if (runsIf === "missing") {
    const test = presenceOf(left);
    const { coalesceAsks } = left.tree.language.flow.missing;
    return test.by === "truth" && test.isThere ? { ...test, asks: coalesceAsks } : undefined;
  }
  if (runsIf === undefined) return undefined;
  const test = presenceOf(left);
  return test.isThere === (runsIf === "false") ? test : undefined;
}

/** Is an expression a statement by itself, so that its value is not used? */
function isAlone(node: SyntaxNode): boolean {
  const { expressionStatement } = node.tree.language;
  return expressionStatement === "" ? isStatement(node) : node.parent?.is(expressionStatement) === true;
}

/** `x = x ?? v`, `x = x || v`, `x = x != null ? x : v`. */
function byAssignment(node: SyntaxNode): Fill[] {
  const written = valueOf(node);
  const chosen = written && bare(written);
  const shape = chosen && shapeOf(chosen);
  if (shape?.is !== "shortCircuit" && shape?.is !== "branch") return [];
  const assigned = assignedBy(node);
  if (!chosen || !assigned || assigned.declares) return [];
  const { target: place } = assigned;
  if (shape?.is === "shortCircuit") {
    const [left, value] = [chosen.firstPart, chosen.lastPart];
    const runsIf = shape.runsIf[operatorOf(chosen)];
    const test = left && runsIf !== "true" ? askedByOperator(runsIf, left) : undefined;
    if (!test?.isThere || test.by !== "truth" || !value || !sameCode(test.subject, place)) return [];
    return [{ place, value, test, nodes: [node] }];
  }
  const ways = waysOf(chosen);
  const [yes, no] = [ways?.yes[0], ways?.no[0]];
  if (!ways || !yes || !no || ways.yes.length + ways.no.length !== 2) return [];
  const test = presenceOf(ways.test);
  const [kept, value] = test.isThere ? [yes, no] : [no, yes];
  if (!asksForPlace(test, place) || !sameCode(kept, place)) return [];
  return [{ place, value, test, nodes: [node] }];
}

/** Does a test ask for the place that is filled? Of a wrapper the wrapper is filled, and not the value in it. */
function asksForPlace(test: PresenceTest, place: SyntaxNode): boolean {
  return test.asks === "value" ? sameCode(test.subject, bare(place)) : asksFor(test, place);
}

interface Written {
  readonly target: SyntaxNode;
  readonly value: SyntaxNode;
  /** The assignment without what makes it a statement. */
  readonly assignment: SyntaxNode;
}

/** The one place that a statement, or an assignment in brackets, writes. */
function writtenBy(code: SyntaxNode): Written | undefined {
  const assigned = assignedBy(code);
  if (!assigned || assigned.declares) return undefined;
  const { target, value } = assigned;
  const { flow } = code.tree.language;
  const assignment = [...value.ancestors()].find((above) => flow.assignments[above.kind]);
  return assignment && { target, value, assignment };
}

const NONE: readonly Fill[] = [];

const fills = oncePerNode<readonly Fill[]>(fillsOf);

/** The fillings that begin at a node: a branch, an assignment, or an operator that leaves its right side out. */
export function fillsAt(node: SyntaxNode): readonly Fill[] {
  return isPlainOperator(node) || givesNoChoice(node) ? NONE : fills(node);
}

/** Does a node assign what is neither a choice nor an operator that leaves its right side out? Most do. */
function givesNoChoice(node: SyntaxNode): boolean {
  if (node.tree.language.flow.assignments[node.kind] === undefined) return false;
  const value = valueOf(node);
  const shape = value && shapeOf(bare(value));
  return shape?.is !== "shortCircuit" && shape?.is !== "branch";
}
