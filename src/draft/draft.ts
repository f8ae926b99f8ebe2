import { dedented } from "../rewrite/index.js";
import { rule } from "../rules/index.js";
import { loadGrammars, parseFile, type Language } from "../syntax/index.js";
import { byMeaning } from "./meant.js";
import { candidateFor, meantCandidate, spread, weighed, type Candidate, type Weighed } from "./candidate.js";
import { grouped } from "./groups.js";
import { instancesIn, type Instance } from "./instances.js";
import { Keys } from "./keys.js";
import type { Source } from "./probe.js";
import { startOf, textOfRun, type Run } from "./run.js";
import { ruleSource } from "./source.js";
import { trialsFor } from "./trial-code.js";
import { WIDTHS } from "./width.js";
import { aboutOf } from "./wording.js";

/** A file before and after an edit made by hand. */
export interface DraftPair {
  readonly path: string;
  readonly language: Language;
  readonly before: string;
  readonly after: string;
}

/** So many edits become trials. */
const MOST_TRIALS = 6;

/** What to draft rules from. */
export interface DraftRequest {
  readonly pairs: readonly DraftPair[];
  /** Other code as it was, to count the places in that a rule would change; the pairs' own code counts always. */
  readonly beside?: readonly Source[];
  /** The id of the rule, where there is one move only; otherwise it is made of the code. */
  readonly id?: string;
}

/** Edits that are instances of one move, and the rules that say what they have in common. */
export interface DraftedMove {
  readonly edits: readonly DraftedEdit[];
  /** From tight to wide, each another rule; none where no rule makes of the old code what the author made of it. */
  readonly candidates: readonly Candidate[];
  /** Tries the candidates on all code that was given, as it was before the edits. */
  weigh(): Promise<readonly Weighed[]>;
  /** Writes a candidate as a rule file, with the edits as its trials. */
  source(candidate: Weighed): Promise<string>;
}

/** A place that was edited by hand. Lines are 1-based. */
export interface DraftedEdit {
  readonly path: string;
  readonly line: number;
  readonly before: string;
  readonly after: string;
}

/** What came of a request. */
export interface Draft {
  readonly moves: readonly DraftedMove[];
  /** Edits whose new code the old code does not account for, or that nothing general can be said of. */
  readonly unexplained: readonly DraftedEdit[];
}

/** Drafts rules from edits made by hand. Files that do not parse must be left out by the caller. */
export async function draft({ pairs, beside = [], id }: DraftRequest): Promise<Draft> {
  await loadGrammars([...new Set(pairs.map(({ language }) => language))]);
  const instances: Instance[] = [];
  const keysOf = new Map<string, Keys>();
  for (const { path, language, before, after } of pairs) {
    let keys = keysOf.get(language.grammar);
    if (!keys) keysOf.set(language.grammar, (keys = new Keys()));
    const [old, now] = [parseFile(before, language), parseFile(after, language)];
    instances.push(...instancesIn({ path, before: old, after: now }, keys));
  }
  const moves: DraftedMove[] = [];
  const unexplained: Instance[] = [];
  const ids = new Set<string>();
  for (const [grammar, keys] of keysOf) {
    const own = instances.filter(({ file }) => file.before.language.grammar === grammar);
    const { groups, unexplained: rest } = grouped(own, keys);
    const isKin = ({ language }: { readonly language: Language }): boolean => language.grammar === grammar;
    const sources = [
      ...pairs.filter(isKin).map(({ path, before: text, language }) => ({ path, text, language })),
      ...beside.filter(isKin).filter(({ path }) => !pairs.some((pair) => pair.path === path)),
    ];
    const waiting = [...(await byMeaning(groups, rest, keys))];
    for (let group = waiting.shift(); group; group = waiting.shift()) {
      const { general, read, parts } = group;
      const about = aboutOf(group, id, ids, read?.form.slug);
      const candidates: Candidate[] = [];
      const add = (candidate: Candidate | undefined): void => {
        if (candidate && !candidates.some((other) => isSame(other, candidate))) candidates.push(candidate);
      };
      if (general) for (const width of WIDTHS) add(await candidateFor(group, width, about, keys));
      if (read) add(await meantCandidate(read, group.instances, about, keys));
      const [first] = candidates;
      if (first) ids.add(first.spec.id);
      // What looked like one move may be several.
      if (!first && parts) waiting.unshift(...parts);
      else if (!first && !general) unexplained.push(...group.instances);
      else moves.push(moveOf(group.instances, candidates, sources));
    }
  }
  moves.sort((a, b) => b.edits.length - a.edits.length);
  return { moves, unexplained: unexplained.map(editOf) };
}

function moveOf(
  instances: readonly Instance[],
  candidates: readonly Candidate[],
  sources: readonly Source[],
): DraftedMove {
  return {
    edits: instances.map(editOf),
    candidates,
    async weigh() {
      const all: Weighed[] = [];
      for (const one of candidates) all.push(await weighed(one, sources));
      return all;
    },
    async source(one) {
      const made = rule({ ...one.spec, trials: [] });
      const held = one.others.filter(({ trust }) => trust === undefined);
      return ruleSource(one, await trialsFor(made, spread(one.edited, MOST_TRIALS), held, sources));
    },
  };
}

/**
 * The candidate to take where nobody says otherwise: the one that finds the old code by what it says, else the one that leaves open
 * what old and new share; as long as it changes nothing in the edited files that their author left as it was.
 */
export function usual(candidates: readonly Weighed[]): Weighed | undefined {
  const order = ["meaning", "middle", "tight", "wide"];
  const sorted = [...candidates].sort((a, b) => order.indexOf(a.width) - order.indexOf(b.width));
  const leavesAlone = ({ edited, others }: Weighed): boolean =>
    others.every(({ trust, path }) => trust === undefined || !edited.some(({ file }) => file.path === path));
  return sorted.find(leavesAlone) ?? candidates[0];
}

function isSame(a: Candidate, b: Candidate): boolean {
  const said = ({ old, drafted: { was, becomes } }: Candidate): string =>
    JSON.stringify([old?.source, ...[was, becomes].map(({ texts, parts }) => [texts, parts])]);
  return said(a) === said(b);
}

function editOf({ file, before, after }: Instance): DraftedEdit {
  const line = before.nodes.length === 0 ? 1 : before.tree.lineAt(startOf(before));
  return { path: file.path, line, before: shownRun(before), after: shownRun(after) };
}

/** Code as it stands in its file, with its lines one below the other. */
function shownRun(run: Run): string {
  const text = textOfRun(run);
  return text.includes("\n") ? dedented(run.tree.indentAt(startOf(run)) + text) : text;
}
