import { referencesAt, unknown, yes } from "../../../core.js";
import type { Answer, Match, SyntaxNode } from "../../../core.js";
import { changeBy } from "./changed.js";
import { usesOfVariable, type Variable } from "./variable.js";

const PLAIN =
  /^(?:unsigned |signed )?(?:int|long|short|char|bool|double|float|size_t|std::size_t|u?int\d+_t|auto)(?: long| int)*$/;

/** Is it one of the language's own numbers? */
export function isNumber(type: SyntaxNode): boolean {
  return type.is(["primitive_type", "sized_type_specifier"]) || PLAIN.test(type.text);
}

/** An object is made and then assigned to; from now on it is made of the value. */
export function isMadeAlike(type: SyntaxNode): Answer {
  if (isNumber(type)) return yes("type.is", "it is a number", type);
  return unknown(
    "type.not-known",
    `\`${type.text}\` could do something else when it is made of a value than when it is assigned one`,
    type,
  );
}

/** Is the variable left alone once it has its value, so that it may be a constant? */
export function isConstant(match: Match, own: SyntaxNode, is: Variable["is"]): boolean {
  const declared = referencesAt(own).find((found) => found.to)?.to;
  const uses = declared && usesOfVariable({ declared, name: own });
  const rest = uses?.filter((use) => !match.nodes.some((node) => node.holds(use.node)));
  return rest?.every((use) => changeBy({ is }, use).is === "yes") === true;
}
