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
import type { CompiledPattern, PatternNode } from "./compile.js";
import type { Hole } from "./hole.js";

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
    return this.#sequence(p.children, 0, children, 0, true, tree.starts[n]!) >= 0;
  }

  /** Matches statements that stand side by side, from `first` on; gives all of them, comments aside. */
  window(pattern: readonly PatternNode[], first: NodeId): NodeId[] | undefined {
    const tree = this.#tree;
    const parent = tree.parents[first]!;
    if (parent === NO_NODE || !this.#language.statementLists.includes(tree.kind(parent))) return undefined;
    const siblings = significantChildren(tree, parent);
    const from = siblings.indexOf(first);
    const end = this.#sequence(pattern, 0, siblings, from, false, tree.starts[first]!);
    return end < 0 ? undefined : siblings.slice(from, end);
  }

  /**
   * Matches pattern items from `pi` against nodes from `ti`; gives the place after the last matched node, or
   * -1. A list takes as few nodes as it can; `toEnd` asks that every node is used.
   */
  #sequence(
    pattern: readonly PatternNode[],
    pi: number,
    nodes: readonly NodeId[],
    ti: number,
    toEnd: boolean,
    emptyAt: number,
  ): number {
    let saved = [...this.captures];
    const restore = (): void => {
      this.captures.clear();
      for (const [hole, capture] of saved) this.captures.set(hole, capture);
    };
    for (; pi < pattern.length; pi++) {
      const p = pattern[pi]!;
      if (p.type === "list") {
        const atEntry = saved;
        saved = [...this.captures];
        const isLast = pi === pattern.length - 1;
        for (let count = isLast && toEnd ? nodes.length - ti : 0; ti + count <= nodes.length; count++) {
          const taken = nodes.slice(ti, ti + count);
          if (
            !this.#fillList(p.hole, taken, p.commaBefore, ti > 0 ? this.#tree.ends[nodes[ti - 1]!]! : emptyAt)
          ) {
            restore();
            continue;
          }
          const end = this.#sequence(pattern, pi + 1, nodes, ti + count, toEnd, emptyAt);
          if (end >= 0) return end;
          restore();
        }
        saved = atEntry;
        restore();
        return -1;
      }
      if (ti >= nodes.length || !this.node(p, nodes[ti]!)) {
        restore();
        return -1;
      }
      ti++;
    }
    if (toEnd && ti < nodes.length) {
      restore();
      return -1;
    }
    return ti;
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

  #fillList(hole: Hole, nodes: readonly NodeId[], commaBefore: boolean, emptyAt: number): boolean {
    const tree = this.#tree;
    if (commaBefore && nodes.length > 0) {
      if (tree.kind(nodes[0]!) !== ",") return false;
      nodes = nodes.slice(1);
    }
    // Statements that share a line with what is before or after them are not moved about.
    const ends = [nodes[0], nodes.at(-1)].map((n) => (n === undefined ? "" : tree.kind(n)));
    if (hole.kind === "statements" && ends.includes(this.#language.statementSeparator)) return false;
    const start = nodes.length > 0 ? tree.starts[nodes[0]!]! : emptyAt;
    const end = nodes.length > 0 ? tree.ends[nodes.at(-1)!]! : emptyAt;
    const before = this.captures.get(hole);
    if (before) {
      return (
        before.nodes.length === nodes.length &&
        before.nodes.every((n, i) => treesEqual(tree, n, tree, nodes[i]!))
      );
    }
    this.captures.set(hole, { nodes, start, end });
    return true;
  }
}
