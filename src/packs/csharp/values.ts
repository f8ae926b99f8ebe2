import {
  annotationOf,
  classesDerivedFrom,
  classesNamed,
  condition,
  functionAround,
  isNamedLike,
  isPlatformClass,
  memberNamed,
  no,
  placeOf,
  referencesAt,
  shortened,
  typeOf,
  unknown,
  weakest,
  yes,
} from "../../core.js";
import type { Answer, Condition, Link, OwnClass, SyntaxNode } from "../../core.js";
import { everyTest } from "../family/conditions.js";
import { goesTo, targetType } from "./choices/one-type.js";

/**
 * Does `== null` ask for nothing but null? A class may say otherwise with an operator of its own, which `?.` and `??`
 * never ask.
 */
export function comparesPlainly(node: SyntaxNode): Answer {
  const name = shortened(node.text);
  const type = typeOf(node);
  const member = type ? undefined : (typeOfMember(node) ?? typeOfOwnMember(node));
  if (member !== undefined) return plainAs(member, node);
  if (!type) {
    const annotation = annotationOfPath(node);
    return annotation?.is("array_type")
      ? yes("type.operator", `\`${name}\` is declared \`${annotation.text}\``, annotation)
      : unknown("type.operator", `\`${name}\` could be of a type that has its own \`==\``, node);
  }
  return hasNoEquality(type.name, node, type.at, type.why);
}

/** Do all tests ask for null and nothing else? */
export function asksForNull(): Condition {
  return everyTest("the test asks for null and nothing else", (_match, { by, subject, test, words }) => {
    if (words.some((word) => word.endsWith("ReferenceEquals"))) return isReferenceEquals(test);
    return by === "operator" ? comparesPlainly(subject) : yes("type.operator", "no operator is asked");
  });
}

/** Is `ReferenceEquals` the one of the language where it is called? */
export function isReferenceEquals(call: SyntaxNode): Answer {
  const { tree } = call;
  const around = call.closest(tree.language.classes)?.child("name")?.text;
  const own = around === undefined ? undefined : memberNamed(call, around, "ReferenceEquals");
  const [object] = classesNamed(tree, "Object").classes;
  if (own?.member)
    return no("name.library", `\`${around}\` has a \`ReferenceEquals\` of its own (${placeOf(own.of)})`);
  return object
    ? unknown("name.library", `the project has an \`Object\` of its own (${placeOf(object)})`)
    : yes("name.library", "it is the one of the language");
}

/** Has a type no `==` of its own, nor what it is derived from? */
export function hasNoEquality(name: string, node: SyntaxNode, at: SyntaxNode, why: string): Answer {
  if (name.endsWith("[]")) return yes("type.operator", why, at);
  const { classes, otherwise } = classesNamed(node.tree, name);
  if (classes.length > 0) return ownEquality(name, node, at, why);
  if (otherwise !== undefined)
    return unknown(
      "name.library",
      `\`${shortened(otherwise)}\` gives the name \`${name}\` to something else`,
      at,
    );
  return isPlain(name, at)
    ? yes("type.operator", why, at)
    : unknown("type.operator", `\`${name}\` could have an operator \`==\` of its own`, at);
}

/** Has a type that the project does not declare an `==` that asks for null, as all of the platform have? */
function isPlain(name: string, at: SyntaxNode): boolean {
  if (isNamedLike(name, "plain-equality", at) || isNamedLike(name, "value", at)) return true;
  return isPlatformClass(name, at).is === "yes";
}

function ownEquality(name: string, node: SyntaxNode, at: SyntaxNode, why: string): Answer {
  const seen = new Set<string>();
  const waiting = [name];
  for (let next = waiting.pop(); next !== undefined; next = waiting.pop()) {
    if (seen.has(next)) continue;
    seen.add(next);
    const { classes } = classesNamed(node.tree, next);
    const own = classes.find(({ members }) =>
      members.some((one) => one.as === "operator" && /^[=!]=$/.test(one.name)),
    );
    if (own)
      return no("type.operator", `\`${next}\` has an operator \`==\` of its own (${placeOf(own)})`, at);
    const isOpen = classes.length === 0 && !isPlain(next, at);
    if (isOpen)
      return unknown(
        "type.operator",
        `\`${next}\`, of which \`${name}\` is derived, could have its own \`==\``,
        at,
      );
    waiting.push(...classes.flatMap(({ parents }) => parents));
  }
  return yes("type.operator", `${why}, which has no \`==\` of its own`, at);
}

