import { sameCode, type SyntaxNode } from "../syntax/index.js";

/** Fields of what a step of a chain calls or reads, where nothing stands before it. */
const NO_BASE = ["method", "name", "type", "property"];

/** What a step of an access is taken of: `a.b` in `a.b.c`, `a.b[0]` or `a.b()`. */
export function baseOf(step: SyntaxNode): SyntaxNode | undefined {
  if (!step.is(step.tree.language.flow.chains)) return undefined;
  const first = step.firstPart;
  return first && (first.field === undefined || !NO_BASE.includes(first.field)) ? first : undefined;
}

/** The steps by which `longer` goes on from the same code as `base`, innermost first; none if it does not. */
export function stepsFrom(base: SyntaxNode, longer: SyntaxNode): SyntaxNode[] {
  const steps: SyntaxNode[] = [];
  for (let at: SyntaxNode | undefined = longer; at; at = baseOf(at)) {
    if (at.kind === base.kind && sameCode(at, base)) return steps.reverse();
    steps.push(at);
  }
  return [];
}
