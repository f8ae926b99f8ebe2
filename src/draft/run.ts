import { significantChildren, type HoleKind, type NodeId, type SyntaxTree } from "../syntax/index.js";

/** Neighbouring nodes of one tree; one alone, or none, where something was put in or taken out. */
export interface Run {
  readonly tree: SyntaxTree;
  readonly nodes: readonly NodeId[];
}

export const one = (tree: SyntaxTree, node: NodeId): Run => ({ tree, nodes: [node] });

export const startOf = ({ tree, nodes }: Run): number => tree.starts[nodes[0]!]!;
export const endOf = ({ tree, nodes }: Run): number => tree.ends[nodes.at(-1)!]!;
export const textOfRun = (run: Run): string =>
  run.nodes.length === 0 ? "" : run.tree.text.slice(startOf(run), endOf(run));

/** Kinds of holes that stand for what a list holds. */
export type ListKind = "statements" | "arguments" | "parameters" | "members";

export const isListKind = (kind: HoleKind): kind is ListKind =>
  kind === "statements" || kind === "arguments" || kind === "parameters" || kind === "members";

/** Does a node hold others that are statements, arguments, parameters or members side by side? */
export function listKind(tree: SyntaxTree, node: NodeId): ListKind | undefined {
  const { language } = tree;
  const kind = tree.kind(node);
  if (language.statementLists.includes(kind)) return "statements";
  if (language.memberLists.includes(kind)) return "members";
  if (language.argumentLists.includes(kind)) return "arguments";
  if (language.parameterLists.includes(kind)) return "parameters";
  return undefined;
}

/** The children of a node that count, without commas, semicolons and brackets where it is a list. */
export function itemsOf(tree: SyntaxTree, node: NodeId): readonly NodeId[] {
  const children = significantChildren(tree, node);
  return listKind(tree, node) === undefined ? children : children.filter((child) => tree.isNamed(child));
}
