import { isBuiltin, isLeftAlone, shortened, isSideEffectFree } from "../analysis/index.js";
import { no, scopeAround, unknown, weakest, writesOf, readsOf, yes, type Answer } from "../analysis/index.js";
import type { Hole } from "../pattern/index.js";
import type { SyntaxNode } from "../syntax/index.js";
import { condition, type Condition } from "./condition.js";
import type { Match } from "./match.js";

/** The variable that `name` stands for is not written in the code that another hole stands for. */
export function neverWritten(name: Hole, { in: where }: { in: Hole }): Condition {
  return condition(`\`${name.name}\` is not written in \`${where.name}\``, (match) =>
    isLeftAlone(match.textOf(name), match.all(where), match.node),
  );
}

/** A name that the pattern spells out still means what the language defines. */
export function builtin(name: string): Condition {
  return condition(`\`${name}\` is the built-in one`, (match) => isBuiltin(name, match.node));
}

/** Evaluating the hole's code once more or once less makes no difference. */
export function sideEffectFree(hole: Hole): Condition {
  return condition(`evaluating \`${hole.name}\` has no side effect`, (match) =>
    isSideEffectFree(match.the(hole)),
  );
}

/**
 * The collection a hole stands for keeps its length and its items while the statements of another hole run.
 * Certain only for a local variable that those statements do nothing with but read items and length.
 */
export function unchangedDuring(items: Hole, { during }: { during: Hole }): Condition {
  return condition(`\`${items.name}\` does not change in \`${during.name}\``, (match) =>
    unchanged(match, items, during),
  );
}

function unchanged(match: Match, items: Hole, during: Hole): Answer {
  const code = match.the(items);
  const body = match.all(during);
  const { language } = match.tree;
  const name = code.text;
  if (!code.is(language.variables)) {
    const root = shortened(name);
    for (const node of body.flatMap((statement) => [...statement.descendants()])) {
      if (node.text === name && isChanged(node)) return no(`\`${root}\` is changed here`, node);
    }
    const call = callIn(body);
    if (call) return unknown(`\`${shortened(call.text)}\` could change \`${root}\``, call);
    return unknown(`\`${root}\` is not a local variable`, code);
  }
  for (const statement of body) {
    const write = writesOf(name, statement)[0];
    if (write) return no(`\`${name}\` is written`, write);
    for (const read of readsOf(name, statement)) {
      if (isChanged(read)) return no(`\`${name}\` is changed here`, read.parent);
    }
  }
  const through = callIn(body) ?? changeThroughAnotherName(body);
  if (through) {
    return unknown(`\`${shortened(through.text)}\` could change \`${name}\` through another name`, through);
  }
  return yes(`nothing in the loop can change \`${name}\``);
}

/** Built-in functions that cannot change what they are given. */
const HARMLESS = new Set([
  "len",
  "print",
  "range",
  "str",
  "int",
  "float",
  "abs",
  "round",
  "repr",
  "isinstance",
  "type",
]);

function callIn(statements: readonly SyntaxNode[]): SyntaxNode | undefined {
  for (const statement of statements) {
    const { language } = statement.tree;
    for (const node of statement.descendants()) {
      if (node.is(["await", "yield", "with_statement"])) return node;
      if (!node.is(language.calls)) continue;
      const called = node.child("function");
      const harmless =
        called?.is("identifier") && HARMLESS.has(called.text) && isBuiltin(called.text, node).is === "yes";
      if (!harmless) return node;
    }
  }
  return undefined;
}

/** An item set or deleted, or `+=` on what is not known to be a number or a string: it could be the same list. */
function changeThroughAnotherName(statements: readonly SyntaxNode[]): SyntaxNode | undefined {
  for (const statement of statements) {
    const { language } = statement.tree;
    for (const node of statement.descendants()) {
      if (node.is(language.indexReads) && isTarget(node)) return node;
      const target = node.is("augmented_assignment") ? node.child("left") : undefined;
      if (target && !startsAsLiteral(target)) return node;
    }
  }
  return undefined;
}

/** Is this variable given a number or a string as its first value in its scope? */
function startsAsLiteral(target: SyntaxNode): boolean {
  const first = writesOf(target.text, scopeAround(target))[0];
  const value = first?.parent?.is("assignment") ? first.parent.child("right") : undefined;
  return value?.is(["integer", "float", "string"]) ?? false;
}

/** Is this use of a collection one that may change it: item set or deleted, method called, handed on? */
function isChanged(use: SyntaxNode): boolean {
  const { language } = use.tree;
  const parent = use.parent;
  if (!parent) return false;
  if (parent.is(language.indexReads) && parent.child("value")?.same(use)) {
    return isTarget(parent);
  }
  if (parent.is(language.memberReads)) return parent.parent?.is(language.calls) ?? true;
  return isTarget(use);
}

/** Is this expression assigned to, changed in place or deleted? */
export function isTarget(node: SyntaxNode): boolean {
  let at = node;
  let parent = node.parent;
  while (
    parent?.is([
      "pattern_list",
      "tuple_pattern",
      "list_pattern",
      "list_splat_pattern",
      "expression_list",
      "tuple",
    ])
  ) {
    at = parent;
    parent = parent.parent;
  }
  if (!parent) return false;
  if (parent.is(["assignment", "augmented_assignment", "for_statement", "for_in_clause"])) {
    return at.field === "left";
  }
  return parent.is(["delete_statement", "as_pattern_target"]);
}

/** All of several conditions; the weakest answer counts. */
export function all(...conditions: readonly [Condition, ...Condition[]]): Condition {
  const [first, ...rest] = conditions;
  return condition(conditions.map((c) => c.must).join(", and "), (match) =>
    weakest([first.ask(match), ...rest.map((c) => c.ask(match))]),
  );
}
