import type { Import, ImportStatement, ListedImport, SyntaxNode, SyntaxTree } from "../../syntax/index.js";
import type { Edit } from "../edits.js";
import { lineEnd } from "../indent.js";

/** The names that a statement lists one by one and that stay. */
export function listedIn({ imports }: ImportStatement, gone: ReadonlySet<ListedImport>): ListedImport[] {
  return imports.filter(
    (item) => item.name !== undefined && item.name !== "default" && item.name !== "*" && !gone.has(item),
  );
}

const itemText = (tree: SyntaxTree, { isOther }: ImportStatement, wanted: Import): string => {
  const item = tree.language.imports.item(wanted);
  return isOther ? item.replace(" as ", ": ") : item;
};

/** Puts names into the list of a statement in the place of all that stand there. */
export function itemsEdit(tree: SyntaxTree, statement: ImportStatement, wanted: readonly Import[]): Edit {
  const listed = listedIn(statement, new Set());
  const text = wanted.map((one) => itemText(tree, statement, one)).join(", ");
  return { start: listed[0]!.node.start, end: listed.at(-1)!.node.end, text };
}

/** Puts a name into the list of a statement: where the order wants it, else behind the last. */
export function itemEdit(
  tree: SyntaxTree,
  statement: ImportStatement,
  wanted: Import,
  gone: ReadonlySet<ListedImport>,
): Edit {
  const text = itemText(tree, statement, wanted);
  const listed = listedIn(statement, gone);
  // What goes tells the order as well.
  const order = orderOf(listedIn(statement, new Set()).map(({ name }) => name!));
  const before = order && listed.find(({ name }) => order(name!, wanted.name!) > 0);
  const last = listed.at(-1)!;
  const gap = (node: SyntaxNode): string =>
    tree.firstOnLine(node.start) === node.start ? lineEnd(tree.text) + tree.indentAt(node.start) : " ";
  if (before) {
    const { start } = before.node;
    return { start, end: start, text: `${text},${gap(before.node)}` };
  }
  const { end } = last.node;
  return { start: end, end, text: `,${gap(last.node)}${text}` };
}

/** Puts a statement of its own among the imports: into the group that is most like it, in that group's order. */
export function statementEdit(
  tree: SyntaxTree,
  statements: readonly ImportStatement[],
  wanted: readonly Import[],
  text: string,
): Edit {
  const { module, form } = wanted[0]!;
  const newLine = lineEnd(tree.text);
  const block = text.replaceAll("\n", newLine);
  const groups = groupsOf(tree, statements);
  if (groups.length === 0) return firstStatement(tree, block, newLine);
  const scores = groups.map((group) => Math.max(...group.map((s) => likeness(s.module, module))));
  const best = Math.max(...scores);
  const group = best === 0 ? groups.at(-1)! : groups[scores.lastIndexOf(best)]!;
  const apart = best === 0 && groups.length > 1;
  const next = apart ? undefined : nextIn(group, { ...wanted[0]!, key: keyOf(module, wanted) });
  const indent = tree.indentAt(group[0]!.node.start);
  if (next) {
    const at = next.node.start;
    return { start: at, end: at, text: block + newLine + indent };
  }
  const last = (group.findLast((statement) => statement.form === form) ?? group.at(-1)!).node;
  const at = endOfLine(tree, last.end);
  return { start: at, end: at, text: newLine + (apart ? newLine : "") + indent + block };
}

/** What a statement is sorted by: its module, and the name where it brings in no more than one. */
function keyOf(module: string, items: readonly Import[]): string {
  const [only, ...more] = items;
  return only?.name === undefined || more.length > 0 ? module : `${module}\0${only.name}`;
}

