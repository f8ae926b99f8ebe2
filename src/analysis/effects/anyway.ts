import type { SyntaxNode } from "../../syntax/index.js";
import { unknown, yes, type Answer } from "../answer.js";
import { isCertainlyAssigned } from "../flow/questions.js";
import { operatorOf } from "../flow/parts.js";
import { calledFromLibrary, operandsOf } from "../library/called.js";
import { referencesAt } from "../names/declarations.js";
import { useOf } from "../names/use.js";
import { shortened } from "../shown.js";
import { isPlainValue } from "./operations.js";
import { evaluatedIn, isSideEffectFree } from "./side-effects.js";

/**
 * May an expression be evaluated where it was not before, without anybody noticing? It must have no side effect, and
 * evaluating it must not fail: no division, no item or member of what may be missing, no variable without a value.
 */
export function mayRunAnyway(expression: SyntaxNode): Answer {
  const free = isSideEffectFree(expression);
  if (free.is !== "yes") return free;
  for (const node of evaluatedIn(expression)) {
    const failure = mayFail(node);
    if (failure) return failure;
  }
  return yes(
    "effect.could-fail",
    `evaluating \`${shortened(expression.text)}\` does nothing else and cannot fail`,
  );
}

function mayFail(node: SyntaxNode): Answer | undefined {
  const { language } = node.tree;
  if (node.isLeaf) return hasNoValue(node);
  const shown = shortened(node.text);
  if (node.is(language.binary)) {
    const operator = operatorOf(node);
    const divisor = node.lastPart;
    if (/^(\/|%|\/\/)$/.test(operator) && !/^[1-9]/.test(divisor?.text ?? ""))
      return unknown(
        "effect.could-fail",
        `\`${shown}\` could fail, and would be worked out every time`,
        node,
      );
    const isQuiet =
      language.quietOperators.includes(operator) || node.parts.every((part) => isPlainValue(part));
    return isQuiet
      ? undefined
      : unknown("effect.could-fail", `\`${shown}\` could fail, and would be worked out every time`, node);
  }
  if (node.is(language.indexReads))
    return unknown("effect.could-fail", `\`${shown}\` could fail where there is no such item`, node);
  if (/cast/.test(node.kind))
    return unknown("effect.could-fail", `\`${shown}\` could fail for a value of another type`, node);
  // What points nowhere stops the program, which no exception says.
  const mayPointNowhere = language.pointers !== undefined && operandsOf(node).length > 0;
  if (node.is(language.calls) && (mayPointNowhere || calledFromLibrary(node)?.neverThrows !== true))
    return unknown("effect.could-fail", `\`${shown}\` could fail, and would be called every time`, node);
  if (!node.is(language.memberReads) || node.is(language.calls)) return undefined;
  const object = node.firstPart;
  const isOwn =
    object && (language.binding.selfOf(object) !== undefined || /^(this|self|\$this)$/.test(object.text));
  return isOwn || isStatic(node)
    ? undefined
    : unknown(
        "effect.could-fail",
        `\`${shown}\` could fail where \`${shortened(object?.text ?? "")}\` is missing`,
        node,
      );
}

/** `Colour.RED`: a member of a class that is named. */
function isStatic(node: SyntaxNode): boolean {
  const object = node.firstPart;
  if (!object?.isLeaf) return false;
  const to = referencesAt(object).find((one) => one.to)?.to;
  return to
    ? to.as === "class" || to.as === "type"
    : /^[A-Z]/.test(object.text) && object.tree.language.typesBeginUpper;
}

/** What nothing declares, or what has no value yet on some way to here, fails where it is read. */
function hasNoValue(leaf: SyntaxNode): Answer | undefined {
  const { language } = leaf.tree;
  if (!language.namesMayBeUndefined) return undefined;
  if (language.binding.leaves[leaf.kind] === undefined) return undefined;
  const use = useOf(leaf);
  if (typeof use === "string" || use.memberOf !== undefined || use.declares) return undefined;
  const to = referencesAt(leaf).find((one) => !one.member)?.to;
  if (!to)
    return language.builtins.includes(leaf.text)
      ? undefined
      : unknown(
          "effect.could-fail",
          `\`${leaf.text}\` may not be defined, and would be read every time`,
          leaf,
        );
  if (to.as !== "local" || !language.localsMayBeUnset || to.scope.same(leaf.tree.root)) return undefined;
  const assigned = isCertainlyAssigned(to, leaf);
  return assigned.is === "yes" ? undefined : unknown(assigned.evidence.code, assigned.evidence.says, leaf);
}
