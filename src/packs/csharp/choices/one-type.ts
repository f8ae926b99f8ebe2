import { shortened, typeOf, unknown, yes } from "../../../core.js";
import type { Answer, SyntaxNode } from "../../../core.js";
import { withParentheses } from "../../family/parentheses.js";
import { stepsAt } from "./steps.js";

/** The statement that a value goes to by itself: returned, assigned, or declared. */
export function goesTo(node: SyntaxNode): SyntaxNode | undefined {
  const at = withParentheses(node);
  const { parent } = at;
  if (parent?.is("return_statement")) return parent;
  if (
    parent?.is("assignment_expression") &&
    parent.child("right")?.same(at) &&
    parent.parent?.is("expression_statement")
  )
    return parent.child("operator")?.text === "=" || !parent.child("operator") ? parent.parent : undefined;
  const isNamed = parent?.is("variable_declarator") && parent.child("name") !== undefined;
  const declaration = isNamed ? parent?.parent : undefined;
  // `using` stands in front of it as a word.
  const statement = declaration?.parent?.start === declaration?.start ? declaration?.parent : undefined;
  return statement?.is("local_declaration_statement") &&
    declaration!.parts.filter((one) => one.is("variable_declarator")).length === 1 &&
    statement.firstPart?.same(declaration)
    ? statement
    : undefined;
}

/** The operator makes all values one type before they go on; apart each goes on as it is. */
export function isOfOneType(node: SyntaxNode): Answer {
  const { steps, otherwise } = stepsAt(node)!;
  return areOfOneType([...steps.map(({ value }) => value), otherwise], goesTo(node) ?? node, node);
}

/** The same for values that go to a statement, where it is known. */
export function areOfOneType(
  all: readonly SyntaxNode[],
  statement: SyntaxNode | undefined,
  node: SyntaxNode,
): Answer {
  const values = all.filter((one) => !one.is("null_literal"));
  const types = values.map((one) => typeOf(one)?.name);
  const [first] = types;
  if (first !== undefined && types.every((one) => one === first))
    return yes("type.same", `all values are \`${first}\``, node);
  const kinds = new Set(values.map((one) => one.kind));
  if (kinds.size === 1 && values.every(isPlainLiteral))
    return yes("type.same", "all values are literals of one type", node);
  const target = statement && targetType(statement);
  if (target !== undefined && /^(string|bool)\??$/.test(target))
    return yes("type.same", `a \`${target}\` is wanted, which all values are`, node);
  const odd = values[types.findIndex((one) => one === undefined || one !== first)] ?? node;
  const says = `\`${shortened(odd.text)}\` could be of another type than the values beside it, which the operator converts`;
  return unknown("type.same", says, odd);
}

/** A literal whose type its kind says: a number has none of the letters behind it that make it another. */
const isPlainLiteral = (node: SyntaxNode): boolean =>
  node.is(["string_literal", "character_literal", "boolean_literal"]) ||
  (node.is("integer_literal") && /^\d{1,9}$/.test(node.text));

/** The type that a statement wants, as it is written. */
export function targetType(statement: SyntaxNode): string | undefined {
  if (statement.is("local_declaration_statement")) {
    const type = statement.firstPart!.child("type");
    return type?.is("implicit_type") ? undefined : type?.text;
  }
  if (!statement.is("return_statement")) return undefined;
  const around = statement.closest([
    "method_declaration",
    "local_function_statement",
    "lambda_expression",
    "accessor_declaration",
    "anonymous_method_expression",
  ]);
  return around?.child("returns")?.text ?? around?.child("type")?.text;
}
