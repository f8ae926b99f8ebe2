import { Nearby, Shifts, stayingImports, treeAfter, type Edit } from "../rewrite/index.js";
import { parseFile, type Language, type SyntaxTree } from "../syntax/index.js";
import type { Around } from "../rules/index.js";
import type { Advice, Change, Failure, FileResult, HeldBack, Unparsed } from "./change.js";
import { Draft } from "./draft-change.js";
import { joined } from "./join.js";
import type { Candidate, Placed } from "./candidate.js";
import { findIn } from "./find.js";
import { Fingerprints } from "./fingerprint.js";
import type { PreparedRules } from "./prepare.js";
import { soundParts } from "./sound.js";
import { Stopwatch, TimeUp } from "./stopwatch.js";
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
  const clock = new Stopwatch(around.fileTime);
  try {
    return workOut(around, text, language, rules, clock);
  } catch (error) {
    if (!(error instanceof TimeUp)) throw error;
    return { changes: [], heldBack: [], failures: [{ path: around.path, says: error.message }] };
  }
}

/** Said of a guess where something surer is made. */
const WAITS = {
  code: "edit.clash",
  says: "a surer change is made around it; it is found again when that is done",
} as const;

function workOut(
  around: Around,
  text: string,
  language: Language,
  rules: PreparedRules,
  clock: Stopwatch,
): FileResult {
  const { path } = around;
  const tree = around.files?.trees?.treeOf(path, text, language) ?? parseFile(text, language);
  let unparsed: Unparsed | undefined;
  const within = soundParts(tree, path);
  if (within && tree.errors.length > 0) {
    const line = tree.lineAt(tree.starts[tree.errors[0]!]!);
    unparsed = { path, line, soundFunctions: within.functions };
    if (within.functions === 0) return { changes: [], heldBack: [], unparsed };
  }
  const first = findIn(tree, rules, around, clock, within);
  const heldBack: Placed<HeldBack>[] = [...first.heldBack];
  const failures: Failure[] = [...first.failures];
  const taken = accepted(tree, first.candidates);
  const isTaken = new Set(taken);
  const keyOf = (rule: string, place: number): string => `${rule} ${place}`;
  const deferred = new Map<string, Candidate>();
  for (const one of first.candidates) if (!isTaken.has(one)) deferred.set(keyOf(one.rule.id, one.start), one);
  const left = new Set<Candidate>();
  /** What was held back for something that has changed since. */
  const reopened = new Set<Placed<HeldBack>>();
  const refused = new Map<string, Placed<HeldBack>[]>();
  for (const one of first.heldBack) {
    const key = keyOf(one.rule, one.line);
    const others = refused.get(key);
    if (others) others.push(one);
    else refused.set(key, [one]);
  }
  /**
   * Does the compiler know the file's types? It has not read the new code, and knows better once that is on the disk. Asked only
   * where it counts, since what is asked is remembered.
   */
  const isCompiled = (): boolean =>
    around.types !== undefined && around.types.strictNulls(path).is !== "unknown";
  let drafts = taken.map((candidate) => Draft.from(candidate)).sort((a, b) => a.start - b.start);

  let settled: SyntaxTree | undefined;
  /** The rules that found work in the pass before. */
  let before: readonly string[] = [];
  for (let pass = 1; drafts.length > 0; pass++) {
    const next = treeAfter(tree, allEdits(drafts));
    const isWorse = next.errors.length > tree.errors.length;
    const pending = drafts.flatMap((draft) => draft.needs);
    const again = within && soundParts(next, path);
    const shifts = new Shifts(allEdits(drafts));
    /**
     * Does what held a match back stand as it was? What the compiler said stands in any case. A reason that names no place
     * is about the whole file, and is asked for again.
     */
    const stands = ({ at, atPath, atRange }: Placed<HeldBack>): boolean => {
      if (atPath !== undefined) return true;
      if (at === undefined) return isCompiled();
      const [from, to] = [tree.lineStart(at), tree.lineStart(atRange?.end.line ?? at)];
      const lineEnd = tree.text.indexOf("\n", to);
      return !shifts.touches(from, lineEnd < 0 ? tree.text.length : lineEnd) || isCompiled();
    };
    const wasRefused = (rule: string, start: number, end: number): boolean => {
      const place = shifts.original(start, end);
      const refusals = place === undefined ? undefined : refused.get(keyOf(rule, tree.lineAt(place)));
      if (!refusals) return false;
      if (refusals.some(stands)) return true;
      for (const refusal of refusals) reopened.add(refusal);
      return false;
    };
    const earlier = { fitting: first.fitting, shifts, wasRefused };
    const here = isWorse ? undefined : findIn(next, rules, around, clock, again, pending, earlier);
    for (const { rule, says } of here?.failures ?? [])
      if (!failures.some((one) => one.rule === rule)) failures.push({ path, rule: rule!, says });
    const found = here?.candidates ?? [];
    /** Is this a guess about new code for want of types? */
    const isBlind = ({ trust, start, end }: Candidate): boolean =>
      trust === "possible" && shifts.original(start, end) === undefined && isCompiled();
    const nearby = new Nearby<Draft>(tree);
    for (const draft of drafts) nearby.add(draft, draft.edits);
    /** The match as it was found at first, where it had to wait for another. */
    const waitingFor = ({ rule, start, end }: Candidate): Candidate | undefined => {
      const place = shifts.original(start, end);
      return place === undefined ? undefined : deferred.get(keyOf(rule.id, place));
    };
    /** A guess that had to wait for what is surer would make all of it a guess. */
    const wouldWeaken = (candidate: Candidate): boolean => {
      const old = candidate.trust === "possible" ? waitingFor(candidate) : undefined;
      const ahead = old ? nearby.clashing(old.edits) : [];
      if (!old || !ahead.some(({ trust }) => trust !== "possible")) return false;
      if (!left.has(old)) heldBack.push(Draft.from(old).heldBack(path, WAITS));
      left.add(old);
      return true;
    };
    /** Was this rewritten already, by a rule that would find it again and again? */
    const isOwnResult = ({ rule, start, end }: Candidate): boolean =>
      rule.once === true && shifts.original(start, end) === undefined;
    const fresh = found.filter(
      (candidate) =>
        !isBlind(candidate) &&
        !isOwnResult(candidate) &&
        !isDoneElsewhere(candidate, drafts) &&
        !wouldWeaken(candidate),
    );
    const more = accepted(next, fresh);
    if (more.length === 0) {
      settled = next;
      break;
    }
    const middle = next.text;
    if (pass === MOST_PASSES) {
      const looping = new Set(more.map((candidate) => candidate.rule.id));
      for (const rule of before) looping.add(rule);
      const says = loopSaid([...looping].sort());
      const fault = { code: "edit.loop", says } as const;
      const stays = (draft: Draft): boolean => !draft.rules.some((rule) => looping.has(rule));
      for (const draft of drafts.filter((d) => !stays(d))) heldBack.push(draft.heldBack(path, fault));
      drafts = drafts.filter(stays);
      break;
    }
    /** The drafts that a match had to wait for when it was first found. */
    const inTheWay = (candidate: Candidate): readonly Draft[] => {
      const old = waitingFor(candidate);
      return old ? nearby.clashing(old.edits) : [];
    };
    before = more.map(({ rule }) => rule.id);
    drafts = joined(text, middle, drafts, more, inTheWay);
  }

  const verified = soundDrafts(tree, drafts, settled, clock);
  for (const { draft, fault } of verified.refused) heldBack.push(draft.heldBack(path, fault));
  const mayGo = within === undefined && language.imports.mayGo(path);
  const sound = verified.sound.map((one) => (mayGo ? one.noting(stayingImports(tree, one.edits)) : one));
  const isChanged = (held: Placed<HeldBack>): boolean =>
    sound.some(
      (draft) =>
        draft.rules.includes(held.rule) &&
        draft.edits.some(
          (one) =>
            one.start === held.start ||
            (one.start < held.start && held.start < one.end) ||
            (reopened.has(held) && held.start <= one.start && one.end <= held.end),
        ),
    );
  const ids = new Fingerprints(path, tree, "change");
  const changes = sound.map((draft): Change =>
    draft.change(path, ids.of(draft), tree.rangeOf(draft.start, draft.end)),
  );
  const { silenced, idleKeeps } = first;
  return {
    changes,
    // What could only be done after something else was done with it.
    heldBack: identified(
      heldBack.filter((one) => !isChanged(one)),
      path,
      tree,
      "held back",
    ),
    advice: identified(first.advice, path, tree, "advice"),
    silenced,
    idleKeeps,
    failures,
    ...(within && within.unread.length > 0 ? { unread: within.unread } : {}),
    ...(unparsed ? { unparsed } : {}),
  };
}

