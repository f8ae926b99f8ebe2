import { importStatements } from "../../syntax/index.js";
import type { Import, ImportStatement, ListedImport, SyntaxNode, SyntaxTree } from "../../syntax/index.js";
import { sorted, type Edit } from "../edits.js";
import { lineEnd } from "../indent.js";
import { itemEdit, itemsEdit, listedIn, statementEdit } from "./place.js";
import { namedInCode, namedInText } from "./still-named.js";
import { styleOf } from "./style.js";

/**
 * The edits to `after` that bring in what new code needs and take out what only the old code used. `before` is
 * the file as it was; offsets are those of `after`. Nothing is taken out unless it may be.
 */
export function tidyImports(
  before: SyntaxTree,
  after: SyntaxTree,
  needs: readonly Import[],
  mayRemove: boolean,
): Edit[] {
  const facts = after.language.imports;
  const statements = importStatements(after);
  const gone = mayRemove ? noLongerUsed(before, after, statements) : new Set<ListedImport>();
  const edits: Edit[] = [];
  const whole = new Map<ImportStatement, Edit>();
  // A later rule may have replaced what an earlier one put there.
  const wantedHere = inOrder(needs).filter(
    ({ local }) =>
      local === undefined ||
      namedInCode(after, statements, local).length > 0 ||
      namedInText(after, local) !== undefined,
  );
  const placed = new Set<Import>();
  const hasComment = ({ start, end }: Edit): boolean => after.commentsIn(start, end).length > 0;
  for (const statement of statements) {
    const going = statement.imports.filter((item) => gone.has(item));
    if (going.length === 0) continue;
    const isWhole = going.length === statement.imports.length;
    const removing = isWhole
      ? [withoutLine(after, statement.node.start, statement.node.end)]
      : withoutItems(statement, gone);
    // A comment inside an import stays, and the import with it.
    if (removing.some(hasComment)) {
      for (const item of going) gone.delete(item);
      continue;
    }
    if (listedIn(statement, new Set()).length === going.length && listedIn(statement, gone).length === 0) {
      const instead = wantedHere.filter((one) => !placed.has(one) && takes(statement, one, new Set()));
      for (const one of instead) placed.add(one);
      if (instead.length > 0) edits.push(itemsEdit(after, statement, instead));
      if (instead.length > 0) continue;
    }
    if (isWhole) whole.set(statement, removing[0]!);
    edits.push(...removing);
  }
  const staying = statements.filter((statement) => !whole.has(statement));
  const style = styleOf(after, statements);
  const fresh = new Map<string, Import[]>();
  for (const wanted of wantedHere) {
    if (placed.has(wanted)) continue;
    if (staying.some((statement) => covers(statement, wanted, facts.starHasAll))) continue;
    const host = staying.find((statement) => takes(statement, wanted, gone));
    if (host) edits.push(itemEdit(after, host, wanted, gone));
    else {
      const key = JSON.stringify([wanted.module, wanted.form, isListed(wanted) ? "" : wanted.local]);
      fresh.set(key, [...(fresh.get(key) ?? []), wanted]);
    }
  }
  // Where no other import stays, they take the place of the first that goes.
  const instead: string[] = [];
  for (const group of fresh.values()) {
    const text = facts.write(group, style);
    if (staying.length === 0 && whole.size > 0) instead.push(text);
    else edits.push(statementEdit(after, staying, group, text));
  }
  const [first] = whole;
  if (first && instead.length > 0) {
    const { start, end } = first[0].node;
    const newLine = lineEnd(after.text) + after.indentAt(start);
    const text = instead.join("\n").replaceAll("\n", newLine);
    edits[edits.indexOf(first[1])] = { start, end, text };
  }
  return merged(edits);
}

const isListed = ({ name }: Import): boolean => name !== undefined && name !== "default" && name !== "*";

function inOrder(needs: readonly Import[]): Import[] {
  const byKey = new Map(
    needs.map((wanted) => [JSON.stringify([wanted.module, wanted.name, wanted.local, wanted.form]), wanted]),
  );
  return [...byKey].sort(([a], [b]) => (a < b ? -1 : 1)).map(([, wanted]) => wanted);
}

