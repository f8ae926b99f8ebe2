import { folderOfPath } from "./folders.js";
import type { Rule, Trust, Kind } from "../../rules/index.js";
import type { TextRange } from "../../syntax/index.js";
import type { Change, Ground } from "../../engine/index.js";
import type { Survey } from "../survey.js";
import type { DiffLine } from "../diff-lines.js";
import { Effort, type EffortMinutes } from "./effort.js";
import type { Checked, Outcome, Proved } from "./proved.js";

/** How much of the work at a place a person has to do. */
export const WORK = ["automatic", "to review", "by hand"] as const;
export type Work = (typeof WORK)[number];

/** One place of a survey, as reports and templates see it. */
export interface Place {
  readonly id: string;
  readonly what: "change" | "advice" | "held back";
  /** The rule that found it; of several that worked on it the first. */
  readonly rule: string;
  readonly rules: readonly string[];
  readonly title: string;
  readonly why: string;
  readonly kind: Kind;
  /** The page that explains it. */
  readonly link: string | undefined;
  /** The version for which it must be done, where that is asked. */
  readonly step: string | undefined;
  readonly trust: Trust | undefined;
  readonly work: Work;
  /** What the code is about is known by a name alone. */
  readonly byName: boolean;
  readonly path: string;
  /** The first line, counted from 1. */
  readonly line: number;
  readonly range: TextRange;
  /** What to do, or why it was held back; else the title. */
  readonly says: string;
  readonly evidence: readonly string[];
  readonly cautions: readonly string[];
  /** The lines around it. */
  readonly code: readonly CodeLine[];
  /** The lines around it as they are and as they are to be; empty where nothing is changed, or only the code is asked for. */
  readonly difference: readonly DiffLine[];
  /** What a proof found of it. */
  readonly outcome: Outcome | undefined;
}

/** A line of a file; `isHit` says that the place is in it. */
export interface CodeLine {
  readonly line: number;
  readonly text: string;
  readonly isHit: boolean;
}

/** How many places there are of each kind of work, under one name. */
export interface Count {
  readonly name: string;
  readonly total: number;
  readonly automatic: number;
  readonly review: number;
  readonly hand: number;
  readonly byName: number;
  /** Of all places, in whole per cent. */
  readonly percent: number;
  /** So many files have such places. */
  readonly files: number;
  readonly hours: number;
}

/** A survey counted in every way that a reader may ask for: what reports and templates are made from. */
export interface Stock {
  readonly all: Count;
  readonly filesRead: number;
  readonly filesTouched: number;
  readonly bySteps: readonly Count[];
  readonly byKind: readonly Count[];
  readonly byRule: readonly (Count & {
    readonly title: string;
    readonly kind: Kind;
    readonly link: string | undefined;
  })[];
  readonly byFolder: readonly Count[];
  readonly byOwner: readonly Count[];
  readonly byFile: readonly Count[];
  readonly places: readonly Place[];
  /** The checks of the project, in a report of a proof. */
  readonly checks: readonly Checked[];
  readonly effort: EffortMinutes;
  readonly notCovered: readonly { readonly ending: string; readonly files: number }[];
  readonly leftOut: readonly { readonly path: string; readonly why: string }[];
}

/** What to make a stock from, beside the survey. */
export interface StockOptions {
  readonly textOf: (path: string) => string;
  /** So many lines around each place. */
  readonly context?: number;
  readonly effort?: Partial<EffortMinutes>;
  /** Who owns a file; undefined where nobody says it for any. */
  readonly ownersOf?: ((path: string) => readonly string[]) | undefined;
  /** The step of the way in which a rule has its turn. */
  readonly stepOf?: (rule: Rule) => string | undefined;
  /** What each change does, by its id; without it the code is shown as it is. */
  readonly differences?: ReadonlyMap<string, readonly DiffLine[]>;
  readonly proved?: Proved;
}

/** Counts a survey. */
export function stockOf(survey: Survey, options: StockOptions): Stock {
  const { ownersOf, proved } = options;
  const effort = new Effort(options.effort);
  const places = placesOf(survey, options);
  const count = (name: string, some: readonly Place[]): Count => countOf(name, some, places.length, effort);
  const grouped = (keysOf: (place: Place) => readonly string[]): Count[] => {
    const groups = new Map<string, Place[]>();
    for (const place of places)
      for (const key of keysOf(place)) {
        const group = groups.get(key);
        if (group) group.push(place);
        else groups.set(key, [place]);
      }
    return [...groups]
      .map(([name, some]) => count(name, some))
      .sort((a, b) => b.total - a.total || (a.name < b.name ? -1 : 1));
  };
  const rules = new Map(survey.rules.map((rule) => [rule.id, rule]));
  const steps = grouped(({ step }) => (step === undefined ? [] : [step]));
  return {
    all: count("all", places),
    filesRead: survey.filesRead,
    filesTouched: new Set(places.map(({ path }) => path)).size,
    bySteps: steps.sort((a, b) => a.name.localeCompare(b.name, "en", { numeric: true })),
    byKind: grouped(({ kind }) => [kind]),
    byRule: grouped(({ rule }) => [rule]).map((one) => {
      const { title = "", kind = "idiom", link } = rules.get(one.name) ?? {};
      return { ...one, title, kind, link };
    }),
    byFolder: grouped(({ path }) => [folderOfPath(path)]),
    byOwner: ownersOf ? grouped(({ path }) => ownersOf(path)) : [],
    byFile: grouped(({ path }) => [path]),
    places,
    checks: proved?.checks ?? [],
    effort: effort.minutes,
    notCovered: [...survey.notCovered]
      .map(([ending, files]) => ({ ending, files }))
      .sort((a, b) => b.files - a.files || (a.ending < b.ending ? -1 : 1)),
    leftOut: [...survey.skipped, ...survey.unreadable],
  };
}

