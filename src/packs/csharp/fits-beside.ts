import {
  classesDerivedFrom,
  isNamedLike,
  memberNamed,
  no,
  shortened,
  typeOf,
  unknown,
  yes,
} from "../../core.js";
import type { Answer, SyntaxNode } from "../../core.js";
import { goesTo, targetType } from "./choices/one-type.js";
import { bareTypeOf, typeAsWritten } from "./member-types.js";
import { isValueType, nullableValue, withParents } from "./values.js";

/**
 * Do a value and its default fit in one expression at a place, as they did in two statements? The operator has one type: what only
 * meets in a third does not compile, and of overloads the one for that type is called. `unwraps`: the value was taken out of its
 * nullable (`count.Value`), or is a member.
 */
export function fitsBeside(
  value: SyntaxNode,
  fallback: SyntaxNode,
  place: SyntaxNode,
  unwraps: boolean,
  own = typeAsWritten(value),
): Answer {
  const code = "type.same";
  const call = callTaking(place);
  const passedTo = call && isOnlyMethod(call) ? undefined : call;
  const isNull = fallback.is("null_literal");
  const other = isNull ? "null" : typeAsWritten(fallback);
  const names = `\`${shortened(fallback.text)}\` and \`${shortened(value.text)}\``;
  const doubt = passedTo
    ? `${names} may go to overloads of their own`
    : `${names} may have types that only meet in a third`;
  if (isNull) return passedTo ? unknown(code, doubt, fallback) : yes(code, "the default is null", fallback);
  if (own === undefined || other === undefined) return unknown(code, doubt, fallback);
  const passed = unwraps ? own : (nullableValue(value) ?? own);
  const isNear = isDerived(other, own, value) || isDerived(own, other, value);
  const areValues = [own, other].map((type) => isValueType(type, value));
  if (passedTo && passed !== other) {
    const says = `a \`${passed}\` and a \`${other}\` may go to overloads of their own`;
    const isUsual = areValues.includes(true) || [own, other].includes("object");
    return isNear && !isUsual ? unknown(code, says, fallback) : no(code, says, fallback);
  }
  if (own === other) return yes(code, "both have the same type", fallback);
  if (!areValues.includes(false)) return convertsAlike(own, other, place);
  if (isNear) return yes(code, `\`${other}\` and \`${own}\` are derived one from the other`, fallback);
  return [own, other].every((type) => isWhole(type, value))
    ? no(code, `neither \`${own}\` nor \`${other}\` is derived from the other`, fallback)
    : unknown(code, doubt, fallback);
}

/** Two types of values become one in an expression: the same as before, where one of them is wanted anyway. */
function convertsAlike(own: string, other: string, place: SyntaxNode): Answer {
  const code = "type.same";
  const statement = goesTo(place);
  const assigned = statement?.is("expression_statement") ? statement.firstPart!.child("left") : undefined;
  const wanted = assigned ? bareTypeOf(assigned) : statement && targetType(statement);
  if (wanted === own || wanted === other) return yes(code, `a \`${wanted}\` is wanted`, place);
  const says = `the operator makes a \`${own}\` and a \`${other}\` one type`;
  return wanted !== undefined && /^(object|dynamic)\??$/.test(wanted)
    ? no(code, says, place)
    : unknown(code, says, place);
}

/** The call that takes what stands in a place, for which an overload is chosen by its type. */
function callTaking(place: SyntaxNode): SyntaxNode | undefined {
  if (!place.parent?.is(["argument", "argument_list", "bracketed_argument_list"])) return undefined;
  const calls = [
    "invocation_expression",
    "object_creation_expression",
    "element_access_expression",
    "constructor_initializer",
  ];
  return place.closest(calls) ?? place.parent;
}

/** Is what a call names the project's, and the only one of that name? */
function isOnlyMethod(call: SyntaxNode): boolean {
  const called = call.child("function");
  const object = called?.is("member_access_expression") ? called.child("expression") : undefined;
  const name = called?.is("identifier") ? called : called?.child("name");
  const owner = object ? typeOf(object)?.name : call.closest(call.tree.language.classes)?.child("name")?.text;
  if (!name?.is("identifier") || owner === undefined) return false;
  const found = memberNamed(call, owner, name.text);
  return found?.isWhole === true && found.of.members.filter((one) => one.name === name.text).length === 1;
}

/** Is a type derived from another, as far as the project's classes say? */
function isDerived(below: string, above: string, { tree }: SyntaxNode): boolean {
  return above === "object" || classesDerivedFrom(tree, [above]).classes.some(({ name }) => name === below);
}

/** Is everything known that a type is derived from? */
function isWhole(name: string, at: SyntaxNode): boolean {
  const isOfLanguage = (type: string): boolean => type === "string" || isNamedLike(type, "value", at);
  return [...withParents(name, at)].every(
    ({ name: next, classes, otherwise }) =>
      otherwise === undefined && (classes.length > 0 || isOfLanguage(next)),
  );
}
