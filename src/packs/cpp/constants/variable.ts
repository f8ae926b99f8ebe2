import { classesNamed, nameInFile, oncePerTree, referencesAt, typeOf } from "../../../core.js";
import type { Declaration, Reference, SyntaxNode } from "../../../core.js";
import { isInFunction } from "../pointers.js";

/** A variable that is declared by itself with a value, and is not constant. */
export interface Variable {
  readonly statement: SyntaxNode;
  readonly type: SyntaxNode;
  readonly name: SyntaxNode;
  readonly value: SyntaxNode | undefined;
  /** What it is: a number or the like, a pointer, a reference, an object, or what nobody knows. */
  readonly is: "scalar" | "pointer" | "reference" | "object";
  readonly declared: Declaration;
}

export const PARAMETERS = ["parameter_declaration", "optional_parameter_declaration"];

const LISTS = ["compound_statement", "case_statement"];

/** Reads `int n = 1;`, or the variable of a loop over a range; undefined for what is declared in another way. */
export function variableAt(statement: SyntaxNode): Variable | undefined {
  const type = statement.child("type");
  const declarators = statement.parts.filter((part) => part.field === "declarator");
  const [only, ...more] = declarators;
  if (!type || !only || more.length > 0) return undefined;
  const words = statement.parts.filter((part) => part.start < only.start).map(({ text }) => text);
  if (words.some((word) => /^(const|constexpr|constinit|volatile|extern|mutable|typedef)$/.test(word)))
    return undefined;
  const isParameter = statement.is(PARAMETERS);
  const isBare = isParameter || statement.is("for_range_loop");
  if (!isBare && !only.is("init_declarator")) return undefined;
  const isStatic =
    words.includes("static") || statement.closest(["namespace_definition"])?.child("name") === undefined;
  const isGlobal = statement.parent?.is(["translation_unit", "declaration_list"]) === true;
  const stands =
    (isParameter && isOfBody(statement)) ||
    (statement.is("for_range_loop") && isInFunction(statement)) ||
    (statement.parent?.is(LISTS) === true && isInFunction(statement)) ||
    (isGlobal && isInternal(statement, words, isStatic));
  if (!stands) return undefined;
  let at: SyntaxNode | undefined = isBare ? only : only.child("declarator");
  let pointers = 0;
  let isReference = false;
  while (at && !at.is("identifier")) {
    if (at.is("pointer_declarator")) {
      pointers++;
      if (at.parts.some((part) => part.is("type_qualifier"))) return undefined;
      at = at.child("declarator");
    } else if (at.is("reference_declarator")) {
      if (at.has("&&")) return undefined;
      isReference = true;
      at = at.firstPart;
    } else return undefined;
  }
  if (!at || (isReference && (pointers > 0 || !statement.is("for_range_loop")))) return undefined;
  const declared = referencesAt(at).find((one) => one.to)?.to;
  if (!declared) return undefined;
  const value = isBare ? undefined : only.child("value");
  const is = isReference
    ? "reference"
    : pointers > 0
      ? "pointer"
      : isScalar(type, value)
        ? "scalar"
        : "object";
  return { statement, type, name: at, value, is, declared };
}

/** Is it a parameter of a function that has its body here, so that `const` is nobody else's business? */
function isOfBody(parameter: SyntaxNode): boolean {
  const list = parameter.parent;
  let at = list?.parent;
  while (at?.parent && at.kind.endsWith("_declarator") && at.field === "declarator") at = at.parent;
  return at?.is(["function_definition", "lambda_expression"]) === true && at.child("body") !== undefined;
}

/** A variable outside of functions that no other file can see. */
function isInternal(statement: SyntaxNode, words: readonly string[], isNameless: boolean): boolean {
  if (words.includes("static")) return true;
  const around = statement.closest(["namespace_definition"]);
  return around !== undefined && isNameless && around.child("name") === undefined;
}

const SCALARS =
  /^(?:std::)?(?:s?size_t|ptrdiff_t|u?int(?:_fast|_least)?(?:8|16|32|64)_t|u?intptr_t|u?intmax_t|wchar_t|char(?:8|16|32)_t|bool|time_t|clock_t|byte)$/;

/** Is a type one of the language's own numbers, or an enumeration of the project? */
function isScalar(type: SyntaxNode, value: SyntaxNode | undefined): boolean {
  if (type.is(["primitive_type", "sized_type_specifier"]) || SCALARS.test(type.text))
    return type.text !== "void";
  if (type.is("placeholder_type_specifier"))
    return (
      value !== undefined &&
      (value.is(["number_literal", "true", "false", "char_literal", "sizeof_expression"]) ||
        /^(int|double|bool|char|float|long|unsigned|size_t)$/.test(typeOf(value)?.name ?? ""))
    );
  if (!type.is("type_identifier")) return false;
  const [own, ...more] = classesNamed(type.tree, type.text).classes;
  return own?.kind === "enum_specifier" && more.length === 0;
}

/** The names that macros of the file use: whoever calls one may change a variable without naming it. */
const macroWords = oncePerTree((tree): ReadonlySet<string> => {
  const words = new Set<string>();
  for (const [line] of tree.text.matchAll(/^[ \t]*#[ \t]*define\b(?:[^\\\n]|\\[^\n]|\\\r?\n)*/gm))
    for (const [word] of line.matchAll(/[A-Za-z_]\w*/g)) words.add(word);
  return words;
});

/** All uses of a variable but the one that declares it; undefined where one of them is not understood. */
export function usesOfVariable({
  declared,
  name,
}: Pick<Variable, "declared" | "name">): readonly Reference[] | undefined {
  const { references, unclear } = nameInFile(declared.name, name.tree);
  if (macroWords(name.tree).has(declared.name)) return undefined;
  if (
    unclear.length > 0 ||
    references.some((one) => one.unknown !== undefined && declared.scope.holds(one.node))
  )
    return undefined;
  return references.filter((one) => one.to === declared && !one.node.same(name));
}
