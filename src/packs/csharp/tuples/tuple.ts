import { no, referencesAt, yes } from "../../../core.js";
import type { Answer, Declaration, Match, SyntaxNode, SyntaxTree } from "../../../core.js";
import { isOfNamespace } from "../system.js";

/** A tuple of the library where it is made. */
export interface MadeTuple {
  readonly whole: SyntaxNode;
  readonly values: readonly SyntaxNode[];
  /** The types of its members, where they are written. */
  readonly types: readonly SyntaxNode[] | undefined;
}

const MOST = 7;

/** Reads `Tuple.Create(a, b)` and `new Tuple<A, B>(a, b)`. */
export function madeTuple(whole: SyntaxNode): MadeTuple | undefined {
  const values = whole.child("arguments")?.parts ?? [];
  if (values.length < 2 || values.length > MOST || values.some((one) => one.is("argument"))) return undefined;
  if (whole.is("object_creation_expression")) {
    const types = tupleTypes(whole.child("type"));
    const isWhole = whole.parts.length === 2 && types?.length === values.length;
    return isWhole ? { whole, values, types } : undefined;
  }
  const callee = whole.is("invocation_expression") ? whole.child("function") : undefined;
  if (!callee?.is("member_access_expression") || !/^(System\.)?Tuple$/.test(callee.child("expression")!.text))
    return undefined;
  const name = callee.child("name")!;
  if (name.is("identifier")) return name.text === "Create" ? { whole, values, types: undefined } : undefined;
  const types = name.parts.find((one) => one.is("type_argument_list"))?.parts;
  return name.firstPart?.text === "Create" && types?.length === values.length
    ? { whole, values, types }
    : undefined;
}

/** The types in `Tuple<A, B>`. */
export function tupleTypes(type: SyntaxNode | undefined): readonly SyntaxNode[] | undefined {
  const plain = type?.is("qualified_name") && type.firstPart?.text === "System" ? type.lastPart : type;
  if (!plain?.is("generic_name") || plain.firstPart?.text !== "Tuple") return undefined;
  const types = plain.parts.find((one) => one.is("type_argument_list"))?.parts ?? [];
  return types.length >= 2 && types.length <= MOST ? types : undefined;
}

/** Is the `Tuple` that is named here the one of the library? */
export const isLibraryTuple = (at: SyntaxNode): Answer => isOfNamespace("Tuple", "System", at);

/** Which member of a variable is read: 0 for `t.Item1`; undefined for any other use. */
export function memberRead(
  use: SyntaxNode,
): { readonly place: number; readonly name: SyntaxNode } | undefined {
  const read = use.parent;
  if (!read?.is("member_access_expression") || !read.child("expression")?.same(use)) return undefined;
  const name = read.child("name")!;
  const digits = /^Item([1-7])$/.exec(name.text)?.[1];
  const isWritten = read.parent?.is("assignment_expression") && read.field === "left";
  return digits === undefined || isWritten || givesItsName(read)
    ? undefined
    : { place: Number(digits) - 1, name };
}

/** Is the name of a member taken on: `new { t.Item1 }` has an `Item1`, and `nameof(t.Item1)` is its text? */
function givesItsName({ parent }: SyntaxNode): boolean {
  if (parent?.is("anonymous_object_creation_expression")) return true;
  return parent?.is("argument_list") === true && parent.parent?.child("function")?.text === "nameof";
}

/** Members that every value tuple has. */
const OWN = ["Rest", "ToString", "Equals", "GetHashCode", "CompareTo", "Deconstruct", "GetType"];

/** The name that a piece of code suggests for its value: the last name in it. */
export function suggested(value: SyntaxNode | undefined): string | undefined {
  if (!value) return undefined;
  if (value.is("invocation_expression")) {
    const name = suggested(value.child("function"));
    return name
      ?.replace(/^(get|find|compute|calculate|read|load|make|create)(?=[A-Z])/, "")
      .replace(/^[A-Z]/, (one) => one.toLowerCase());
  }
  const leaf = value.is("member_access_expression") ? value.child("name") : value;
  if (!leaf?.is("identifier")) return undefined;
  const name = leaf.text.replace(/^(?:m_|_)/, "").replace(/^[A-Z]/, (one) => one.toLowerCase());
  return /^[a-z]\w*$/.test(name) ? name : undefined;
}

/** The variable that a value is put into where it stands: `age` in `var age = t.Item1`. */
export function putInto(value: SyntaxNode): string | undefined {
  const { parent } = value;
  if (parent?.is("variable_declarator")) return suggested(parent.child("name"));
  const isPut =
    parent?.is("assignment_expression") === true && parent.children.some(({ text }) => text === "=");
  return isPut && value.field === "right" ? suggested(parent.child("left")) : undefined;
}

/** One name for each member: the first that is suggested and is free; undefined for a member that nobody names. */
export function namesFrom(
  suggestions: readonly (readonly (string | undefined)[])[],
  { language }: SyntaxTree,
): readonly (string | undefined)[] {
  const taken = new Set<string>();
  return suggestions.map((list) => {
    const name = list.find(
      (one) =>
        one !== undefined &&
        one.length > 1 &&
        !OWN.includes(one) &&
        !language.builtins.includes(one) &&
        !/^item\d$/i.test(one) &&
        !taken.has(one),
    );
    if (name !== undefined) taken.add(name);
    return name;
  });
}

/** What declares a name, where it is a variable of this method. */
export function localOf(name: SyntaxNode): Declaration | undefined {
  const to = referencesAt(name).find((one) => one.to)?.to;
  return to?.as === "local" ? to : undefined;
}

export const hasNames = (names: readonly (string | undefined)[], match: Match): Answer =>
  names.some((name) => name !== undefined)
    ? yes(
        "form.worthwhile",
        `its members are ${names.map((name, n) => name ?? `Item${n + 1}`).join(", ")}`,
        match.node,
      )
    : no("form.worthwhile", "nothing says what its members could be called", match.node);
