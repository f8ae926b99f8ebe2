import {
  annotationOf,
  classesDerivedFrom,
  classesNamed,
  condition,
  functionAround,
  isNamedLike,
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

/**
 * Does `== null` ask for nothing but null? A class may say otherwise with an operator of its own, which `?.` and `??`
 * never ask.
 */
export function comparesPlainly(node: SyntaxNode): Answer {
  const name = shortened(node.text);
  const type = typeOf(node);
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
  return isNamedLike(name, "plain-equality", at) || isNamedLike(name, "value", at)
    ? yes("type.operator", why, at)
    : unknown("type.operator", `\`${name}\` could have an operator \`==\` of its own`, at);
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
    const isOpen = classes.length === 0 && !isNamedLike(next, "plain-equality", at);
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
  const object = member.child("expression");
  const owner = object && typeOf(object);
  const name = member.child("name")?.text;
  const found = owner && name !== undefined ? memberNamed(read, owner.name, name) : undefined;
  // Of several methods with one name the arguments say which is meant.
  const isOnly = found?.of.members.filter((one) => one.name === name).length === 1;
  return isOnly && (found.member?.as === "method") === !member.same(read) ? found.member?.type : undefined;
}

/** Is what is read compared as what it is, with a literal or with null? */
export function readComparesPlainly(read: SyntaxNode): Answer {
  const type = typeOfMember(read);
  const shown = shortened(read.text);
  if (type === undefined)
    return unknown("type.operator", `\`${shown}\` could be of a type that has its own \`==\``, read);
  return hasNoEquality(
    type.replace(/\?$/, "").replace(/<.*$/s, ""),
    read,
    read,
    `\`${shown}\` is a \`${type}\``,
  );
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

/** Does a default fit beside a value in one expression, as it did in two statements? */
export function fitsBeside(value: SyntaxNode, fallback: SyntaxNode, isPassed: boolean): Answer {
  const shown = shortened(fallback.text);
  if (fallback.is("null_literal")) return yes("type.same", "the default is null");
  const own = typeOf(value);
  const other = typeOf(fallback);
  const doubt = unknown(
    "type.same",
    `\`${shown}\` and \`${shortened(value.text)}\` may have types that only meet in a third`,
    fallback,
  );
  if (!own || !other) return doubt;
  if (own.name === other.name) return yes("type.same", "both have the same type", fallback);
  if (isPassed) return doubt;
  const isDerived = (below: string, above: string): boolean =>
    above === "object" || classesDerivedFrom(value.tree, [above]).classes.some((one) => one.name === below);
  return isDerived(other.name, own.name) || isDerived(own.name, other.name)
    ? yes("type.same", `\`${other.name}\` and \`${own.name}\` are derived one from the other`, fallback)
    : doubt;
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
