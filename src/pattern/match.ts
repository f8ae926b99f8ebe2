import {
  NO_NODE,
  sameToken,
  significantChildren,
  treesEqual,
  unwrapped,
  type Language,
  type NodeId,
  type SyntaxNode,
  type SyntaxTree,
} from "../syntax/index.js";
import { sequenceFacts, type SequenceFacts } from "./backtracking.js";
import { compile, type CompiledPattern } from "./compile.js";
import type { Hole, Snippet } from "./hole.js";
import { ListCapture, textOfCapture, type Capture } from "./capture.js";
import type { HoleNode, InnerNode, LeafNode, ListNode, PatternNode, TextNode } from "./pattern-node.js";
import { deadEnds, searchIn } from "./remembered.js";
import { originAt } from "./origins.js";
import { fitText } from "./strings.js";
import { swapsToTry } from "./swaps.js";

/** One place that a pattern fits. */
export interface PatternMatch {
  /** The code that fitted, with its surroundings; undefined where a reading was found and no code. */
  readonly pattern: CompiledPattern | undefined;
  /** Does it stand for statements or members side by side, rather than for one node within them? */
  readonly isStatements: boolean;
  readonly tree: SyntaxTree;
  /** The matched node, or the neighbouring statements. */
  readonly nodes: readonly NodeId[];
  readonly start: number;
  readonly end: number;
  readonly captures: ReadonlyMap<Hole, Capture>;
}

const NOTHING: ReadonlyMap<Hole, Capture> = new Map();
const NO_SWAPS: ReadonlySet<PatternNode> = new Set();
const NOTHING_SAVED: readonly (readonly [Hole, Capture])[] = [];

/**
 * Tries a pattern at one node; the node's kind should be the pattern's `rootKind`. Holes in `bound` already
 * stand for something and must mean the same here.
 */
export function matchAt(
  pattern: CompiledPattern,
  tree: SyntaxTree,
  n: NodeId,
  bound: ReadonlyMap<Hole, Capture> = NOTHING,
): PatternMatch | undefined {
  if (pattern.withoutModifiers && hasModifiersAround(tree, n)) return undefined;
  if (tree.kindIds[n] === pattern.rootKind && !mayFit(pattern.sequence[0]!, tree, n)) return undefined;
  if (pattern.isStatements && tree.language.isNoStatement(tree.node(n))) return undefined;
  for (const swapped of swapsToTry(pattern.sequence)) {
    const match = attempt(pattern, tree, n, new Matcher(tree, bound, swapped));
    if (match) return match;
  }
  return undefined;
}

function attempt(
  pattern: CompiledPattern,
  tree: SyntaxTree,
  n: NodeId,
  matcher: Matcher,
): PatternMatch | undefined {
  let nodes: readonly NodeId[] | undefined;
  const [only] = pattern.sequence;
  if (pattern.sequence.length === 1 && only) {
    nodes = matcher.node(only, n) ? [n] : undefined;
  } else {
    nodes = matcher.window(pattern.sequence, n);
  }
  if (!nodes) return undefined;
  const start = tree.starts[nodes[0]!]!;
  const end = tree.ends[nodes.at(-1)!]!;
  const { isStatements } = pattern;
  return { pattern, isStatements, tree, nodes, start, end, captures: matcher.captures };
}

/** Lets a hole stand for a node, if it may: of its kind, within its limits, and the same code as before. */
export function fill(
  hole: Hole,
  { tree, id }: SyntaxNode,
  bound: ReadonlyMap<Hole, Capture> = NOTHING,
): ReadonlyMap<Hole, Capture> | undefined {
  const matcher = new Matcher(tree, bound, NO_SWAPS);
  return matcher.node({ type: "hole", hole, parentheses: 0 }, id) ? matcher.captures : undefined;
}

