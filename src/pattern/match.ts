import {
  NO_NODE,
  sameToken,
  significantChildren,
  treesEqual,
  unwrapped,
  type Language,
  type NodeId,
  type SyntaxTree,
} from "../syntax/index.js";
import { sequenceFacts, type SequenceFacts } from "./backtracking.js";
import type { CompiledPattern, PatternNode } from "./compile.js";
import type { Hole } from "./hole.js";
import { ListCapture } from "./list-capture.js";
import { deadEnds, searchIn, siblingsIn } from "./remembered.js";

/** The code that a hole stands for: neighbouring nodes, or an empty place. */
export interface Capture {
  readonly nodes: readonly NodeId[];
  readonly start: number;
  readonly end: number;
}

/** One place that a pattern fits. */
export interface PatternMatch {
  readonly pattern: CompiledPattern;
  readonly tree: SyntaxTree;
  /** The matched node, or the neighbouring statements. */
  readonly nodes: readonly NodeId[];
  readonly start: number;
  readonly end: number;
  readonly captures: ReadonlyMap<Hole, Capture>;
}

const NOTHING: ReadonlyMap<Hole, Capture> = new Map();

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
  const matcher = new Matcher(tree, bound);
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
  return { pattern, tree, nodes, start, end, captures: matcher.captures };
}

/** All matches in the subtree of `within`, in document order; they may nest. */
export function* matchesIn(
  pattern: CompiledPattern,
  tree: SyntaxTree,
  within: NodeId,
  bound: ReadonlyMap<Hole, Capture> = NOTHING,
): Generator<PatternMatch> {
  for (let n = within; n < tree.after[within]!; n++) {
    if (tree.kindIds[n] !== pattern.rootKind) continue;
    const match = matchAt(pattern, tree, n, bound);
    if (match) yield match;
  }
}

type ListNode = Extract<PatternNode, { type: "list" }>;

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

  constructor(tree: SyntaxTree, bound: ReadonlyMap<Hole, Capture>) {
    this.captures = new Map(bound);
    this.#tree = tree;
    this.#language = tree.language;
  }

  node(p: PatternNode, n: NodeId): boolean {
    if (p.type === "list") return false;
    if (p.type === "hole") return this.#fill(p.hole, n);
    const tree = this.#tree;
    if (tree.kindIds[n] !== p.kind) {
      n = unwrapped(tree, n);
      if (tree.kindIds[n] !== p.kind) return false;
    }
    if (p.type === "leaf") return sameToken(this.#language, p.kindName, p.text, tree.textOf(n));
    const children = significantChildren(tree, n);
    const emptyAt = tree.starts[n]!;
    return (
      this.#sequence({ pattern: p.children, nodes: children, toEnd: true, emptyAt, dead: new Set() }, 0, 0) >=
      0
    );
  }

  /** Matches statements that stand side by side, from `first` on; gives all of them, comments aside. */
  window(pattern: readonly PatternNode[], first: NodeId): NodeId[] | undefined {
    const [start] = pattern;
    // Most statements fail here, before their neighbours are looked at.
    if (!start || !new Matcher(this.#tree, this.captures).node(start, first)) return undefined;
    const tree = this.#tree;
    const parent = tree.parents[first]!;
    if (parent === NO_NODE || !this.#language.statementLists.includes(tree.kind(parent))) return undefined;
    const siblings = siblingsIn(tree, parent);
    const from = siblings.indexOf(first);
    const shared = this.captures.size === 0 && sequenceFacts(pattern).alike;
    const dead = shared ? deadEnds(siblings, pattern) : new Set<number>();
    const sequence = { pattern, nodes: siblings, toEnd: false, emptyAt: tree.starts[first]!, dead };
    const end = this.#sequence(sequence, 0, from);
    return end < 0 ? undefined : siblings.slice(from, end);
  }

  /** Matches the rest of a sequence; gives the place after the last matched node, or -1. */
  #sequence(s: Sequence, pi: number, ti: number): number {
    const { pattern, nodes, toEnd } = s;
    const saved = [...this.captures];
    for (; pi < pattern.length; pi++) {
      const p = pattern[pi]!;
      if (p.type === "list") {
        const end = this.#list(s, p, pi, ti);
        if (end < 0) this.#restore(saved);
        return end;
      }
      if (ti >= nodes.length || !this.node(p, nodes[ti]!)) {
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

  /** Tries a list at its place with no node, then with one more and one more. */
  #list(s: Sequence, list: ListNode, pi: number, ti: number): number {
    const { pattern, nodes, toEnd, dead } = s;
    const tree = this.#tree;
    const facts = sequenceFacts(pattern);
    const next = pattern[pi + 1];
    const independent = next !== undefined && facts.independent[pi + 1]!;
    const saved = [...this.captures];
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
      const capture = hole.kind === "name" ? this.captures.get(hole) : undefined;
      return capture ? [tree.text.slice(capture.start, capture.end)] : [];
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

  #restore(saved: readonly (readonly [Hole, Capture])[]): void {
    this.captures.clear();
    for (const [hole, capture] of saved) this.captures.set(hole, capture);
  }

  #fill(hole: Hole, n: NodeId): boolean {
    const tree = this.#tree;
    const kind = tree.kind(n);
    if (!tree.isNamed(n)) return false;
    if (hole.kind === "name" && !this.#language.names.includes(kind)) return false;
    if (hole.kind === "expression" && this.#language.notExpressions.includes(kind)) return false;
    const before = this.captures.get(hole);
    if (before) return before.nodes.length === 1 && treesEqual(tree, before.nodes[0]!, tree, n);
    this.captures.set(hole, { nodes: [n], start: tree.starts[n]!, end: tree.ends[n]! });
    return true;
  }

  /** Lets a list hole stand for the nodes from `from` up to `to`. */
  #fillList(
    { hole, commaBefore }: ListNode,
    all: readonly NodeId[],
    from: number,
    to: number,
    emptyAt: number,
  ): boolean {
    const tree = this.#tree;
    if (commaBefore && from < to) {
      if (tree.kind(all[from]!) !== ",") return false;
      from++;
    }
    const isEmpty = from >= to;
    if (!isEmpty && hole.kind === "statements") {
      // Statements that share a line with what is before or after them are not moved about.
      const separator = this.#language.statementSeparator;
      if (tree.kind(all[from]!) === separator || tree.kind(all[to - 1]!) === separator) return false;
    }
    const before = this.captures.get(hole);
    if (before) {
      const own = before.nodes;
      return own.length === to - from && own.every((n, i) => treesEqual(tree, n, tree, all[from + i]!));
    }
    const start = isEmpty ? emptyAt : tree.starts[all[from]!]!;
    const end = isEmpty ? emptyAt : tree.ends[all[to - 1]!]!;
    this.captures.set(hole, new ListCapture(all, from, to, start, end));
    return true;
  }
}
