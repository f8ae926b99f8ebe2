import { isNamedLike, referencesAt, shortened, textFound, unknown, yes } from "../../core.js";
import type { Answer, Condition, SyntaxNode } from "../../core.js";
import { everyTest } from "../family/conditions.js";

/** A list on the left is filtered by the comparison, and what is left of it decides. */
export function isNoList(node: SyntaxNode): Answer {
  const at = node.is("variable") ? referencesAt(node).find(({ to }) => to)?.to?.at[0] : undefined;
  const type = /\[([\w.]+(?:\[\])?)\]\s*$/.exec(at ? at.tree.text.slice(0, at.start) : "")?.[1];
  if (at && type !== undefined && isNamedLike(type.replace(/^system\./i, "").toLowerCase(), "single", node))
    return yes("value.kind", `\`${node.text}\` is declared \`[${type}]\``, at);
  return unknown(
    "value.kind",
    `\`${shortened(node.text)}\` could be a list, which the old comparison filters`,
    node,
  );
}

/** Does a test ask for $null and nothing else, and does the new operator behave alike for what has no value yet? */
export function asksForNull(): Condition {
  return everyTest("the test asks for $null alone", (_match, { asks, by, subject }) => {
    const strict = textFound(subject.tree, /^\s*Set-StrictMode\b/im);
    if (strict)
      return unknown(
        "flow.assigned",
        `in strict mode reading \`${shortened(subject.text)}\` fails before it has a value, and ?? does not`,
        subject,
      );
    if (asks === "truth" || asks === "key") return yes("value.null", "no operator is asked");
    return by === "operator" ? isNoList(subject) : yes("value.null", "$null stands on the left", subject);
  });
}
