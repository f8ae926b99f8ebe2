import { placeIn, shortened } from "../analysis/index.js";
import { FreshNames, type Shifts } from "../rewrite/index.js";
import type { NearMiss } from "../readings/index.js";
import { lower, Match, versionVerdict, type Around, type Rule } from "../rules/index.js";
import type { Import, NodeId, SyntaxNode, SyntaxTree } from "../syntax/index.js";
import type { Advice, Failure, Ground, HeldBack, IdleKeep, Silenced } from "./change.js";
import { keepsIn, type Keep } from "./keep.js";
import { misreadStatements } from "./misread.js";
import type { Entry } from "./entry.js";
import type { PreparedRules } from "./prepare.js";
import type { Sound } from "./sound.js";
import type { Stopwatch } from "./stopwatch.js";
import { type Candidate, type Placed, spanOf } from "./candidate.js";
import { narrowed, judge } from "./judge.js";

export interface Found {
  readonly candidates: readonly Candidate[];
  readonly heldBack: readonly Placed<HeldBack>[];
  readonly advice: readonly Placed<Advice>[];
  readonly silenced: readonly Silenced[];
  /** Keep comments that kept nothing. */
  readonly idleKeeps: readonly IdleKeep[];
  readonly failures: readonly Failure[];
  /** The patterns that fitted, by the offsets at which they begin, whatever became of them. */
  readonly fitting: ReadonlyMap<number, readonly Entry[]>;
}

/** What fitted in a text, and how edits have moved it since. Advice is given for the text itself, and no more. */
export interface Earlier {
  readonly fitting: Found["fitting"];
  readonly shifts: Shifts;
  /** Was a match of a rule held back then, and has nothing in it changed since? */
  wasRefused(rule: string, start: number, end: number): boolean;
}

/**
 * Looks at every node once for all rules together and works out what each match would become. In a file with errors, or
 * with something hidden from the parser, only matches `within` its sound parts count, and beside errors none is certain.
 * `pending` are imports that changes made before this pass need; `earlier` is what fitted before the edits that led to
 * this text.
 */
export function findIn(
  tree: SyntaxTree,
  rules: PreparedRules,
  around: Around,
  clock: Stopwatch,
  within?: Sound,
  pending: readonly Import[] = [],
  earlier?: Earlier,
): Found {
  const { path } = around;
  placeIn(tree, { ...around, pending });
  const candidates: Candidate[] = [];
  const heldBack: Placed<HeldBack>[] = [];
  const advice: Placed<Advice>[] = [];
  const silenced: Silenced[] = [];
  const names = new FreshNames(tree, pending);
  const keeps = keepsIn(tree);
  const misreads = misreadStatements(tree);
  const used = new Set<string>();
  const failures = new Map<string, Failure>();
  const fitting = new Map<number, Entry[]>();
  /** True where a match of the entry was found, whatever became of it. */
  const lookAt = (entry: Entry, n: NodeId): boolean => {
    const found = entry.finds.at(tree, n);
    if (!found) return false;
    const start = tree.starts[n]!;
    const others = fitting.get(start);
    if (others) others.push(entry);
    else fitting.set(start, [entry]);
    if (within?.allows(found) === false) return false;
    if (earlier?.wasRefused(entry.rule.id, found.start, found.end)) return true;
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
  const possible = withWords(tree.text);
  const stayed = earlier && untouched(tree, earlier);
  for (let n = 0; n < tree.size; n++) {
    if (!rules.mayStartAt(tree.kindIds[n]!)) continue;
    let last: Entry | undefined;
    let near: { entry: Entry; miss: NearMiss } | undefined;
    // Where nothing was edited, only what fitted before can fit now.
    const before = stayed?.(n);
    const entries = before ?? possible(rules.startingAt(tree, n));
    for (const entry of entries) {
      if (before && !entry.finds.rootKinds.includes(tree.kindIds[n]!)) continue;
      const { id } = entry.rule;
      if (last?.rule === entry.rule || failures.has(id)) continue;
      if (earlier && entry.rule.advice !== undefined) continue;
      try {
        if (!lookAt(entry, n)) {
          if (!earlier && !near) {
            const miss = entry.finds.near?.(tree, n);
            if (miss && !isTooNew(entry.rule, { around, tree })) near = { entry, miss };
          }
          continue;
        }
        last = entry;
      } catch (error) {
        const says = error instanceof Error ? error.message : String(error);
        failures.set(id, { path, rule: id, line: tree.lineAt(tree.starts[n]!), says });
      }
      clock.lap(id);
    }
    if (near && !last && within?.allows(tree.node(n)) !== false)
      heldBack.push(missed(near.entry.rule.id, path, tree.node(n), near.miss));
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
    fitting,
  };
}

const NONE: readonly Entry[] = [];

/**
 * For a node among nodes that no edit has touched, the patterns that fitted there before; undefined for the others. What
 * a pattern fits depends on a node and those beside it alone.
 */
function untouched(
  tree: SyntaxTree,
  { fitting, shifts }: Earlier,
): (n: NodeId) => readonly Entry[] | undefined {
  let parent = -1;
  let place: number | undefined;
  return (n) => {
    const above = tree.parents[n]!;
    if (above < 0) return undefined;
    if (above !== parent) {
      parent = above;
      place = shifts.original(tree.starts[above]!, tree.ends[above]!);
    }
    if (place === undefined) return undefined;
    return fitting.get(place + tree.starts[n]! - tree.starts[above]!) ?? NONE;
  };
}

/** Of several patterns those whose words a text has, without which they cannot fit; asked with the same lists again and again. */
function withWords(text: string): (entries: readonly Entry[]) => readonly Entry[] {
  const known = new Map<string, boolean>();
  const has = (word: string): boolean => {
    let found = known.get(word);
    if (found === undefined) known.set(word, (found = text.includes(word)));
    return found;
  };
  const lists = new Map<readonly Entry[], readonly Entry[]>();
  return (entries) => {
    let left = lists.get(entries);
    if (!left)
      lists.set(
        entries,
        (left = entries.filter(({ finds }) => finds.words.every(has) && (finds.oneOf?.some(has) ?? true))),
      );
    return left;
  };
}

/** Is what a rule writes newer than what the project is for, so that it would do nothing anyway? */
function isTooNew({ target }: Rule, where: Pick<Match, "around" | "tree">): boolean {
  return target !== undefined && versionVerdict([{ since: target }], where)?.isTooOld === true;
}

/** A place of a known kind that no form fits. */
function missed(rule: string, path: string, node: SyntaxNode, { at, says }: NearMiss): Placed<HeldBack> {
  const { start, end, line } = node;
  const where = { at: at.line, atRange: at.range };
  return { rule, path, line, code: "form.fits", reason: says, ...where, start, end };
}

function kept(rule: string, path: string, match: Match, keep: Keep): Placed<HeldBack> {
  const reason = `kept by a comment${keep.reason === "" ? "" : `: ${keep.reason}`}`;
  return { rule, path, line: match.node.line, code: "keep.comment", reason, at: keep.line, ...spanOf(match) };
}

/** What stands in a file with errors is never certain: names may be declared where the parser was lost. */
function besideErrors(candidate: Candidate, tree: SyntaxTree): Candidate {
  const line = tree.lineAt(tree.starts[tree.errors[0]!]!);
  const says = `the parser could not read line ${line}, outside of this function`;
  const beside: Ground = { answer: "unknown", code: "file.syntax-error", says, line };
  const evidence = [...candidate.evidence, beside];
  return { ...candidate, trust: lower(candidate.trust, "likely"), evidence };
}