/** Gives what was found its id, and its lines and columns in place of offsets. */
function identified<T extends HeldBack | Advice>(
  entries: readonly Placed<T>[],
  path: string,
  tree: SyntaxTree,
  kind: string,
): T[] {
  const ids = new Fingerprints(path, tree, kind);
  return entries.map((entry) => {
    const { start, end, ...rest } = entry;
    const id = ids.of({ rules: [entry.rule], start, end, edits: [] });
    return { id, ...rest, range: tree.rangeOf(start, end) } as unknown as T;
  });
}

/** Does a match only change other files, and a change does that already? Their text is not that of any pass. */
function isDoneElsewhere({ rule, edits, elsewhere }: Candidate, drafts: readonly Draft[]): boolean {
  if (edits.length > 0) return false;
  const done = drafts.filter(({ rules }) => rules.includes(rule.id)).flatMap((draft) => draft.elsewhere);
  return elsewhere.every((one) => done.some((other) => JSON.stringify(other) === JSON.stringify(one)));
}

/**
 * Of several candidates those that can all be made. Where two want the same text, one that rewrites all uses of a name
 * wins, then one that is no guess, then the one that starts earlier, then the longer one, then the rule whose id comes first. The other is tried
 * again in the next pass.
 */
function accepted(tree: SyntaxTree, candidates: readonly Candidate[]): Candidate[] {
  const reach = ({ rule }: Candidate): number => (rule.uses === undefined ? 1 : 0);
  const guess = ({ trust }: Candidate): number => (trust === "possible" ? 1 : 0);
  const order = [...candidates].sort(
    (a, b) =>
      reach(a) - reach(b) || guess(a) - guess(b) || a.start - b.start || b.end - a.end || a.order - b.order,
  );
  const nearby = new Nearby<Candidate>(tree);
  const result: Candidate[] = [];
  for (const candidate of order) {
    if (nearby.clashing(candidate.edits).length > 0) continue;
    nearby.add(candidate, candidate.edits);
    result.push(candidate);
  }
  return result;
}

function allEdits(drafts: readonly Draft[]): Edit[] {
  return drafts.flatMap((draft) => draft.edits);
}

/** Rules that find no end, and what their author can do about it. */
function loopSaid(rules: readonly string[]): string {
  const [only] = rules;
  return rules.length === 1
    ? `the rule ${only} finds its own result again and again; where that is right, it says \`once: true\``
    : `the rules ${rules.join(" and ")} find work in what the other has written, without end`;
}
