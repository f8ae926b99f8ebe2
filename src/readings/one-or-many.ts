import { fill, type Hole } from "../pattern/index.js";
import {
  jumpOf,
  oncePerNode,
  partsOf,
  sameCode,
  shapeOf,
  type Language,
  type SyntaxNode,
} from "../syntax/index.js";
import { Asking, choosesByValue, valueOfSwitch, type Kind, type Trace } from "./asking.js";
import { isSwitch, switchKinds } from "./cases.js";
import { assignedBy, type Frame } from "./frame.js";
import { asksFor, bare, callOf, presenceOf } from "./presence-test.js";
import { readingMatch, type Reading, type ReadingMatch } from "./reading.js";
import { branchKinds, expressionOf, isGiven, isStatement, neighbour, waysOf, type Ways } from "./ways.js";

/** What code does with a value that is a list, with one that is a single thing, and where there is none. */
export interface OneOrMany {
  readonly subject: SyntaxNode;
  /** What each of them comes to; undefined where the code gives no value but does something. */
  readonly values: Readonly<Record<Kind, SyntaxNode>> | undefined;
  /** What is done with each of them otherwise, from the first statement to the last. */
  readonly done: Readonly<Record<Kind, readonly SyntaxNode[]>>;
  /** Is the value asked for by its truth, so that `false` counts as nothing? */
  readonly byTruth: boolean;
  /** Is nothing told from one thing? */
  readonly tellsNone: boolean;
  /** Has code ahead made sure that there is something? */
  readonly isThere: boolean;
}

/**
 * Code that asks whether a value is a list, one thing, or nothing, and does the like with each: branches in any order and any
 * nesting, guards, a conditional expression, a `case`. What each of them comes to stands in `match.oneOrMany`.
 */
export function oneOrMany(subject: Hole): Reading {
  return new OneOrManyReading(subject);
}

class OneOrManyReading implements Reading {
  constructor(readonly subject: Hole) {}

  kindsIn(language: Language): readonly string[] {
    if (!language.flow.collecting.lists) return [];
    return [...branchKinds(language.flow.shapes), ...switchKinds(language)];
  }

  wordsIn({ flow }: Language): readonly string[] {
    return flow.collecting.lists ? [flow.collecting.lists.named] : [];
  }

  whyNot(): string {
    return "this does not tell a list, one thing and nothing apart, or does more than that";
  }

  readAt(node: SyntaxNode): ReadingMatch | undefined {
    const found = readOnce(node);
    const captures = found && fill(this.subject, found.is.subject);
    if (!found || !captures) return undefined;
    const { nodes, frame, isStatements, is } = found;
    return {
      ...readingMatch({ nodes, captures, tests: [], frame, isStatements, spelling: [] }),
      oneOrMany: is,
    };
  }
}

interface Found {
  readonly is: Omit<OneOrMany, "isThere">;
  readonly nodes: readonly SyntaxNode[];
  readonly frame: Frame | undefined;
  readonly isStatements: boolean;
}

const readOnce = oncePerNode<(Found & { readonly is: OneOrMany }) | undefined>(read);

const KINDS = ["many", "one", "none"] as const;

function read(node: SyntaxNode): (Found & { readonly is: OneOrMany }) | undefined {
  const subject = subjectOf(node);
  const ahead = subject && askedAhead(node, subject);
  // What has asked is the beginning of it.
  if (!subject || (ahead && readOnce(ahead))) return undefined;
  const found = isStatement(node) ? asStatements(node, subject) : asValue(node, subject);
  if (!found || !takesList(found.is)) return undefined;
  return { ...found, is: { ...found.is, isThere: ahead !== undefined } };
}

/** Is the list taken as it is, or walked? */
function takesList({ subject, values, done }: Found["is"]): boolean {
  const many = values ? values.many : done.many.length === 1 ? expressionOf(done.many[0]!) : undefined;
  if (!many) return false;
  return sameCode(bare(many), subject) || sameCode(receiverOf(many) ?? many.tree.root, subject);
}

/** The object of a call with a block. */
function receiverOf(code: SyntaxNode): SyntaxNode | undefined {
  return code.child("block") ? callOf(code)?.receiver : undefined;
}

/** `x.is_a?(Array) ? x : [x]`. */
function asValue(node: SyntaxNode, subject: SyntaxNode): Found | undefined {
  const asking = new Asking(subject);
  const values = each((kind) => {
    const value = asking.valueOf(node, kind);
    return value?.same(node) ? undefined : value;
  });
  if (!values) return undefined;
  const is = { subject, values, done: each(() => [])!, ...asking.learnt() };
  return { is, nodes: [node], frame: undefined, isStatements: false };
}

const MOST_STATEMENTS = 4;

function asStatements(node: SyntaxNode, subject: SyntaxNode): Found | undefined {
  const asking = new Asking(subject);
  const own = each((kind) => asking.follow([node], kind));
  if (!own) return undefined;
  const gives = KINDS.some((kind) => own[kind].gives);
  if (!gives) return alone(node, subject, asking, own);
  // Where a way returns, the others go on with what stands behind.
  const nodes = [node];
  for (let at = neighbour(node, "after"); at; at = neighbour(at, "after")) nodes.push(at);
  const traces = nodes.length > MOST_STATEMENTS ? undefined : each((kind) => asking.follow(nodes, kind));
  const values = traces && each((kind) => valueGiven(traces[kind], nodes.at(-1)!));
  const last = nodes.at(-1)!;
  const end = values && givenLast(last, asking);
  if (!values || !end) return undefined;
  const is = { subject, values, done: each(() => [])!, ...asking.learnt() };
  return {
    is,
    nodes,
    frame: end.same(last) ? undefined : { statement: last, value: end },
    isStatements: true,
  };
}

