import { condition, no, shortened, typeOf, unknown, yes } from "../../core.js";
import type { Answer, Condition, Hole, Match } from "../../core.js";
import { wantedAt } from "./functions/wanted.js";

/**
 * Two calls that take a value and its default become one: is the same method called for both? Where several have the name, the
 * one for the type of the new argument is called.
 */
export function oneMethod(fallback: Hole, typeOfValue: (match: Match) => string | undefined): Condition {
  const ask = (match: Match): Answer => {
    const code = "type.same";
    const wanted = wantedAt(match.place);
    if (!match.found.isStatements || !match.has(fallback) || wanted.as !== "argument")
      return yes(code, "it is no argument of two calls");
    if (wanted.type !== undefined) return yes(code, `only one \`${wanted.name}\` takes it`, wanted.call);
    const [own, other] = [typeOfValue(match), typeOf(match.the(fallback))?.name];
    const shown = shortened(match.textOf(fallback));
    if (own === undefined || other === undefined)
      return unknown(code, `\`${shown}\` may go to another \`${wanted.name}\` than the value`, wanted.call);
    if (own === other) return yes(code, `both are \`${own}\``, match.the(fallback));
    const says = `a \`${own}\` and a \`${other}\` may go to two methods of the name \`${wanted.name}\``;
    return (wanted.isOverloaded ? no : unknown)(code, says, wanted.call);
  };
  return condition("the same method is called for both", ask, { unknownIs: "possible" });
}
