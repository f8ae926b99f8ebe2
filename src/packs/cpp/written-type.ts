import { classesNamed, placeOf, referencesAt, typeOf } from "../../core.js";
import type { OwnClass, SyntaxNode } from "../../core.js";

/** The type that something is declared with, as it is written. */
export interface WrittenType {
  /** Without what stands at the name, such as a star. */
  readonly text: string;
  readonly isPointer: boolean;
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
  return expression.is("identifier")
    ? (ofName(expression) ?? ofMember(classAround(expression), expression))
    : undefined;
}

function ofName(name: SyntaxNode): WrittenType | undefined {
  const to = referencesAt(name).find((one) => one.to)?.to;
  const at = to?.at[0];
  const type = at?.closest(DECLARATIONS)?.child("type");
  if (!at || !type || type.is("placeholder_type_specifier")) return undefined;
  const isPointer = at.closest(["pointer_declarator", ...DECLARATIONS])!.is("pointer_declarator");
  return { text: type.text, isPointer, why: `\`${name.text}\` is declared \`${type.text}\``, at: type };
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
      new RegExp(`^(?:mutable\\s+|static\\s+)*(.*?)([\\s*&]*)\\b${name.text}\\b`, "s").exec(member.text)) ??
    [];
  if (!own || type === undefined || type === "" || type.includes("(")) return undefined;
  const why = `\`${name.text}\` is declared \`${type}\` in ${placeOf(own)}`;
  return { text: type, isPointer: signs!.includes("*"), why, at: name };
}
