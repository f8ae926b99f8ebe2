import { no, referencesAt, shortened, unknown, yes } from "../../core.js";
import type { Answer, SyntaxNode } from "../../core.js";

/** The declarator and the type that a name is declared with. */
export interface Declared {
  readonly type: string;
  readonly isPointer: boolean;
  readonly at: SyntaxNode;
}

const DECLARATIONS = [
  "declaration",
  "field_declaration",
  "parameter_declaration",
  "optional_parameter_declaration",
];

/** How the name at a node is declared, by the declarator around it. */
export function declaredAs(name: SyntaxNode): Declared | undefined {
  let isPointer = false;
  for (let at = name.parent, below = name; at; below = at, at = at.parent) {
    if (at.is("pointer_declarator")) isPointer = true;
    if (at.is(["function_declarator", "array_declarator", "reference_declarator"])) return undefined;
    if (at.is("init_declarator") && below.field === "value") return undefined;
    if (at.is(DECLARATIONS)) {
      const type = at.child("type")?.text ?? "";
      return type === "" ? undefined : { type, isPointer, at: name };
    }
  }
  return undefined;
}

/** How a name or a member of `this` that is used here was declared in this file. */
export function declarationFor(use: SyntaxNode): Declared | undefined {
  const leaf = use.is("field_expression")
    ? use.child("argument")?.is("this")
      ? use.child("field")
      : undefined
    : use;
  const to = leaf?.isLeaf ? referencesAt(leaf).find((reference) => reference.to)?.to : undefined;
  return to?.at.map(declaredAs).find((found) => found !== undefined);
}

/** Is a pointer what is wanted where an expression stands? */
export function wantsPointer(node: SyntaxNode): Answer {
  const { parent } = node;
  const name = shortened(parent?.text ?? node.text);
  const says = (declared: Declared | undefined, what: string): Answer => {
    if (!declared) return unknown("type.not-known", `the type of \`${shortened(what)}\` is not known`, node);
    const { type, isPointer, at } = declared;
    if (isPointer) return yes("type.is", `\`${shortened(what)}\` is declared \`${type} *\``, at);
    const isNumber = /\b(int|long|short|char|bool|float|double|size_t|u?int\d+_t|auto)\b/.test(type);
    return isNumber
      ? no("type.is", `\`${shortened(what)}\` is declared \`${type}\``, at)
      : unknown("type.is", `\`${shortened(what)}\` is declared \`${type}\``, at);
  };
  if (!parent) return unknown("type.not-known", "nothing says what is wanted here", node);
  if (parent.is("parenthesized_expression")) return wantsPointer(parent);
  if (parent.is("conditional_expression") && node.field !== "condition") return wantsPointer(parent);
  if (parent.is("init_declarator")) {
    const declarator = parent.child("declarator");
    const leaf = declarator && [...declarator.descendants()].findLast((one) => one.isLeaf && one.named);
    return says(leaf && declaredAs(leaf), leaf?.text ?? name);
  }
  if (parent.is("optional_parameter_declaration")) {
    const leaf = parent.child("declarator");
    const last = leaf && [...leaf.descendants()].findLast((one) => one.isLeaf && one.named);
    return says(last && declaredAs(last), last?.text ?? name);
  }
  if (parent.is("assignment_expression")) {
    const left = parent.child("left");
    return says(left && declarationFor(left), left?.text ?? name);
  }
  if (parent.is("binary_expression")) {
    if (!/^[=!]=$/.test(parent.child("operator")?.text ?? ""))
      return no("type.is", `\`${name}\` counts with it`, parent);
    const other = node.field === "left" ? parent.child("right") : parent.child("left");
    return says(other && declarationFor(other), other?.text ?? name);
  }
  if (parent.is("return_statement")) {
    const around = [...node.ancestors()].find((above) =>
      above.is(["function_definition", "lambda_expression"]),
    );
    const declarator = around?.is("function_definition") ? around.child("declarator") : undefined;
    if (!declarator || !around)
      return unknown("type.not-known", "what the function returns is not written down", node);
    const type = around.child("type")?.text ?? "";
    if (declarator.is("pointer_declarator"))
      return yes("type.is", `the function returns \`${type} *\``, around);
    return says({ type, isPointer: false, at: around }, "the result");
  }
  if (parent.is("argument_list"))
    return unknown("type.is", `\`${name}\` may be taken for a number by what is called`, node);
  return unknown("type.is", `nothing says that \`${name}\` wants a pointer`, node);
}

/** Is the code certainly in a function? A class with a macro in its head is read as if it were one. */
export function isInFunction(node: SyntaxNode): boolean {
  const around = node.closest([
    "function_definition",
    "lambda_expression",
    "class_specifier",
    "struct_specifier",
  ]);
  if (!around?.is("function_definition")) return around?.is("lambda_expression") === true;
  let at = around.child("declarator");
  while (at && !at.is("function_declarator"))
    at = at.child("declarator") ?? (at.is("reference_declarator") ? at.firstPart : undefined);
  return at !== undefined;
}
