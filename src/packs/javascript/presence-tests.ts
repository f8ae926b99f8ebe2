import {
  byType,
  isSideEffectFree,
  javascript,
  no,
  referencesAt,
  shortened,
  unknown,
  valuesOf,
  yes,
} from "../../index.js";
import type { Answer, Hole, Match, Snippet, SyntaxNode } from "../../index.js";
import { isPlainAccess } from "./access.js";

/** What a test asks: whether something is null or undefined, one of the two (by `typeof` too), or whether it is true. */
export type Asks = "both" | "null" | "undefined" | "typeof" | "truth";

/** The tests of something being there, and of it being gone. */
export function presenceTests(
  what: Hole,
): readonly { readonly asks: Asks; readonly there: Snippet; readonly gone: Snippet }[] {
  return [
    { asks: "both", there: javascript`${what} != null`, gone: javascript`${what} == null` },
    { asks: "both", there: javascript`${what} != undefined`, gone: javascript`${what} == undefined` },
    {
      asks: "both",
      there: javascript`${what} !== null && ${what} !== undefined`,
      gone: javascript`${what} === null || ${what} === undefined`,
    },
    {
      asks: "both",
      there: javascript`${what} !== undefined && ${what} !== null`,
      gone: javascript`${what} === undefined || ${what} === null`,
    },
    { asks: "undefined", there: javascript`${what} !== undefined`, gone: javascript`${what} === undefined` },
    {
      asks: "typeof",
      there: javascript`typeof ${what} !== "undefined"`,
      gone: javascript`typeof ${what} === "undefined"`,
    },
    {
      asks: "typeof",
      there: javascript`typeof ${what} != "undefined"`,
      gone: javascript`typeof ${what} == "undefined"`,
    },
    { asks: "null", there: javascript`${what} !== null`, gone: javascript`${what} === null` },
    { asks: "truth", there: javascript`${what}`, gone: javascript`!${what}` },
  ];
}

/** What was read to be tested and again to be used is read once. */
export function readOnce(node: SyntaxNode): Answer {
  const name = shortened(node.text);
  if (!isPlainAccess(node))
    return no("effect.evaluated", `\`${name}\` would be evaluated once instead of twice`, node);
  if (node.is("identifier")) {
    const free = isSideEffectFree(node);
    return free.is === "yes" ? yes("effect.evaluated", `\`${name}\` is a plain variable`, node) : free;
  }
  if (node.is("this")) return yes("effect.evaluated", `\`${name}\` is a plain variable`, node);
  return isSideEffectFree(node).is === "yes"
    ? yes("effect.evaluated", `no class of the project has a getter for \`${name}\``, node)
    : unknown("effect.evaluated", `\`${name}\` is read once instead of twice; it could be a getter`, node);
}

/** The new form tells null and undefined from all else; does the old test do the same for the values that there are? */
export function sameAsMissing(match: Match, node: SyntaxNode, asks: Asks): Answer {
  const name = shortened(node.text);
  if (asks === "both") return yes("value.null", "the test is for null and undefined alike", node);
  if (asks === "typeof" && !isDeclared(node))
    return no(
      "name.undeclared",
      `\`${name}\` may not be declared at all, for which only \`typeof\` does not fail`,
      node,
    );
  const type = valuesOf(match, node);
  if (!type)
    return unknown("value.which-missing", `\`${name}\` could be ${differing(asks).join(", ")}`, node);
  const seen =
    asks === "truth"
      ? type.falsy
      : (asks === "null" ? type.canBeUndefined : type.canBeNull)
        ? differing(asks)
        : [];
  return seen.length > 0
    ? no(
        "value.which-missing",
        `\`${name}\` is ${type.how} \`${type.text}\`: for ${seen.join(", ")} the code would do something else`,
        type.at,
      )
    : asks === "truth"
      ? yes(
          "value.falsy",
          `\`${name}\` is ${type.how} \`${type.text}\`, which is true whenever it is there`,
          type.at,
        )
      : byType(
          "value.which-missing",
          type,
          `\`${name}\` is ${type.how} \`${type.text}\`, for which both tests say the same`,
        );
}

/** Does a variable exist? What is only said to exist somewhere (`declare let x`) may not be there. */
export function isDeclared(node: SyntaxNode): boolean {
  if (!node.is("identifier")) return true;
  const to = referencesAt(node).find((one) => one.to)?.to;
  return to !== undefined && !to.at.every((at) => at.closest(["ambient_declaration"]) !== undefined);
}

/** The values for which an old test and the new one say different things. */
export function differing(asks: Asks): readonly string[] {
  if (asks === "truth") return ["0", '""', "false"];
  return asks === "null" ? ["undefined"] : asks === "both" ? [] : ["null"];
}
