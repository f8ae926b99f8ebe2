import {
  exitsOf,
  functionAround,
  no,
  referencesAt,
  shortened,
  unknown,
  type Answer,
} from "../analysis/index.js";
import {
  jumpOf,
  partsOf,
  shapeOf,
  type FlowShape,
  type IteratorFacts,
  type Language,
  type SyntaxNode,
} from "../syntax/index.js";
import { stepped } from "./counting.js";
import { assignedBy } from "./frame.js";
import { headerEnd, ownName, type Loop } from "./loops.js";
import { bare, callOf } from "./presence-test.js";
import { neighbour, statementsOf } from "./ways.js";

/** The kinds of nodes at which a loop with an iterator may begin. */
export function iteratedKinds({ flow }: Language): readonly string[] {
  if (flow.iterators.length === 0) return [];
  return Object.entries(flow.shapes).flatMap(([kind, shape]) =>
    typeof shape === "object" && shape.is === "loop" ? [kind] : [],
  );
}

type LoopShape = Extract<FlowShape, { is: "loop" }>;

/** An iterator where it is given to a name. */
interface Begun {
  readonly name: SyntaxNode;
  readonly call: SyntaxNode;
  readonly items: SyntaxNode;
  readonly isPointer: boolean;
  readonly facts: IteratorFacts;
}

/**
 * The loop at a node that walks all items of something with an iterator of its own; what it does with the iterator, other than
 * to read the item, stands in `others`: `for (Iterator<Jar> it = jars.iterator(); it.hasNext();)`, `for (auto it = jars.begin(); it != jars.end(); ++it)`.
 */
export function iteratedAt(node: SyntaxNode): Loop | undefined {
  const shape = shapeOf(node);
  if (shape?.is !== "loop" || shape.test === undefined) return undefined;
  if (shape.bodyFirst !== undefined || shape.negated === true) return undefined;
  const given = shape.first === undefined ? [] : partsOf(node, shape.first).flatMap(givenIn);
  const inHeader = given.length > 0;
  const ahead = inHeader ? [] : aheadOf(node);
  const [before, ...between] = ahead;
  const all = inHeader ? given : before ? givenIn(before) : [];
  const found = all.flatMap((one) => begunBy(one) ?? []);
  const [begun] = found;
  if (!begun || found.length > 1) return undefined;
  const ends = all.filter((one) => !one.target.same(begun.name));
  const statements = partsOf(node, shape.body).flatMap(statementsOf);
  const step = stepOf(node, shape, statements, begun);
  if (step === undefined || !endsAtLast(node, shape, begun, ends)) return undefined;
  const counting = inHeader ? [] : [before!];
  const body = step.isInBody ? statements.slice(0, -1) : statements;
  const within = body.flatMap((one) => one.mentions(begun.name.text));
  const reads = within.map((at) => readAround(at, begun));
  const lookUps = reads.flatMap((read) => read ?? []);
  if (begun.facts.item?.endsWith("()") && !isReadFirst(lookUps, body)) return undefined;
  const around = functionAround(node) ?? node.tree.root;
  const nodes = [...ahead, node];
  return {
    node,
    nodes,
    form: "iterator",
    index: begun.name,
    items: begun.items,
    from: 0,
    ...(begun.isPointer ? { isPointer: true } : {}),
    made: begun.call,
    header: { start: node.start, end: headerEnd(node, shape) },
    counting: step.isInBody ? [...counting, statements.at(-1)!] : counting,
    body,
    lookUps,
    others: within.filter((_, i) => reads[i] === undefined),
    own: ownName(body[0], lookUps.filter(isWhole), begun.items),
    outside: around
      .mentions(begun.name.text)
      .filter((at) => !nodes.some((one) => one.holds(at)) && !isOther(at, begun.name)),
    spelling: [...step.spelling, ...between.flatMap((one) => changesBefore(one, begun))],
  };
}

/** The statements from the one that makes the iterator to the loop. */
function aheadOf(loop: SyntaxNode): SyntaxNode[] {
  const ahead: SyntaxNode[] = [];
  for (let at = neighbour(loop, "before"); at && ahead.length < MOST_BETWEEN; at = neighbour(at, "before")) {
    ahead.unshift(at);
    const begun = givenIn(at).flatMap((one) => begunBy(one) ?? [])[0];
    if (!begun) continue;
    const isNamed = ahead.slice(1).some((one) => one.mentions(begun.name.text).length > 0);
    return isNamed ? [] : ahead;
  }
  return [];
}

