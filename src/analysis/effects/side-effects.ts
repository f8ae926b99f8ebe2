import { jumpOf, type SyntaxNode } from "../../syntax/index.js";
import { no, unknown, yes, type Answer } from "../answer.js";
import { operatorOf } from "../flow/parts.js";
import { calledFromLibrary, operandsOf } from "../library/called.js";
import { shortened } from "../shown.js";
import { codeRunBy, isPlainValue } from "./operations.js";
import { codeRunByItem, codeRunByMemberRead, codeRunByName } from "./reads.js";

/**
 * May this expression be evaluated another number of times than before without anybody noticing? Unknown where reading
 * it could run code: a getter, an operator or a conversion that a class defines, a name that is no plain variable.
 */
export function isSideEffectFree(expression: SyntaxNode): Answer {
  const { language } = expression.tree;
  let doubt: Answer | undefined;
  for (const node of evaluatedIn(expression)) {
    if (node.isLeaf) {
      if (node.is(language.calls) || language.bareCalls.includes(node.text.toLowerCase()) || jumpOf(node))
        return no("effect.side-effect", `\`${node.text}\` does more than give a value`, node);
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
    else if (isQuietCall(node)) doubt ??= codeRunByArguments(node);
    else {
      const what = node.is(language.calls) ? "calls something" : "is not a plain read";
      return no("effect.side-effect", `\`${shortened(node.text)}\` ${what}`, node);
    }
  }
  return doubt ?? yes("effect.side-effect", `evaluating \`${shortened(expression.text)}\` does nothing else`);
}

/** A call of the library that does nothing but give a value, the same as long as nothing changes. */
function isQuietCall(node: SyntaxNode): boolean {
  const row = calledFromLibrary(node);
  return (
    row !== undefined &&
    !(row.varies === "without arguments" ? operandsOf(node).length === 0 : row.varies) &&
    (row.effect === "none" || row.effect === "reads") &&
    row.runs !== true
  );
}

/** All that is evaluated in an expression, without the names of the library's functions that are called in it. */
export function* evaluatedIn(node: SyntaxNode): Generator<SyntaxNode> {
  if (!node.named || node.is(node.tree.language.comments)) return;
  yield node;
  const below = isQuietCall(node) ? operandsOf(node) : node.children;
  for (const child of below) yield* evaluatedIn(child);
}

/** May a function of the library run code of the classes of its arguments? Undefined where it certainly does not. */
function codeRunByArguments(call: SyntaxNode): Answer | undefined {
  if (calledFromLibrary(call)?.asksArguments !== true) return undefined;
  const open = operandsOf(call).find((operand) => !isPlainValue(operand));
  return (
    open &&
    unknown(
      "type.operator",
      `\`${shortened(call.text)}\` could run code of the class of \`${shortened(open.text)}\``,
      call,
    )
  );
}