function covers({ imports }: ImportStatement, wanted: Import, starHasAll: boolean): boolean {
  return imports.some(
    ({ module, name, local, form }) =>
      module === wanted.module &&
      (form === wanted.form || (form === undefined && wanted.form === "type")) &&
      ((name === "*" && starHasAll) ||
        (name === wanted.name &&
          (wanted.local === undefined || local === undefined || local === wanted.local))),
  );
}

function takes(statement: ImportStatement, wanted: Import, gone: ReadonlySet<ListedImport>): boolean {
  return (
    listedIn(statement, gone).length > 0 &&
    statement.takesMore &&
    isListed(wanted) &&
    statement.module === wanted.module &&
    statement.form === wanted.form
  );
}

/** Names that the old code used, and that neither the new code nor a text read as code has. */
function noLongerUsed(
  before: SyntaxTree,
  after: SyntaxTree,
  statements: readonly ImportStatement[],
): Set<ListedImport> {
  const old = importStatements(before);
  const listed = statements.flatMap((statement) => statement.imports);
  const unnamed = after.language.imports.neededUnnamed?.(after) ?? [];
  return new Set(
    listed.filter(
      ({ local }) =>
        local !== undefined &&
        !unnamed.includes(local) &&
        namedInCode(before, old, local).length > 0 &&
        namedInCode(after, statements, local).length === 0 &&
        namedInText(after, local) === undefined,
    ),
  );
}

/** A line that goes, with its line end, and with the blank line after it when one stands before it too. */
function withoutLine(tree: SyntaxTree, start: number, end: number): Edit {
  const { text } = tree;
  if (tree.firstOnLine(start) !== start) return { start, end, text: "" };
  const rest = /^[ \t]*;?[ \t]*(\r?\n|$)/.exec(text.slice(end));
  if (!rest) return { start, end, text: "" };
  const from = tree.lineStart(tree.lineAt(start));
  let to = end + rest[0].length;
  const blankBefore = from === 0 || /\n[ \t]*\r?\n$/.test(text.slice(0, from));
  const blankAfter = /^[ \t]*\r?\n/.exec(text.slice(to));
  if (blankBefore && blankAfter) to += blankAfter[0].length;
  // A file that does not end with a line end does not come to.
  const isLast = to === text.length && !rest[0].endsWith("\n") && from > 0;
  if (isLast) return { start: from - (text[from - 2] === "\r" ? 2 : 1), end: to, text: "" };
  return { start: from === 0 && text.startsWith("\uFEFF") ? 1 : from, end: to, text: "" };
}

/**
 * Takes items out of their list, each with the comma and the white space that lead to it or follow it. A list of
 * which nothing stays goes itself.
 */
export function withoutItems(statement: ImportStatement, gone: ReadonlySet<ListedImport>): Edit[] {
  let nodes = statement.imports.filter((item) => gone.has(item)).map(({ node }) => node);
  const goes = (node: SyntaxNode): boolean => nodes.some((other) => other.same(node));
  for (;;) {
    const emptied = nodes
      .map((node) => node.parent!)
      .find((parent) => !parent.same(statement.node) && parent.parts.every(goes));
    if (!emptied) break;
    nodes = [...nodes.filter((node) => !emptied.holds(node)), emptied];
  }
  const edits: Edit[] = [];
  for (const node of nodes) {
    // The module stands beside what is taken from it.
    const list = node.parent!.parts.filter((part) => statement.imports.some((item) => part.holds(item.node)));
    const at = list.findIndex((other) => other.same(node));
    const next = list[at + 1];
    const before = list.slice(0, at).findLast((other) => !goes(other));
    if (next && !goes(next)) edits.push({ start: node.start, end: next.start, text: "" });
    else if (before) edits.push({ start: before.end, end: node.end, text: "" });
    else edits.push({ start: node.start, end: next?.start ?? node.end, text: "" });
  }
  return merged(edits);
}

/** Insertions at one place become one, deletions that overlap too. */
function merged(edits: readonly Edit[]): Edit[] {
  const result: Edit[] = [];
  for (const edit of sorted(edits)) {
    const last = result.at(-1);
    if (last && edit.start < last.end) {
      result[result.length - 1] = {
        start: last.start,
        end: Math.max(last.end, edit.end),
        text: last.text + edit.text,
      };
    } else result.push(edit);
  }
  return result;
}
