import type { SyntaxNode } from "../../syntax/index.js";
import { unknown, type Answer } from "../answer.js";
import { operatorOf } from "../flow/parts.js";
import { isMissing } from "../flow/missing.js";
import { shortened } from "../shown.js";
import { typeOf } from "../types/known.js";

/** May an operator, or turning something into text, run code of a class? Undefined where it certainly does not. */
export function codeRunBy(node: SyntaxNode): Answer | undefined {
  const { language } = node.tree;
  if (node.is(language.textParts)) {
    const value = valuesInText(node).find((part) => !isPlainValue(part));
    if (!value) return undefined;
    return unknown(
      "type.operator",
      `turning \`${shortened(value.text)}\` into text could run code of its class`,
      node,
    );
  }
  const hashed = node.is(language.hashing) ? hashedIn(node).find((key) => !isPlainValue(key)) : undefined;
  if (hashed)
    return unknown(
      "type.operator",
      `hashing \`${shortened(hashed.text)}\` could run code of its class`,
      node,
    );
  const isOperation = node.is(language.binary) || /unary|not_operator|prefix/.test(node.kind);
  if (!isOperation) return undefined;
  const operator = spelledOperator(node);
  if (operator === "" || language.quietOperators.includes(operator)) return undefined;
  const operands = node.parts.filter((part) => !part.is(language.operators));
  // What is compared with nothing is only looked at, where no class can say otherwise.
  const asksForNothing = operands.some(isMissing) && /^[=!]==?$|^<>$/.test(operator);
  if (asksForNothing && !language.nullTestsAskClass) return undefined;
  if (operands.every(isPlainValue)) return undefined;
  const open = operands.find((part) => !isPlainValue(part))!;
  return unknown(
    "type.operator",
    `\`${operator}\` could run code of the class of \`${shortened(open.text)}\``,
    node,
  );
}

/** The key of a pair, or the items of a set. */
function hashedIn(node: SyntaxNode): readonly SyntaxNode[] {
  const key = node.child("key");
  return key ? [key] : node.parts;
}

/** What a part of a text turns into text, where it is one that does. */
export function valuesInText(part: SyntaxNode): readonly SyntaxNode[] {
  const isText = /^(format_|type_conv|interpolation_|string_content$|escape_sequence$)/;
  return part.is(part.tree.language.textParts) ? part.parts.filter(({ kind }) => !isText.test(kind)) : [];
}

/** `is not` and `not in` are two words. */
function spelledOperator(node: SyntaxNode): string {
  const several = node.children.filter(({ field }) => field === "operators");
  if (several.length === 1) return several[0]!.text.split(/\s+/).join(" ");
  return operatorOf(node);
}

/** Is a value of a type of the language itself, for which operators and conversions are the language's own? */
export function isPlainValue(node: SyntaxNode, depth = 0): boolean {
  const { language } = node.tree;
  if (depth > 8) return false;
  const again = (part: SyntaxNode): boolean => isPlainValue(part, depth + 1);
  if (node.is(language.parenthesized)) return node.parts.length === 1 && again(node.firstPart!);
  if (node.is(language.strings))
    return [...node.descendants()].every(
      (one) => !one.is(language.textParts) || codeRunBy(one) === undefined,
    );
  if (node.is(language.literals) && !["this", "super", "self"].includes(node.text)) return true;
  if (isMissing(node)) return true;
  if (node.is(language.binary) || /unary|not_operator/.test(node.kind)) {
    const operands = node.parts.filter((part) => !part.is(language.operators));
    const operator = spelledOperator(node);
    // `a && b` is one of the two; `a === b` is a truth whatever they are.
    return /^(===?|!==?|<=?|>=?|!|not|is|is not|instanceof|in|not in)$/.test(operator)
      ? language.quietOperators.includes(operator) || operands.every(again)
      : operands.every(again);
  }
  const type = typeOf(node);
  return type !== undefined && type.declared === undefined && language.plainTypes.includes(type.name);
}
