import { isLayout } from "./equality.js";
import type { NodeId } from "./node-arrays.js";
import type { TextRange } from "./text-range.js";
import type { SyntaxTree } from "./tree.js";

/** A view of one node of a tree. Two views of the same node are `same()`, not identical. */
export class SyntaxNode {
  constructor(
    readonly tree: SyntaxTree,
    readonly id: NodeId,
  ) {}

  get kind(): string {
    return this.tree.kind(this.id);
  }
  get named(): boolean {
    return this.tree.isNamed(this.id);
  }
  get start(): number {
    return this.tree.starts[this.id]!;
  }
  get end(): number {
    return this.tree.ends[this.id]!;
  }
  get text(): string {
    return this.tree.textOf(this.id);
  }
  /** 1-based. */
  get line(): number {
    return this.tree.lineAt(this.start);
  }
  get range(): TextRange {
    return this.tree.rangeOf(this.start, this.end);
  }
  get parent(): SyntaxNode | undefined {
    const parent = this.tree.parents[this.id]!;
    return parent < 0 ? undefined : this.tree.node(parent);
  }
  /** All children, tokens and comments too. */
  get children(): SyntaxNode[] {
    const { tree, id } = this;
    const result: SyntaxNode[] = [];
    for (let c = id + 1; c < tree.after[id]!; c = tree.after[c]!) result.push(tree.node(c));
    return result;
  }
  /** Children that are neither tokens nor comments. */
  get parts(): SyntaxNode[] {
    const { tree, id } = this;
    const result: SyntaxNode[] = [];
    for (let c = id + 1; c < tree.after[id]!; c = tree.after[c]!)
      if (tree.isNamed(c) && !isLayout(tree, c)) result.push(tree.node(c));
    return result;
  }
  /** The first of the parts, and the last. */
  get firstPart(): SyntaxNode | undefined {
    const { tree, id } = this;
    for (let c = id + 1; c < tree.after[id]!; c = tree.after[c]!)
      if (tree.isNamed(c) && !isLayout(tree, c)) return tree.node(c);
    return undefined;
  }
  get lastPart(): SyntaxNode | undefined {
    const { tree, id } = this;
    for (let c = tree.after[id]! - 1; c > id; c--) {
      while (tree.parents[c] !== id) c = tree.parents[c]!;
      if (tree.isNamed(c) && !isLayout(tree, c)) return tree.node(c);
    }
    return undefined;
  }
  /** The part of the node above that stands behind this one, or ahead of it. */
  get nextPart(): SyntaxNode | undefined {
    const { tree, id } = this;
    const parent = tree.parents[id]!;
    if (parent < 0) return undefined;
    for (let c = tree.after[id]!; c < tree.after[parent]!; c = tree.after[c]!)
      if (tree.isNamed(c) && !isLayout(tree, c)) return tree.node(c);
    return undefined;
  }
  get previousPart(): SyntaxNode | undefined {
    const { tree, id } = this;
    const parent = tree.parents[id]!;
    for (let c = id - 1; c > parent; c--) {
      while (tree.parents[c] !== parent) c = tree.parents[c]!;
      if (tree.isNamed(c) && !isLayout(tree, c)) return tree.node(c);
    }
    return undefined;
  }
  get field(): string | undefined {
    return this.tree.fieldOf(this.id);
  }
  get isLeaf(): boolean {
    return this.tree.isLeaf(this.id);
  }

  is(kinds: string | readonly string[]): boolean {
    return typeof kinds === "string" ? this.kind === kinds : kinds.includes(this.kind);
  }

  /** The child that stands in a field of the grammar. */
  child(field: string): SyntaxNode | undefined {
    const { tree, id } = this;
    for (let c = id + 1; c < tree.after[id]!; c = tree.after[c]!) {
      if (tree.fieldOf(c) === field) return tree.node(c);
    }
    return undefined;
  }

  has(token: string): boolean {
    return this.children.some((child) => child.kind === token);
  }

  same(other: SyntaxNode | undefined): boolean {
    return other !== undefined && other.tree === this.tree && other.id === this.id;
  }

  /** Is `other` this node or below it? */
  holds(other: SyntaxNode): boolean {
    return other.id >= this.id && other.id < this.tree.after[this.id]!;
  }

  /** The nearest node above this one (or itself) of one of these kinds. */
  closest(kinds: readonly string[]): SyntaxNode | undefined {
    for (let at: SyntaxNode | undefined = this; at; at = at.parent) if (at.is(kinds)) return at;
    return undefined;
  }

  /** The nodes above this one, nearest first. */
  *ancestors(): Generator<SyntaxNode> {
    for (let at = this.parent; at; at = at.parent) yield at;
  }

  /** This node and everything below it, in document order. */
  *descendants(): Generator<SyntaxNode> {
    for (let n = this.id; n < this.tree.after[this.id]!; n++) yield this.tree.node(n);
  }

  /** Below this node, the leaves with exactly this text that can name a variable. */
  mentions(name: string): SyntaxNode[] {
    const { tree, id } = this;
    const end = tree.after[id]!;
    return tree.mentions(name, id, end).map((n) => tree.node(n));
  }
}
