import { nameInFile, useOf } from "../analysis/index.js";
import { compile, matchAt, Snippet } from "../pattern/index.js";
import {
  importStatements,
  type Import,
  type NodeId,
  type SyntaxNode,
  type SyntaxTree,
} from "../syntax/index.js";
import { isCallee } from "./code-kinds.js";
import type { Keys } from "./keys.js";
import { regionsBetween, type Difference, type Kept, type Region } from "./regions.js";
import { endOf, itemsOf, listKind, one, startOf, textOfRun, type Run } from "./run.js";

/** A file as it was and as somebody made it by hand. */
export interface Edited {
  readonly path: string;
  readonly before: SyntaxTree;
  readonly after: SyntaxTree;
}

/** One edit of a file: code that says something by itself, and what it became. */
export interface Instance {
  readonly file: Edited;
  readonly before: Run;
  readonly after: Run;
  /** What the file brings in since the edit. */
  readonly came: readonly Import[];
  /** Does another edit belong to it that stands too far away to be one with it? */
  readonly isHalf: boolean;
}

interface Unit {
  readonly before: Run;
  readonly after: Run;
  readonly around: readonly Kept[];
  /** The parts that were changed, of which the unit is made. */
  readonly changed: readonly Pick<Region, "before" | "after">[];
  readonly isHalf: boolean;
}

/** Statements side by side that are taken together are no more than this. */
const LONGEST_RUN = 16;

/**
 * The edits of a file, in its order: each changed part, widened until it is code that says something by itself, and parts
 * that belong together as one.
 */
export function instancesIn(file: Edited, keys: Keys): Instance[] {
  const { before, after } = file;
  const { regions, children } = regionsBetween(before, after, keys);
  const widened = outermost(
    regions.flatMap((region) => withoutImports(region)).map((region) => widen(region)),
  );
  const together = outermost(joined(widened, children));
  const came = broughtSince(before, after);
  return together.map(({ before, after, isHalf }) => ({ file, before, after, came, isHalf }));
}

/** A region without the imports in it, of which a rule says nothing. */
function withoutImports(region: Region): Region[] {
  if (region.around.some(({ before }) => isImport(region.before.tree, before))) return [];
  const left = ({ tree, nodes }: Run): Run => ({ tree, nodes: nodes.filter((n) => !isImport(tree, n)) });
  const [old, now] = [left(region.before), left(region.after)];
  return old.nodes.length + now.nodes.length === 0 ? [] : [{ ...region, before: old, after: now }];
}

/** Does a node stand in an import, or is there nothing else in it? */
function isImport(tree: SyntaxTree, n: NodeId): boolean {
  const isAlone = ({ id }: SyntaxNode): boolean =>
    n > 0 && tree.parents[id] === n && tree.node(n).parts.length === 1;
  return importStatements(tree).some(({ node }) => node.holds(tree.node(n)) || isAlone(node));
}

/** What stands around, until the old code is something that a pattern can be made of. */
function widen(region: Region): Unit {
  let unit: Unit = { ...region, changed: [region], isHalf: false };
  while (unit.around.length > 1 && !saysSomething(unit)) unit = lifted(unit);
  // What is called by another name says more with its arguments.
  const above = unit.around.at(-1);
  const [node] = unit.before.nodes;
  if (above && node !== undefined && isCallee(unit.before.tree, node) && unit.around.length > 1)
    unit = lifted(unit);
  return unit;
}

function lifted(unit: Unit): Unit {
  const { before, after, around } = unit;
  const last = around.at(-1)!;
  return {
    ...unit,
    before: one(before.tree, last.before),
    after: one(after.tree, last.after),
    around: around.slice(0, -1),
  };
}

function saysSomething({ before, after, around }: Unit): boolean {
  const { tree, nodes } = before;
  const inList = listKind(tree, around.at(-1)!.before);
  const isList = inList === "statements" || inList === "members" || around.length === 1;
  // Something put in or taken out says something beside other statements only; what it belongs to is seen later.
  if (nodes.length === 0 || after.nodes.length === 0) return isList;
  if (nodes.length > 1 || after.nodes.length > 1) return isList;
  const [node] = nodes as [NodeId];
  const { language } = tree;
  if (!tree.isNamed(node) || tree.isLeaf(node) || listKind(tree, node) !== undefined) return isList;
  const { notExpressions, strings } = language;
  if (notExpressions.includes(tree.kind(node)) || strings.includes(tree.kind(node))) return isList;
  const now = after.nodes[0]!;
  if (!after.tree.isNamed(now) || listKind(after.tree, now) !== undefined) return isList;
  return isList || fitsItself(before);
}

