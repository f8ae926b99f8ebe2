import { shapeOf, type SyntaxNode } from "../../syntax/index.js";

/** The assignment, or the loop, that gives a name its value once its own parts have been evaluated. */
export function assignmentOf(name: SyntaxNode): SyntaxNode | undefined {
  const { binding, flow } = name.tree.language;
  let at = name;
  for (let above = at.parent; above; above = at.parent) {
    const assignment = flow.assignments[above.kind];
    if (assignment && isPart(at, assignment.target)) return above;
    if (shapeOf(above)?.is === "each") return above;
    if (!binding.groups[above.kind]) return undefined;
    at = above;
  }
  return undefined;
}

/** What an assignment assigns, where it says so. */
export function valueOf(assignment: SyntaxNode): SyntaxNode | undefined {
  const table = assignment.tree.language.flow.assignments[assignment.kind];
  if (!table) return undefined;
  if (table.value !== undefined) return assignment.child(table.value);
  const last = assignment.lastPart;
  return last && !isPart(last, table.target) ? last : undefined;
}

function isPart(node: SyntaxNode, part: string): boolean {
  return node.field === part || node.kind === part;
}
