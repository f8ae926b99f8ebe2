import { condition, no, referencesAt, shortened, unknown, yes } from "../../../core.js";
import type { Answer, Match, SyntaxNode } from "../../../core.js";
import { isNamedIn, walkedBy } from "./walked.js";

const code = "type.not-known";
const LITERALS = ["string", "number", "true", "false", "member_expression", "unary_expression"];

/** Does a function tell, by its type, which type what it is given has? Undefined where that is not known. */
function isGuard(called: SyntaxNode): boolean | undefined {
  const declared = called.is("identifier")
    ? referencesAt(called).find((one) => one.to)?.to?.at[0]
    : undefined;
  const type = (declared?.parent?.child("return_type") ?? declared?.parent?.child("type"))?.text;
  return type === undefined ? undefined : /\bis\b/.test(type);
}

/** What a use of the item, in a test, tells of the type that the item has. */
function shownBy(use: SyntaxNode): Answer | undefined {
  const { parent } = use;
  const shown = shortened(parent?.text ?? use.text);
  const says = `\`find\` gives \`${use.text}\` with its type in the list, which \`${shown}\``;
  if (parent?.is("arguments")) {
    const guard = isGuard(parent.parent!.child("function") ?? parent);
    return guard === false ? undefined : unknown(code, `${says} may make narrower`, parent.parent);
  }
  if (parent?.is("unary_expression") && parent.text.startsWith("typeof"))
    return no(code, `${says} makes narrower`, parent);
  const compared = parent?.is("member_expression") && use.field === "object" ? parent : use;
  const comparison = compared.parent;
  if (!comparison?.is("binary_expression")) return undefined;
  const operator = comparison.child("operator")?.text ?? "";
  const [left, right] = [comparison.child("left")!, comparison.child("right")!];
  const other = left.same(compared) ? right : left;
  const isWhole = compared.same(use);
  if (isWhole && (/^(?:instanceof|in)$/.test(operator) || (/^[!=]=/.test(operator) && other.is("null"))))
    return no(code, `${says} makes narrower`, comparison);
  return /^===?$/.test(operator) && other.is(LITERALS)
    ? unknown(code, `${says} may make narrower`, comparison)
    : undefined;
}

function isGivenAlike({ sought }: Match): Answer {
  const { item } = walkedBy(sought);
  if (!isNamedIn(item, [sought.value])) return yes(code, "the item itself is not handed on", item);
  const uses = sought.sieves.flatMap(({ test }) => test.mentions(item.text));
  const shown = uses.flatMap((use) => shownBy(use) ?? []);
  return (
    shown.find(({ is }) => is === "no") ??
    shown[0] ??
    yes(code, `the tests show nothing of the type of \`${item.text}\``, item)
  );
}

/** In TypeScript a loop hands on its item with the type that the tests have shown it to have, and `find` does not. */
export const notNarrowed = condition("the tests do not narrow the type of the item", isGivenAlike, {
  when: ({ tree }) => tree.language.id !== "javascript",
});