/** Can a pattern be made of this code as it stands? */
function fitsItself(run: Run): boolean {
  const { tree, nodes } = run;
  try {
    const snippet = new Snippet(tree.language.id, [textOfRun(run)], []);
    return compile(snippet, tree.language.id).some(
      (pattern) =>
        pattern.rootKind === tree.kindIds[nodes[0]!] && matchAt(pattern, tree, nodes[0]!) !== undefined,
    );
  } catch {
    return false;
  }
}

/** Those that no other one holds, each once; without those with nothing on either side. */
function outermost(units: readonly Unit[]): Unit[] {
  const filled = units.filter(({ before, after }) => before.nodes.length + after.nodes.length > 0);
  const isIn = (a: Run, b: Run): boolean =>
    a.nodes.length === 0 || (b.nodes.length > 0 && startOf(b) <= startOf(a) && endOf(a) <= endOf(b));
  const isWithin = (a: Unit, b: Unit): boolean => isIn(a.before, b.before) && isIn(a.after, b.after);
  return filled.filter((unit, i) =>
    filled.every((other, k) => k === i || !isWithin(unit, other) || (isWithin(other, unit) && i < k)),
  );
}

/** Units that share a name which one of them declares, and those with nothing on one side with what is beside them. */
function joined(units: readonly Unit[], children: Difference["children"]): Unit[] {
  const left = [...units];
  for (let i = 0; i < left.length; i++) {
    for (let k = i + 1; k < left.length; k++) {
      if (!belong(left[i]!, left[k]!)) continue;
      const both = join(left[i]!, left[k]!, children);
      if (!both) {
        left[i] = { ...left[i]!, isHalf: true };
        left[k] = { ...left[k]!, isHalf: true };
        continue;
      }
      left.splice(k, 1);
      left[i] = both;
      k = i;
    }
  }
  const isOneSided = ({ before, after }: Unit): boolean =>
    before.nodes.length === 0 || after.nodes.length === 0;
  for (let i = 0; i < left.length; i++) {
    if (!isOneSided(left[i]!)) continue;
    const [nearest] = left
      .map((other, k) => ({ k, both: k === i ? undefined : join(left[i]!, other, children) }))
      .filter(({ both }) => both !== undefined)
      .sort((a, b) => sizeOf(a.both!) - sizeOf(b.both!));
    if (!nearest) continue;
    left[i] = nearest.both!;
    left.splice(nearest.k, 1);
    i = -1;
  }
  return left.map((unit) => (unit.before.nodes.length === 0 && unit.around.length > 1 ? lifted(unit) : unit));
}

const sizeOf = ({ before }: Unit): number =>
  before.nodes.length === 0 ? 0 : endOf(before) - startOf(before);

/** Does a changed part of one of two units declare, before or after, what one of the other uses? One alone would be half an edit. */
function belong(a: Unit, b: Unit): boolean {
  const runs = ({ changed }: Unit, side: "before" | "after"): Run[] => changed.map((region) => region[side]);
  const uses = (from: readonly Run[], to: readonly Run[]): boolean =>
    from.some((run) =>
      [...declaredIn(run)].some(([name, at]) => to.some((other) => mentions(other, name, at))),
    );
  return (["before", "after"] as const).some(
    (side) => uses(runs(a, side), runs(b, side)) || uses(runs(b, side), runs(a, side)),
  );
}

/** The names that are declared in a run, with the nodes that do. */
export function declaredIn({ tree, nodes }: Run): ReadonlyMap<string, NodeId> {
  const found = new Map<string, NodeId>();
  for (const n of nodes)
    for (let m = n; m < tree.after[n]!; m++) {
      if (!tree.isLeaf(m) || tree.language.binding.leaves[tree.kind(m)] === undefined) continue;
      const node = tree.node(m);
      const use = useOf(node);
      if (typeof use === "string" || !use.declares || use.memberOf !== undefined) continue;
      if (!found.has(node.text)) found.set(node.text, m);
    }
  return found;
}

