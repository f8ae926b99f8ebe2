import { shapeOf, type SyntaxNode } from "../../syntax/index.js";
import { no, unknown, yes, type Answer } from "../answer.js";
import type { Declaration, Reference } from "../names/declarations.js";
import { calledFromLibrary } from "../library/called.js";
import { operatorOf } from "./parts.js";
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
  const { binding } = declaration.scope.tree.language;
  const shared = declaration.at.find((at) => binding.isReference(at));
  if (shared)
    return unknown("flow.escapes", `\`${declaration.name}\` is a reference, and others have it too`, shared);
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
  const { language } = node.tree;
  const { flow } = language;
  // `next = p++` hands on the pointer as it was.
  const step =
    does === "update" && flow.movesPointers.length > 0 ? node.closest(language.augmented) : undefined;
  if (step && !step.parent?.is([language.expressionStatement, "for_statement"])) return "passed on";
  if (does === "write" || does === "declare" || does === "update") return "stays";
  if (captured) return "captured";
  if (does === "address") return "stored";
  let at = node;
  for (let above = at.parent; above; above = at.parent) {
    const flat = shapeOf(above);
    if (flat?.is === "jump") return flat.to === "return" || flat.to === "throw" ? "returned" : "passed on";
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
    // What stands alone behind an arrow of a `switch` is its value.
    if (above.is(language.expressionStatement) && above.parent?.is("switch_rule")) return "passed on";
    if (above.is(language.statementLists) || above.is(language.expressionStatement)) return "stays";
    const isThrough =
      above.is(language.parenthesized) ||
      flat?.is === "shortCircuit" ||
      (flat?.is === "branch" && at.field !== "condition") ||
      above.is(language.argumentLists) ||
      above.is(language.handsOn);
    if (!isThrough) return staysIn(above, at) ? "stays" : "passed on";
    at = above;
  }
  return "stays";
}

/** Statements that only look at what stands in them. */
const LOOKING = /^(if|while|do|delete|echo|assert|print|unset|synchronized|lock|using)_/;
/** Operators with one side, and those of a test. */
const ONE_SIDED = /unary|not_operator|prefix|postfix|update|typeof|delete|isset|empty|clone/;

/** Is a value only looked at by what it stands in: an operator, a test, a loop over its items, a read of its members? */
function staysIn(above: SyntaxNode, at: SyntaxNode): boolean {
  const { language } = above.tree;
  if (above.is(language.memberReads) || above.is(language.calls)) return at.field !== "arguments";
  if (above.is(language.indexReads)) return above.firstPart?.same(at) === true || !isAssigned(above);
  if (above.is(language.strings) || above.is(language.textParts)) {
    // A text with a function ahead of it is handed to that.
    const given = above.closest(language.calls)?.child("arguments");
    return !given?.holds(above) || given.is(language.argumentLists);
  }
  if (above.is(language.binary)) {
    const operator = operatorOf(above);
    return !language.changingOperators.includes(operator) && !language.flow.movesPointers.includes(operator);
  }
  if (ONE_SIDED.test(above.kind) || LOOKING.test(above.kind)) return true;
  return ["branch", "loop", "each", "negation"].includes(shapeOf(above)?.is ?? "");
}

/** Is something put where an item is read? */
function isAssigned(item: SyntaxNode): boolean {
  const table = item.parent && item.tree.language.flow.assignments[item.parent.kind];
  return table !== undefined && item.field === table.target;
}

/** Where every expression is a statement, what one comes to may be what the function gives back. */
function fateOfValue(statement: SyntaxNode, node: SyntaxNode): Fate {
  const { flow, functions } = node.tree.language;
  if (statement.text !== node.text) return "stays";
  if (!flow.lastIsGiven) return "returned";
  const taker = flow.takerOf(statement);
  if (!taker) return "stays";
  return taker.is(functions) ? "returned" : "passed on";
}
