import { isUsedAfter, no, operatorOf, referencesAt, unknown, yes, type Answer } from "../analysis/index.js";
import { oncePerNode, sameCode, shapeOf, type SyntaxNode } from "../syntax/index.js";
import { assignedBy, type Frame } from "./frame.js";
import { bare, itemRead, presenceOf, type PresenceTest } from "./presence-test.js";
import { isStatement, neighbour, waysOf } from "./ways.js";

/** The item of a collection that is looked up, tested and put. */
export interface ItemPlace {
  readonly collection: SyntaxNode;
  readonly key: SyntaxNode;
}

/** An item that is put where it is missing, or counted up. */
export interface Keyed extends ItemPlace {
  /** What is put, or by how much is counted. */
  readonly value: SyntaxNode;
  readonly does: "fills" | "counts";
  readonly test: PresenceTest;
  readonly nodes: readonly SyntaxNode[];
  readonly frame: Frame;
  readonly spelling: readonly Answer[];
}

/** An item that a statement writes, and what it writes: `d[k] = v`, `map.put(k, v)`. */
interface Put extends ItemPlace {
  readonly value: SyntaxNode;
  /** Is the value added to what is there: `d[k] += v`? */
  readonly adds: boolean;
  /** The writing itself, without what makes it a statement. */
  readonly writing: SyntaxNode;
}

/** The item that a statement puts into a collection. */
export function putBy(statement: SyntaxNode): Put | undefined {
  const { language } = statement.tree;
  const { expressionStatement, flow, calls, argumentLists, augmented } = language;
  const writing =
    statement.is(expressionStatement) && statement.parts.length === 1 ? statement.firstPart! : statement;
  const table = flow.assignments[writing.kind];
  if (table) {
    const [target, value] = [writing.child(table.target) ?? writing.firstPart, writing.lastPart];
    const item = target && itemRead(bare(target));
    const sign =
      writing.is(augmented) || /\+=/.test(writing.text.slice(0, (value?.start ?? 0) - writing.start));
    const operator = writing.text.slice(
      (target?.end ?? 0) - writing.start,
      (value?.start ?? 0) - writing.start,
    );
    if (!item || !value || value.same(target) || !/^\s*\+?=\s*$/.test(operator)) return undefined;
    return { ...item, value: bare(value), adds: sign, writing };
  }
  if (!writing.is(calls)) return undefined;
  const list = writing.parts.find((part) => part.is(argumentLists));
  const [key, value] = list?.parts ?? [];
  const receiver = receiverOf(writing);
  const isPut = flow.missing.itemWrites.includes(methodOf(writing, list));
  if (!isPut || !receiver || !key || !value || list?.parts.length !== 2) return undefined;
  return { collection: bare(receiver), key: bare(key), value: bare(value), adds: false, writing };
}

function methodOf(call: SyntaxNode, list: SyntaxNode | undefined): string {
  return /(\w+)\s*$/.exec(call.tree.text.slice(call.start, list?.start ?? call.end))?.[1] ?? "";
}

function receiverOf(call: SyntaxNode): SyntaxNode | undefined {
  const { memberReads } = call.tree.language;
  const callee = call.child("function");
  return callee?.is(memberReads) ? callee.firstPart : call.child("object");
}

/** The item that a test asks for, by its key or by its value, also where a local was just given that value. */
interface Asked extends ItemPlace {
  readonly test: PresenceTest;
  /** The local, and the statement that gives it the item. */
  readonly local?: { readonly name: SyntaxNode; readonly first: SyntaxNode; readonly read: SyntaxNode };
}

function itemAsked(condition: SyntaxNode, statement: SyntaxNode): Asked | undefined {
  const test = presenceOf(condition);
  if (test.asks === "key") return { test, collection: test.subject, key: test.key! };
  if (test.by === "truth" || test.key) return undefined;
  const item = itemRead(test.subject);
  if (item) return { test, ...item };
  const first = neighbour(statement, "before");
  const given = first && assignedBy(first);
  const read = given && itemRead(bare(given.value));
  if (!first || !read || !given.target.isLeaf || !sameCode(given.target, test.subject)) return undefined;
  // Where the local is part of what is looked up, its new value looks up something else.
  const { text } = given.target;
  if ([read.collection, read.key].some((part) => part.mentions(text).length > 0)) return undefined;
  return { test, ...read, local: { name: given.target, first, read: given.value } };
}

