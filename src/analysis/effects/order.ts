import type { SyntaxNode } from "../../syntax/index.js";
import { no, weakest, yes, type Answer } from "../answer.js";
import { shortened } from "../shown.js";
import { valuesInText } from "./operations.js";
import { isSideEffectFree } from "./side-effects.js";

/** May code be evaluated after other code instead of before it, without anybody noticing? Each is a list of neighbours. */
export function mayChangePlaces(first: readonly SyntaxNode[], second: readonly SyntaxNode[]): Answer {
  const [answer, ...more] = [...first, ...second].map(isSideEffectFree);
  if (!answer || first.every(isConstant) || second.every(isConstant))
    return yes("flow.order", "what changes places is constant");
  const both = weakest([answer, ...more]);
  if (both.is !== "no") return both;
  const [one, other] = [first, second].map((nodes) => shortened(nodes.map(({ text }) => text).join(", ")));
  return no(
    "flow.order",
    `\`${one}\` is evaluated before \`${other}\` here, and would be after it`,
    first[0],
  );
}

/** A literal, or a text into which nothing is put. */
function isConstant(node: SyntaxNode): boolean {
  const { literals, strings, names } = node.tree.language;
  if (node.is(strings))
    return ![...node.descendants()].some((one) => one.is(names) || valuesInText(one).length > 0);
  return node.parts.length === 0 && node.is(literals);
}
