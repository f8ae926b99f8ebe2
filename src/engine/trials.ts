import { diffLines } from "diff";
import { yes, type SourceFiles, type TypeSource } from "../analysis/index.js";
import { mayHoldCode } from "../embed/index.js";
import { applyEdits } from "../rewrite/index.js";
import { textAfter } from "./outcome.js";
import type { Rule, Trial } from "../rules/index.js";
import { countErrors, languageOf, languageOfFile } from "../syntax/index.js";
import type { FileResult } from "./change.js";
import { Engine } from "./project.js";
import { explain } from "./why.js";

/** How one trial ended. */
export interface TrialResult {
  readonly rule: string;
  readonly trial: Trial;
  /** What went wrong, in a few lines; undefined for a trial that passed. */
  readonly failure?: string;
}

/**
 * Runs the trials of a rule. Beside what each trial says, a second run over the result must change nothing;
 * that the result parses and keeps its comments is what the engine holds every change to.
 */
export async function runTrials(rule: Rule): Promise<TrialResult[]> {
  const results: TrialResult[] = [];
  for (const trial of rule.trials) {
    const failure = await failureOf(rule, trial);
    results.push({ rule: rule.id, trial, ...(failure === undefined ? {} : { failure }) });
  }
  return results;
}

/** Trials in TypeScript are taken to be compiled with `strict`. */
const STRICT: TypeSource = {
  strictNulls: () => yes("type.strict-null", "`strict` is on for the example"),
  typeAt: () => undefined,
  declarationAt: () => undefined,
};

/** The engine that a rule's trials run in: with the files beside, the version and the options that a trial names. */
export function trialEngine(
  rule: Rule,
  { beside = {}, target, options }: Pick<Trial, "beside" | "target" | "options">,
): Engine {
  return new Engine([options === undefined ? rule : rule.options!.with(options)], {
    types: STRICT,
    files: filesNaming(Object.entries(beside).map(([path, [text]]) => ({ path, text }))),
    targets: {
      meansAssumed: true,
      targetOf: () => (target === undefined ? undefined : { version: target, says: "by the example" }),
    },
  });
}

const fileOf = ({ language }: Trial): string => `trial${languageOf(language).extensions[0]!}`;

/** The whole reason with which the code of a trial is held back, of which the trial itself names a part. */
export async function reasonHeld(rule: Rule, trial: Trial): Promise<string | undefined> {
  const result = await trialEngine(rule, trial).file(fileOf(trial), trial.was);
  return result?.heldBack.map(({ reason }) => reason).find((reason) => reason.includes(trial.because ?? ""));
}

/** All that a rule that reports says of the code of a trial, of which the trial itself names a part. */
export async function adviceGiven(rule: Rule, trial: Trial): Promise<string | undefined> {
  const result = await trialEngine(rule, trial).file(fileOf(trial), trial.was);
  return result?.advice?.map(({ says }) => says).find((says) => says.includes(trial.says ?? ""));
}

async function failureOf(rule: Rule, trial: Trial): Promise<string | undefined> {
  const beside = Object.entries(trial.beside ?? {});
  const engine = trialEngine(rule, trial);
  const language = languageOf(trial.language);
  const path = fileOf(trial);
  await engine.prepare(language);
  if (countErrors(trial.was, language) > 0) return "the old code has a syntax error";
  const result = await engine.file(path, trial.was);
  if (!result) return "no language for this trial";
  const [broken] = result.failures ?? [];
  if (broken) return `the rule broke down: ${broken.says}`;
  const now = await textAfter(path, trial.was, result.changes);
  const held = result.heldBack.map((entry) => `held back: ${entry.reason}`);
  if (now !== trial.now) {
    const trusted = result.changes.length > 0 ? wronglySure(trial, result) : undefined;
    const ended = result.changes.length + held.length === 0 ? endsOf(rule, path, trial) : [];
    return [difference(trial.now, now), ...held, ...(trusted === undefined ? [] : [trusted]), ...ended].join(
      "\n",
    );
  }
  const wrong = trial.was === trial.now ? wronglyQuiet(trial, result) : wronglySure(trial, result);
  if (wrong) return wrong;
  for (const [other, [was, expected]] of beside) {
    const edits = result.changes.flatMap(({ elsewhere }) => elsewhere.filter((file) => file.path === other));
    const got = applyEdits(
      was,
      edits.flatMap((file) => file.edits),
    );
    if (got !== expected) return `${other}:\n${difference(expected, got)}`;
  }
  if (rule.once) return undefined;
  const again = await engine.file(path, now);
  return again?.changes.length ? `a second run changes the result again:\n${now}` : undefined;
}

