import { importOf, useOf } from "../analysis/index.js";
import type { Import, NodeId, SyntaxTree } from "../syntax/index.js";
import { listKind } from "./run.js";

/** Is this the name of a member of something? */
export function isMember(tree: SyntaxTree, node: NodeId): boolean {
  const use = useOf(tree.node(node));
  return typeof use !== "string" && use.memberOf !== undefined;
}

/** Does this stand where a type does? */
export function isType(tree: SyntaxTree, node: NodeId): boolean {
  return /type/.test(tree.kind(node)) || /type/.test(tree.fieldOf(node) ?? "");
}

/** Is there more to a node than signs? An operator may be a node of its own. */
export function hasNamedLeaf(tree: SyntaxTree, node: NodeId): boolean {
  for (let n = node; n < tree.after[node]!; n++) if (tree.isLeaf(n) && tree.isNamed(n)) return true;
  return tree.language.strings.includes(tree.kind(node));
}

/** Nothing but names with dots between them. */
export function isPath(tree: SyntaxTree, node: NodeId): boolean {
  for (let n = node; n < tree.after[node]!; n++) {
    if (listKind(tree, n) !== undefined) return false;
    if (tree.isLeaf(n) && tree.isNamed(n) && tree.language.binding.leaves[tree.kind(n)] === undefined)
      return false;
  }
  return true;
}

/** Does code name a variable? */
export function hasName(tree: SyntaxTree, node: NodeId): boolean {
  for (let n = node; n < tree.after[node]!; n++)
    if (tree.isLeaf(n) && tree.language.binding.leaves[tree.kind(n)] !== undefined && !isMember(tree, n))
      return true;
  return false;
}

/** Not a statement, a list or a part that stands for nothing by itself. Compiling tells the rest. */
export function mayBeExpression(tree: SyntaxTree, node: NodeId): boolean {
  const { language } = tree;
  const kind = tree.kind(node);
  if (language.notExpressions.includes(kind) || kind === language.expressionStatement) return false;
  if (/_(?:declarator|clause|list|block|body|arguments|parameters)$|^block$|^pair$/.test(kind)) return false;
  const parent = tree.parents[node]!;
  const inStatements = parent >= 0 && listKind(tree, parent) === "statements";
  return !inStatements || language.expressionStatement === "";
}

/** The import that a name in a file means, as a rule asks for it; undefined where it means something else, or all of a module. */
export function importedAs(tree: SyntaxTree, node: NodeId): Import | undefined {
  const found = importOf(tree.node(node));
  if (!found || found.name === "*") return undefined;
  const { module, name, local, form } = found;
  return { module, name, local, form };
}

/** Is a node what is called, in a call with arguments? */
export function isCallee(tree: SyntaxTree, n: NodeId): boolean {
  const parent = tree.parents[n]!;
  if (parent < 0) return false;
  const [first, ...rest] = tree.node(parent).parts;
  return first?.id === n && rest.some((part) => listKind(tree, part.id) === "arguments");
}

/** A word for a fixed value, such as null, true or this, and the numbers that steps and bounds are made of. */
export function isFixedWord(tree: SyntaxTree, node: NodeId): boolean {
  const { literals, plainValues, flow, binding } = tree.language;
  const [kind, text] = [tree.kind(node), tree.textOf(node)];
  if (/^-?[01]$/.test(text)) return true;
  const isMissing = [...flow.missing.literals, ...flow.missing.second].some(
    (one) => one === kind || one === text,
  );
  return (
    isMissing ||
    (literals.includes(kind) && !plainValues.includes(kind)) ||
    binding.selfOf(tree.node(node)) !== undefined
  );
}