/** Does a run name what a node declares? */
function mentions({ tree, nodes }: Run, name: string, declared: NodeId): boolean {
  const bare = tree.language.binding.bare(tree.node(declared));
  const all = nameInFile(bare, tree);
  const to = all.declarations.find(({ at }) => at.some(({ id }) => id === declared));
  if (!to) return false;
  return all.of(to).some(({ node }) => nodes.some((n) => n <= node.id && node.id < tree.after[n]!));
}

/** Two units as one: the node around both, or the statements from the first to the last. */
function join(a: Unit, b: Unit, children: Difference["children"]): Unit | undefined {
  const [before, after] = [a.before.tree, a.after.tree];
  let shared = 0;
  while (
    shared < a.around.length &&
    shared < b.around.length &&
    a.around[shared]!.before === b.around[shared]!.before
  )
    shared++;
  const around = a.around.slice(0, shared);
  const last = around.at(-1);
  if (!last) return undefined;
  const both = { changed: [...a.changed, ...b.changed], isHalf: a.isHalf || b.isHalf };
  const inList = listKind(before, last.before);
  if (inList !== "statements" && inList !== "members" && shared > 1)
    return {
      before: one(before, last.before),
      after: one(after, last.after),
      around: around.slice(0, -1),
      ...both,
    };
  const old = itemsOf(before, last.before);
  const now = itemsOf(after, last.after);
  const places = (tree: SyntaxTree, items: readonly NodeId[], side: "before" | "after"): number[] =>
    [a, b]
      .flatMap((unit) => [
        ...unit[side].nodes,
        ...unit.around.slice(shared, shared + 1).map((kept) => kept[side]),
      ])
      .map((n) => items.findIndex((item) => item <= n && n < tree.after[item]!));
  const pairs = (children.get(last.before) ?? [])
    .map((pair) => ({ before: old.indexOf(pair.before), after: now.indexOf(pair.after) }))
    .filter((pair) => pair.before >= 0 && pair.after >= 0);
  const span = spanned(places(before, old, "before"), places(after, now, "after"), pairs, [
    old.length,
    now.length,
  ]);
  if (!span) return undefined;
  const unit = {
    before: { tree: before, nodes: old.slice(span.before[0], span.before[1] + 1) },
    after: { tree: after, nodes: now.slice(span.after[0], span.after[1] + 1) },
    around,
    ...both,
  };
  return unit.before.nodes.length > LONGEST_RUN || unit.after.nodes.length > LONGEST_RUN ? undefined : unit;
}

type Span = readonly [first: number, last: number];

/**
 * The items from the first to the last on both sides, where they are known on one or on both: what lies between two items that
 * became each other on one side lies between them on the other.
 */
function spanned(
  before: readonly number[],
  after: readonly number[],
  pairs: readonly { readonly before: number; readonly after: number }[],
  [many, manyAfter]: readonly [number, number],
): { readonly before: Span; readonly after: Span } | undefined {
  if (before.includes(-1) || after.includes(-1)) return undefined;
  const isInside = ({ before: x, after: y }: { readonly before: number; readonly after: number }): boolean =>
    before.some((place) => place === x) || after.some((place) => place === y);
  const [low, high] = [Math.min(many, ...before), Math.max(-1, ...before)];
  const [lowAfter, highAfter] = [Math.min(manyAfter, ...after), Math.max(-1, ...after)];
  const ahead = pairs.filter((pair) => !isInside(pair) && pair.before < low && pair.after < lowAfter);
  const behind = pairs.filter((pair) => !isInside(pair) && pair.before > high && pair.after > highAfter);
  const [from, fromAfter] = [
    Math.max(-1, ...ahead.map((pair) => pair.before)) + 1,
    Math.max(-1, ...ahead.map((pair) => pair.after)) + 1,
  ];
  const [to, toAfter] = [
    Math.min(many, ...behind.map((pair) => pair.before)) - 1,
    Math.min(manyAfter, ...behind.map((pair) => pair.after)) - 1,
  ];
  return { before: [from, to], after: [fromAfter, toAfter] };
}

/** The imports that a file has since an edit. */
function broughtSince(before: SyntaxTree, after: SyntaxTree): Import[] {
  const all = (tree: SyntaxTree): Import[] => importStatements(tree).flatMap(({ imports }) => imports);
  const old = all(before);
  return all(after)
    .filter(({ module, name }) => !old.some((other) => other.module === module && other.name === name))
    .map(({ module, name, local, form }) => ({ module, name, local, form }));
}