/** Statements that may stand between an iterator and its loop. */
const MOST_BETWEEN = 5;

/** What speaks against making the iterator behind a statement that stands ahead of its loop. */
function changesBefore(statement: SyntaxNode, { items }: Begun): Answer[] {
  const { calls, flow } = statement.tree.language;
  const names = new Set([...items.descendants()].filter((one) => one.isLeaf).map(({ text }) => text));
  for (const node of statement.descendants()) {
    const target = flow.assignments[node.kind] ? (assignedBy(node)?.target ?? node) : undefined;
    const isWritten = target !== undefined && [...names].some((name) => target.mentions(name).length > 0);
    const isCall = !isWritten && (node.is(calls) || (node.isLeaf && node.named && names.has(node.text)));
    if (!isCall && !isWritten) continue;
    const says = `\`${shortened(node.text)}\` could change what \`${shortened(items.text)}\` gives`;
    return [isCall ? unknown("flow.order", says, node) : no("flow.order", says, node)];
  }
  return [];
}

/** Is the item itself read, and not a member of it: `*it`, and not `it->kg`? */
function isWhole(read: SyntaxNode): boolean {
  const { pointed } = read.tree.language.flow.iterators[0]!;
  return pointed === undefined || read.is(pointed.kind);
}

/** Is a name known to be that of another variable? */
function isOther(name: SyntaxNode, than: SyntaxNode): boolean {
  const [to, other] = [name, than].map((at) => referencesAt(at).find((one) => !one.member)?.to);
  return to !== undefined && other !== undefined && to !== other;
}

type Given = NonNullable<ReturnType<typeof assignedBy>>;

/** All that a statement or the first part of a header gives a value. */
function givenIn(statement: SyntaxNode): Given[] {
  const whole = assignedBy(statement);
  if (whole) return [whole];
  const { assignments } = statement.tree.language.flow;
  const several = statement.parts.filter((part) => assignments[part.kind]);
  const found = several.flatMap((part) => assignedBy(part) ?? []);
  return found.length === several.length ? found : [];
}

/** Is a name given an iterator that stands at the first item? */
function begunBy({ target, value }: Given): Begun | undefined {
  const { iterators } = target.tree.language.flow;
  const found = ofMethods(
    bare(value),
    iterators.map(({ begin }) => begin),
  );
  const facts = found && iterators.find(({ begin }) => begin === found.method);
  return facts && target.isLeaf ? { name: target, call: bare(value), ...found, facts } : undefined;
}

/** A call of one of these methods without arguments, with what it is called of. */
function ofMethods(
  node: SyntaxNode,
  methods: readonly string[],
): { readonly items: SyntaxNode; readonly isPointer: boolean; readonly method: string } | undefined {
  const call = node.is(node.tree.language.calls) ? callOf(node) : undefined;
  if (!call?.receiver || call.args.length > 0 || !methods.includes(call.method)) return undefined;
  const { arrow } = node.tree.language.flow.iterators[0]?.pointed ?? {};
  const isPointer = arrow !== undefined && node.child("function")?.has(arrow) === true;
  return { items: bare(call.receiver), isPointer, method: call.method };
}

interface Step {
  readonly isInBody: boolean;
  readonly spelling: readonly Answer[];
}

/** How the loop goes on to the next item: in its header, at the end of its body, or by asking or reading alone. */
function stepOf(
  node: SyntaxNode,
  shape: LoopShape,
  statements: readonly SyntaxNode[],
  { facts, name }: Begun,
): Step | undefined {
  const updates = shape.update === undefined ? [] : partsOf(node, shape.update);
  if (facts.end === undefined) return updates.length === 0 ? { isInBody: false, spelling: [] } : undefined;
  if (updates.length > 1) return undefined;
  const [update] = updates;
  if (update) return stepped(update) === name.text ? { isInBody: false, spelling: [] } : undefined;
  const last = statements.at(-1);
  if (!last || stepped(last) !== name.text) return undefined;
  const skips = exitsOf(statements).find((exit) => jumpOf(exit) === "continue");
  return {
    isInBody: true,
    spelling: skips ? [no("flow.order", `\`${skips.text}\` would go on with the next item now`, skips)] : [],
  };
}

