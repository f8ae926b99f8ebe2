import { shapeOf, type SyntaxNode } from "../../syntax/index.js";
import { no, unknown, yes, type Answer } from "../answer.js";
import type { Declaration, Reference } from "../names/declarations.js";
import { calledFromLibrary } from "../library/called.js";
import { isSeenElsewhere, usesOf } from "../names/every-use.js";

/** What one use does with the value of a variable. */
export type Fate = "returned" | "stored" | "captured" | "passed on" | "stays";

/**
 * Does the value of a variable get out of the function: returned, stored, captured by a function that may run later,
 * or passed on? Passing it on is answered with unknown, since what is called may keep it or not.
 */
export function doesEscape(declaration: Declaration): Answer {
  if (declaration.as !== "parameter" && isSeenElsewhere(declaration)) {
    return unknown("flow.escapes", `\`${declaration.name}\` can be used from other files`, declaration.at[0]);
  }
  const { references, doubts } = usesOf(declaration);
  let passed: SyntaxNode | undefined;
  for (const reference of references) {
    const fate = fateOf(reference);
    if (fate === "passed on") passed ??= reference.node;
    else if (fate !== "stays")
      return yes("flow.escapes", `\`${declaration.name}\` is ${fate}`, reference.node);
  }
  if (doubts[0]) return unknown(doubts[0].evidence.code, doubts[0].evidence.says, doubts[0].evidence);
  if (passed)
    return unknown("flow.escapes", `\`${declaration.name}\` is passed on and may be kept there`, passed);
  return no("flow.escapes", `\`${declaration.name}\` stays in this function`);
}

/** Does a call of the library only use what it is given: it neither keeps nor releases it, nor runs code that could? */
function isOnlyUsed(call: SyntaxNode): boolean {
  const row = calledFromLibrary(call);
  return row !== undefined && row.keeps !== true && row.releases !== true && row.runs !== true;
}

/** What a use does with the value. */
export function fateOf({ node, does, captured }: Reference): Fate {
  if (does === "write" || does === "declare" || does === "update") return "stays";
  if (captured) return "captured";
  if (does === "address") return "stored";
  const { language } = node.tree;
  const { flow } = language;
  let at = node;
  for (let above = at.parent; above; above = at.parent) {
    const flat = shapeOf(above);
    if (flat?.is === "jump") return flat.to === "return" || flat.to === "throw" ? "returned" : "stays";
    if (above.is(language.suspensions)) return "returned";
    if (above.is(language.functions)) return at.field === "body" ? "returned" : "stays";
    // In Ruby what `return` gives back stands in a list of arguments.
    if (above.is(language.argumentLists) && !(above.parent && shapeOf(above.parent)?.is === "jump"))
      return above.parent && isOnlyUsed(above.parent) ? "stays" : "passed on";
    const table = flow.assignments[above.kind];
    if (table) return at.field === table.target ? "stays" : "stored";
    if (above.is(language.stores)) return "stored";
    if (above.is(language.statementLists) && language.expressionStatement === "")
      return fateOfValue(at, node);
    if (above.is(language.statementLists) || above.is(language.expressionStatement)) return "stays";
    const isThrough =
      above.is(language.parenthesized) ||
      flat?.is === "shortCircuit" ||
      (flat?.is === "branch" && at.field !== "condition") ||
      above.is(language.argumentLists) ||
      above.is(language.handsOn);
    if (!isThrough) return "stays";
    at = above;
  }
  return "stays";
}

/** Where every expression is a statement, what the last of a list comes to may be what the function gives back. */
function fateOfValue(statement: SyntaxNode, node: SyntaxNode): Fate {
  const last = statement.parent?.lastPart;
  return statement.text === node.text && last?.same(statement) ? "returned" : "stays";
}