/** The type that a member of an object is declared with, where the project declares both. */
export function typeOfMember(read: SyntaxNode): string | undefined {
  const member = read.is("invocation_expression") ? read.child("function") : read;
  if (!member?.is("member_access_expression")) return undefined;
  const size = member.same(read) ? sizeType(member) : undefined;
  if (size !== undefined) return size;
  const owner = bareTypeOf(member.child("expression"));
  const name = member.child("name")?.text;
  const isOne = owner !== undefined && isOneClass(owner, read);
  const found = isOne && name !== undefined ? memberNamed(read, owner, name) : undefined;
  return typeOfOnly(found, member.same(read));
}

/** The name of the type of an expression, without its arguments: that of a member, too, where the project declares it. */
export function bareTypeOf(node: SyntaxNode | undefined): string | undefined {
  if (!node) return undefined;
  return typeOf(node)?.name ?? bare(typeOfMember(node) ?? typeOfOwnMember(node));
}

/** A type as it is written, without its arguments and the mark of what may be null. */
function bare(type: string | undefined): string | undefined {
  return type?.replace(/\s|\?$/g, "").replace(/<.*>(?!\[)/s, "");
}

/** Is only one class of the project called so, which may be written in several parts? */
function isOneClass(name: string, { tree }: SyntaxNode): boolean {
  const { classes } = classesNamed(tree, name);
  return classes.length < 2 || classes.every(({ head }) => /\bpartial\b/.test(head));
}

/** The type of a member that is the only one of its name, where it is read or called as what it is. */
function typeOfOnly(found: ReturnType<typeof memberNamed>, isRead: boolean): string | undefined {
  // Of several methods with one name the arguments say which is meant.
  const isOnly = found?.of.members.filter((one) => one.name === found.member?.name).length === 1;
  const { type } = found?.member ?? {};
  if (!isOnly || type === undefined || (found.member?.as === "method") === isRead) return undefined;
  return namesParameter(type, found.of, found.member!.text) ? undefined : type;
}

/** The type of what says how many items a text, an array or a collection of the platform has. */
function sizeType(member: SyntaxNode): string | undefined {
  const type = bareTypeOf(member.child("expression"));
  if (type === undefined || classesNamed(member.tree, type).classes.length > 0) return undefined;
  const name = member.child("name")?.text;
  const counts =
    type === "string" || type.endsWith("[]") ? "Length" : COUNTED.test(type) ? "Count" : undefined;
  return name === counts ? "int" : undefined;
}

const COUNTED =
  /^(I?(List|Collection|Dictionary)|IReadOnly(List|Collection|Dictionary)|HashSet|SortedSet|SortedDictionary|Queue|Stack|LinkedList)$/;

/** Has a type a type parameter in it, of the class or of the method, which stands for another one where it is read? */
function namesParameter(type: string, { head }: OwnClass, member: string): boolean {
  const lists = [/<([^<>]*)>/.exec(head.split(/[:{]/)[0]!), /\w\s*<([^<>]*)>\s*\(/.exec(member)];
  const parameters = lists.flatMap((list) => list?.[1]?.match(/\w+/g) ?? []);
  return (type.match(/\w+/g) ?? []).some((word) => parameters.includes(word));
}

/** Is what is read compared as what it is, with a literal or with null? */
export function readComparesPlainly(read: SyntaxNode): Answer {
  const type = typeOfMember(read) ?? typeOf(read)?.name;
  const shown = shortened(read.text);
  return type === undefined
    ? unknown("type.operator", `\`${shown}\` could be of a type that has its own \`==\``, read)
    : plainAs(type, read);
}

/** Has the type that an expression is known to have, as it is written, no `==` of its own? */
function plainAs(type: string, read: SyntaxNode): Answer {
  return hasNoEquality(bare(type)!, read, read, `\`${shortened(read.text)}\` is a \`${type}\``);
}

/**
 * Does a call behind a test give no variable its value? Behind `?.` the compiler does not see that the test makes sure that
 * it is called.
 */
export function assignsNothing(use: SyntaxNode): Answer {
  const declares = ["declaration_pattern", "var_pattern", "recursive_pattern", "list_pattern"];
  const [out] = [...use.descendants()].filter(
    (node) => (node.is("argument") && node.has("out")) || node.is(declares),
  );
  return out
    ? no("flow.assigned", `\`${shortened(out.text)}\` is given a value only where the test holds`, out)
    : yes("flow.assigned", "no variable is given its value by it");
}

/** Is a type one of values, which are never null, so that its nullable form is another type? */
export function isValueType(name: string, at: SyntaxNode): boolean {
  const bare = name.replace(/\?$/, "");
  const isStruct = ({ kind }: OwnClass): boolean => /^(struct|enum)_declaration$/.test(kind);
  return isNamedLike(bare, "value", at) || classesNamed(at.tree, bare).classes.some(isStruct);
}

/** The nullable type of values that an expression is declared with: `int?`. */
export function nullableValue(node: SyntaxNode): string | undefined {
  const annotation = annotationOfPath(node);
  const isOne = annotation?.is("nullable_type") && isValueType(annotation.text, node);
  return isOne ? annotation!.text : undefined;
}

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

/** Is what is read a value that is never null, as far as the project declares it? */
export function isNeverNullRead(read: SyntaxNode): boolean {
  const type = typeOfMember(read);
  return type !== undefined && !type.trim().endsWith("?") && isValueType(type, read);
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

/** The type of an expression with its arguments; that of a member comes from the class of the project that has it. */
function typeAsWritten(node: SyntaxNode): string | undefined {
  const known = typeOf(node);
  if (known) return known.name + (known.args ?? "");
  return (typeOfMember(node) ?? typeOfOwnMember(node))?.replace(/\s|\?$/g, "");
}

/** The type of a member that is named without an object: one of the class around, or of what that is derived from. */
function typeOfOwnMember(read: SyntaxNode): string | undefined {
  const name = read.is("invocation_expression") ? read.child("function") : read;
  const around = name?.is("identifier")
    ? read.closest(read.tree.language.classes)?.child("name")?.text
    : undefined;
  if (!name || around === undefined || referencesAt(name).some(({ to }) => to && to.as !== "field"))
    return undefined;
  return typeOfOnly(memberNamed(read, around, name.text), name.same(read));
}

/** Is a type derived from another, as far as the project's classes say? */
function isDerived(below: string, above: string, { tree }: SyntaxNode): boolean {
  return above === "object" || classesDerivedFrom(tree, [above]).classes.some(({ name }) => name === below);
}

/** Is everything known that a type is derived from? */
function isWhole(name: string, at: SyntaxNode): boolean {
  const { tree } = at;
  const seen = new Set<string>();
  const waiting = [name];
  for (let next = waiting.pop(); next !== undefined; next = waiting.pop()) {
    if (seen.has(next)) continue;
    seen.add(next);
    const { classes, otherwise } = classesNamed(tree, next);
    const isOfLanguage = isNamedLike(next, "value", at) || next === "string";
    if ((classes.length === 0 && !isOfLanguage) || otherwise !== undefined) return false;
    waiting.push(...classes.flatMap(({ parents }) => parents));
  }
  return true;
}

/** The annotation of the variable or member that an expression names. */
function annotationOfPath(node: SyntaxNode): SyntaxNode | undefined {
  const leaf = [...node.descendants()].findLast((one) => one.is("identifier"));
  const to = leaf && referencesAt(leaf).find((reference) => reference.to)?.to;
  return to?.at.map((at) => annotationOf(at)).find((found) => found !== undefined);
}

/** Code in an expression tree may not use `?.`, and nothing tells such a lambda from another. */
export function mayBeExpressionTree(node: SyntaxNode): Answer {
  const lambda = [...node.ancestors()].find((above) => above.is("lambda_expression"));
  if (!lambda || lambda.child("body")?.is("block"))
    return yes("form.fits", "it stands in no expression tree");
  return unknown("form.fits", "an expression tree may not use this form", lambda);
}

/** Behind each `?.` stands a member of the value, and not of the nullable that holds it. */
export function membersOfValue(): Condition {
  return condition("the member is one of what is there, and not of the nullable value", ({ chain }) =>
    weakest(chain.links.map(isMemberOfValue) as [Answer, ...Answer[]]),
  );
}

function isMemberOfValue({ test, steps }: Link): Answer {
  const member = steps[0]?.child("name")?.text ?? "";
  const isOne = yes("type.is", "it is a member of the object");
  if (!/^(Value|HasValue|GetValueOrDefault)$/.test(member)) return isOne;
  const type = nullableValue(test.subject);
  const name = shortened(test.subject.text);
  if (type !== undefined)
    return no("type.is", `\`${name}\` is a \`${type}\`, whose value has no \`${member}\``, test.subject);
  const says = `\`${name}\` could be a nullable value, which has no \`${member}\` behind ?.`;
  return typeOf(test.subject) ? isOne : unknown("type.is", says, test.subject);
}

const LAMBDAS = ["lambda_expression", "anonymous_method_expression"];

/** Is the type of what stands in a place inferred: for a variable declared by `var`, or for what a lambda returns? */
export function isTypeInferred(place: SyntaxNode): boolean {
  if (place.closest(["variable_declaration"])?.child("type")?.is("implicit_type")) return true;
  return place.parent?.is("return_statement") === true && functionAround(place)?.is(LAMBDAS) === true;
}
