import { placeIn, shortened, type Code, type Evidence } from "../analysis/index.js";
import { matchAt } from "../pattern/index.js";
import { CannotRewrite, clash, FreshNames, type Edit } from "../rewrite/index.js";
import { lower, Match, versionVerdict, type Around, type Rule, type Trust } from "../rules/index.js";
import type { Import, NodeId, Novelty, SyntaxTree } from "../syntax/index.js";
import { aroundName } from "./around-name.js";
import type { Advice, Failure, FileEdits, Ground, HeldBack, IdleKeep, Silenced } from "./change.js";
import { keepsIn, type Keep } from "./keep.js";
import { misreadStatements } from "./misread.js";
import { newlyNeeded } from "./needed-version.js";
import type { Entry } from "./entry.js";
import type { PreparedRules } from "./prepare.js";
import { rewritten } from "./rewritten.js";
import type { Sound, Span } from "./sound.js";
import type { Stopwatch } from "./stopwatch.js";

/** A match with its edits worked out, against the text of the tree it was found in. */
export interface Candidate {
  readonly rule: Rule;
  readonly order: number;
  readonly start: number;
  readonly end: number;
  readonly line: number;
  readonly trust: Trust;
  readonly evidence: readonly Ground[];
  readonly cautions: readonly Evidence[];
  readonly notes: readonly string[];
  readonly edits: readonly Edit[];
  readonly elsewhere: readonly FileEdits[];
  readonly needs: readonly Import[];
}

/** Something that was found, before it has an id. */
export type Placed<T> = Omit<T, "id" | "range"> & Span;

export interface Found {
  readonly candidates: readonly Candidate[];
  readonly heldBack: readonly Placed<HeldBack>[];
  readonly advice: readonly Placed<Advice>[];
  readonly silenced: readonly Silenced[];
  /** Keep comments that kept nothing. */
  readonly idleKeeps: readonly IdleKeep[];
  readonly failures: readonly Failure[];
}

/**
 * Looks at every node once for all rules together and works out what each match would become. In a file with
 * errors, or with something hidden from the parser, only matches `within` its sound parts count, and beside errors none is certain. `pending` are imports that
 * changes made before this pass need.
 */
export function findIn(
  tree: SyntaxTree,
  rules: PreparedRules,
  around: Around,
  clock: Stopwatch,
  within?: Sound,
  pending: readonly Import[] = [],
): Found {
  const { path } = around;
  placeIn(tree, around);
  const candidates: Candidate[] = [];
  const heldBack: Placed<HeldBack>[] = [];
  const advice: Placed<Advice>[] = [];
  const silenced: Silenced[] = [];
  const names = new FreshNames(tree, pending);
  const keeps = keepsIn(tree);
  const misreads = misreadStatements(tree);
  const used = new Set<string>();
  const failures = new Map<string, Failure>();
  /** True where a match of the entry was found, whatever became of it. */
  const lookAt = (entry: Entry, n: NodeId): boolean => {
    const found = matchAt(entry.pattern, tree, n);
    if (!found) return false;
    if (within?.allows(found) === false) return false;
    const match = narrowed(new Match(found, names, entry.alternative, around), entry.rule);
    if (!match) return false;
    const keep = keeps.find(
      (k) => k.rules.includes(entry.rule.id) && k.start <= found.start && found.end <= k.end,
    );
    if (keep) {
      used.add(`${keep.line} ${entry.rule.id}`);
      heldBack.push(kept(entry.rule.id, path, match, keep));
      return true;
    }
    const misread = misreads.find((span) => span.start <= found.start && found.end <= span.end);
    if (misread) {
      const reason = `the parser reads \`${shortened(misread.code)}\` otherwise than the language does`;
      const { id } = entry.rule;
      heldBack.push({
        rule: id,
        path,
        line: match.node.line,
        code: "file.misread",
        reason,
        ...spanOf(match),
      });
      return true;
    }
    const outcome = judge(entry, match);
    if ("asked" in outcome) silenced.push({ ...outcome, path });
    else if ("says" in outcome) advice.push({ ...outcome, path, ...spanOf(match) });
    else if ("reason" in outcome) heldBack.push({ ...outcome, path, ...spanOf(match) });
    else if (outcome.edits.length > 0 || outcome.elsewhere.length > 0)
      candidates.push(tree.errors.length > 0 ? besideErrors(outcome, tree) : outcome);
    return true;
  };
  for (let n = 0; n < tree.size; n++) {
    let last: Entry | undefined;
    for (const entry of rules.startingAt(tree, n)) {
      const { id } = entry.rule;
      if (last?.rule === entry.rule || failures.has(id)) continue;
      try {
        if (!lookAt(entry, n)) continue;
        last = entry;
      } catch (error) {
        const says = error instanceof Error ? error.message : String(error);
        failures.set(id, { path, rule: id, line: tree.lineAt(tree.starts[n]!), says });
      }
      clock.lap(id);
    }
  }
  const idleKeeps = keeps.flatMap(({ line, rules: ids }) =>
    ids
      .filter((rule) => rules.has(rule) && !used.has(`${line} ${rule}`))
      .map((rule) => ({ path, line, rule })),
  );
  const stays = ({ rule }: { rule: string }): boolean => !failures.has(rule);
  const working = candidates.filter(({ rule }) => !failures.has(rule.id));
  const changed = new Set(working.map(({ rule, line }) => `${line} ${rule.id}`));
  const needed = advice.filter(
    ({ rule, line }) => !rules.yields(rule).some((other) => changed.has(`${line} ${other}`)),
  );
  return {
    candidates: working,
    heldBack: heldBack.filter(stays),
    advice: needed.filter(stays),
    silenced: silenced.filter(stays),
    idleKeeps,
    failures: [...failures.values()],
  };
}

