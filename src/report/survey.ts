import { byPath, countBy, type PlanChange } from "../plan/index.js";
import type { Rule } from "../rules/index.js";
import type { Advice, Failure, HeldBack, IdleKeep, Silenced, Unparsed, Unread } from "../engine/index.js";
import { plural, sum } from "./counted.js";
import { paintTrust, type Paint } from "./paint.js";
import { shownPath } from "./path.js";
import { rowsOf, table } from "./survey-table.js";

/** A file that was not looked at, and why. */
export interface Skipped {
  readonly path: string;
  readonly why: string;
}

/** A version of a language that files must run on. */
export interface VersionAsked {
  /** The language and version: "Java 8". */
  readonly version: string;
  /** What says so: "by pom.xml"; undefined where nothing does, and the version is assumed. */
  readonly says: string | undefined;
}

/** What a survey found out. */
export interface Survey {
  /** Files of a language that Uvran reads, skipped ones aside. */
  readonly filesRead: number;
  readonly rules: readonly Rule[];
  readonly changes: readonly PlanChange[];
  readonly heldBack: readonly HeldBack[];
  readonly advice: readonly Advice[];
  readonly unparsed: readonly Unparsed[];
  readonly unread: readonly Unread[];
  readonly silenced: readonly Silenced[];
  /** The versions that were asked for while looking, each once. */
  readonly versions: readonly VersionAsked[];
  /** How many of the changes were decided about, by what was said; undefined where nothing ever was. */
  readonly decided?: ReadonlyMap<string, number> | undefined;
  /** What the last proof found of the changes, where there was one. */
  readonly proved?: ReadonlyMap<string, number> | undefined;
  readonly idleKeeps: readonly IdleKeep[];
  readonly failures: readonly Failure[];
  readonly unreadable: readonly Skipped[];
  readonly skipped: readonly Skipped[];
  /** Number of files by ending that no language claims. */
  readonly notCovered: ReadonlyMap<string, number>;
}

/** So many functions that were not looked at are named one by one. */
const MOST_UNREAD = 6;

/** A survey as a table that a lead can read; `width` is how many characters a line has room for. */
export function surveyText(survey: Survey, paint: Paint, width = Infinity): string {
  const rows = rowsOf(survey);
  const touched = new Set(survey.changes.map((change) => change.path)).size;
  const share = survey.filesRead === 0 ? 0 : Math.round((100 * touched) / survey.filesRead);
  const out: string[] = [];
  out.push(
    paint.bold(`${plural(survey.changes.length, "place")} to modernise`) +
      ` in ${touched} of ${plural(survey.filesRead, "file")} (${share} %)`,
    "",
  );
  if (rows.length > 0) out.push(...table(rows, paint, width), "");
  const fullest = [...countBy(survey.changes, (change) => change.path)].sort((a, b) => b[1] - a[1]);
  if (survey.decided)
    out.push(`decided        ${[...survey.decided].map(([what, n]) => `${n} ${what}`).join(", ")}`);
  if (survey.proved)
    out.push(`proved         ${[...survey.proved].map(([what, n]) => `${n} ${what}`).join(", ")}`);
  if (fullest.length > 0) {
    out.push(
      `most of it in  ${listed(
        fullest.map(([path, count]) => `${shownPath(path)} ${count}`),
        4,
        "file",
      )}`,
    );
  }
  out.push(...versionLines(survey.versions).map((line, i) => (i === 0 ? "versions" : "").padEnd(15) + line));
  for (const [reason, count] of countBy(survey.silenced, silencedBy))
    out.push(`${"too new".padEnd(15)}${plural(count, "more place")} ${reason}`);
  const endings = [...survey.notCovered].sort((a, b) => b[1] - a[1]);
  if (endings.length > 0) {
    const total = sum(endings.map(([, count]) => count));
    const kinds = listed(
      endings.map(([ending, count]) => `${ending} ${count}`),
      8,
      "kind",
    );
    out.push(`not covered    ${plural(total, "file")} of other kinds: ${kinds}`);
  }
  const reasons = [...countBy(survey.skipped, (file) => file.why)].sort();
  if (reasons.length > 0) out.push(`left out       ${reasons.map(([why, n]) => `${n} ${why}`).join(", ")}`);
  out.push(...notLookedAt(survey, paint));
  for (const { path, line, rule } of survey.idleKeeps) {
    out.push(
      paint.yellow("idle keep      ") +
        `${shownPath(path)}:${line} keeps nothing from ${rule} any more; take it out`,
    );
  }
  return out.join("\n").trimEnd() + "\n";
}

