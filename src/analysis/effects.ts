import type { SyntaxNode } from "../syntax/index.js";
import { no, unknown, yes, type Answer } from "./answer.js";

/** May this expression be evaluated another number of times than before without anybody noticing? */
export function isSideEffectFree(expression: SyntaxNode): Answer {
  const { language } = expression.tree;
  let doubt: Answer | undefined;
  for (const node of expression.descendants()) {
    if (!node.named || node.isLeaf || node.is(language.comments)) continue;
    if (node.is(language.combinations) || node.is(language.literals) || node.is(language.strings)) continue;
    const isCall = node.is(language.calls) && node.parts.some((part) => part.is(language.argumentLists));
    if (!isCall && (node.is(language.memberReads) || node.is(language.indexReads))) {
      if (language.readsArePlain) continue;
      doubt ??= unknown(`reading \`${node.text}\` could run a getter`, node);
    } else {
      const what = node.is(language.calls) ? "calls something" : "is not a plain read";
      return no(`\`${shortened(node.text)}\` ${what}`, node);
    }
  }
  return doubt ?? yes(`evaluating \`${shortened(expression.text)}\` does nothing else`);
}

/** Code short enough for a sentence. */
export function shortened(code: string): string {
  const line = code.replace(/\s+/g, " ");
  return line.length > 40 ? line.slice(0, 37) + "…" : line;
}

/** The places at which control may leave these statements other than by their end, in order. */
export function earlyExits(statements: readonly SyntaxNode[]): SyntaxNode[] {
  return statements.flatMap((statement) => {
    const { exits, suspensions } = statement.tree.language;
    return [...statement.descendants()].filter(
      (node) => node.named && (node.is(exits) || node.is(suspensions)) && !runsLater(node, statement),
    );
  });
}

/** Does a node belong to a function or lambda inside `within`, so that it runs at another time? */
export function runsLater(node: SyntaxNode, within: SyntaxNode): boolean {
  const { delayed } = node.tree.language;
  for (let at: SyntaxNode | undefined = node; at && !at.same(within.parent); at = at.parent) {
    if (at.is(delayed)) return true;
  }
  return false;
}