/** The statement of a group ahead of which one belongs, where those of its form stand in an order. */
function nextIn(
  group: readonly ImportStatement[],
  { module, form, key }: Import & { readonly key: string },
): ImportStatement | undefined {
  const ofForm = group.filter((statement) => statement.form === form);
  const alike = ofForm.length > 0 ? ofForm : group;
  const keys = alike.map((statement) => keyOf(statement.module, statement.imports));
  const order = orderOf(keys);
  if (order) return alike.find((_, at) => order(keys[at]!, key) > 0);
  const isByModule = isSorted(alike.map((statement) => statement.module));
  return isByModule ? alike.find((statement) => compare(statement.module, module) > 0) : undefined;
}

/** End of the statement's line when only its end or a comment follows there. */
function endOfLine(tree: SyntaxTree, end: number): number {
  const { text, language } = tree;
  const line = /^[^\r\n]*/.exec(text.slice(end))![0];
  const rest = line.replace(language.statementSeparator, "").trim();
  const isComment = language.lineComments.some((mark) => rest.startsWith(mark));
  return rest === "" || isComment ? end + line.trimEnd().length : end;
}

/** Statements without a blank line between them. */
function groupsOf(tree: SyntaxTree, statements: readonly ImportStatement[]): ImportStatement[][] {
  const groups: ImportStatement[][] = [];
  let end = -1;
  for (const statement of statements) {
    const between = tree.text.slice(end, statement.node.start);
    if (end < 0 || /\n[ \t]*\r?\n/.test(between)) groups.push([]);
    groups.at(-1)!.push(statement);
    end = statement.node.end;
  }
  return groups;
}

/** Length of the start that two module names share. */
function likeness(a: string, b: string): number {
  let i = 0;
  while (i < a.length && a[i] === b[i]) i++;
  return i;
}

function compare(a: string, b: string): number {
  const [x, y] = [a.toLowerCase(), b.toLowerCase()];
  return x < y ? -1 : x > y ? 1 : 0;
}

const byUnits = (a: string, b: string): number => (a < b ? -1 : a > b ? 1 : 0);

function isSorted(names: readonly string[], by = compare): boolean {
  return names.every((name, i) => i === 0 || by(names[i - 1]!, name) <= 0);
}

/** The order in which names stand: whatever their case, or capitals first; undefined where they stand in none. */
function orderOf(names: readonly string[]): typeof compare | undefined {
  return [compare, byUnits].find((by) => isSorted(names, by));
}

/** A comment that speaks to a tool and belongs to the very first lines. */
const MAGIC = /^(#!|#\s*(-\*-|vim:|frozen_string_literal|encoding|coding|requires\b))/i;

/** The first import of a file: behind what must come first, with a blank line on both sides. */
function firstStatement(tree: SyntaxTree, block: string, newLine: string): Edit {
  const { text } = tree;
  const body = tree.language.imports.body(tree);
  let end = -1;
  const children = body.children;
  for (const [i, child] of children.entries()) {
    const next = children[i + 1]?.start ?? text.length;
    const isComment = child.is(tree.language.comments);
    if (isComment && !MAGIC.test(child.text) && !/\n[ \t]*\r?\n/.test(text.slice(child.end, next))) {
      // A comment right before code belongs to that, unless what must come first follows further down.
      if (!children.slice(i + 1).some((later) => tree.language.imports.isHeader(later))) break;
      continue;
    }
    if (!isComment && child.named && !tree.language.imports.isHeader(child)) break;
    if (isComment || child.named || end >= 0) end = child.end;
  }
  const bom = text.startsWith("\uFEFF") ? 1 : 0;
  if (end < 0) {
    const blank = /^[ \t]*\r?\n/.test(text.slice(bom)) || text.slice(bom) === "" ? "" : newLine;
    return { start: bom, end: bom, text: block + newLine + blank };
  }
  const at = endOfLine(tree, end);
  const after =
    /^[ \t]*\r?\n[ \t]*(\r?\n|$)/.test(text.slice(at)) || text.slice(at).trim() === "" ? "" : newLine;
  return { start: at, end: at, text: newLine + newLine + block + after };
}
