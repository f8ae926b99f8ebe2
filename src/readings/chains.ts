import { isMissing, operatorOf, stepsFrom } from "../analysis/index.js";
import { sameCode, shapeOf, type SyntaxNode } from "../syntax/index.js";
import { choicesAt } from "./choices.js";
import type { Frame } from "./frame.js";
import { bare, presenceOf, type Asks, type PresenceTest } from "./presence-test.js";
import { remembered } from "./remembered.js";
import { isStatement, waysOf } from "./ways.js";

/** A test, and the steps by which the next test, or the use, goes on from what it asks for. */
export interface Link {
  readonly test: PresenceTest;
  readonly steps: readonly SyntaxNode[];
}

/**
 * Where a chain stands: the operands of `and` or of `or`, a choice with another value for what is missing, or a statement
 * that is only run for what is there.
 */
export type ChainKind = "and" | "or" | "choice" | "statement";

/** Tests of something being there, and the read or call that they protect, however that is spelt. */
export interface Chain {
  readonly kind: ChainKind;
  readonly links: readonly Link[];
  /** What is read or called of what was tested last. */
  readonly use: SyntaxNode;
  /** The code with the use in it that stays: the use itself, a comparison or a test of it. */
  readonly last: SyntaxNode;
  /** What becomes of the use there: it is the value, it is asked for, or it is compared with a literal. */
  readonly role: "value" | "asked" | "compared";
  readonly nodes: readonly SyntaxNode[];
  readonly frame?: Frame;
  /** Ahead of the first test, within the matched code, stands something else up to here. */
  readonly from: number;
  /** What the choice gives for what is missing. */
  readonly otherwise?: SyntaxNode;
  /** Is what is read tested as well, so that the choice falls back just where it is missing? */
  readonly asksUse?: PresenceTest;
}

function chainsOf(node: SyntaxNode): Chain[] {
  const shape = shapeOf(node);
  if (shape?.is === "shortCircuit") return byOperators(node);
  if (shape?.is !== "branch") return [];
  return [...byStatement(node), ...byChoice(node)];
}

/** `if (a && a.b) a.b.c();` */
function byStatement(node: SyntaxNode): Chain[] {
  const ways = waysOf(node);
  const { lastIsGiven } = node.tree.language.flow;
  if (!ways || (!isStatement(node) && !lastIsGiven)) return [];
  const { yes, no, test } = ways;
  const [way] = [...yes, ...no];
  if (!way || yes.length + no.length !== 1) return [];
  const use = bare(expressionOf(way));
  if (!goesOnFromElse(use)) return [];
  const links = linksTo(testsIn(test, yes.length > 0), use);
  if (!links) return [];
  const common = { links, use, last: use, role: "value", nodes: [node], from: use.start } as const;
  return [
    { kind: "statement", ...common, ...(isStatement(node) ? { frame: { statement: way, value: use } } : {}) },
  ];
}

/** The expression that a statement is. */
function expressionOf(statement: SyntaxNode): SyntaxNode {
  const { expressionStatement } = statement.tree.language;
  const [only] = statement.parts;
  return statement.is(expressionStatement) && only && statement.parts.length === 1 ? only : statement;
}

/** `a != null ? a.b : null`, in all forms of a choice. */
function byChoice(node: SyntaxNode): Chain[] {
  return choicesAt(node).flatMap(({ test, yes, no, nodes, frame, alias, always }): Chain[] => {
    if (alias || always || ![yes, no].some((value) => goesOnFromElse(bare(value)))) return [];
    return [true, false].flatMap((isThere): Chain[] => {
      const [value, otherwise] = isThere ? [yes, no] : [no, yes];
      const use = bare(value);
      const tests = testsIn(test, isThere);
      const final = tests.at(-1);
      const asksUse = tests.length > 1 && final?.key === undefined && sameCode(final!.subject, use);
      const links = linksTo(asksUse ? tests.slice(0, -1) : tests, use);
      if (!links) return [];
      const goes = { nodes, from: use.start, otherwise, ...(frame ? { frame } : {}) };
      const own = asksUse ? { asksUse: final! } : {};
      return [{ kind: "choice", role: "value", links, use, last: use, ...goes, ...own }];
    });
  });
}