/** What can be told at a glance, before holes are filled: the number of nodes, their tokens and their kinds. */
function mayFit(p: PatternNode, tree: SyntaxTree, n: NodeId): boolean {
  if (p.type === "hole") return mayBeHole(p, tree, n);
  if (p.type !== "leaf" && p.type !== "inner") return true;
  if (tree.kindIds[n] !== p.kind) {
    if (p.type === "inner" && (p.lone !== undefined || isShort(p, tree, n))) return true;
    const inner = unwrapped(tree, n);
    return inner !== n && tree.kindIds[inner] === p.kind;
  }
  if (p.type === "leaf") return !tree.isNamed(n) || isToken(p, tree, n);
  const children = significantChildren(tree, n);
  return (
    mayFitInOrder(p.children, tree, children) || (p.commutes && mayFitInOrder(turnedRound(p), tree, children))
  );
}

function mayBeHole({ hole, parentheses }: HoleNode, tree: SyntaxTree, n: NodeId): boolean {
  const { node } = hole.limits;
  if (node === undefined || parentheses > 0) return true;
  const kind = tree.kind(n);
  return typeof node === "string" ? node === kind : node.includes(kind);
}

/** Goes by the nodes ahead of the first list and behind the last. */
function mayFitInOrder(pattern: readonly PatternNode[], tree: SyntaxTree, nodes: readonly NodeId[]): boolean {
  const { first, last } = sequenceFacts(pattern);
  const isFixed = first === pattern.length;
  if (isFixed ? nodes.length !== first : nodes.length < first + last) return false;
  for (let i = 0; i < first; i++) if (!mayFit(pattern[i]!, tree, nodes[i]!)) return false;
  if (isFixed) return true;
  for (let i = 1; i <= last; i++) if (!mayFit(pattern.at(-i)!, tree, nodes.at(-i)!)) return false;
  return true;
}

function isShort({ short }: InnerNode, tree: SyntaxTree, n: NodeId): boolean {
  return short !== undefined && tree.kind(n) === short.kindName && tree.textOf(n) === short.text;
}

function isToken(p: LeafNode, tree: SyntaxTree, n: NodeId): boolean {
  return sameToken(tree.language, p.kindName, p.text, tree.textOf(n));
}

const turned = new WeakMap<InnerNode, readonly PatternNode[]>();

/** What is in a commuting node, the other way round. */
function turnedRound(p: InnerNode): readonly PatternNode[] {
  let found = turned.get(p);
  if (!found) {
    const [left, operator, right] = p.children;
    turned.set(p, (found = [right!, p.mirrored ?? operator!, left!]));
  }
  return found;
}

/** Is a node wrapped in one that gives it modifiers, as decorators do? */
function hasModifiersAround(tree: SyntaxTree, n: NodeId): boolean {
  const parent = tree.parents[n]!;
  if (parent === NO_NODE) return false;
  const { memberLists, statementLists, modifiers } = tree.language;
  if (memberLists.includes(tree.kind(parent)) || statementLists.includes(tree.kind(parent))) return false;
  return tree.children(parent).some((child) => child < n && modifiers.includes(tree.kind(child)));
}

/** The first of several patterns that fits at a node, if any does. */
export function matchOneAt(
  patterns: readonly CompiledPattern[],
  tree: SyntaxTree,
  n: NodeId,
  bound: ReadonlyMap<Hole, Capture> = NOTHING,
): PatternMatch | undefined {
  for (const pattern of patterns) {
    if (tree.kindIds[n] !== pattern.rootKind) continue;
    const match = matchAt(pattern, tree, n, bound);
    if (match) return match;
  }
  return undefined;
}

/** All matches in the subtree of `within`, in document order; they may nest. */
export function* matchesIn(
  patterns: readonly CompiledPattern[],
  tree: SyntaxTree,
  within: NodeId,
  bound: ReadonlyMap<Hole, Capture> = NOTHING,
): Generator<PatternMatch> {
  for (let n = within; n < tree.after[within]!; n++) {
    const match = matchOneAt(patterns, tree, n, bound);
    if (match) yield match;
  }
}

/** Pattern nodes to be matched against neighbouring nodes. A list takes as few of them as it can. */
interface Sequence {
  readonly pattern: readonly PatternNode[];
  readonly nodes: readonly NodeId[];
  /** Must every node be used? */
  readonly toEnd: boolean;
  /** Where a list at the very start is that stands for nothing. */
  readonly emptyAt: number;
  /** Places in pattern and nodes from which no match can be had. */
  readonly dead: Set<number>;
}

