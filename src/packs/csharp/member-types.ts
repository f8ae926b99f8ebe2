import { classesIn, classesNamed, memberNamed, referencesAt, typeOf } from "../../core.js";
import type { OwnClass, SyntaxNode } from "../../core.js";
import { isOfNamespace } from "./system.js";

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
export function bare(type: string | undefined): string | undefined {
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
    type === "string" || type.endsWith("[]") ? "Length" : isCounted(type, member) ? "Count" : undefined;
  return name === counts ? "int" : undefined;
}

/** Is it a collection of the platform that knows how many items it has? */
const isCounted = (type: string, at: SyntaxNode): boolean =>
  COUNTED.test(type) && isOfNamespace(type, "System.Collections.Generic", at).is === "yes";

const COUNTED =
  /^(I?(List|Collection|Dictionary)|IReadOnly(List|Collection|Dictionary)|HashSet|SortedSet|SortedDictionary|Queue|Stack|LinkedList)$/;

/** Has a type a type parameter in it, of the class or of the method, which stands for another one where it is read? */
function namesParameter(type: string, { head }: OwnClass, member: string): boolean {
  const lists = [/<([^<>]*)>/.exec(head.split(/[:{]/)[0]!), /\w\s*<([^<>]*)>\s*\(/.exec(member)];
  const parameters = lists.flatMap((list) => list?.[1]?.match(/\w+/g) ?? []);
  return (type.match(/\w+/g) ?? []).some((word) => parameters.includes(word));
}

/** The type of an expression with its arguments; that of a member comes from the class of the project that has it. */
export function typeAsWritten(node: SyntaxNode): string | undefined {
  const known = typeOf(node);
  if (known) return known.name + (known.args ?? "");
  return (typeOfMember(node) ?? typeOfOwnMember(node))?.replace(/\s|\?$/g, "");
}

/** The type of a member that is named without an object: one of the class around, or of what that is derived from. */
export function typeOfOwnMember(read: SyntaxNode): string | undefined {
  const name = read.is("invocation_expression") ? read.child("function") : read;
  const around = name?.is("identifier")
    ? read.closest(read.tree.language.classes)?.child("name")?.text
    : undefined;
  const isElse = name && referencesAt(name).some(({ to }) => to && to.as !== "field");
  if (!name || isElse || around === undefined || !isOneClass(around, read)) return undefined;
  const found = memberNamed(read, around, name.text);
  // Where the class itself declares it in this file, a name that is not resolved to it may be hidden by something.
  const isHere = classesIn(read.tree).some((one) => one === found?.of && one.name === around);
  return isHere ? undefined : typeOfOnly(found, name.same(read));
}
