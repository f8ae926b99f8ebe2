import { applyEdits, clash, clashOnLines, stayingImports, type Edit } from "../rewrite/index.js";
import { parse, type Language, type SyntaxTree } from "../syntax/index.js";
import type { Around } from "../rules/index.js";
import type { Change, FileResult, HeldBack, Unparsed } from "./change.js";
import { Draft } from "./draft-change.js";
import { joined } from "./join.js";
import { findIn, type Candidate } from "./find.js";
import { fingerprints } from "./fingerprint.js";
import type { PreparedRules } from "./prepare.js";
import { soundFunctions, type Span } from "./sound.js";
import { soundDrafts } from "./verify.js";

/** A chain of rewrites at one place that is longer than this is taken for rules undoing each other. */
const MOST_PASSES = 12;

/**
 * Works out the changes for one file. Rules are applied in passes until nothing is left to do; a match that
 * an earlier change made possible joins that change, so that all edits are against the original text.
 */
export function changesInFile(
  around: Around,
  text: string,
  language: Language,
  rules: PreparedRules,
): FileResult {
  const { path } = around;
  const tree = parse(text, language);
  let unparsed: Unparsed | undefined;
  let within: readonly Span[] | undefined;
  if (tree.errors.length > 0) {
    within = soundFunctions(tree);
    const line = tree.lineAt(tree.starts[tree.errors[0]!]!);
    unparsed = { path, line, soundFunctions: within.length };
    if (within.length === 0) {
      return { changes: [], heldBack: [], unparsed };
    }
  }
  const first = findIn(tree, rules, around, within);
  const heldBack: HeldBack[] = [...first.heldBack];
  const taken = accepted(text, first.candidates);
  const deferred = first.candidates.filter((candidate) => !taken.includes(candidate));
  let drafts = taken.map((candidate) => Draft.from(candidate)).sort((a, b) => a.start - b.start);

  let settled: SyntaxTree | undefined;
  for (let pass = 1; drafts.length > 0; pass++) {
    const next = parse(applyEdits(text, allEdits(drafts)), language);
    const isWorse = next.errors.length > tree.errors.length;
    const pending = drafts.flatMap((draft) => draft.needs);
    const again = within && soundFunctions(next);
    const found = isWorse ? [] : findIn(next, rules, around, again, pending).candidates;
    const fresh = found.filter(
      (candidate) =>
        !wasRefused(candidate, text, drafts, first.heldBack) && !isDoneElsewhere(candidate, drafts),
    );
    const more = accepted(next.text, fresh);
    if (more.length === 0) {
      settled = next;
      break;
    }
    const middle = next.text;
    if (pass === MOST_PASSES) {
      const looping = new Set(more.map((candidate) => candidate.rule.id));
      const reason = `the rules ${[...looping].join(", ")} keep finding work in their own results`;
      const stays = (draft: Draft): boolean => !draft.rules.some((rule) => looping.has(rule));
      for (const draft of drafts.filter((d) => !stays(d))) heldBack.push(draft.heldBack(path, reason));
      drafts = drafts.filter(stays);
      break;
    }
    const all = allEdits(drafts);
    /** The drafts that a match had to wait for when it was first found. */
    const inTheWay = ({ rule, start, end }: Candidate): readonly Draft[] => {
      const place = originalPlace(start, end, all);
      const old = deferred.find((one) => one.rule === rule && one.start === place);
      if (!old) return [];
      return drafts.filter(({ edits }) => clash(edits, old.edits) || clashOnLines(text, edits, old.edits));
    };
    drafts = joined(text, middle, drafts, more, inTheWay);
  }

  const verified = soundDrafts(text, tree, drafts, settled);
  for (const { draft, reason } of verified.refused) heldBack.push(draft.heldBack(path, reason));
  const mayGo = unparsed === undefined && language.imports.mayGo(path);
  const sound = verified.sound.map((one) => (mayGo ? one.noting(stayingImports(tree, one.edits)) : one));
  const ids = fingerprints(path, tree, sound);
  const changes = sound.map((draft, i): Change => draft.change(path, ids[i]!));
  const { advice, silenced, idleKeeps } = first;
  return { changes, heldBack, advice, silenced, idleKeeps, ...(unparsed ? { unparsed } : {}) };
}

/**
 * Was this match held back before, and has nothing in it changed since? What was known then may not be known of a text
 * that nobody has on disk, such as types, so the first answer stands.
 */
function wasRefused(
  { rule, start, end }: Candidate,
  text: string,
  drafts: readonly Draft[],
  refused: readonly HeldBack[],
): boolean {
  const old = originalPlace(start, end, allEdits(drafts));
  if (old === undefined) return false;
  const line = text.slice(0, old).split("\n").length;
  return refused.some((entry) => entry.rule === rule.id && entry.line === line);
}

/** Does a match only change other files, and a change does that already? Their text is not that of any pass. */
function isDoneElsewhere({ rule, edits, elsewhere }: Candidate, drafts: readonly Draft[]): boolean {
  if (edits.length > 0) return false;
  const done = drafts.filter(({ rules }) => rules.includes(rule.id)).flatMap((draft) => draft.elsewhere);
  return elsewhere.every((one) => done.some((other) => JSON.stringify(other) === JSON.stringify(one)));
}

/** Where untouched code stood before the edits; undefined for code that they touch. */
function originalPlace(start: number, end: number, edits: readonly Edit[]): number | undefined {
  let shift = 0;
  for (const edit of [...edits].sort((a, b) => a.start - b.start)) {
    const at = edit.start + shift;
    if (at > end) break;
    if (at + edit.text.length >= start) return undefined;
    shift += edit.text.length - (edit.end - edit.start);
  }
  return start - shift;
}

/**
 * Of several candidates those that can all be made. Where two want the same text, one that rewrites all uses of a name
 * wins, then the one that starts earlier, then the longer one, then the rule whose id comes first. The other is tried
 * again in the next pass.
 */
function accepted(text: string, candidates: readonly Candidate[]): Candidate[] {
  const reach = ({ rule }: Candidate): number => (rule.uses === undefined ? 1 : 0);
  const order = [...candidates].sort(
    (a, b) => reach(a) - reach(b) || a.start - b.start || b.end - a.end || a.order - b.order,
  );
  const edits: Edit[] = [];
  const result: Candidate[] = [];
  for (const candidate of order) {
    if (clash(candidate.edits, edits) || clashOnLines(text, candidate.edits, edits)) continue;
    edits.push(...candidate.edits);
    result.push(candidate);
  }
  return result;
}

function allEdits(drafts: readonly Draft[]): Edit[] {
  return drafts.flatMap((draft) => draft.edits);
}
