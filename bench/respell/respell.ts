import { isMissing, shapeOf, type LanguageId, type SyntaxNode, type SyntaxTree } from "uvran/core";
import { partsOfBranch } from "uvran/core";
import { WRITING, type Writing } from "./syntax.js";

/** Code that means the same as other code, and how it was come by. */
export interface Respelt {
  readonly how: string;
  readonly code: string;
}

/** A branch of the old code by its texts. */
interface Branch {
  readonly node: SyntaxNode;
  readonly test: string;
  readonly yes: readonly SyntaxNode[];
  readonly no: readonly SyntaxNode[];
  /** `t ? a : b`, and no statement. */
  readonly isExpression: boolean;
}

const STATEMENT_KINDS = /statement|^if$|^unless$|modifier$/;

/** All single respellings of a piece of code. They are made by rewriting its text, and know nothing of how rules read it. */
export function respellings(tree: SyntaxTree): Respelt[] {
  const writing = WRITING[tree.language.id];
  if (!writing) return [];
  const branches = [...tree.root.descendants()].flatMap((node) => branchAt(node) ?? []);
  return [
    ...swapped(tree, writing),
    ...deMorgan(tree, writing),
    ...branches.flatMap((branch) => [
      ...turned(branch, writing),
      ...asStatements(branch, writing),
      ...asExpression(branch, writing),
      ...asGuard(branch, writing),
      ...asSwitch(branch, writing),
      ...braced(branch, writing),
      ...commented(branch, writing),
    ]),
    ...surrounded(tree, writing),
    ...beforeTry(tree, writing),
  ].filter(({ code }) => code !== tree.text);
}

function branchAt(node: SyntaxNode): Branch | undefined {
  const shape = shapeOf(node);
  if (shape?.is !== "branch" || shape.negated) return undefined;
  const [then, [test], otherwise] = partsOfBranch(node, shape);
  if (!test || otherwise.length > 1 || then.length !== 1) return undefined;
  const isExpression = !STATEMENT_KINDS.test(node.kind);
  const yes = isExpression ? then : then.flatMap(statementsIn);
  const no = isExpression ? otherwise : otherwise.flatMap(statementsIn);
  const inner = /^\((.*)\)$/s.exec(test.text)?.[1];
  return { node, test: inner !== undefined && isBalanced(inner) ? inner : test.text, yes, no, isExpression };
}

function isBalanced(text: string): boolean {
  let depth = 0;
  for (const char of text) {
    if (char === "(") depth++;
    if (char === ")" && --depth < 0) return false;
  }
  return depth === 0;
}

function statementsIn(way: SyntaxNode): SyntaxNode[] {
  if (way.is(way.tree.language.statementLists)) return way.parts;
  if (/^(else_clause|statement_block)$/.test(way.kind)) return way.parts.flatMap(statementsIn);
  return [way];
}

function replaced(tree: SyntaxTree, from: number, to: number, text: string, how: string): Respelt {
  const indent = tree.indentAt(from);
  const lines = text.replace(/\n/g, `\n${indent}`);
  return { how, code: tree.text.slice(0, from) + lines + tree.text.slice(to) };
}

function swapped(tree: SyntaxTree, { swaps }: Writing): Respelt[] {
  if (!swaps) return [];
  return [...tree.root.descendants()].flatMap((node) => {
    if (!node.is(tree.language.binary) || node.parts.length !== 2) return [];
    const [left, right] = node.parts as [SyntaxNode, SyntaxNode];
    const operator = tree.text.slice(left.end, right.start);
    if (!/^\s*[!=]==?\s*$/.test(operator) || (!isMissing(left) && !isMissing(right))) return [];
    return [replaced(tree, node.start, node.end, right.text + operator + left.text, "sides swapped")];
  });
}

/** `a && b` → `!(!(a) || !(b))`, and the other way round. */
function deMorgan(tree: SyntaxTree, { not }: Writing): Respelt[] {
  const other: Readonly<Record<string, string>> = { "&&": "||", "||": "&&", and: "or", or: "and" };
  return [...tree.root.descendants()].flatMap((node) => {
    if (shapeOf(node)?.is !== "shortCircuit" || node.parts.length !== 2) return [];
    const [left, right] = node.parts as [SyntaxNode, SyntaxNode];
    const operator = other[tree.text.slice(left.end, right.start).trim()];
    if (operator === undefined) return [];
    const code = not(`${not(left.text)} ${operator} ${not(right.text)}`);
    return [replaced(tree, node.start, node.end, code, "De Morgan")];
  });
}

