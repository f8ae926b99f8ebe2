import { shapeOf, type SyntaxNode } from "../../syntax/index.js";
import { calledFromLibrary } from "../library/called.js";
import { referencesAt } from "../names/declarations.js";
import { leafOf } from "../names/use.js";

/** The first place in some code at which other code may run: a call, a member that may be a property, a step of a loop. */
export function runningIn(within: readonly SyntaxNode[]): SyntaxNode | undefined {
  for (const node of within.flatMap((one) => [...one.descendants()])) {
    const { language } = node.tree;
    const { flow } = language;
    if (!node.named) continue;
    if (node.is(language.calls)) {
      const row = calledFromLibrary(node);
      if (row?.effect !== undefined && row.runs !== true && row.asksArguments !== true) continue;
      return node;
    }
    const mayRun =
      node.is(language.suspensions) ||
      node.is(language.resourceBlocks) ||
      node.is(language.indexReads) ||
      (node.is(language.memberReads) && language.reads.members !== "plain") ||
      (node.is(flow.mayThrow) && !node.is(language.combinations)) ||
      isBareCall(node) ||
      shapeOf(node)?.is === "each";
    if (mayRun) return node;
  }
  return undefined;
}

/** A bare name that may be a property or a method. */
export function isBareCall(node: SyntaxNode): boolean {
  const { reads, variables } = node.tree.language;
  if (reads.names === "plain" || reads.names === "global" || !node.isLeaf || !node.is(variables))
    return false;
  const reference = referencesAt(node).find((one) => !one.member);
  return reference !== undefined && !/^(local|parameter)$/.test(reference.to?.as ?? "");
}

/** A write to something else than a plain local variable: what is written may have another name. */
export function writeElsewhereIn(within: readonly SyntaxNode[]): SyntaxNode | undefined {
  for (const node of within.flatMap((one) => [...one.descendants()])) {
    const { flow, binding } = node.tree.language;
    const target = flow.assignments[node.kind] && node.child(flow.assignments[node.kind]!.target);
    const leaf = target && leafOf(target);
    if (!target) continue;
    const to = leaf && target.text === leaf.text ? referencesAt(leaf).find((one) => one.to)?.to : undefined;
    const isPlain =
      (to?.as === "local" || to?.as === "parameter") && !to.at.some((at) => binding.isReference(at));
    const declares = target.kind.endsWith("declarator") || to?.at.some((at) => target.holds(at));
    if (!isPlain && declares !== true) return node;
  }
  return undefined;
}
