import {
  annotationOf,
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
import type { Answer, Condition, FoundClasses, Link, OwnClass, SyntaxNode } from "../../core.js";
import { everyTest } from "../family/conditions.js";
import { bare, typeOfMember, typeOfOwnMember } from "./member-types.js";

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
  for (const { name: next, classes } of withParents(name, node)) {
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
  }
  return yes("type.operator", `${why}, which has no \`==\` of its own`, at);
}

/** What the project has of a type, and of all that it is derived from. */
export function* withParents(name: string, { tree }: SyntaxNode): Generator<FoundClasses & { name: string }> {
  const seen = new Set<string>();
  const waiting = [name];
  for (let next = waiting.pop(); next !== undefined; next = waiting.pop()) {
    if (seen.has(next)) continue;
    seen.add(next);
    const found = classesNamed(tree, next);
    yield { ...found, name: next };
    waiting.push(...found.classes.flatMap(({ parents }) => parents));
  }
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

/** Is what is read a value that is never null, as far as the project declares it? */
export function isNeverNullRead(read: SyntaxNode): boolean {
  const type = typeOfMember(read);
  return type !== undefined && !type.trim().endsWith("?") && isValueType(type, read);
}

/** The nullable type of values that an expression is declared with: `int?`. */
export function nullableValue(node: SyntaxNode): string | undefined {
  const annotation = annotationOfPath(node);
  const isOne = annotation?.is("nullable_type") && isValueType(annotation.text, node);
  return isOne ? annotation!.text : undefined;
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
