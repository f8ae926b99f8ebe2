import { countLeading } from "../count-leading.js";
import type { SyntaxNode } from "../node.js";
import type { SyntaxTree } from "../tree.js";
import type { Mask, Obstacle } from "./mask.js";

/** So often the same kind of obstacle is looked for. */
const MOST_ROUNDS = 3;

type Read = (masks: readonly Mask[]) => SyntaxTree;

/**
 * The tree of a text that the parser cannot read whole, with as little hidden as lets it read more: what stands in the way
 * is hidden round by round, and what is read well as it is, in a function or by itself, comes back. `read` parses the
 * text with some of it hidden; `readsAlone` tells whether a function is read well by itself.
 */
export function masked(plain: SyntaxTree, read: Read, readsAlone: (node: SyntaxNode) => boolean): SyntaxTree {
  let best = plain;
  let hidden: readonly Obstacle[] = [];
  // What is hidden may bring to light what the parser stumbles over next.
  for (const find of plain.language.obstacles.flatMap((one) => Array<typeof one>(MOST_ROUNDS).fill(one))) {
    if (best.errors.length === 0) break;
    const isHidden = new Set(hidden.map(({ start, end }) => `${start} ${end}`));
    const more = near(find(plain.text), best).filter(({ start, end }) => !isHidden.has(`${start} ${end}`));
    if (more.length === 0) continue;
    const all = [...hidden, ...more];
    const tree = read(masksOf(all));
    if (unreadText(tree) >= unreadText(best)) continue;
    const needed = all.filter((one) => !isReadAsItIs(one, plain, tree, readsAlone));
    const least = needed.length < all.length ? read(masksOf(needed)) : tree;
    const isAsGood = unreadText(least) <= unreadText(tree);
    best = isAsGood ? least : tree;
    hidden = isAsGood ? needed : all;
  }
  return best;
}

/** How much of a text the parser could not read. */
function unreadText(tree: SyntaxTree): number {
  let end = 0;
  let sum = 0;
  for (const n of tree.errors) {
    sum += 1 + Math.max(0, tree.ends[n]! - Math.max(end, tree.starts[n]!));
    end = Math.max(end, tree.ends[n]!);
  }
  return sum;
}

/** Those of the obstacles that touch code with an error in it: the outermost declarations that hold one. */
function near(obstacles: readonly Obstacle[], tree: SyntaxTree): Obstacle[] {
  const { statementLists, memberLists } = tree.language;
  const spans = tree.errors.map((n) => {
    let at = tree.node(n);
    for (const above of at.ancestors()) {
      const isList = above.is(memberLists) || (above.is(statementLists) && above.parent === undefined);
      if (isList || above.parent === undefined) break;
      at = above;
    }
    // The cause may stand right before what the parser stumbled over.
    const line = tree.lineAt(at.start);
    return { start: tree.lineStart(Math.max(1, line - 2)), end: at.end };
  });
  const places = merged(spans);
  return obstacles.filter(({ start, end }) => {
    const i = countLeading(places.length, (k) => places[k]!.end < start);
    return i < places.length && places[i]!.start <= end;
  });
}

interface Span {
  readonly start: number;
  readonly end: number;
}

/** Spans in order, those that touch as one. */
function merged(spans: readonly Span[]): Span[] {
  const result: Span[] = [];
  for (const span of [...spans].sort((a, b) => a.start - b.start)) {
    const last = result.at(-1);
    if (last && span.start <= last.end)
      result[result.length - 1] = { start: last.start, end: Math.max(last.end, span.end) };
    else result.push(span);
  }
  return result;
}

/** Would the parser read this well without hiding it? */
function isReadAsItIs(
  obstacle: Obstacle,
  plain: SyntaxTree,
  tree: SyntaxTree,
  readsAlone: (node: SyntaxNode) => boolean,
): boolean {
  const { start, end } = obstacle;
  const whole = plain.nodeAt(start, end);
  const isOwnNode = plain.lineAt(whole.start) === plain.lineAt(start) && whole.parent !== undefined;
  if (
    isOwnNode &&
    !holdsError(plain, whole) &&
    whole.end >= end &&
    plain.lineAt(whole.end) <= plain.lineAt(end) + 1
  )
    return true;
  const around = functionAround(tree, start, end);
  return around !== undefined && readsAlone(around);
}

function functionAround(tree: SyntaxTree, start: number, end: number): SyntaxNode | undefined {
  const node = tree.nodeAt(start, end);
  return [node, ...node.ancestors()].filter((above) => above.is(tree.language.functions)).at(-1);
}

function holdsError(tree: SyntaxTree, node: SyntaxNode): boolean {
  const i = countLeading(tree.errors.length, (k) => tree.errors[k]! < node.id);
  return i < tree.errors.length && tree.errors[i]! < tree.after[node.id]!;
}

function masksOf(obstacles: readonly Obstacle[]): Mask[] {
  return obstacles.flatMap(({ masks }) => masks).sort((a, b) => a.start - b.start || b.end - a.end);
}