/** Does the loop end behind the last item? */
function endsAtLast(
  node: SyntaxNode,
  shape: LoopShape,
  { facts, name, items, isPointer }: Begun,
  ends: readonly Given[],
): boolean {
  const [first] = partsOf(node, shape.test!);
  const test = first && bare(first);
  if (!test) return false;
  if (facts.more) {
    const call = test.is(test.tree.language.calls) ? callOf(test) : undefined;
    if (!call || call.args.length > 0 || ends.length > 0) return false;
    return call.method === facts.more.method && call.receiver?.text === name.text;
  }
  const isEnd = (at: SyntaxNode): boolean => {
    const found = ofMethods(bare(at), [facts.end!]);
    return found?.items.text === items.text && found.isPointer === isPointer;
  };
  const [left, operator, right] = [test.child("left"), test.child("operator")?.text, test.child("right")];
  if (!left || !right || !test.is(test.tree.language.binary)) return false;
  const isTurned = right.text === name.text;
  if (!isTurned && left.text !== name.text) return false;
  if (operator !== "!=" && operator !== (isTurned ? ">" : "<")) return false;
  const other = isTurned ? left : right;
  const [held, ...more] = ends;
  if (!held) return isEnd(other);
  return (
    more.length === 0 &&
    /declarator/.test(held.target.parent?.kind ?? "") &&
    held.target.text === other.text &&
    isEnd(held.value)
  );
}

/** The read of the item that a mention of the iterator stands in; undefined where it is used otherwise. */
function readAround(mention: SyntaxNode, { facts: { item, pointed } }: Begun): SyntaxNode | undefined {
  const { parent } = mention;
  if (!parent) return undefined;
  if (pointed) {
    if (parent.is(pointed.kind)) return parent.has("*") ? parent : undefined;
    const isMember = parent.is(mention.tree.language.memberReads) && parent.has(pointed.arrow);
    return isMember && parent.firstPart!.same(mention) ? parent : undefined;
  }
  const isCall = item!.endsWith("()");
  const read = [parent, parent.parent].find(
    (one) => one?.is(isCall ? mention.tree.language.calls : mention.tree.language.memberReads) === true,
  );
  const call = read && callOf(read);
  const isItem = call?.receiver?.same(mention) === true && call.method === item!.replace("()", "");
  return isItem && call.args.length === 0 ? read : undefined;
}

/** Is the item taken once in each round, ahead of all that could leave the round or run in only some of them? */
function isReadFirst([read, ...more]: readonly SyntaxNode[], [first]: readonly SyntaxNode[]): boolean {
  if (!read || more.length > 0 || !first?.holds(read)) return false;
  for (let at = read; !at.same(first); at = at.parent!) {
    const parent = at.parent!;
    if (parent.is(parent.tree.language.functions) || !isAlwaysRun(at, parent)) return false;
  }
  return true;
}

/** Does a part of something run whenever that does? */
function isAlwaysRun(part: SyntaxNode, whole: SyntaxNode): boolean {
  const shape = shapeOf(whole);
  const is = (name: string | number | undefined): boolean =>
    typeof name === "number"
      ? whole.parts[name]?.same(part) === true
      : name !== undefined && partsOf(whole, name).some((one) => one.same(part));
  switch (shape?.is) {
    case undefined:
    case "jump":
    case "negation":
      return true;
    case "branch":
      return is(shape.test);
    case "choice":
      return is(shape.value);
    case "shortCircuit":
      return is(shape.left);
    case "each":
      return is(shape.over);
    default:
      return false;
  }
}

/** The text of a read of an item that a name for the item replaces: all of `*it`, and of `it->kg` what stands ahead of `kg`. */
export function itemText(read: SyntaxNode): {
  readonly start: number;
  readonly end: number;
  readonly suffix: string;
} {
  const { pointed } = read.tree.language.flow.iterators[0] ?? {};
  if (!pointed || !(read.is(pointed.kind) || read.has(pointed.arrow)))
    return { start: read.start, end: read.end, suffix: "" };
  if (!isWhole(read)) return { start: read.start, end: read.lastPart!.start, suffix: "." };
  const { parent } = read;
  const { memberReads, indexReads } = read.tree.language;
  // Brackets that only hold the star to the name go with it.
  const isHeld = parent?.is("parenthesized_expression") && parent.parent?.is([...memberReads, ...indexReads]);
  const { start, end } = isHeld ? parent! : read;
  return { start, end, suffix: "" };
}