class Matcher {
  readonly captures: Map<Hole, Capture>;
  readonly #tree: SyntaxTree;
  readonly #language: Language;

  readonly #swapped: ReadonlySet<PatternNode>;

  /** `swapped` are nodes whose two sides are to be taken the other way round only. */
  constructor(tree: SyntaxTree, bound: ReadonlyMap<Hole, Capture>, swapped: ReadonlySet<PatternNode>) {
    this.captures = new Map(bound);
    this.#swapped = swapped;
    this.#tree = tree;
    this.#language = tree.language;
  }

  node(p: PatternNode, n: NodeId): boolean {
    if (p.type === "list") return false;
    if (p.type === "hole") return this.#fill(p, n);
    const tree = this.#tree;
    if (tree.kindIds[n] !== p.kind) {
      n = unwrapped(tree, n);
      if (tree.kindIds[n] !== p.kind) return p.type === "inner" && this.#inOtherForm(p, n);
    }
    if (p.type === "leaf") {
      return !tree.isNamed(n) || isToken(p, tree, n);
    }
    if (p.type === "text") return this.#text(p, n);
    const children = significantChildren(tree, n);
    const emptyAt = tree.starts[n]!;
    const inOrder = (pattern: readonly PatternNode[]): boolean =>
      mayFitInOrder(pattern, tree, children) &&
      this.#sequence({ pattern, nodes: children, toEnd: true, emptyAt, dead: new Set() }, 0, 0) >= 0;
    if (!this.#swapped.has(p) && inOrder(p.children)) return true;
    return p.commutes && inOrder(turnedRound(p));
  }

  /** Without its braces, or with one name for a key and its value. */
  #inOtherForm(p: InnerNode, n: NodeId): boolean {
    if (p.short && isShort(p, this.#tree, n)) return this.#fill(p.short.value, n);
    return p.lone !== undefined && this.node(p.lone, n);
  }

  #text({ pieces }: TextNode, n: NodeId): boolean {
    const tree = this.#tree;
    const from = tree.starts[n]!;
    const found = fitText(pieces, tree.textOf(n));
    return (
      found?.every(({ hole, start, end }) =>
        this.#bind(hole, { tree, nodes: NO_NODES, start: from + start, end: from + end }),
      ) ?? false
    );
  }

  /** Matches statements that stand side by side, from `first` on; gives all of them, comments aside. */
  window(pattern: readonly PatternNode[], first: NodeId): NodeId[] | undefined {
    const [start] = pattern;
    // Most statements fail here, before their neighbours are looked at.
    if (!start || !new Matcher(this.#tree, this.captures, this.#swapped).node(start, first)) return undefined;
    const tree = this.#tree;
    const parent = tree.parents[first]!;
    const { statementLists, memberLists } = this.#language;
    const list = parent === NO_NODE ? "" : tree.kind(parent);
    if (!statementLists.includes(list) && !memberLists.includes(list)) return undefined;
    const siblings = significantChildren(tree, parent);
    const from = siblings.indexOf(first);
    const shared = this.captures.size === 0 && this.#swapped.size === 0 && sequenceFacts(pattern).alike;
    const dead = shared ? deadEnds(siblings, pattern) : new Set<number>();
    const sequence = { pattern, nodes: siblings, toEnd: false, emptyAt: tree.starts[first]!, dead };
    const end = this.#sequence(sequence, 0, from);
    return end < 0 ? undefined : siblings.slice(from, end);
  }

  /** Matches the rest of a sequence; gives the place after the last matched node, or -1. */
  #sequence(s: Sequence, pi: number, ti: number): number {
    const { pattern, nodes, toEnd } = s;
    const saved = this.#saved();
    for (; pi < pattern.length; pi++) {
      const p = pattern[pi]!;
      if (p.type === "list") {
        const end = this.#list(s, p, pi, ti);
        if (end < 0) this.#restore(saved);
        return end;
      }
      const fits = ti < nodes.length && this.node(p, nodes[ti]!);
      if (!fits && p.type === "inner" && p.mayBeMissing && this.#leftOut(p.children, s, ti)) continue;
      if (!fits) {
        this.#restore(saved);
        return -1;
      }
      ti++;
    }
    if (toEnd && ti < nodes.length) {
      this.#restore(saved);
      return -1;
    }
    return ti;
  }

  /** Lets the lists of a node that is missing stand for nothing. */
  #leftOut(lists: readonly PatternNode[], { nodes, emptyAt }: Sequence, ti: number): boolean {
    const at = ti > 0 ? this.#tree.ends[nodes[ti - 1]!]! : emptyAt;
    return lists.every((p) => p.type === "list" && this.#fillList(p, nodes, ti, ti, at));
  }

  /** Tries a list at its place with no node, then with one more and one more. */
  #list(s: Sequence, list: ListNode, pi: number, ti: number): number {
    const { pattern, nodes, toEnd, dead } = s;
    const tree = this.#tree;
    const facts = sequenceFacts(pattern);
    const next = pattern[pi + 1];
    const independent = next !== undefined && facts.independent[pi + 1]!;
    const saved = this.#saved();
    const emptyAt = ti > 0 ? tree.ends[nodes[ti - 1]!]! : s.emptyAt;
    // Of two lists side by side the second can take all that the first could.
    const most = independent && next.type === "list" ? ti : nodes.length;
    for (let at = !next && toEnd ? nodes.length : ti; at <= most; at++) {
      if (next && next.type !== "list") at = this.#nextPossible(facts, pi + 1, nodes, at);
      if (at > most) break;
      const key = (pi + 1) * (nodes.length + 1) + at;
      if (dead.has(key)) continue;
      if (this.#fillList(list, nodes, ti, at, emptyAt)) {
        const end = this.#sequence(s, pi + 1, at);
        if (end >= 0) return end;
        if (independent) dead.add(key);
      }
      this.#restore(saved);
    }
    return -1;
  }

  /** The first node from `at` on whose text can match the pattern node at a place, going by its words. */
  #nextPossible(facts: SequenceFacts, place: number, nodes: readonly NodeId[], at: number): number {
    const tree = this.#tree;
    if (at >= nodes.length) return at;
    const from = tree.starts[nodes[at]!]!;
    let furthest = from;
    const named = facts.holes[place]!.flatMap((hole) => {
      const capture =
        hole.kind === "name" && this.#language.ignoresCase === "nowhere"
          ? this.captures.get(hole)
          : undefined;
      return capture ? [textOfCapture(capture)] : [];
    });
    for (const word of [...named, ...facts.words[place]!.slice(0, 1)]) {
      furthest = Math.max(furthest, searchIn(tree).next(word, from));
    }
    if (furthest === Infinity) return nodes.length + 1;
    let low = at;
    let high = nodes.length;
    while (low < high) {
      const middle = (low + high) >> 1;
      if (tree.ends[nodes[middle]!]! > furthest) high = middle;
      else low = middle + 1;
    }
    return low;
  }

  #saved(): readonly (readonly [Hole, Capture])[] {
    return this.captures.size === 0 ? NOTHING_SAVED : [...this.captures];
  }

