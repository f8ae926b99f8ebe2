import { classesNamed, isOfTrait, referencesAt, typeOf } from "../../../core.js";
import type { OwnMember, SyntaxNode } from "../../../core.js";
import { declaredType, isLibraryName } from "../types.js";
import { headOf } from "./heads.js";

/** What is wanted where a value stands: the type that a declaration names, or what a call takes. */
export type Wanted =
  | { readonly as: "declared"; readonly type: string; readonly at: SyntaxNode }
  /** An argument; its parameter's type where just one method can be meant. */
  | {
      readonly as: "argument";
      readonly call: SyntaxNode;
      readonly name: string;
      readonly type: string | undefined;
      readonly isGeneric: boolean;
      /** Does the project have several methods of the name that take as many arguments? */
      readonly isOverloaded: boolean;
    }
  /** Nothing here says which type. */
  | { readonly as: "anything"; readonly at: SyntaxNode };

const CALLS = ["method_invocation", "object_creation_expression", "explicit_constructor_invocation"];

/** Which type a value must have where it stands, as the code around it says. */
export function wantedAt(value: SyntaxNode): Wanted {
  const { parent, field } = value;
  if (!parent) return { as: "anything", at: value };
  if (parent.is("parenthesized_expression")) return wantedAt(parent);
  if (parent.is("ternary_expression") && field !== "condition") return wantedAt(parent);
  if (parent.is("cast_expression")) {
    const types = parent.parts.filter((part) => !part.same(value));
    return types.length === 1 ? declared(types[0]) : { as: "anything", at: parent };
  }
  if (parent.is("variable_declarator") && field === "value")
    return parent.child("dimensions")
      ? { as: "anything", at: parent }
      : declared(parent.parent?.child("type"));
  if (parent.is("assignment_expression") && field === "right")
    return declared(declaredType(parent.child("left")!), parent);
  if (parent.is("return_statement")) {
    const around = value.closest(["method_declaration", "lambda_expression"]);
    return around?.is("method_declaration") ? declared(around.child("type")) : { as: "anything", at: parent };
  }
  if (parent.is("array_initializer") && parent.parent?.is("array_creation_expression"))
    return declared(parent.parent.child("type"));
  return parent.is("argument_list") && parent.parent?.is(CALLS)
    ? argumentOf(value, parent, parent.parent)
    : { as: "anything", at: parent };
}

function declared(type: SyntaxNode | undefined, at = type): Wanted {
  if (!type || type.text === "var") return { as: "anything", at: at ?? type! };
  return { as: "declared", type: type.text, at: type };
}

/** The library's static methods that take a function in one way only, and do nothing but call it. */
const CALLERS: Readonly<Record<string, { readonly in: string; readonly names: readonly string[] }>> = {
  Collections: { in: "java.util", names: ["sort", "min", "max", "binarySearch"] },
  Arrays: { in: "java.util", names: ["sort", "setAll", "parallelSort"] },
  SwingUtilities: { in: "javax.swing", names: ["invokeLater", "invokeAndWait"] },
  EventQueue: { in: "java.awt", names: ["invokeLater", "invokeAndWait"] },
};

/** Does a call certainly do nothing with a function but run it? */
export function onlyRuns(call: SyntaxNode): boolean {
  if (call.is("object_creation_expression"))
    return call.child("type")?.text === "Thread" && isLibraryName("Thread", "java.lang", call).is === "yes";
  const object = call.child("object");
  const name = call.child("name")?.text ?? "";
  if (!object) return false;
  const callers = CALLERS[object.text];
  if (callers)
    return callers.names.includes(name) && isLibraryName(object.text, callers.in, call).is === "yes";
  return name === "sort" && isOfTrait(object, "sequence", { what: "list", methods: ["sort"] }).is === "yes";
}

/** What holds the items that a call of `onlyRuns` hands to a function: the first argument, or the list whose method it is. */
export function holderOf(call: SyntaxNode): SyntaxNode | undefined {
  const object = call.child("object");
  return object && !CALLERS[object.text] ? object : call.child("arguments")?.firstPart;
}

function argumentOf(value: SyntaxNode, list: SyntaxNode, call: SyntaxNode): Wanted {
  const place = list.parts.findIndex((part) => part.same(value));
  const name = call.is("object_creation_expression")
    ? (call.child("type")?.text.replace(/<.*$/s, "") ?? "")
    : (call.child("name")?.text ?? "");
  const meant = methodsMeant(call, name)
    ?.map(headOf)
    .filter(({ types }) => types.length === list.parts.length || types.at(-1)?.endsWith("...") === true);
  const only = meant?.length === 1 ? meant[0] : undefined;
  const type = only?.types[place];
  const isGeneric = only?.isGeneric === true || call.is("object_creation_expression");
  return { as: "argument", call, name, type, isGeneric, isOverloaded: (meant?.length ?? 0) > 1 };
}

/** The texts of the project's methods or constructors that a call may mean; undefined where there may be others. */
function methodsMeant(call: SyntaxNode, name: string): string[] | undefined {
  const { tree } = call;
  const texts = (members: readonly OwnMember[], as: OwnMember["as"]): string[] =>
    members
      .filter((one) => one.as === as && (as === "constructor" || one.name === name))
      .map(({ text }) => text);
  if (call.is("object_creation_expression")) {
    const { classes } = classesNamed(tree, name);
    return classes.length === 1 ? texts(classes[0]!.members, "constructor") : undefined;
  }
  const object = call.child("object");
  const owner =
    object === undefined || object.is("this")
      ? ownerOf(call)
      : (typeOf(object)?.name ?? (referencesAt(object).some(({ to }) => to) ? undefined : object.text));
  return owner === undefined ? undefined : inheritedTexts(owner, call, texts);
}

/** The class in whose method a call without an object stands; undefined inside an anonymous class. */
function ownerOf(call: SyntaxNode): string | undefined {
  const around = call.closest([
    "class_declaration",
    "enum_declaration",
    "interface_declaration",
    "record_declaration",
    "class_body",
  ]);
  const holder = around?.is("class_body") ? around.parent : around;
  return holder?.child("name")?.text;
}

function inheritedTexts(
  owner: string,
  call: SyntaxNode,
  texts: (members: readonly OwnMember[], as: OwnMember["as"]) => string[],
  depth = 0,
): string[] | undefined {
  const { classes } = classesNamed(call.tree, owner);
  const [only, ...more] = classes;
  if (!only || more.length > 0 || depth > 6) return undefined;
  const result = texts(only.members, "method");
  for (const parent of only.parents) {
    const above = inheritedTexts(parent, call, texts, depth + 1);
    if (!above) return undefined;
    result.push(...above);
  }
  return result;
}

/** Callees with overloads for several interfaces that a lambda could be. */
const SEVERAL = ["submit", "schedule", "doPrivileged", "callAs"];

/** Is a function handed to something that takes other kinds of functions too? */
export function hasSeveral(wanted: Wanted): wanted is Extract<Wanted, { as: "argument" }> {
  return wanted.as === "argument" && wanted.type === undefined && SEVERAL.includes(wanted.name);
}

/** Does the code around a function say which one it is, whatever its form? */
export function isSettled(wanted: Wanted): boolean {
  if (wanted.as === "declared") return true;
  return wanted.as === "argument" && (wanted.type !== undefined || onlyRuns(wanted.call));
}
