import {
  functionAround,
  isMember,
  isMissing,
  operatorOf,
  referencesAt,
  referencesOf,
  stepsFrom,
  usesOf,
} from "../analysis/index.js";
import { oncePerNode, sameCode, shapeOf, type SyntaxNode } from "../syntax/index.js";
import { choicesAt, nestedChoicesAt, type Choice } from "./choices.js";
import { assignedBy, type Frame } from "./frame.js";
import { bare, bothTests, presenceOf, type Asks, type PresenceTest } from "./presence-test.js";
import { expressionOf, isPlainOperator, isStatement, neighbour, waysOf } from "./ways.js";

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

/** A local that only keeps the value of other code. */
export interface Copied {
  readonly name: SyntaxNode;
  readonly value: SyntaxNode;
  /** The statement that gives it the value. */
  readonly first: SyntaxNode;
}

/** What becomes of what is read at last. */
export type Role = "value" | "negated" | "asked" | "compared";

/** Tests of something being there, and the read or call that they protect, however that is spelt. */
export interface Chain {
  readonly kind: ChainKind;
  readonly links: readonly Link[];
  /** What is read or called of what was tested last. */
  readonly use: SyntaxNode;
  /** The code with the use in it that stays: the use itself, a comparison or a test of it. */
  readonly last: SyntaxNode;
  /** What becomes of the use there: it is the value, its truth is negated, it is asked for, or compared with a literal. */
  readonly role: Role;
  readonly nodes: readonly SyntaxNode[];
  readonly frame?: Frame;
  /** Ahead of the first test, within the matched code, stands something else up to here. */
  readonly from: number;
  /** What the choice gives for what is missing. */
  readonly otherwise?: SyntaxNode;
  /** What the choice gives for what is missing, where that was evaluated in any case. */
  readonly always?: SyntaxNode;
  /** The local that the first test asks for, which was given a value right ahead and is used for nothing else. */
  readonly copied?: Copied;
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
  const frame = isStatement(node) ? { frame: { statement: way, value: use } } : {};
  const common = { kind: "statement", links, use, last: use, role: "value", nodes: [node] } as const;
  const chain: Chain = { ...common, from: use.start, ...frame };
  const copied = copiedAhead(node, test, chain);
  if (!copied) return [chain];
  const [first, ...rest] = links as [Link, ...Link[]];
  const once = { ...first, test: { ...first.test, times: 0 } };
  return [{ ...chain, copied, links: [once, ...rest], nodes: [copied.first, node] }, chain];
}

/** `q = hive.queen; if (q) q.mark();`, with nothing else that uses the local. */
function copiedAhead(node: SyntaxNode, test: SyntaxNode, { links, use, frame }: Chain): Copied | undefined {
  const first = frame && neighbour(node, "before");
  const given = first && assignedBy(first);
  const [{ test: asked, steps }] = links as [Link];
  if (!given || !sameCode(given.target, asked.subject)) return undefined;
  const { target: name, value } = given;
  const { calls, flow } = node.tree.language;
  const isMade = value.is(flow.missing.creations);
  const isRead = !isMade && (value.isLeaf || value.is([...flow.chains, ...calls]));
  const leaf = name.isLeaf ? name : name.firstPart;
  if (!isRead || !leaf?.isLeaf || value.text.includes("\n") || doesMore(first, name, value)) return undefined;
  const to = referencesAt(leaf).find(({ member }) => !member)?.to;
  const around = functionAround(name);
  if (!to || isMember(to) || around?.holds(to.at[0]!) !== true || usesOf(to).doubts.length > 0)
    return undefined;
  const base = steps[0]!.firstPart!;
  const others = referencesOf(to).filter(({ node: one }) => !given.target.holds(one) && !test.holds(one));
  const only = others.length === 1 && others[0]!.node;
  const isBase = only && use.holds(only) && only.text === leaf.text && only.start === firstLeaf(use).start;
  return isBase && sameCode(base, name) ? { name, value, first } : undefined;
}

/** Does a declaration do more than to name a value: dispose of it at the end, keep it for the next call, refer to it? */
function doesMore({ tree: { text }, start }: SyntaxNode, name: SyntaxNode, value: SyntaxNode): boolean {
  const isPlain = /^\s*:?=\s*$/.test(text.slice(name.end, value.start).replace(/:[^=]*(?==)/, ""));
  return !isPlain || /\b(using|ref|static|scoped|volatile)\b/.test(text.slice(start, name.start));
}

