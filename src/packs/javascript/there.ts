import {
  assignmentOf,
  canBeMissingHere,
  changesOf,
  givesSomething,
  isCreation,
  referencesAt,
  shortened,
  unknown,
  usesOf,
  valueOf,
  valuesOf,
  yes,
} from "../../core.js";
import type { Answer, Match, SyntaxNode } from "../../core.js";

/** Is a value neither null nor undefined? By what it is, the ways to here, all that is assigned to it, or its type. */
export function isThere(match: Match, node: SyntaxNode): Answer {
  const code = "value.null";
  const name = shortened(node.text);
  const inner = node.is(["parenthesized_expression", "as_expression"]) ? node.firstPart : undefined;
  if (inner) return isThere(match, inner);
  if (isMade(node)) return yes(code, `\`${name}\` is there`, node);
  if (node.is("identifier")) {
    const missing = canBeMissingHere(node);
    if (missing.is === "no") return yes(code, missing.evidence.says, missing.evidence);
    const only = madeWhereDeclared(node);
    if (only) return yes(code, `\`${name}\` is \`${shortened(only.text)}\``, only);
  }
  const type = valuesOf(match, node);
  const is = type && `\`${name}\` is ${type.how} \`${type.text}\``;
  if (type && (type.canBeNull || type.canBeUndefined))
    return unknown(code, `${is}, which can be missing`, type.at);
  if (type?.unsure !== undefined) return unknown(code, type.unsure, type.at);
  return type ? yes(code, is!, type.at) : unknown(code, `\`${name}\` could be null or undefined`, node);
}

const isMade = (node: SyntaxNode): boolean => node.is("this") || isCreation(node) || givesSomething(node);

/** The first value of a variable all of whose values are made on the spot. */
function madeWhereDeclared(name: SyntaxNode): SyntaxNode | undefined {
  const to = referencesAt(name).find((one) => !one.member)?.to;
  const declarator = to?.at.length === 1 ? to.at[0]!.parent : undefined;
  const first = declarator?.is("variable_declarator") ? declarator.child("value") : undefined;
  if (!to || !first || !isMade(first) || usesOf(to).doubts.length > 0) return undefined;
  const areMade = changesOf(to).every(({ does, node }) => {
    if (does !== "write" || node.same(to.at[0])) return does === "write";
    const assignment = assignmentOf(node);
    const value = assignment && valueOf(assignment);
    return node.parent?.same(assignment) === true && value !== undefined && isMade(value);
  });
  return areMade ? first : undefined;
}
