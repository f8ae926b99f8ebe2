import { isLayout, NO_NODE, type NodeId, type SyntaxTree } from "../syntax/index.js";
import type { CompiledPattern } from "./compile.js";
import type { PatternNode } from "./pattern-node.js";

/**
 * The text of the leaf that every match of a pattern begins with; undefined where it may begin in several ways.
 * Patterns are looked up by it, so that a hundred rules for calls by name cost little more than one.
 */
export function headOf({ sequence, language }: CompiledPattern): string | undefined {
  if (language.ignoresCase !== "nowhere") return undefined;
  let node: PatternNode | undefined = sequence[0];
  while (node?.type === "inner") {
    if (node.commutes || node.mayBeMissing) return undefined;
    node = node.children[0];
  }
  if (node?.type !== "leaf" || node.anyCase || language.strings.includes(node.kindName)) return undefined;
  return node.text;
}

/** The text of the first leaf below a node; undefined where comments or parentheses stand before what counts. */
export function headAt(tree: SyntaxTree, n: NodeId): string | undefined {
  const { parenthesized, optionalBrackets } = tree.language;
  // Children come right behind their parent.
  for (let at = n; at !== NO_NODE; at++) {
    const kind = tree.kind(at);
    if (kind === parenthesized || optionalBrackets.includes(kind) || isLayout(tree, at)) return undefined;
    if (tree.isLeaf(at)) return tree.textOf(at);
  }
  return undefined;
}
