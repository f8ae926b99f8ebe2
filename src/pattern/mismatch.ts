import { significantChildren, treesEqual, unwrapped, type NodeId, type SyntaxTree } from "../syntax/index.js";
import type { CompiledPattern } from "./compile.js";
import type { Hole } from "./hole.js";
import type { PatternNode } from "./pattern-node.js";

/** Where a pattern and code part, and how much of the pattern fits until there. */
export interface Mismatch {
  /** So many nodes of the pattern fit. */
  readonly fitting: number;
  readonly at: NodeId;
  /** What the pattern has there. */
  readonly wanted: string;
}

/**
 * Where code at a node stops to look like a pattern, for the author of a rule. Lists are passed over, and of several ways to
 * fit only the one in order is looked at.
 */
export function mismatchAt({ sequence }: CompiledPattern, tree: SyntaxTree, n: NodeId): Mismatch | undefined {
  const [first] = sequence;
  const seen: Seen = { fitting: 0, holes: new Map() };
  const found = first && compare(first, tree, n, seen);
  return found && { fitting: seen.fitting, ...found };
}

interface Seen {
  fitting: number;
  /** What each hole stands for at its first place. */
  readonly holes: Map<Hole, NodeId>;
}

/** A hole takes other code than at its first place, or code of another kind. */
function inHole(
  hole: Hole,
  tree: SyntaxTree,
  n: NodeId,
  { holes }: Seen,
): Omit<Mismatch, "fitting"> | undefined {
  if (hole.kind === "name" && !tree.language.names.includes(tree.kind(n)))
    return { at: n, wanted: `⟨${hole.name}⟩, a name` };
  const before = holes.get(hole);
  if (before === undefined) holes.set(hole, n);
  else if (!["name", "type"].includes(hole.kind) && !treesEqual(tree, before, tree, n))
    return { at: n, wanted: tree.textOf(before) };
  return undefined;
}

function compare(
  p: PatternNode,
  tree: SyntaxTree,
  n: NodeId,
  seen: Seen,
): Omit<Mismatch, "fitting"> | undefined {
  if (p.type === "list") return undefined;
  if (p.type === "hole") return inHole(p.hole, tree, n, seen);
  if (tree.kindIds[n] !== p.kind) n = unwrapped(tree, n);
  if (tree.kindIds[n] !== p.kind) return { at: n, wanted: wantedBy(p) };
  seen.fitting++;
  if (p.type === "leaf") {
    const isOther = tree.isNamed(n) && tree.textOf(n) !== p.text;
    return isOther ? { at: n, wanted: wantedBy(p) } : undefined;
  }
  if (p.type === "text") return undefined;
  const children = significantChildren(tree, n);
  if (p.children.some(({ type }) => type === "list")) return undefined;
  if (p.children.length !== children.length) return { at: n, wanted: wantedBy(p) };
  for (const [i, child] of p.children.entries()) {
    const found = compare(child, tree, children[i]!, seen);
    if (found) return found;
  }
  return undefined;
}

/** A piece of a pattern, for reading. */
function wantedBy(p: PatternNode): string {
  switch (p.type) {
    case "hole":
    case "list":
      return `⟨${p.hole.name}⟩`;
    case "leaf":
      return p.text;
    case "text":
      return p.pieces.map((piece) => (typeof piece === "string" ? piece : `⟨${piece.name}⟩`)).join("");
    case "inner":
      return p.children.map(wantedBy).join(" ");
  }
}