/** How far the old code of a rule fits the code of a trial, line by line, at the first places that begin like it. */
function endsOf(rule: Rule, path: string, { language, was }: Trial): string[] {
  const known = languageOf(language);
  const lines = was.split("\n").map((_, i) => explain(rule, { path }, was, known, i + 1));
  return lines
    .flat()
    .flatMap(({ code, line, says }) => says.map((one) => `line ${line}, \`${code}\`: ${one}`))
    .slice(0, MOST_ENDS);
}

/** So many such places are shown with a trial that failed. */
const MOST_ENDS = 3;

/** Some files as the engine asks for them: by a word that stands in them. */
export function filesNaming(files: readonly { readonly path: string; readonly text: string }[]): SourceFiles {
  return {
    listed: () => files.filter(({ path, text }) => mayHoldCode(path, text)).map(({ path }) => path),
    at: (path) => files.find((file) => file.path === path),
    installed: (name) => files.find((file) => file.path === `node_modules/${name}/package.json`)?.text,
    manifest: (path) => files.find((file) => file.path === path)?.text,
    naming: (word) =>
      files.filter(({ path, text }) => {
        const isAlike = (languageOfFile(path, text)?.ignoresCase ?? "nowhere") !== "nowhere";
        const [within, wanted] = isAlike ? [text.toLowerCase(), word.toLowerCase()] : [text, word];
        return new Set<string>(within.match(/[\p{L}\p{N}_]+/gu)).has(wanted);
      }),
  };
}

/** Expected against got, line by line. */
function difference(expected: string, got: string): string {
  const lines = diffLines(expected, got).flatMap(({ value, added, removed }) => {
    const mark = removed ? "expected - " : added ? "got      + " : "           ";
    return value
      .replace(/\n$/, "")
      .split("\n")
      .map((line) => mark + line);
  });
  return lines.map((line) => line.trimEnd()).join("\n");
}

function wronglySure(trial: Trial, { changes }: FileResult): string | undefined {
  const other = changes.find((change) => trial.trust && change.trust !== trial.trust);
  if (!other) return undefined;
  const grounds = other.evidence.map(({ answer, says }) => `  ${answer}: ${says}`);
  return [`expected trust ${trial.trust}, got ${other.trust}:`, ...grounds].join("\n");
}

function wronglyQuiet(trial: Trial, { heldBack, advice = [] }: FileResult): string | undefined {
  const reasons = heldBack.map((entry) => entry.reason);
  const { says, trust } = trial;
  if (says !== undefined) {
    const said = advice.find(
      (entry) => entry.says.includes(says) && (trust === undefined || entry.trust === trust),
    );
    if (said) return undefined;
    const got = [...advice.map((entry) => `${entry.trust}: ${entry.says}`), ...reasons];
    return `expected advice that says "${says}"${trust === undefined ? "" : ` (${trust})`}, got: ${got.join("; ") || "nothing found"}`;
  }
  if (advice[0]) return `expected not to be reported, but it says: ${advice[0].says}`;
  if (trial.because === undefined) {
    return reasons.length > 0
      ? `expected not to be found at all, but held back: ${reasons.join("; ")}`
      : undefined;
  }
  if (reasons.some((reason) => reason.includes(trial.because!))) return undefined;
  return `expected to be held back because of "${trial.because}", got: ${reasons.join("; ") || "nothing found"}`;
}