const isSameItem = (a: ItemPlace, b: ItemPlace): boolean =>
  sameCode(a.collection, b.collection) && sameCode(a.key, b.key);

/** `if (!m.has(k)) m.put(k, v);`, with the local that holds the item, or the statement that uses it at once. */
function fillsOf(node: SyntaxNode): Keyed[] {
  const ways = waysOf(node);
  if (!ways || !isStatement(node)) return [];
  const asked = itemAsked(ways.test, node);
  if (!asked) return [];
  const { test, local, collection, key } = asked;
  const [gone, there] = test.isThere ? [ways.no, ways.yes] : [ways.yes, ways.no];
  if (there.length > 0 || gone.length === 0) return [];
  const common = { collection, key, test, does: "fills", spelling: [] } as const;
  if (local) {
    const value = madeFor(local.name, asked, gone);
    if (!value) return [];
    const frame = { statement: local.first, value: local.read };
    return [{ ...common, value, nodes: [local.first, node], frame }];
  }
  const [only] = gone;
  const put = gone.length === 1 && only ? putBy(only) : undefined;
  if (!only || !put || put.adds || !isSameItem(put, asked)) return [];
  const alone: Keyed = {
    ...common,
    value: put.value,
    nodes: [node],
    frame: { statement: only, value: put.writing },
  };
  const next = neighbour(node, "after");
  const used = next && usedFirst(next, asked);
  if (!next || !used) return [alone];
  return [{ ...alone, nodes: [node, next], frame: { statement: next, value: used } }, alone];
}

/** What a local is given and put as the item: `l = v; m.put(k, l)`, `l = d[k] = v`, `m.put(k, l = v)`. */
function madeFor(
  name: SyntaxNode,
  item: ItemPlace,
  statements: readonly SyntaxNode[],
): SyntaxNode | undefined {
  const [one, two] = statements;
  const given = one && assignedBy(one);
  if (given && sameCode(given.target, name)) {
    if (statements.length === 1) {
      const put = putBy(bare(given.value));
      return put && !put.adds && isSameItem(put, item) ? put.value : undefined;
    }
    const put = statements.length === 2 ? putBy(two!) : undefined;
    return put && isSameItem(put, item) && sameCode(put.value, name) ? given.value : undefined;
  }
  const put = one && putBy(one);
  if (!put || put.adds || !isSameItem(put, item)) return undefined;
  const inside = assignedBy(put.value);
  if (statements.length === 1) return inside && sameCode(inside.target, name) ? inside.value : undefined;
  const then = statements.length === 2 ? assignedBy(two!) : undefined;
  const read = then && sameCode(then.target, name) ? itemRead(bare(then.value)) : undefined;
  return read && isSameItem(read, item) ? put.value : undefined;
}

/** The only read of an item in a statement, where it is what the statement evaluates first. */
function usedFirst(statement: SyntaxNode, item: ItemPlace): SyntaxNode | undefined {
  const reads = [...statement.descendants()].filter((node) => {
    const read = itemRead(node);
    return read !== undefined && isSameItem(read, item);
  });
  const [first] = reads;
  if (!first || reads.length !== 1 || first.start !== statement.start) return undefined;
  // What is written is no read.
  const { parent } = first;
  const table = parent && statement.tree.language.flow.assignments[parent.kind];
  return table && (parent.child(table.target) ?? parent.firstPart)?.same(first) ? undefined : first;
}

/** Code with a choice between an item and a sum in it has more nodes than this. */
const LEAST_NODES = 12;

/** `if (m.has(k)) m.put(k, m.get(k) + n); else m.put(k, n);` and the like. */
function countsOf(node: SyntaxNode): Keyed[] {
  const ways = waysOf(node);
  if (ways && isStatement(node)) {
    const asked = itemAsked(ways.test, node);
    if (!asked) return [];
    const [there, gone] = asked.test.isThere ? [ways.yes, ways.no] : [ways.no, ways.yes];
    return [...countedBy(node, asked, there, gone), ...countedAfter(node, asked, there, gone)];
  }
  // The choice stands inside of the put.
  const put = isStatement(node) ? putBy(node) : undefined;
  const inner = put && waysOf(put.value);
  if (!put || !inner || put.adds) return [];
  const asked = itemAsked(inner.test, node);
  const [yes, no] = [inner.yes[0], inner.no[0]];
  if (!asked || !yes || !no || !isSameItem(put, asked)) return [];
  const [sum, step] = asked.test.isThere ? [yes, no] : [no, yes];
  if (!addsTo(bare(sum), asked, step)) return [];
  return [counted(node, asked, step, { statement: node, value: put.writing })];
}

