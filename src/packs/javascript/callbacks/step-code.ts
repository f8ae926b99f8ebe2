import { indentUnit, referencesAt, type Edit, type SyntaxNode } from "../../../core.js";
import { FUNCTIONS } from "./settled.js";

/** Methods that wait for events, or run a function for each of many things. */
export const WAITERS =
  "on once addListener addEventListener then catch finally subscribe forEach map filter some every each".split(
    " ",
  );

/** Functions that run another one later and give it nothing. */
export const TIMERS = ["setTimeout", "setImmediate", "process.nextTick", "queueMicrotask"];

export const deeper = (node: SyntaxNode, indent: string): string =>
  `${indent}${indentUnit(node.tree, indent)}`;

/** Does a blank line stand ahead of a statement, or of the comments on it? */
export function isApart({ tree, start }: SyntaxNode, from: number): boolean {
  return /^[^\n]*\n[ \t]*\r?\n/.test(tree.text.slice(from, start));
}

/** Takes one declarator out of its list, with the comma. */
export function withoutItem(node: SyntaxNode): Edit {
  const next = node.nextPart;
  return next
    ? { start: node.start, end: next.start, text: "" }
    : { start: node.previousPart!.end, end: node.end, text: "" };
}

/** A name in some code that means what a function, or a loop, has for itself. */
export function ownNameIn(code: SyntaxNode, around: SyntaxNode): SyntaxNode | undefined {
  return [...code.descendants()].find(
    (node) =>
      node.is(["identifier", "shorthand_property_identifier"]) &&
      referencesAt(node).some(({ to }) => to?.at.some((at) => around.holds(at))),
  );
}

export const isBareReturn = (statement: SyntaxNode, isLast: boolean): boolean =>
  isLast && statement.is("return_statement") && statement.parts.length === 0;

/** Does a statement belong to the function that code around it belongs to? */
export function isOwn(statement: SyntaxNode, code: SyntaxNode): boolean {
  if (statement.same(code)) return true;
  const fn = statement.closest([...FUNCTIONS, "function_declaration", "method_definition"]);
  return !fn || !code.holds(fn);
}

/** Where the text of a block of statements begins, for the comments ahead of the first. */
export function startOfBlock(statement: SyntaxNode): number {
  const before = statement.previousPart;
  return before ? before.end : statement.parent!.start + 1;
}

/** Is a statement the last that is run in the one around? */
export function isInTail(statement: SyntaxNode, within: SyntaxNode): boolean {
  let at = statement;
  for (const above of statement.ancestors()) {
    if (at.same(within)) return true;
    if (above.is("statement_block") && !at.same(above.lastPart)) return false;
    if (
      above.is([
        "for_statement",
        "for_in_statement",
        "while_statement",
        "do_statement",
        "try_statement",
        "switch_statement",
      ])
    )
      return false;
    at = above;
  }
  return at.same(within);
}

/** Is this the error that a test around found? */
export function isGuarded(error: SyntaxNode): boolean {
  for (const above of error.ancestors()) {
    if (above.is("if_statement") && above.child("consequence")!.holds(error))
      return above.child("condition")!.mentions(error.text).length > 0;
    if (above.is("catch_clause")) return above.child("parameter")?.text === error.text;
    if (above.is(FUNCTIONS)) return false;
  }
  return false;
}

export const names = (target: SyntaxNode): string[] =>
  [...target.descendants()]
    .filter((node) => node.is(["identifier", "shorthand_property_identifier_pattern"]))
    .map(({ text }) => text);

export function writes(code: SyntaxNode, name: string): boolean {
  return code.mentions(name).some(({ parent, field }) => {
    if (parent?.is(["assignment_expression", "augmented_assignment_expression"])) return field === "left";
    return parent?.is("update_expression") ?? false;
  });
}
