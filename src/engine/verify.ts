import { shortened } from "../analysis/index.js";
import { Excerpt, sorted, tidyImports, treeAfter, type Edit } from "../rewrite/index.js";
import type { SyntaxTree } from "../syntax/index.js";
import { CHECKS, type Fault, type Rewriting } from "./checks/index.js";
import type { Draft } from "./draft-change.js";
import type { Stopwatch } from "./stopwatch.js";

interface Refused {
  readonly draft: Draft;
  readonly fault: Fault;
}

interface Verdict {
  readonly sound: readonly Draft[];
  readonly refused: readonly Refused[];
}

/**
 * Holds the result to the promises: it must parse without an error, and pass every check. When it does not, each draft
 * is looked at in its own lines, and those that spoil only the whole are found by halving.
 * `result` is the tree of the text after all drafts, if there is one already.
 */
export function soundDrafts(
  tree: SyntaxTree,
  drafts: readonly Draft[],
  result: SyntaxTree | undefined,
  clock: Stopwatch,
): Verdict {
  if (drafts.length === 0) return { sound: [], refused: [] };
  const faultWith = (some: readonly Draft[]): Fault | undefined => {
    clock.check();
    return faultInFile(tree, treeAfter(tree, editsOf(some)), some);
  };
  const fault = result ? faultInFile(tree, result, drafts) : faultWith(drafts);
  if (fault === undefined) return { sound: drafts, refused: [] };
  const refused: Refused[] = [];
  const left = drafts.filter((draft) => {
    clock.check();
    const fault = faultInLines(tree, draft);
    if (fault !== undefined) refused.push({ draft, fault });
    return fault === undefined;
  });
  const sound = sifted(left, [], faultWith, refused);
  const place = new Map(drafts.map((draft, i) => [draft, i]));
  refused.sort((a, b) => place.get(a.draft)! - place.get(b.draft)!);
  return { sound, refused };
}

/** Those of some drafts that can be made beside those of `base`; the others are refused. */
function sifted(
  some: readonly Draft[],
  base: readonly Draft[],
  faultWith: (some: readonly Draft[]) => Fault | undefined,
  refused: Refused[],
): readonly Draft[] {
  if (some.length === 0) return base;
  const all = [...base, ...some];
  const fault = faultWith(all);
  if (fault === undefined) return all;
  if (some.length === 1) {
    refused.push({ draft: some[0]!, fault });
    return base;
  }
  const middle = some.length >> 1;
  const first = sifted(some.slice(0, middle), base, faultWith, refused);
  return sifted(some.slice(middle), first, faultWith, refused);
}

/** What is wrong with one draft, looked at in as few lines as can be read alone. */
function faultInLines(tree: SyntaxTree, draft: Draft): Fault | undefined {
  const { start, end } = spanOf(draft);
  const lines = Excerpt.around(tree, start, end);
  const edits = lines.moved(draft.edits);
  return faultIn(lines.tree, lines.edited(draft.edits), [{ edits }]);
}

type Edited = Pick<Draft, "edits">;

function editsOf(drafts: readonly Edited[]): Edit[] {
  return sorted(drafts.flatMap((draft) => draft.edits));
}

function spanOf({ edits }: Edited): { start: number; end: number } {
  return {
    start: edits.reduce((least, { start }) => Math.min(least, start), Infinity),
    end: edits.reduce((most, { end }) => Math.max(most, end), 0),
  };
}

/** What is wrong with drafts, their imports too, which stand elsewhere in the file. */
function faultInFile(before: SyntaxTree, after: SyntaxTree, drafts: readonly Draft[]): Fault | undefined {
  const fault = faultIn(before, after, drafts);
  const needs = drafts.flatMap((draft) => draft.needs);
  if (fault !== undefined || needs.length === 0) return fault;
  const edits = tidyImports(before, after, needs, false);
  const isWorse = edits.length > 0 && treeAfter(after, edits).errors.length > after.errors.length;
  return isWorse
    ? { code: "edit.import", says: "what it needs cannot be imported so that the file parses" }
    : undefined;
}

/** What is wrong with edits to a file, imports apart; undefined where nothing is. */
export function faultIn(before: SyntaxTree, after: SyntaxTree, drafts: readonly Edited[]): Fault | undefined {
  if (after.errors.length > before.errors.length) {
    return { code: "edit.syntax-error", says: `the result would have a syntax error${near(after)}` };
  }
  const rewriting: Rewriting = { before, after, edits: editsOf(drafts), spans: drafts.map(spanOf) };
  return CHECKS.map((check) => check(rewriting)).find((fault) => fault !== undefined);
}

/** The line in which the parser gives up first, as the end of a sentence. */
function near({ errors, starts, text }: SyntaxTree): string {
  const at = errors.length > 0 ? Math.min(...errors.map((n) => starts[n]!)) : undefined;
  if (at === undefined) return "";
  const from = text.lastIndexOf("\n", at - 1) + 1;
  const to = text.indexOf("\n", at);
  const line = text.slice(from, to < 0 ? text.length : to).trim();
  return line === "" ? "" : `: \`${shortened(line)}\``;
}