/** The tests that all hold where a condition comes out one way, in order; none where it says something else too. */
function testsIn(condition: SyntaxNode, isTrue: boolean): PresenceTest[] {
  const test = presenceOf(condition);
  if (test.by !== "truth") return test.isThere === isTrue ? [test] : [];
  const inner = bare(condition);
  const shape = shapeOf(inner);
  if (shape?.is === "negation") return testsIn(inner.parts.at(-1)!, !isTrue);
  if (shape?.is === "shortCircuit") {
    const joins = shape.runsIf[operatorOf(inner)] === (isTrue ? "true" : "false");
    const operands = joins ? operandsOf(inner, operatorOf(inner)) : [];
    const tests = operands.map((operand) => testsIn(operand, isTrue));
    return tests.every((one) => one.length > 0) ? tests.flat() : [];
  }
  return test.isThere === isTrue ? [test] : [];
}

/** The operands of one operator: three of `a && b && c`. */
function operandsOf(node: SyntaxNode, operator: string): SyntaxNode[] {
  const inner = bare(node);
  if (shapeOf(inner)?.is !== "shortCircuit" || operatorOf(inner) !== operator) return [node];
  const [left, right] = [inner.parts[0], inner.parts.at(-1)];
  return left && right ? [...operandsOf(left, operator), ...operandsOf(right, operator)] : [node];
}

/** `a && a.b && a.b.c`, `!a || !a.b`: the tests at the end that protect the last operand, each the next. */
function byOperators(node: SyntaxNode): Chain[] {
  const shape = shapeOf(node);
  const operator = operatorOf(node);
  const runsIf = shape?.is === "shortCircuit" ? shape.runsIf[operator] : "missing";
  if (runsIf !== "true" && runsIf !== "false") return [];
  const isAnd = runsIf === "true";
  const operands = operandsOf(node, operator);
  const last = operands.at(-1)!;
  const tests = operands.slice(0, -1).map(presenceOf);
  for (const { use, role } of lastOf(bare(last), isAnd)) {
    const links: Link[] = [];
    let goal = use;
    let k = tests.length - 1;
    for (; k >= 0 && tests[k]!.isThere === isAnd && tests[k]!.key === undefined; k--) {
      const steps = safeSteps(tests[k]!.subject, goal);
      if (!steps) break;
      links.unshift({ test: tests[k]!, steps });
      goal = tests[k]!.subject;
    }
    const first = operands[k + 1]!;
    if (links.length === 0 || goesOn(node, last, isAnd, operator)) continue;
    const kind = isAnd ? "and" : "or";
    return [{ kind, links, use, last: bare(last), role, nodes: [node], from: outerStart(first, node) }];
  }
  return [];
}

/** Where an operand begins, with the brackets around it. */
function outerStart(operand: SyntaxNode, within: SyntaxNode): number {
  let at = operand;
  while (at.parent && !at.parent.same(within) && at.parent.is(at.tree.language.parenthesized)) at = at.parent;
  return at.start;
}

/** Does the same operator around this one go on from where it ends? Then that one is the place to look at. */
function goesOn(node: SyntaxNode, last: SyntaxNode, isAnd: boolean, operator: string): boolean {
  let around = node;
  while (around.parent?.is(node.tree.language.parenthesized)) around = around.parent;
  const { parent } = around;
  if (!parent || shapeOf(parent)?.is !== "shortCircuit" || operatorOf(parent) !== operator) return false;
  if (!parent.parts[0]?.same(around)) return false;
  const test = presenceOf(last);
  const next = operandsOf(parent.parts.at(-1)!, operator)[0]!;
  return test.isThere === isAnd && lastOf(bare(next), isAnd).some(({ use }) => safeSteps(test.subject, use));
}