/** The leaf that an expression begins with, whatever marks it as a variable. */
function firstLeaf(node: SyntaxNode): SyntaxNode {
  let at = node;
  while (at.firstPart) at = at.firstPart;
  return at;
}

/** `a != null ? a.b : null`, in all forms of a choice. */
function byChoice(node: SyntaxNode): Chain[] {
  return [
    ...choicesAt(node).flatMap((choice) => [true, false].flatMap((isThere) => ofChoice(choice, isThere))),
    ...nestedChoicesAt(node).flatMap(({ choice, around }) => ofChoice(choice, true, around)),
  ];
}

/** The chain of a choice that gives what is read where its test comes out one way, with the conditions that it stands in. */
function ofChoice(choice: Choice, isThere: boolean, around: readonly SyntaxNode[] = []): Chain[] {
  const { test, yes, no, nodes, frame, alias, always } = choice;
  const [value, otherwise] = isThere ? [yes, no] : [no, yes];
  const use = bare(value);
  if (alias || !goesOnFromElse(use)) return [];
  const ahead = around.map((one) => testsIn(one, true));
  if (ahead.some((tests) => tests.length === 0)) return [];
  const tests = [...ahead.flat(), ...testsIn(test, isThere)];
  const final = tests.at(-1);
  const asksUse = tests.length > 1 && final?.key === undefined && sameCode(final!.subject, use);
  const links = linksTo(asksUse ? tests.slice(0, -1) : tests, use);
  if (!links) return [];
  const goes = { nodes, from: use.start, otherwise, ...(frame ? { frame } : {}) };
  const own = { ...(asksUse ? { asksUse: final! } : {}), ...(always ? { always } : {}) };
  return [{ kind: "choice", role: "value", links, use, last: use, ...goes, ...own }];
}

/** The tests that all hold where a condition comes out one way, in order; none where it says something else too. */
function testsIn(condition: SyntaxNode, isTrue: boolean): PresenceTest[] {
  const test = presenceOf(condition);
  if (test.by !== "truth") return test.isThere === isTrue ? [test] : [];
  const inner = bare(condition);
  const shape = shapeOf(inner);
  if (shape?.is === "negation") return testsIn(inner.lastPart!, !isTrue);
  if (shape?.is === "shortCircuit") {
    const joins = shape.runsIf[operatorOf(inner)] === (isTrue ? "true" : "false");
    const operands = joins ? operandsOf(inner, operatorOf(inner)) : [];
    const tests = operands.map((operand) => testsIn(operand, isTrue));
    return tests.every((one) => one.length > 0) ? merged(inner, tests.flat()) : [];
  }
  return test.isThere === isTrue ? [test] : [];
}

/** Tests of one thing after the other, with those of the same thing made one: `h.queen === undefined || h.queen === null`. */
function merged(condition: SyntaxNode, tests: readonly PresenceTest[]): PresenceTest[] {
  const result: PresenceTest[] = [];
  for (const test of tests) {
    const last = result.at(-1);
    const both = last && last.by !== "truth" && test.by !== "truth" && bothTests(condition, last, test);
    if (both) result.splice(-1, 1, both);
    else result.push(test);
  }
  return result;
}

/** The operands of one operator: three of `a && b && c`. */
function operandsOf(node: SyntaxNode, operator: string): SyntaxNode[] {
  const inner = bare(node);
  if (shapeOf(inner)?.is !== "shortCircuit" || operatorOf(inner) !== operator) return [node];
  const [left, right] = [inner.firstPart, inner.lastPart];
  return left && right ? [...operandsOf(left, operator), ...operandsOf(right, operator)] : [node];
}

/** One of the operands that all count alike. */
interface Operand {
  readonly node: SyntaxNode;
  /** The negation that it is in with others: `!(!a || !b) && c`. */
  readonly group?: SyntaxNode;
  /** Does it count turned round, for the negations that it is in? */
  readonly isTurned: boolean;
}