function countedBy(
  node: SyntaxNode,
  asked: Asked,
  there: readonly SyntaxNode[],
  gone: readonly SyntaxNode[],
): Keyed[] {
  const [one, other] = [there[0], gone[0]];
  if (!one || !other || there.length + gone.length !== 2) return [];
  const [more, first] = [putBy(one), putBy(other)];
  if (!more || !first || first.adds || !isSameItem(more, asked) || !isSameItem(first, asked)) return [];
  const isCount = more.adds ? sameCode(more.value, first.value) : addsTo(more.value, asked, first.value);
  return isCount ? [counted(node, asked, first.value, { statement: other, value: first.writing })] : [];
}

/** `if (!(k in d)) d[k] = 0; d[k] += n;` */
function countedAfter(
  node: SyntaxNode,
  asked: Asked,
  there: readonly SyntaxNode[],
  gone: readonly SyntaxNode[],
): Keyed[] {
  const next = neighbour(node, "after");
  const [only] = gone;
  if (!next || !only || there.length > 0 || gone.length !== 1 || asked.local) return [];
  const [first, more] = [putBy(only), putBy(next)];
  if (!first || !more || first.adds || !isSameItem(first, asked) || !isSameItem(more, asked)) return [];
  if (!more.adds || first.value.text !== "0") return [];
  const { collection, key, test } = asked;
  const frame = { statement: next, value: more.writing };
  return [
    {
      collection,
      key,
      test,
      value: more.value,
      does: "counts",
      nodes: [node, next],
      frame,
      spelling: [],
    },
  ];
}

function counted(node: SyntaxNode, asked: Asked, value: SyntaxNode, frame: Frame): Keyed {
  const { collection, key, test, local } = asked;
  const nodes = local ? [local.first, node] : [node];
  const spelling = local ? [isNotNeeded(local.name, node)] : [];
  return { collection, key, test, value, does: "counts", nodes, frame, spelling };
}

/** The item, or the local with its value, plus a step. */
function addsTo(sum: SyntaxNode, { local, ...item }: Asked, step: SyntaxNode): boolean {
  if (!sum.is(sum.tree.language.binary) || operatorOf(sum) !== "+") return false;
  const sides = [sum.firstPart!, sum.lastPart!].map(bare);
  return [sides, [...sides].reverse()].some(([a, b]) => {
    const read = itemRead(a!);
    const isItem = (read !== undefined && isSameItem(read, item)) || (local && sameCode(a!, local.name));
    return isItem === true && sameCode(b!, step);
  });
}

/** Where the local goes, nobody may read it later. */
function isNotNeeded(name: SyntaxNode, after: SyntaxNode): Answer {
  const to = referencesAt(name).find(({ member }) => !member)?.to;
  if (!to) return unknown("name.not-resolved", `what declares \`${name.text}\` is not known`, name);
  const later = isUsedAfter(to, after);
  if (later.is === "no") return yes("name.scope", `\`${name.text}\` is not needed afterwards`);
  return later.is === "yes" ? no("name.scope", later.evidence.says, name) : later;
}

const NONE: readonly Keyed[] = [];

const keyed = oncePerNode<readonly Keyed[]>((node) => [...fillsOf(node), ...countsOf(node)]);

/** The items that are filled in or counted by code that begins at a node, with the statements beside it. */
export function keyedAt(node: SyntaxNode): readonly Keyed[] {
  return shapeOf(node)?.is === "branch" || putsChoice(node) ? keyed(node) : NONE;
}

/** May what a statement writes be a choice? Asked of every statement and call, so first of all. */
function putsChoice(node: SyntaxNode): boolean {
  const { tree, id } = node;
  if (tree.after[id]! - id < LEAST_NODES) return false;
  const { expressionStatement, argumentLists } = tree.language;
  const writing = node.is(expressionStatement) ? node.firstPart : node;
  const last = writing?.lastPart;
  const value = last?.is(argumentLists) ? last.lastPart : last;
  return value !== undefined && shapeOf(bare(value))?.is === "branch";
}