/** `if (!(t)) b else a`. */
function turned({ node, test, yes, no, isExpression }: Branch, writing: Writing): Respelt[] {
  const { tree, start, end } = node;
  if (yes.length !== 1 || no.length !== 1) {
    if (yes.length !== 1 || no.length !== 0 || isExpression) return [];
    const doubled = writing.not(writing.not(test));
    return [replaced(tree, start, end, writing.ifOnly(doubled, yes[0]!.text), "negated twice")];
  }
  const negated = writing.not(test);
  const make = isExpression ? writing.conditional : writing.ifElse;
  if (!make) return [];
  return [replaced(tree, start, end, make(negated, no[0]!.text, yes[0]!.text), "negated and turned round")];
}

/** A conditional in a statement → branches that each do the statement. */
function asStatements({ node, test, yes, no, isExpression }: Branch, writing: Writing): Respelt[] {
  if (!isExpression || yes.length !== 1 || no.length !== 1) return [];
  const { tree } = node;
  const statement = statementAround(node);
  if (!statement || /for|while/.test(statement.kind)) return [];
  const with_ = (value: SyntaxNode): string => {
    const code =
      tree.text.slice(statement.start, node.start) + value.text + tree.text.slice(node.end, statement.end);
    return code;
  };
  let [a, b] = [with_(yes[0]!), with_(no[0]!)];
  let ahead = "";
  const declared = /^(const|let|var)\s+(\w+)\s*=/.exec(a);
  if (declared && writing.declare) {
    ahead = `${writing.declare(declared[2]!)}\n`;
    [a, b] = [a, b].map((code) => code.replace(/^(const|let|var)\s+/, "")) as [string, string];
  } else if (/declaration|definition/.test(statement.kind)) return [];
  const at = [statement.start, statement.end] as const;
  const found = [
    replaced(tree, ...at, ahead + writing.ifElse(test, a, b), "conditional as branches"),
    replaced(
      tree,
      ...at,
      ahead + writing.ifElse(writing.not(test), b, a),
      "conditional as branches, turned round",
    ),
  ];
  if (/^return\b/.test(a))
    found.push(replaced(tree, ...at, `${writing.ifOnly(test, a)}\n${b}`, "conditional as guard"));
  return found;
}

/** Branches that each assign or return → one statement with a conditional. */
function asExpression({ node, test, yes, no, isExpression }: Branch, writing: Writing): Respelt[] {
  const [a, b] = [yes[0], no[0]];
  if (isExpression || !a || !b || yes.length + no.length !== 2 || !writing.conditional) return [];
  const { tree, start, end } = node;
  const form = /^([$@\w.[\]]+\s*=\s*|return\s+)([^]*?)(;?)$/;
  const [one, other] = [form.exec(a.text), form.exec(b.text)];
  if (!one || !other || one[1] !== other[1] || /[?=]/.test(one[2]! + other[2]!)) return [];
  const value = writing.conditional(test, one[2]!, other[2]!);
  const result = [replaced(tree, start, end, one[1]! + value + one[3]!, "branches as conditional")];
  const isPlain = /^(\d+|"[^"]*"|'[^']*'|null|None|nil)$/.test(other[2]!);
  if (!isPlain || /^return/.test(one[1]!) || test.includes(one[1]!.replace(/\s*=\s*$/, ""))) return result;
  const first = `${other[1]}${other[2]}${other[3]}`;
  result.push(
    replaced(tree, start, end, `${first}\n${writing.ifOnly(test, a.text)}`, "assigned first and overridden"),
  );
  return result;
}

/** `if (t) return a; else return b;` → without the else; and a guard → with one. */
function asGuard({ node, test, yes, no, isExpression }: Branch, writing: Writing): Respelt[] {
  const [a, b] = [yes[0], no[0]];
  if (isExpression || yes.length !== 1 || !/^(return|throw|raise)\b/.test(a!.text)) return [];
  const { tree, start, end } = node;
  if (b && no.length === 1)
    return [replaced(tree, start, end, `${writing.ifOnly(test, a!.text)}\n${b.text}`, "without the else")];
  const following = nextStatement(node);
  if (!following || no.length > 0 || !/^(return|throw|raise)\b/.test(following.text)) return [];
  const both = writing.ifElse(test, a!.text, following.text);
  const turnedRound = writing.ifElse(writing.not(test), following.text, a!.text);
  return [
    replaced(tree, start, following.end, both, "guard with an else"),
    replaced(tree, start, following.end, turnedRound, "guard with an else, turned round"),
    replaced(
      tree,
      start,
      following.end,
      `${writing.ifOnly(writing.not(test), following.text)}\n${a!.text}`,
      "guard turned round",
    ),
  ];
}