function countOf(name: string, places: readonly Place[], all: number, effort: Effort): Count {
  const of = (work: Work): number => places.filter((place) => place.work === work).length;
  const [automatic, review, hand] = [of("automatic"), of("to review"), of("by hand")];
  return {
    name,
    total: places.length,
    automatic,
    review,
    hand,
    byName: places.filter(({ byName }) => byName).length,
    percent: all === 0 ? 0 : Math.round((100 * places.length) / all),
    files: new Set(places.map(({ path }) => path)).size,
    hours: effort.hours({ automatic, review, hand }),
  };
}

function placesOf(
  { rules, changes, advice, heldBack }: Survey,
  { textOf, context = 2, stepOf, differences, proved }: StockOptions,
): Place[] {
  const known = new Map(rules.map((rule) => [rule.id, rule]));
  const lines = new Map<string, string[]>();
  const around = (path: string, { start, end }: TextRange): CodeLine[] => {
    let all = lines.get(path);
    if (!all) lines.set(path, (all = textOf(path).split(/\r?\n/)));
    const last = Math.min(
      end.column === 1 && end.line > start.line ? end.line - 1 : end.line,
      start.line + MOST_LINES,
    );
    const from = Math.max(1, start.line - context);
    const to = Math.min(all.length, last + context);
    return all.slice(from - 1, to).map((text, i) => {
      const line = from + i;
      return { line, text, isHit: start.line <= line && line <= last };
    });
  };
  const place = (
    entry: { readonly id: string; readonly path: string; readonly line: number; readonly range: TextRange },
    ids: readonly string[],
    rest: Pick<Place, "what" | "trust" | "work" | "byName" | "says" | "evidence" | "cautions">,
    outcome?: Outcome,
  ): Place => {
    const rule = known.get(ids[0]!);
    const { id, path, line, range } = entry;
    return {
      id,
      rule: ids[0]!,
      rules: ids,
      title: rule?.title ?? ids[0]!,
      why: rule?.why ?? "",
      kind: rule?.kind ?? "idiom",
      link: rule?.link,
      step: rule && stepOf?.(rule),
      path,
      line,
      range,
      code: around(path, range),
      difference: differences?.get(id) ?? [],
      outcome,
      ...rest,
    };
  };
  const says = (list: readonly { readonly says: string }[]): string[] => list.map((one) => one.says);
  const found = [
    ...changes.map((change) => {
      const outcome = proved?.outcomeOf(change.id);
      const rest = {
        what: "change",
        trust: change.trust,
        work: workOf(change, outcome),
        byName: isByName(change),
        says: change.title,
        evidence: says(change.evidence),
        cautions: says(change.cautions),
      } as const;
      return place(change, change.rules, rest, outcome);
    }),
    ...advice.map((entry) =>
      place(entry, [entry.rule], {
        what: "advice",
        trust: entry.trust,
        work: "by hand",
        byName: isByName(entry),
        says: entry.says,
        evidence: says(entry.evidence),
        cautions: [],
      }),
    ),
    ...heldBack.map((entry) =>
      place(entry, entry.rule.split(" + "), {
        what: "held back",
        trust: undefined,
        work: "by hand",
        byName: false,
        says: entry.reason,
        evidence: [],
        cautions: [],
      }),
    ),
  ];
  return found.sort(
    (a, b) =>
      (a.path < b.path ? -1 : a.path > b.path ? 1 : 0) ||
      a.line - b.line ||
      a.range.start.column - b.range.start.column ||
      (a.rule < b.rule ? -1 : a.rule > b.rule ? 1 : 0),
  );
}

/** What a check minds is for a person; what none minds is as sure as it was, since no check looks at everything. */
function workOf({ trust }: Pick<Change, "trust">, outcome: Outcome | undefined): Work {
  if (outcome?.is === "set aside") return "by hand";
  return trust === "certain" ? "automatic" : "to review";
}

/** Is it unknown what a name refers to, or of what type something is, so that nothing more than `possible` can be said? */
function isByName({ trust, evidence }: Pick<Change, "trust" | "evidence">): boolean {
  const isUnknown = ({ answer, code }: Ground): boolean =>
    answer === "unknown" && /^(name|type)\./.test(code);
  return trust === "possible" && evidence.some(isUnknown);
}

/** So many lines of a long place are shown. */
const MOST_LINES = 20;
