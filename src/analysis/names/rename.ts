import type { Renamed, SyntaxNode } from "../../syntax/index.js";
import { nameInFile, type Declaration } from "./declarations.js";
import { assignmentOf, valueOf } from "../flow/assignment.js";

/**
 * What to write for each use of a declaration when it gets another name. `{ hive }` becomes `{ hive: newName }`,
 * since the property keeps its name. Where one name declares two things (a captured variable in PHP), both are
 * renamed. Undefined where one of the uses cannot be written with another name.
 */
export function renamings(
  declaration: Declaration,
  newName: string,
  /** Does the name change under which other files get at it, too? */
  exported = false,
): Renamed[] | undefined {
  const { tree } = declaration.scope;
  const { binding, links } = tree.language;
  const renamed = (node: SyntaxNode, text: string): Renamed | undefined =>
    exported && links.exposedBy(node) === node.text ? { node, text } : binding.renamed(node, text);
  const { references } = nameInFile(declaration.name, tree);
  const linked = new Set([declaration]);
  const nodes = new Map<number, SyntaxNode>();
  for (let before = -1; before !== nodes.size;) {
    before = nodes.size;
    for (const { node, to } of references) if (to && linked.has(to)) nodes.set(node.id, node);
    for (const { node, to } of references) if (to && nodes.has(node.id)) linked.add(to);
  }
  const result = [...nodes.values()].map((node) => renamed(node, newName));
  return result.every((one) => one !== undefined) ? result : undefined;
}

/**
 * Does a running program know this name, so that code which asks for it sees another one after a renaming? Functions,
 * classes and members have their names at run time, and so has a function without a name that a variable is given.
 */
export function isNamedAtRunTime({ as, at }: Declaration): boolean {
  if (as === "local") {
    const { functions, classes } = at[0]!.tree.language;
    const values = at
      .map((name) => assignmentOf(name))
      .map((assignment) => assignment && valueOf(assignment));
    return values.some((value) => value?.is(functions) || value?.is(classes));
  }
  return as === "function" || as === "class" || as === "method" || as === "field";
}