function spanOf({ found }: Match): Span {
  return { start: found.start, end: found.end };
}

function kept(rule: string, path: string, match: Match, keep: Keep): Placed<HeldBack> {
  const reason = `kept by a comment${keep.reason === "" ? "" : `: ${keep.reason}`}`;
  return { rule, path, line: match.node.line, code: "keep.comment", reason, at: keep.line, ...spanOf(match) };
}

/** The match with all holes that narrowing it fills; undefined where it does not fit after all. */
function narrowed(match: Match, { where = [] }: Rule): Match | undefined {
  for (const narrowing of where) {
    const outcome = narrowing(match);
    if (outcome === false) return undefined;
    if (outcome !== true) match = outcome;
  }
  return match;
}

/** What stands in a file with errors is never certain: names may be declared where the parser was lost. */
function besideErrors(candidate: Candidate, tree: SyntaxTree): Candidate {
  const line = tree.lineAt(tree.starts[tree.errors[0]!]!);
  const says = `the parser could not read line ${line}, outside of this function`;
  const beside: Ground = { answer: "unknown", code: "file.syntax-error", says, line };
  const evidence = [...candidate.evidence, beside];
  return { ...candidate, trust: lower(candidate.trust, "likely"), evidence };
}

/** Puts the version that the new code needs at the head of the evidence; gives the outcome where it may not be needed. */
function settleVersion(
  { id, title, target }: Rule,
  match: Match,
  novelties: readonly Novelty[],
  evidence: Ground[],
): Omit<Silenced, "path"> | Unplaced<HeldBack> | undefined {
  const verdict = versionVerdict([...novelties, { since: target }], match);
  if (!verdict) return undefined;
  const { answer, isTooOld, needs } = verdict;
  const { line } = match.node;
  const { code, says } = answer.evidence;
  if (isTooOld) return { rule: id, title, line, needs, asked: says };
  if (answer.is === "no") return { rule: id, line, code, reason: says };
  evidence.unshift({ answer: answer.is, ...answer.evidence });
  return undefined;
}

type Unplaced<T> = Omit<T, "id" | "range" | "path">;
type Outcome = Candidate | Unplaced<HeldBack> | Unplaced<Advice> | Omit<Silenced, "path">;

function judge({ rule, order }: Entry, match: Match): Outcome {
  const line = match.node.line;
  const evidence: Ground[] = [];
  let trust: Trust = "certain";
  for (const given of rule.given ?? []) {
    const answer = given.ask(match);
    if (answer.is === "no") {
      const { code, says, line: at, range } = answer.evidence;
      return {
        rule: rule.id,
        line,
        code,
        reason: says,
        ...(at === undefined ? {} : { at }),
        ...(range === undefined ? {} : { atRange: range }),
      };
    }
    if (answer.is === "unknown") trust = lower(trust, given.unknownIs);
    evidence.push({ answer: answer.is, ...answer.evidence });
  }
  if (rule.advice !== undefined) {
    const { id, title, kind, advice } = rule;
    const says = typeof advice === "string" ? advice : advice(match);
    const refused = settleVersion(rule, match, [], evidence);
    if (refused) return refused;
    return { rule: id, title, kind, trust, line, says, evidence };
  }
  try {
    const own = rewritten(rule, match);
    const uses = aroundName(rule, match);
    if (clash(uses.edits, own.edits))
      throw new CannotRewrite("edit.clash", "a use stands in the code that is rewritten");
    trust = lower(trust, uses.trust);
    const edits = [...own.edits, ...uses.edits].sort((a, b) => a.start - b.start);
    const refused = settleVersion(rule, match, newlyNeeded(match, edits), evidence);
    if (refused) return refused;
    const cautions = rule.cautions?.(match) ?? [];
    const notes = rule.notes?.(match) ?? [];
    // What behaves differently in a case that is not ruled out is not certain, whatever the conditions say.
    if (cautions.length > 0) trust = lower(trust, "likely");
    const { start, end } = match.found;
    const needs = [...own.needs, ...uses.needs];
    const { elsewhere } = uses;
    return {
      rule,
      order,
      start,
      end,
      line,
      trust,
      evidence: [...evidence, ...uses.evidence],
      cautions,
      notes,
      edits,
      elsewhere,
      needs,
    };
  } catch (error) {
    if (error instanceof CannotRewrite)
      return { rule: rule.id, line, code: error.code as Code, reason: error.message };
    throw error;
  }
}
