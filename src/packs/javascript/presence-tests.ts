import { byType, caution, no, referencesAt, shortened, unknown, valuesOf, yes } from "../../core.js";
import type { Answer, Asks, Condition, Evidence, Match, PresenceTest, SyntaxNode } from "../../core.js";
import { everyTest } from "../family/conditions.js";

/** The new form tells null and undefined from all else; do the tests ask the same, for the values that there are? */
export function asksForMissing(unknownIs: "likely" | "possible" = "possible"): Condition {
  return everyTest(
    "the tests are for null and undefined, and for nothing else",
    (match, test) => sameAsMissing(match, test),
    { unknownIs },
  );
}

/** Is the test one for being false, and nothing says that what is false is missing? Then the new code asks the same. */
export function byTruth(match: Match): boolean {
  const [test] = match.tests;
  return test?.asks === "truth" && sameAsMissing(match, test).is !== "yes";
}

/** For which values old and new code differ, where no type rules them out. */
export function differsFor(old: string, now: string): (match: Match) => readonly Evidence[] {
  return (match) =>
    match.tests.flatMap((test) => {
      if (sameAsMissing(match, test).is !== "unknown") return [];
      const values = test.asks === "callable" ? ["something that is no function"] : differing(test.asks);
      const code = test.asks === "truth" ? "value.falsy" : "value.which-missing";
      const name = shortened(test.subject.text);
      return [
        caution(
          code,
          `when \`${name}\` is ${values.join(" or ")}, the old code ${old} and the new one ${now}`,
        ),
      ];
    });
}

/** The new form tells null and undefined from all else; does the old test do the same for the values that there are? */
export function sameAsMissing(match: Match, test: PresenceTest): Answer {
  const { asks, subject: node } = test;
  const name = shortened(node.text);
  if (test.allowsUndeclared && !isDeclared(node))
    return no(
      "name.undeclared",
      `\`${name}\` may not be declared at all, for which only \`typeof\` does not fail`,
      node,
    );
  if (test.staysAsked) return yes("value.falsy", "the new code asks for the same", node);
  if (asks === "callable") return isCalledOrMissing(match, node);
  if (asks === "missing") return yes("value.null", "the test is for null and undefined alike", node);
  const type = valuesOf(match, node);
  const others = differing(asks);
  if (!type) return unknown("value.which-missing", `\`${name}\` could be ${others.join(", ")}`, node);
  const canBe = asks === "null" ? type.canBeUndefined : type.canBeNull;
  const seen = asks === "truth" ? type.falsy : canBe ? others : [];
  const is = `\`${name}\` is ${type.how} \`${type.text}\``;
  if (seen.length > 0)
    return no(
      "value.which-missing",
      `${is}: for ${seen.join(", ")} the code would do something else`,
      type.at,
    );
  return asks === "truth"
    ? yes("value.falsy", `${is}, which is true whenever it is there`, type.at)
    : byType("value.which-missing", type, `${is}, for which both tests say the same`);
}

/** May something be there that cannot be called? A type that names a function says that there is none. */
function isCalledOrMissing(match: Match, node: SyntaxNode): Answer {
  const type = valuesOf(match, node);
  // Of a union each part would have to be a function.
  const present = type?.text.replace(/\s*\|\s*(null|undefined|void)\b|\b(null|undefined|void)\s*\|\s*/g, "");
  const isFunction = present !== undefined && /^(\(?\([^|]*\)\s*=>[^|]*|Function)$/.test(present);
  return type && isFunction
    ? yes("value.kind", `\`${shortened(node.text)}\` is ${type.how} \`${type.text}\``, type.at)
    : unknown("value.kind", `\`${shortened(node.text)}\` could be something that is no function`, node);
}

/** Does a variable exist? What is only said to exist somewhere (`declare let x`) may not be there. */
export function isDeclared(node: SyntaxNode): boolean {
  if (!node.is("identifier")) return true;
  const to = referencesAt(node).find((one) => one.to)?.to;
  return to !== undefined && !to.at.every((at) => at.closest(["ambient_declaration"]) !== undefined);
}

/** The values for which an old test and the new one say different things. */
function differing(asks: Asks): readonly string[] {
  if (asks === "truth") return ["0", '""', "false"];
  return asks === "null" ? ["undefined"] : asks === "undefined" ? ["null"] : [];
}
