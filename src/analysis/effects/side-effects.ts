import type { SyntaxNode } from "../../syntax/index.js";
import { no, yes, type Answer } from "../answer.js";
import { operatorOf } from "../flow/parts.js";
import { shortened } from "../shown.js";
import { codeRunBy } from "./operations.js";
import { codeRunByItem, codeRunByMemberRead, codeRunByName } from "./reads.js";

/**
 * May this expression be evaluated another number of times than before without anybody noticing? Unknown where reading
 * it could run code: a getter, an operator or a conversion that a class defines, a name that is no plain variable.
 */
export function isSideEffectFree(expression: SyntaxNode): Answer {
  const { language } = expression.tree;
  let doubt: Answer | undefined;
  for (const node of expression.descendants()) {
    if (!node.named || node.is(language.comments)) continue;
    if (node.isLeaf) {
      doubt ??= codeRunByName(node);
      continue;
    }
    if (node.is(language.combinations) || node.is(language.literals) || node.is(language.strings)) {
      if (language.changingOperators.includes(operatorOf(node)))
        return no("effect.side-effect", `\`${shortened(node.text)}\` changes something`, node);
      doubt ??= codeRunBy(node);
      continue;
    }
    const isCall = node.is(language.calls) && node.parts.some((part) => part.is(language.argumentLists));
    if (!isCall && node.is(language.memberReads)) doubt ??= codeRunByMemberRead(node);
    else if (!isCall && node.is(language.indexReads)) doubt ??= codeRunByItem(node);
    else {
      const what = node.is(language.calls) ? "calls something" : "is not a plain read";
      return no("effect.side-effect", `\`${shortened(node.text)}\` ${what}`, node);
    }
  }
  return doubt ?? yes("effect.side-effect", `evaluating \`${shortened(expression.text)}\` does nothing else`);
}
