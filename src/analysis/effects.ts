import type { SyntaxNode } from "../syntax/index.js";
import { no, unknown, yes, type Answer } from "./answer.js";

/** May this expression be evaluated another number of times than before without anybody noticing? */
export function isSideEffectFree(expression: SyntaxNode): Answer {
  const { language } = expression.tree;
  let doubt: Answer | undefined;
  for (const node of expression.descendants()) {
    if (!node.named || node.isLeaf || node.is(language.comments)) continue;
    if (node.is(language.combinations) || node.is(language.literals) || node.is(language.strings)) continue;
    if (node.is(language.memberReads) || node.is(language.indexReads)) {
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

/** A statement or expression in which control leaves these statements other than by their end. */
export function earlyExit(statements: readonly SyntaxNode[]): SyntaxNode | undefined {
  for (const statement of statements) {
    const { language } = statement.tree;
    for (const node of statement.descendants()) {
      const leaves = node.is(language.exits) || node.is(language.suspensions);
      if (leaves && node.named && !runsLater(node, statement)) return node;
    }
  }
  return undefined;
}

/** Does a node belong to a function or lambda inside `within`, so that it runs at another time? */
export function runsLater(node: SyntaxNode, within: SyntaxNode): boolean {
  const { delayed } = node.tree.language;
  for (let at: SyntaxNode | undefined = node; at && !at.same(within.parent); at = at.parent) {
    if (at.is(delayed)) return true;
  }
  return false;
}
