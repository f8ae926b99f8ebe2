import type { HoleKind, NodeId, SyntaxTree } from "../syntax/index.js";
import { nodeOf, type Aligned } from "./aligned.js";
import {
  hasName,
  hasNamedLeaf,
  importedAs,
  isCallee,
  isFixedWord,
  isMember,
  isPath,
  isType,
  mayBeExpression,
} from "./code-kinds.js";
import type { Width } from "./width.js";

/** May a hole stand for a piece of code that old and new share, in a draft of this width? Where instances differ, one must. */
export function mayStandOpen(piece: Aligned, width: Width): boolean {
  const node = nodeOf(piece);
  if (node === undefined || piece.list !== undefined) return false;
  if (piece.differs) return true;
  const { tree } = piece.runs[0]!;
  if (!tree.isNamed(node) || isFixedWord(tree, node) || !hasNamedLeaf(tree, node)) return false;
  if (tree.language.plainValues.includes(tree.kind(node))) return width !== "tight";
  if (tree.isLeaf(node)) return nameMayStandOpen(tree, node, width);
  if (!mayBeExpression(tree, node)) return false;
  const varies = new Set(piece.key.split(" ")).size > 1;
  if (varies || width === "wide") return true;
  return width === "tight" ? isPath(tree, node) : hasName(tree, node);
}

/** What is brought in means the same everywhere; the names of members, functions and types say what a rule is about. */
function nameMayStandOpen(tree: SyntaxTree, node: NodeId, width: Width): boolean {
  if (tree.language.binding.leaves[tree.kind(node)] === undefined || importedAs(tree, node)) return false;
  return width === "wide" || !(isMember(tree, node) || isCallee(tree, node) || isType(tree, node));
}

/** The kinds that a hole for a piece could be of, the likeliest first. `isOwn`: the old code declares the name. */
export function kindsFor({ runs }: Aligned, isOwn: boolean, width: Width): readonly HoleKind[] {
  const { tree, nodes } = runs[0]!;
  const node = nodes[0]!;
  if (!tree.isNamed(node)) return ["operator"];
  const areNames = runs.every(
    ({ tree, nodes }) => tree.isLeaf(nodes[0]!) && tree.language.names.includes(tree.kind(nodes[0]!)),
  );
  if (!areNames)
    return tree.language.strings.includes(tree.kind(node))
      ? ["expression", "text"]
      : ["expression", "type", "statement"];
  const isNameOnly = isOwn || isMember(tree, node) || isCallee(tree, node);
  return isNameOnly || (width === "tight" && runs.length === 1)
    ? ["name", "expression", "type"]
    : ["expression", "name", "type"];
}
