import { calledFromLibrary, callOf, isUnchanged, no, operatorOf, shortened, yes } from "../../core.js";
import type { Answer, Sifted, SyntaxNode } from "../../core.js";
import { withoutParentheses } from "./parentheses.js";

/** What is evaluated for an item, in the order in which it is: the tests, and the value that is made of it. */
export const evaluatedFor = ({ sieves, value }: Sifted & { readonly value: SyntaxNode }): SyntaxNode[] => [
  ...sieves.map(({ test }) => test),
  value,
];

/** Nothing in code waits for something or hands something out, which a function of its own would do for itself alone. */
export function runsAlone(parts: readonly SyntaxNode[]): Answer {
  for (const part of parts) {
    const { functions, suspensions } = part.tree.language;
    for (const node of part.descendants()) {
      const isOwn = [...node.ancestors()].some((above) => above.is(functions) && part.holds(above));
      if (node.is(suspensions) && !isOwn)
        return no("name.scope", `\`${shortened(node.text)}\` may not stand in a function of its own`, node);
    }
  }
  return yes("name.scope", "nothing in it is awaited or yielded");
}

/** Methods that are called for what they change, whatever they are called on. */
const CHANGES =
  /^(add|addAll|remove|removeAll|retainAll|put|putAll|putIfAbsent|poll|pop|push|offer|clear|next|append|insert|shift|unshift|splice|enqueue|dequeue|moveNext|print|println|write|writeLine)$/i;

/** A function that a method is handed for a test or a value changes nothing: who reads it does not look for that there. */
export function onlyAsks(parts: readonly SyntaxNode[]): Answer {
  for (const part of parts) {
    const { calls, flow } = part.tree.language;
    for (const node of part.descendants()) {
      const isAssignment = flow.assignments[node.kind] !== undefined && !/declarat|pattern/.test(node.kind);
      const isWrite = isAssignment && /=$|^(\+\+|--)$/.test(operatorOf(node));
      const isCall = node.is(calls);
      const changes =
        isCall && (calledFromLibrary(node)?.effect === "changes" || CHANGES.test(callOf(node)?.method ?? ""));
      if (isWrite || changes)
        return no("effect.side-effect", `\`${shortened(node.text)}\` changes something`, node);
    }
  }
  return yes("effect.side-effect", "the new functions change nothing themselves");
}

/** What is walked is not changed while the items are asked. */
export function staysAlike({ items }: Sifted, parts: readonly SyntaxNode[]): Answer {
  const at = withoutParentheses(items);
  const isName = at.isLeaf || at.is([...at.tree.language.memberReads, ...at.tree.language.indexReads]);
  if (!isName) return yes("flow.written", "nobody else has what is walked");
  return isUnchanged(at, parts);
}
