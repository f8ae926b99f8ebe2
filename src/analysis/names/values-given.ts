import type { SyntaxNode } from "../../syntax/index.js";
import { assignmentOf, valueOf } from "../flow/assignment.js";
import { changesOf, type Declaration } from "./declarations.js";

/**
 * The values that a file gives a variable or a member of a class; undefined where one of its writes does not say what it
 * gives, or where something may write it through a reference.
 */
export function valuesGiven(declaration: Declaration): readonly SyntaxNode[] | undefined {
  const result: SyntaxNode[] = [];
  for (const { does, node } of changesOf(declaration)) {
    const assignment = does === "write" ? assignmentOf(writtenPlace(node)) : undefined;
    const value = assignment && valueOf(assignment);
    if (!value || value.holds(node)) return undefined;
    result.push(value);
  }
  return result;
}

/** The whole place that is written by a name: `self.gate` for `gate`. */
function writtenPlace(name: SyntaxNode): SyntaxNode {
  const { parent } = name;
  const isMember = parent?.is(name.tree.language.memberReads) && parent.lastPart?.same(name);
  return isMember ? parent! : name;
}
