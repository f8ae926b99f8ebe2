import { regionsOf, type Region } from "../embed/index.js";
import { applyEdits, compose, mayLeaveUnused, tidyImports, type Edit } from "../rewrite/index.js";
import { countErrors, loadGrammars, parse, type Import, type SyntaxTree } from "../syntax/index.js";
import type { Change } from "./change.js";

type Kept = Pick<Change, "edits" | "needs">;

/**
 * All edits to a file that a set of its changes comes to: their own, and those of the imports, which depend on
 * which changes are kept. Throws a RangeError when the edits do not fit the text, or an import cannot be written.
 */
export async function editsFor(path: string, text: string, changes: readonly Kept[]): Promise<Edit[]> {
  const own = changes.flatMap((change) => change.edits);
  const after = applyEdits(text, own);
  if (!mayTouchImports(text, after, changes)) return own;
  const old = (await regionsOf(path, text)) ?? [];
  const now = (await regionsOf(path, after)) ?? [];
  if (old.length !== now.length) return own;
  const imports: Edit[] = [];
  for (const [i, region] of now.entries()) {
    const before = old[i]!;
    const here = changes.filter(({ edits }) =>
      edits.some(({ start, end }) => start >= before.start && end <= before.end),
    );
    if (here.length === 0) continue;
    await loadGrammars([region.language]);
    const needs = here.flatMap((change) => change.needs);
    const mayRemove = region.isWhole && region.language.imports.mayGo(path);
    const was = readOnce(before);
    const isAll = before.start === 0 && before.end === text.length;
    const mayGo = mayRemove && (!isAll || mayLeaveUnused(was, own));
    if (needs.length === 0 && !mayGo) continue;
    const is = parse(region.text, region.language);
    if (is.errors.length === 0 || needs.length > 0) {
      imports.push(...tidied(was, is, needs, mayRemove).map((edit) => region.outward(edit)));
    }
  }
  return imports.length === 0 ? own : compose(text, own, imports);
}

/** The tree of the old text, which many changes are asked about one after the other. */
function readOnce({ text, language }: Region): SyntaxTree {
  if (lastRead?.text !== text || lastRead.language !== language) lastRead = parse(text, language);
  return lastRead;
}

let lastRead: SyntaxTree | undefined;

/**
 * The edits of the imports. Nothing is taken out where the result would not parse; throws a RangeError where what
 * is needed cannot be brought in, since half a change is worse than none.
 */
function tidied(was: SyntaxTree, is: SyntaxTree, needs: readonly Import[], mayRemove: boolean): Edit[] {
  for (const removing of mayRemove ? [true, false] : [false]) {
    const edits = tidyImports(was, is, needs, removing);
    if (edits.length === 0) return edits;
    if (parse(applyEdits(is.text, edits), is.language).errors.length <= is.errors.length) return edits;
  }
  if (needs.length > 0)
    throw new RangeError("an import that is needed cannot be written so that the file parses");
  return [];
}

/** Is something needed, or has a word gone from the changed code that is still somewhere else? Asked first. */
function mayTouchImports(text: string, after: string, changes: readonly Kept[]): boolean {
  if (changes.some(({ needs }) => needs.length > 0)) return true;
  const edits = changes.flatMap((change) => change.edits);
  const old = edits.flatMap(({ start, end }) => wordsIn(text, start, end));
  // The name of a member is nothing that an import brings in.
  const put = new Set(
    edits.flatMap(({ text: code }) => code.match(/(?<![.\p{L}\p{N}_$])[\p{L}\p{N}_$]+/gu) ?? []),
  );
  return [...new Set(old)].some((word) => !put.has(word) && after.includes(word));
}

/** The words of a range, whole ones where it cuts them. */
function wordsIn(text: string, start: number, end: number): string[] {
  while (start > 0 && /[\p{L}\p{N}_$]/u.test(text[start - 1]!)) start--;
  while (end < text.length && /[\p{L}\p{N}_$]/u.test(text[end]!)) end++;
  return text.slice(start, end).match(/[\p{L}\p{N}_$]+/gu) ?? [];
}

/** A file's text after a set of its changes, imports and all. */
export async function textAfter(path: string, text: string, changes: readonly Kept[]): Promise<string> {
  return applyEdits(text, await editsFor(path, text, changes));
}

/** How many syntax errors the code in a file has. */
export async function errorsIn(path: string, text: string): Promise<number> {
  let count = 0;
  for (const region of (await regionsOf(path, text)) ?? []) {
    await loadGrammars([region.language]);
    count += countErrors(region.text, region.language);
  }
  return count;
}