/** A line for each file, or part of one, that could not be looked at, and why. */
export function notLookedAt({ unparsed, unread, unreadable, failures }: Survey, paint: Paint): string[] {
  const out: string[] = [];
  for (const { path, line, soundFunctions } of unparsed) {
    const rest =
      soundFunctions > 0
        ? `only ${plural(soundFunctions, "function")} without it looked at`
        : "this file was left as it is";
    out.push(paint.red("syntax error   ") + `${shownPath(path)}:${line} (${rest})`);
  }
  for (const { path, line, code, why } of unread.slice(0, MOST_UNREAD))
    out.push(paint.yellow("not looked at  ") + `${shownPath(path)}:${line} ${code}: ${why}`);
  const more = unread.slice(MOST_UNREAD);
  if (more.length > 0) {
    const files = new Set(more.map(({ path }) => path)).size;
    out.push(
      paint.yellow("not looked at  ") +
        `${plural(more.length, "more function")} in ${plural(files, "file")}; uvran survey --json lists them`,
    );
  }
  for (const { path, why } of unreadable)
    out.push(paint.red("unreadable     ") + `${shownPath(path)}: ${why}`);
  for (const { path, rule, line, says } of failures) {
    const place = shownPath(path) + (line === undefined ? "" : `:${line}`);
    const broke = rule === undefined ? says : `${rule} broke down and changes nothing in this file: ${says}`;
    out.push(paint.red("failed         ") + `${place}: ${broke}`);
  }
  return out;
}

/** The versions that something asks for, then in one line those that are assumed. */
function versionLines(versions: readonly VersionAsked[]): string[] {
  const asked = versions.flatMap(({ version, says }) => (says === undefined ? [] : [`${version} ${says}`]));
  const assumed = versions.filter(({ says }) => says === undefined).map(({ version }) => version);
  const [is, it] = assumed.length === 1 ? ["is", "it"] : ["are", "them"];
  const rest = `${assumed.join(", ")} ${is} assumed, so what needs ${it} is only likely; "targets" in the config says the version`;
  return [...(asked.length > 0 ? [asked.join(", ")] : []), ...(assumed.length > 0 ? [rest] : [])];
}

/** Why a rule says nothing of a place, as what follows the number of places. */
function silencedBy({ rule, needs, asked }: Silenced): string {
  return `of ${rule}, which needs ${needs}; ${asked}`;
}

/** A survey's places with their lines of code, file by file. */
export function placesText(survey: Survey, textOf: (path: string) => string, paint: Paint): string {
  const out: string[] = [];
  const changes = byPath(survey.changes);
  const paths = new Set([...changes.keys(), ...survey.advice.map((entry) => entry.path)]);
  for (const path of [...paths].sort()) {
    out.push("", paint.bold(shownPath(path)));
    const lines = textOf(path).split("\n");
    const places = [
      ...(changes.get(path) ?? []).map(({ line, trust, rules }) => ({
        line,
        trust,
        name: rules.join(" + "),
      })),
      ...survey.advice
        .filter((entry) => entry.path === path)
        .map((entry) => ({ ...entry, name: entry.rule })),
    ];
    for (const { line, trust, name } of places.sort((a, b) => a.line - b.line)) {
      const code = (lines[line - 1] ?? "").trim();
      const head = `${String(line).padStart(6)}  ${paintTrust(paint, trust)(trust.padEnd(9))}`;
      out.push(`${head} ${name.padEnd(28)}  ${paint.dim(code)}`);
    }
  }
  return out.length > 0 ? out.join("\n") + "\n" : "";
}

/** The first few of a list, and how many more there are. */
function listed(items: readonly string[], most: number, noun: string): string {
  const more = items.length - most;
  return items.slice(0, most).join(", ") + (more > 0 ? `, and ${plural(more, `more ${noun}`)}` : "");
}