/** `x == null ? a : b` → `switch (x) { case null: … default: … }`. */
function asSwitch({ node, test, yes, no, isExpression }: Branch, writing: Writing): Respelt[] {
  const [a, b] = [yes[0]?.text, no[0]?.text];
  const subject = writing.asksForNull?.exec(test)?.[1];
  if (subject === undefined || a === undefined || b === undefined || yes.length + no.length !== 2) return [];
  const code = writing.switched?.(subject, a, b, isExpression);
  return code === undefined ? [] : [replaced(node.tree, node.start, node.end, code, "as a switch")];
}

function braced({ node, test, yes, no, isExpression }: Branch, writing: Writing): Respelt[] {
  if (isExpression || !writing.bare || yes.length !== 1 || no.length > 1) return [];
  const { tree, start, end } = node;
  const [a, b] = [yes[0]!.text, no[0]?.text];
  const inBraces = b === undefined ? writing.ifOnly(test, a) : writing.ifElse(test, a, b);
  const found = [
    replaced(tree, start, end, writing.bare(test, a, b), "without braces"),
    replaced(tree, start, end, inBraces, "with braces"),
    replaced(tree, start, end, inBraces.replace(/\n\s*/g, " "), "on one line"),
  ];
  if (b === undefined)
    found.push(replaced(tree, start, end, `${inBraces} else {\n}`, "an else that is empty"));
  return found;
}

function commented({ node, yes, isExpression }: Branch, writing: Writing): Respelt[] {
  const { tree } = node;
  const [a] = yes;
  if (isExpression || !a || tree.firstOnLine(a.start) !== a.start) return [];
  return [
    replaced(tree, a.start, a.start, `${writing.comment("as it was weighed")}\n`, "a comment in the way"),
    replaced(tree, a.end, a.end, ` ${writing.comment("weighed")}`, "a comment behind the statement"),
  ];
}

/** A statement, or a comment, between what acquires something and the `try` that releases it. */
function beforeTry(tree: SyntaxTree, writing: Writing): Respelt[] {
  const guard = [...tree.root.descendants()].find((node) => shapeOf(node)?.is === "try");
  if (!guard || tree.firstOnLine(guard.start) !== guard.start) return [];
  const { start } = guard;
  return [
    replaced(tree, start, start, `${writing.noise}\n`, "a statement ahead of the try"),
    replaced(tree, start, start, `${writing.comment("by hand")}\n`, "a comment ahead of the try"),
  ];
}

function surrounded(tree: SyntaxTree, writing: Writing): Respelt[] {
  const { text } = tree;
  const isSpelt = (node: SyntaxNode): boolean =>
    ["branch", "shortCircuit", "try"].includes(shapeOf(node)?.is ?? "");
  const branch = [...tree.root.descendants()].find(isSpelt);
  const statement = branch && statementAround(branch);
  if (!statement) return [];
  const isOnLine = tree.firstOnLine(statement.start) === statement.start;
  const result: Respelt[] = [];
  if (isOnLine) {
    result.push(
      replaced(tree, statement.start, statement.start, `${writing.noise}\n`, "a statement before it"),
    );
    result.push(
      replaced(
        tree,
        statement.start,
        statement.start,
        `${writing.comment("once a week")}\n`,
        "a comment before it",
      ),
    );
  }
  const isFree = !/\b(return|import|class|using|namespace)\b|<\?php/.test(text);
  if (isFree)
    for (const [name, wrap] of Object.entries(writing.wraps))
      result.push({ how: `in a ${name}`, code: `${wrap(text.trimEnd())}\n` });
  return result;
}

function statementAround(node: SyntaxNode): SyntaxNode | undefined {
  const { statementLists, functions } = node.tree.language;
  let at = node;
  while (at.parent && !at.parent.is(statementLists)) {
    if (at.is(functions)) return undefined;
    at = at.parent;
  }
  return at.parent ? at : undefined;
}

function nextStatement(node: SyntaxNode): SyntaxNode | undefined {
  const { parent } = node;
  if (!parent?.is(node.tree.language.statementLists)) return undefined;
  const { parts } = parent;
  return parts[parts.findIndex((part) => part.same(node)) + 1];
}

/** The languages that are respelt. */
export const RESPELT = Object.keys(WRITING) as LanguageId[];