/** What a safe read gives where it stops counts as missing in these tests, and as undefined where there are two such values. */
const ASKED: readonly Asks[] = ["missing", "undefined"];

/** What the last operand may be: a test of the use being there, a comparison, the use itself. */
function lastOf(last: SyntaxNode, isAnd: boolean): Pick<Chain, "use" | "role">[] {
  const test = presenceOf(last);
  // Whether it has a key is a value like any other.
  if (test.asks === "key")
    return test.isThere === isAnd && test.test.same(last) ? [{ use: last, role: "value" }] : [];
  if (test.by !== "truth")
    return test.isThere === isAnd && ASKED.includes(test.asks) && test.times === 1
      ? [{ use: test.subject, role: "asked" }]
      : [];
  const compared = comparedIn(last, isAnd);
  if (compared) return [{ use: compared, role: "compared" }];
  return test.isThere === isAnd ? [{ use: test.subject, role: "value" }] : [];
}

/** The same behind any number of negations. */
function comparedIn(node: SyntaxNode, isAnd: boolean): SyntaxNode | undefined {
  const inner = bare(node);
  const operand = shapeOf(inner)?.is === "negation" ? inner.parts.at(-1) : undefined;
  return operand ? comparedIn(operand, !isAnd) : comparedWithLiteral(inner, isAnd);
}

/** The left side of a comparison with a literal that comes out as the chain would where something is missing. */
function comparedWithLiteral(node: SyntaxNode, isAnd: boolean): SyntaxNode | undefined {
  const { language } = node.tree;
  const { toFalse, toTrue } = language.flow.comparesMissing;
  const [left, right] = node.parts.filter((part) => !part.is(language.operators));
  if (!node.is(language.binary) || !left || !right) return undefined;
  const operators = isAnd ? toFalse : toTrue;
  if (!operators.includes(operatorOf(node)) || isMissing(bare(right))) return undefined;
  const isLiteral =
    right.is(language.literals) || right.is(language.strings) || right.is(language.plainValues);
  return isLiteral ? bare(left) : undefined;
}

/** Does code read or call something of other code, as the end of a chain does? */
function goesOnFromElse(code: SyntaxNode): boolean {
  return code.is(code.tree.language.flow.chains);
}

/** The links from test to test and on to the use; undefined where one does not go on from the one before. */
function linksTo(tests: readonly PresenceTest[], use: SyntaxNode): Link[] | undefined {
  if (tests.length === 0 || tests.some(({ key }) => key !== undefined)) return undefined;
  const links: Link[] = [];
  for (const [i, test] of tests.entries()) {
    const steps = safeSteps(test.subject, tests[i + 1]?.subject ?? use);
    if (!steps) return undefined;
    links.push({ test, steps });
  }
  return links;
}

/** The steps from one piece of code on to a longer one that the language can take safely. */
function safeSteps(from: SyntaxNode, to: SyntaxNode): readonly SyntaxNode[] | undefined {
  const { safeStep } = from.tree.language.flow;
  if (!safeStep) return undefined;
  const steps = stepsFrom(from, to);
  const [first] = steps;
  if (!first || steps.some((step) => safeStep.bars(step))) return undefined;
  // Where a safe step does not leave out the next ones, each must be one.
  if (!safeStep.reachesOn && steps.length > 1 && !steps.every(safeToken)) return undefined;
  return safeToken(first) || safeStep.brackets[first.kind] !== undefined ? steps : undefined;
}

/** The token of a step that has a safe form: the dot of `a.b`. */
export function safeToken(step: SyntaxNode): SyntaxNode | undefined {
  const tokens = step.tree.language.flow.safeStep?.tokens ?? {};
  const base = step.parts[0]!;
  const isToken = (child: SyntaxNode): boolean => child.start >= base.end && tokens[child.text] !== undefined;
  return step.children.find(isToken);
}

/** The chains that begin at a node: a branch, or an operator that leaves its right side out. */
export const chainsAt = remembered<readonly Chain[]>(chainsOf);
