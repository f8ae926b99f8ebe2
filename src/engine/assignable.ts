import { isTarget, shortened } from "../analysis/index.js";
import { CannotRewrite } from "../rewrite/index.js";
import { parse, type SyntaxNode, type SyntaxTree } from "../syntax/index.js";

/**
 * A member or an item that is written to, deleted or counted up gives way only to code with which the same can be done: a rule that speaks of a
 * value says nothing of what takes one. Throws a CannotRewrite.
 */
export function refuseLostTarget(node: SyntaxNode, code: string): void {
  const { memberReads, indexReads } = node.tree.language;
  if (code === "" || !(node.is(memberReads) || node.is(indexReads)) || !isTarget(node)) return;
  const now = expressionIn(code, node.tree);
  if (now && isPlace(now) && isItem(now) === isItem(node)) return;
  throw new CannotRewrite(
    "edit.read-differently",
    `\`${shortened(node.text)}\` is written to here, which cannot be done with \`${shortened(code)}\``,
  );
}

const isItem = (node: SyntaxNode): boolean => node.is(node.tree.language.indexReads);

/** A name, a member or an item. */
function isPlace(node: SyntaxNode): boolean {
  const { names, memberReads, indexReads, calls } = node.tree.language;
  // Where a member is read by a call without arguments, only one with arguments is no place.
  const isCall = node.is(calls) && (!node.is(memberReads) || /\)$/.test(node.text));
  return !isCall && (node.is(names) || node.is(memberReads) || node.is(indexReads));
}

/** The expression that some code is. */
function expressionIn(code: string, { language }: SyntaxTree): SyntaxNode | undefined {
  for (const { name, before, after } of language.contexts) {
    if (name !== "expression" && name !== "statement") continue;
    const tree = parse(before + code + after, language);
    if (tree.errors.length > 0) continue;
    const start = before.length;
    return tree.nodeAt(start, start + code.trimEnd().length);
  }
  return undefined;
}
