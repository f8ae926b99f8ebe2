import { shortened, typeOf } from "../../../../core.js";
import type { Edit, SyntaxNode } from "../../../../core.js";
import { kindOf } from "./kind-of.js";
import { namesIt } from "./library-optional.js";
import { parameterTypes } from "./members.js";
import type { Moving } from "./moved-calls.js";
import { Refusal } from "./refusal.js";

/** What is taken as an object of any class, by names that mean that wherever they come from. */
const TAKES_ANYTHING =
  /^(assert(Equals|NotEquals|Same|NotSame|NotNull|Null|That)|equals?|hash|hashCode|add|addAll|put|offer|push|addLast|addFirst|contains|remove|indexOf|asList|of|ofNullable|fromNullable|copyOf|singleton|singletonList|requireNonNull|checkNotNull|valueOf|print|println|append|format|printf|thenReturn|eq|is|equalTo|isEqualTo|set|complete)$/;
const SHOWS = /^(valueOf|print|println|append|format|printf)$/;

/** A value that goes where the type is wanted. Throws a Refusal. */
export function valueMoved(value: SyntaxNode, moving: Moving): Edit[] {
  if (value.is("parenthesized_expression")) return valueMoved(value.firstPart!, moving);
  if (value.is("ternary_expression"))
    return [value.child("consequence")!, value.child("alternative")!].flatMap((way) =>
      valueMoved(way, moving),
    );
  if (value.is(["lambda_expression", "method_reference"])) return [];
  const kind = kindOf(value, moving.members);
  if (kind === "moved" || kind === "null") return [];
  const { end } = value;
  if (kind === "library") return [{ start: end, end, text: ".toJavaUtil()" }];
  throw new Refusal(`\`${shortened(value.text)}\` may give the library's own type`, value);
}

/** The arguments of a call or a constructor. Throws a Refusal. */
export function argumentsMoved(list: SyntaxNode, moving: Moving): Edit[] {
  const call = list.parent!;
  const name = calledBy(call);
  if (name === undefined) return [];
  const meant = moving.members.meantBy(call, name).map(parameterTypes);
  return list.parts.flatMap((value, at) => {
    const types = meant.map((one) => one[at] ?? one.at(-1)!);
    const wants = types.filter(namesIt);
    if (wants.length > 0 && wants.length === types.length) return valueMoved(value, moving);
    const kind = kindOf(value, moving.members);
    // Of several methods of the name, the one that takes it is meant.
    if (wants.length > 0 && (kind === "moved" || kind === "library")) return valueMoved(value, moving);
    if (wants.length > 0 && kind === "unknown" && !typeOf(value))
      throw new Refusal(`several methods are called \`${name}\``, value);
    if (kind !== "moved") return [];
    if (isOwnMethod(call)) return [];
    if (SHOWS.test(name)) moving.doubts.isShown(value);
    const isAny = types.length > 0 ? types.every(takesAnything) : TAKES_ANYTHING.test(name);
    if (isAny) return [];
    throw new Refusal(`\`${name}\` may take the library's own type`, value);
  });
}

/** `Object`, or the parameter of a type: `T`. */
const takesAnything = ({ text }: SyntaxNode): boolean => /^(Object|[A-Z]\d?)$/.test(text);

const isOwnMethod = (call: SyntaxNode): boolean => {
  const object = call.child("object");
  return object !== undefined && (namesIt(object) || call.child("name")!.text === "or");
};

function calledBy(call: SyntaxNode): string | undefined {
  if (call.is("method_invocation")) return call.child("name")!.text;
  if (call.is("object_creation_expression")) {
    const type = call.child("type")!;
    return (type.is("generic_type") ? type.firstPart! : type).text.split(".").at(-1);
  }
  if (!call.is("explicit_constructor_invocation")) return undefined;
  const around = call.closest(["class_declaration", "enum_declaration", "record_declaration"]);
  if (call.text.startsWith("this")) return around?.child("name")?.text;
  return around?.child("superclass")?.lastPart?.text.replace(/<.*$/s, "") ?? "super";
}
