import { condition, no, referencesAt, shortened, typeOf, unknown, valuesOf, yes } from "../../core.js";
import type { Answer, Condition, Hole, Match, SyntaxNode } from "../../core.js";

/**
 * In TypeScript two calls that take a value and its default become one, which needs a signature that takes both: of several
 * signatures each may have taken one of them.
 */
export function oneSignature(value: Hole, fallback: Hole): Condition {
  return condition("one signature takes value and default", (match) => takesBoth(match, value, fallback), {
    when: ({ found, tree }) => found.isStatements && tree.language.id !== "javascript",
  });
}

function takesBoth(match: Match, value: Hole, fallback: Hole): Answer {
  const code = "type.same";
  const call = match.place.parent?.is("arguments") ? match.place.parent.parent : undefined;
  if (!call) return yes(code, "it is no argument of two calls");
  const [own, other] = [typesOf(match, match.the(value)), typesOf(match, match.the(fallback))];
  if (own !== undefined && own === other) return yes(code, `both are \`${own}\``, match.the(fallback));
  const called = call.child("function") ?? call.child("constructor");
  const leaf = called?.is("member_expression") ? called.child("property") : called;
  const signatures = leaf && referencesAt(leaf).find(({ to }) => to)?.to?.at;
  const shown = shortened(called?.text ?? call.text);
  if (signatures?.length === 1)
    return yes(code, `\`${shown}\` has one signature (line ${signatures[0]!.line})`, signatures[0]);
  return own !== undefined && other !== undefined && signatures
    ? no(code, `\`${shown}\` has several signatures, and none may take both`, call)
    : unknown(code, `\`${shown}\` may have no signature that takes both`, call);
}

/** The types of a value as they are written, without those for a missing one. */
function typesOf(match: Match, node: SyntaxNode): string | undefined {
  const text = valuesOf(match, node)?.text ?? typeOf(node)?.name;
  return text
    ?.split("|")
    .map((one) => one.trim())
    .filter((one) => one !== "null" && one !== "undefined")
    .join(" | ");
}