/** The operands of one operator, ahead of the last those of its counterpart in a negation too. */
function operandsThrough(node: SyntaxNode, isAnd: boolean): Operand[] {
  const operands = operandsOf(node, operatorOf(node));
  return operands.flatMap((operand, i): Operand[] => {
    const group = bare(operand);
    const within = shapeOf(group)?.is === "negation" ? bare(group.lastPart!) : undefined;
    if (!within || i === operands.length - 1 || runsIfOf(within) !== (isAnd ? "false" : "true"))
      return [{ node: operand, isTurned: false }];
    const inner = operandsThrough(within, !isAnd);
    return inner.map(({ node: one, isTurned }) => ({ node: one, group, isTurned: !isTurned }));
  });
}

/** What the left side of an operator must be for the right side to count; undefined for all else. */
function runsIfOf(node: SyntaxNode): string | undefined {
  const shape = shapeOf(node);
  return shape?.is === "shortCircuit" ? shape.runsIf[operatorOf(node)] : undefined;
}

/** `a && a.b && a.b.c`, `!a || !a.b`: the tests at the end that protect the last operand, each the next. */
function byOperators(node: SyntaxNode): Chain[] {
  const operator = operatorOf(node);
  const runsIf = runsIfOf(node);
  if (runsIf !== "true" && runsIf !== "false") return [];
  const isAnd = runsIf === "true";
  const operands = operandsThrough(node, isAnd);
  const last = operands.at(-1)!.node;
  const tests = operands.slice(0, -1).map((operand) => presenceOf(operand.node));
  const asksIt = (i: number): boolean =>
    (tests[i]!.isThere !== operands[i]!.isTurned) === isAnd && tests[i]!.key === undefined;
  for (const { use, role } of lastOf(bare(last), isAnd)) {
    const links: Link[] = [];
    let goal = use;
    let k = tests.length - 1;
    for (; k >= 0 && asksIt(k); k--) {
      const steps = safeSteps(tests[k]!.subject, goal);
      if (!steps) break;
      links.unshift({ test: tests[k]!, steps });
      goal = tests[k]!.subject;
    }
    const first = operands[k + 1]!;
    // Of operands in a negation, all go or none.
    if (first.group && operands[k]?.group?.same(first.group)) continue;
    if (links.length === 0 || goesOn(node, last, isAnd, operator)) continue;
    const kind = isAnd ? "and" : "or";
    const stays = role === "negated" ? use : bare(last);
    return [
      {
        kind,
        links,
        use,
        last: stays,
        role,
        nodes: [node],
        from: outerStart(first.group ?? first.node, node),
      },
    ];
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
  if (!parent.firstPart?.same(around)) return false;
  const test = presenceOf(last);
  const next = operandsOf(parent.lastPart!, operator)[0]!;
  const goals = lastOf(bare(next), isAnd).filter(({ role }) => role !== "negated");
  return test.isThere === isAnd && goals.some(({ use }) => safeSteps(test.subject, use));
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
  return [{ use: test.subject, role: test.isThere === isAnd ? "value" : "negated" }];
}

/** The same behind any number of negations. */
function comparedIn(node: SyntaxNode, isAnd: boolean): SyntaxNode | undefined {
  const inner = bare(node);
  const operand = shapeOf(inner)?.is === "negation" ? inner.lastPart : undefined;
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
  if (!first || steps.some((step, i) => safeStep.bars(step, i === 0))) return undefined;
  // Where a safe step does not leave out the next ones, each must be one.
  if (!safeStep.reachesOn && steps.length > 1 && !steps.every(safeToken)) return undefined;
  return safeToken(first) || safeStep.brackets[first.kind] !== undefined ? steps : undefined;
}

/** The token of a step that has a safe form: the dot of `a.b`. */
export function safeToken(step: SyntaxNode): SyntaxNode | undefined {
  const tokens = step.tree.language.flow.safeStep?.tokens ?? {};
  const base = step.firstPart!;
  const isToken = (child: SyntaxNode): boolean => child.start >= base.end && tokens[child.text] !== undefined;
  return step.children.find(isToken);
}

const NONE: readonly Chain[] = [];

const chains = oncePerNode<readonly Chain[]>(chainsOf);

/** The chains that begin at a node: a branch, or an operator that leaves its right side out. */
export function chainsAt(node: SyntaxNode): readonly Chain[] {
  return isPlainOperator(node) ? NONE : chains(node);
}