/** The value of a trace that does nothing but to give one. */
function valueGiven({ done, gives }: Trace, last: SyntaxNode): SyntaxNode | undefined {
  if (gives) return done.length === 0 ? gives : undefined;
  const [only, ...more] = done;
  return only && more.length === 0 && isGiven(last) && !assignedBy(only) ? expressionOf(only) : undefined;
}

/** The value in the last statement, whose place the new one takes; the statement itself where that is what is given. */
function givenLast(last: SyntaxNode, asking: Asking): SyntaxNode | undefined {
  if (jumpOf(last) === "return") return asking.returned(last);
  return isGiven(last) ? last : undefined;
}

/** One statement that does something for each kind, and goes on behind it. */
function alone(
  node: SyntaxNode,
  subject: SyntaxNode,
  asking: Asking,
  traces: Readonly<Record<Kind, Trace>>,
): Found | undefined {
  const done = { many: traces.many.done, one: traces.one.done, none: traces.none.done };
  const common = { nodes: [node], isStatements: true };
  const is = { subject, values: undefined, done, ...asking.learnt() };
  const written = KINDS.map((kind) => done[kind].map(assignedBy));
  const [target] = written.flat().flatMap((one) => (one && !one.declares ? [one.target] : []));
  const isWritten = written.every(
    (all) => all.length <= 1 && all.every((one) => one && target && sameCode(one.target, target)),
  );
  const statement = KINDS.flatMap((kind) => done[kind])[0];
  const first = written.flat()[0];
  if (target && isWritten && first && statement) {
    // A value that is not written keeps what it has.
    const isKept = sameCode(target, subject);
    const values = each((kind) => assignedBy(done[kind][0] ?? node)?.value ?? (isKept ? target : undefined));
    const frame = { statement, value: first.value };
    return values && { ...common, is: { ...is, values }, frame };
  }
  // What a walk comes to is the list, which is hardly meant.
  const { walkers } = node.tree.language.flow.collecting;
  const [many] = done.many;
  const isWalk = many !== undefined && walkers.includes(callOf(expressionOf(many))?.method ?? "");
  const isValue =
    !isWalk && isGiven(node) && KINDS.every((kind) => done[kind].length === 1 && !assignedBy(done[kind][0]!));
  const values = isValue ? each((kind) => expressionOf(done[kind][0]!)) : undefined;
  return { ...common, is: { ...is, values }, frame: undefined };
}

function each<T>(of: (kind: Kind) => T | undefined): Record<Kind, T> | undefined {
  const [many, one, none] = KINDS.map(of);
  return many === undefined || one === undefined || none === undefined ? undefined : { many, one, none };
}

/** What is asked for its kind by a branch, or by a guard right behind it. */
function subjectOf(node: SyntaxNode): SyntaxNode | undefined {
  let at: SyntaxNode | undefined = node;
  for (let i = 0; at && i < MOST_STATEMENTS; i++) {
    const subject = testedIn(at);
    if (subject) return subject;
    at = isStatement(node) ? neighbour(at, "after") : undefined;
  }
  return undefined;
}

function testedIn(code: SyntaxNode): SyntaxNode | undefined {
  const { lists } = code.tree.language.flow.collecting;
  const shape = shapeOf(code);
  if (!lists || !shape) return undefined;
  if (choosesByValue(code)) {
    const value = valueOfSwitch(code);
    const isNamed = labelsOf(code).some((label) => label.text === lists.named);
    if (value && isNamed) return bare(value);
  }
  if (shape.is !== "branch" && !choosesByValue(code)) return undefined;
  for (const part of code.descendants()) {
    const subject = lists.testedBy(part);
    if (subject) return bare(subject);
  }
  return undefined;
}

/**
 * What has made sure ahead of a branch that there is something: a guard that leaves where there is nothing, or a branch around
 * it that is only taken where there is something.
 */
function askedAhead(node: SyntaxNode, subject: SyntaxNode): SyntaxNode | undefined {
  const before = isStatement(node) ? neighbour(node, "before") : undefined;
  const guard = before && waysOf(before);
  // Behind it goes on what the guard does nothing with.
  if (guard && isGuard(guard) && isThereOn(guard, subject, guard.yes.length === 0)) return before;
  for (const above of node.ancestors()) {
    const ways = waysOf(above);
    if (ways) {
      const isYes = ways.yes.some((one) => one.holds(node));
      return isThereOn(ways, subject, isYes) ? above : undefined;
    }
    // Statements in between may write it.
    if (above.is(above.tree.language.statementLists) && !above.firstPart!.holds(node)) return undefined;
  }
  return undefined;
}

/** Does a branch do nothing but to leave on one of its ways? */
function isGuard({ yes, no }: Ways): boolean {
  const [only, ...more] = [...yes, ...no];
  return only !== undefined && more.length === 0 && LEAVING.includes(jumpOf(only) ?? "");
}

const LEAVING = ["return", "throw", "continue"];

/** Is there something on the way that is taken where the test is true, or on the other one? */
function isThereOn({ test }: Ways, subject: SyntaxNode, isYes: boolean): boolean {
  const presence = presenceOf(test);
  if (!asksFor(presence, subject) || !["missing", "null", "truth"].includes(presence.asks)) return false;
  return presence.isThere === isYes;
}

function labelsOf(node: SyntaxNode): SyntaxNode[] {
  const shape = shapeOf(node);
  if (!shape || !isSwitch(shape)) return [];
  return node.parts
    .filter((part) => part.is(shape.ways))
    .flatMap((way) => partsOf(way, shape.labels!))
    .flatMap((label) => (label.parts.length === 1 ? label.parts : [label]));
}