  #restore(saved: readonly (readonly [Hole, Capture])[]): void {
    if (this.captures.size === 0 && saved.length === 0) return;
    this.captures.clear();
    for (const [hole, capture] of saved) this.captures.set(hole, capture);
  }

  #fill({ hole, parentheses }: HoleNode, n: NodeId): boolean {
    const tree = this.#tree;
    for (let i = 0; i < parentheses; i++) {
      if (tree.kind(n) !== this.#language.parenthesized) break;
      const [, inner] = significantChildren(tree, n);
      if (inner === undefined || tree.node(n).parts.length !== 1) break;
      n = inner;
    }
    return (
      this.#mayStandFor(hole, n) &&
      this.#bind(hole, { tree, nodes: [n], start: tree.starts[n]!, end: tree.ends[n]! })
    );
  }

  /** Is this node of the hole's kind, and within its limits? */
  #mayStandFor({ kind, limits }: Hole, n: NodeId): boolean {
    const tree = this.#tree;
    const { names, notExpressions, operators } = this.#language;
    const nodeKind = tree.kind(n);
    if (kind === "operator") {
      if (tree.isNamed(n) && !operators.includes(nodeKind)) return false;
    } else if (!tree.isNamed(n)) return false;
    if (kind === "name" && !names.includes(nodeKind)) return false;
    const { node, like, unlike, origin } = limits;
    // A hole that names its kinds of node says itself what it takes.
    if (kind === "expression" && node === undefined && notExpressions.includes(nodeKind)) return false;
    if (node !== undefined && !(typeof node === "string" ? [node] : node).includes(nodeKind)) return false;
    if (unlike && matchOneAt(compile(unlike, this.#language.id), tree, unwrapped(tree, n), this.captures))
      return false;
    if (origin !== undefined && originAt(tree.node(n), origin) === "no") return false;
    return like === undefined || this.#isLike(like, n);
  }

  /** Fits a hole's own pattern, whose holes are filled along with the others. */
  #isLike(like: Snippet, n: NodeId): boolean {
    const tree = this.#tree;
    const match = matchOneAt(compile(like, this.#language.id), tree, unwrapped(tree, n), this.captures);
    for (const [hole, capture] of match?.captures ?? []) this.captures.set(hole, capture);
    return match !== undefined;
  }

  /** Lets a hole stand for a capture, if it does not stand for other code yet. */
  #bind(hole: Hole, capture: Capture): boolean {
    const { text } = hole.limits;
    if (text !== undefined) {
      const code = textOfCapture(capture);
      if (typeof text === "string" ? code !== text : code.search(text) < 0) return false;
    }
    const before = this.captures.get(hole);
    if (before) {
      if (!this.#sameCode(before, capture) && !isSameWord(hole, before, capture)) return false;
      const isSpeltAlike = before.nodes.length === 1 && textOfCapture(before) === textOfCapture(capture);
      const { tree, nodes, start, end, again = [] } = before;
      if (isSpeltAlike && tree === capture.tree)
        this.captures.set(hole, { tree, nodes, start, end, again: [...again, capture] });
      return true;
    }
    this.captures.set(hole, capture);
    return true;
  }

  #sameCode(a: Capture, b: Capture): boolean {
    if (a.nodes.length === 0 && b.nodes.length === 0) return textOfCapture(a) === textOfCapture(b);
    return (
      a.nodes.length === b.nodes.length && a.nodes.every((n, i) => treesEqual(a.tree, n, b.tree, b.nodes[i]!))
    );
  }

  /** Lets a list hole stand for the nodes from `from` up to `to`. */
  #fillList(
    { hole, comma }: ListNode,
    all: readonly NodeId[],
    from: number,
    to: number,
    emptyAt: number,
  ): boolean {
    const tree = this.#tree;
    if (comma && from < to) {
      const at = comma === "before" ? from : to - 1;
      if (tree.kind(all[at]!) !== ",") return false;
      if (comma === "before") from++;
      else to--;
      if (from >= to) return false;
    }
    const isEmpty = from >= to;
    if (!isEmpty && hole.kind === "statements") {
      // Statements that share a line with what is before or after them are not moved about.
      const separator = this.#language.statementSeparator;
      if (tree.kind(all[from]!) === separator || tree.kind(all[to - 1]!) === separator) return false;
    }
    if (hole.kind === "modifiers") {
      const { modifiers } = this.#language;
      for (let i = from; i < to; i++) if (!modifiers.includes(tree.kind(all[i]!))) return false;
    }
    const start = isEmpty ? emptyAt : tree.starts[all[from]!]!;
    const end = isEmpty ? emptyAt : tree.ends[all[to - 1]!]!;
    return this.#bind(hole, new ListCapture(tree, all, Math.min(from, to), to, start, end));
  }
}

/** Does a hole stand for the same type or name? Grammars have several kinds of nodes for one, by where it stands. */
function isSameWord({ kind }: Hole, a: Capture, b: Capture): boolean {
  const words = (capture: Capture): string => textOfCapture(capture).replace(/\s+/g, " ");
  return (kind === "type" || kind === "name") && words(a) === words(b);
}

const NO_NODES: readonly NodeId[] = [];
