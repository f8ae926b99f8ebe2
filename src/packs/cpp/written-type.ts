import { classesNamed, nameInFile, placeOf, referencesAt, typeOf } from "../../core.js";
import type { OwnClass, SyntaxNode } from "../../core.js";

/** The type that something is declared with, as it is written. */
export interface WrittenType {
  /** Without what stands at the name, such as a star. */
  readonly text: string;
  readonly isPointer: boolean;
  /** Can nobody change it by this name? */
  readonly isConstant: boolean;
  /** "`jars` is declared `std::vector<Jar>`". */
  readonly why: string;
  readonly at: SyntaxNode;
}

const DECLARATIONS = [
  "parameter_declaration",
  "optional_parameter_declaration",
  "declaration",
  "field_declaration",
  "for_range_loop",
];

/** The type that a variable or a member is declared with, here or in the class that has it; undefined where that is not known. */
export function writtenType(expression: SyntaxNode): WrittenType | undefined {
  if (expression.is("field_expression")) {
    const [object, field] = [expression.child("argument"), expression.child("field")];
    if (!object || !field) return undefined;
    if (object.is("this")) return ofName(field) ?? ofMember(classAround(expression), field);
    const type = typeOf(object);
    const [own, ...more] = type ? classesNamed(expression.tree, type.name).classes : [];
    return more.length === 0 ? ofMember(own, field) : undefined;
  }
  if (expression.is("type_identifier")) return ofVariable(expression);
  return expression.is("identifier")
    ? (ofName(expression) ?? ofMember(classAround(expression), expression))
    : undefined;
}

/** In `Owner jar(given)` the parser takes `given` for a type; it is a variable where one goes by that name here. */
function ofVariable(name: SyntaxNode): WrittenType | undefined {
  const found = nameInFile(name.text, name.tree).declarations.filter(
    ({ as, scope }) => (as === "local" || as === "parameter") && scope.holds(name),
  );
  const nearest = found.sort((a, b) => b.scope.start - a.scope.start)[0];
  return ofDeclared(name, nearest?.at[0]);
}

function ofName(name: SyntaxNode): WrittenType | undefined {
  return ofDeclared(name, referencesAt(name).find((one) => one.to)?.to?.at[0]);
}

function ofDeclared(name: SyntaxNode, at: SyntaxNode | undefined): WrittenType | undefined {
  const type = at?.closest(DECLARATIONS)?.child("type");
  if (!at || !type || type.is("placeholder_type_specifier")) return undefined;
  const declarator = at.closest([
    "pointer_declarator",
    "array_declarator",
    "function_declarator",
    ...DECLARATIONS,
  ])!;
  if (declarator.is(["array_declarator", "function_declarator"])) return undefined;
  const isPointer = declarator.is("pointer_declarator");
  const isConstant =
    type.parent!.parts.some((part) => part.is("type_qualifier") && part.text === "const") ||
    (type.parent!.is("field_declaration") && !/^mutable\b/.test(type.parent!.text) && isInConstMethod(name));
  const why = `\`${name.text}\` is declared \`${type.text}\``;
  return { text: type.text, isPointer, isConstant, why, at: type };
}

/** The class whose method a node stands in, where the method stands outside of it. */
function classAround(node: SyntaxNode): OwnClass | undefined {
  let head = node.closest(["function_definition"])?.child("declarator");
  while (head && !head.is("qualified_identifier")) head = head.child("declarator") ?? head.firstPart;
  const scope = head?.child("scope")?.text.replace(/<.*$/s, "");
  const [own, ...more] = scope === undefined ? [] : classesNamed(node.tree, scope).classes;
  return more.length === 0 ? own : undefined;
}

function ofMember(own: OwnClass | undefined, name: SyntaxNode): WrittenType | undefined {
  const member = own?.members.find((one) => one.name === name.text && one.as !== "method");
  const [, type, signs] =
    (member &&
      new RegExp(`^(?:mutable\\s+|static\\s+)*(.*?)([\\s*&]*)\\b${name.text}\\b(?!\\s*[[(])`, "s").exec(
        member.text,
      )) ??
    [];
  if (!own || type === undefined || type === "" || type.includes("(")) return undefined;
  const why = `\`${name.text}\` is declared \`${type}\` in ${placeOf(own)}`;
  const isConstant =
    /^const\b|\bconst$/.test(type) || (!/\bmutable\b/.test(member!.text) && isInConstMethod(name));
  return { text: type.replace(/^const\s+/, ""), isPointer: signs!.includes("*"), isConstant, why, at: name };
}

/** Does a node stand in a method that promises to change nothing? */
function isInConstMethod(node: SyntaxNode): boolean {
  const method = node.closest(["function_definition"]);
  const body = method?.child("body");
  return (
    method !== undefined &&
    /\)\s*const\b/.test(method.tree.text.slice(method.start, body?.start ?? method.end))
  );
}
