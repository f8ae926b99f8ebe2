import { expose } from "comlink";
import {
  assumedVersions,
  conditionsAbout,
  Engine,
  filesNaming,
  fitting,
  languageOf,
  languageOfFile,
  languageOfRule,
  mayHoldCode,
  ruleFromCode,
  ruleFromReading,
  runTrials,
  textAfter,
  trialSource,
  TRUSTS,
  type Hole,
  type LanguageId,
  type ReadHere,
  type Rule,
  type Trial,
  type Trust,
} from "uvran/core";
import { drafted } from "./drafting";
import { bringGrammars, type Loading } from "../../../common/grammars.js";
import { hereIn } from "./here";
import { outcomesOf } from "./outcomes";
import { asked, placeIn } from "./places";
import type { Offer, Range, RunResult, Sample, SampleResult, TrialRow } from "./protocol";
import { messageOf, rulesOf } from "./rule-file";
import { kindFor, stepsInTemplate, wider } from "./template";

let rules: readonly Rule[] = [];
let ran: readonly SampleResult[] = [];

/** All that needs the engine, away from the thread that draws the page; the page ends it when a rule takes too long. */
const bench = {
  start(tell: (loading: Loading) => void): void {
    bringGrammars(tell);
  },

  /** A rule file to begin with, from a piece of a sample or from what it reads as; undefined for a file that is no code as a whole. */
  begin({ path, text }: Sample, from: Range | ReadHere): string | undefined {
    const language = languageOfFile(path);
    if (!language) return undefined;
    if ("reading" in from) return ruleFromReading(languageOfRule(language), from);
    const line = text.lastIndexOf("\n", from.start - 1) + 1;
    const [indent] = /^[ \t]*/.exec(text.slice(line))!;
    return ruleFromCode(languageOfRule(language), indent + text.slice(from.start, from.end).trim());
  },
  holdsCode: (path: string) => languageOfFile(path) !== undefined || mayHoldCode(path),
  endingOf: (language: LanguageId) => languageOf(language).extensions[0]!,

  /** What a rule did with a sample when it ran last, as a trial that asks for just that. */
  async trialOf(
    path: string,
    id: string | undefined,
  ): Promise<
    | { readonly language: string; readonly function: string; readonly source: string }
    | { readonly problem: string }
  > {
    const sample = ran.find((one) => one.path === path);
    const language = languageOfFile(path);
    if (!sample || !language) return { problem: "Only code in a file of its own can be a trial." };
    const { text: was, after: now, outcomes } = sample;
    const own = outcomes.filter(({ rules }) => id === undefined || rules.includes(id));
    const trusts = new Set(own.flatMap(({ is }) => (TRUSTS.some((one) => one === is) ? [is as Trust] : [])));
    if (trusts.size > 1)
      return { problem: "The changes are not all as sure. Put the places into pieces of code of their own." };
    if (trusts.size === 0 && own.some(({ is }) => is === "same"))
      return { problem: "The old code fits there, and the new code is the same. Say first what it becomes." };
    const [trust] = trusts;
    const held = own.find(({ is }) => is === "held");
    const advice = own.find(({ is }) => is === "advice");
    const trial: Trial = {
      language: language.id,
      was,
      now: trust === undefined ? was : now,
      ...(trust === undefined ? {} : { trust }),
      ...(trust === undefined && held ? { because: held.says } : {}),
      ...(trust === undefined && !held && advice ? { says: advice.says } : {}),
    };
    return { language: language.id, function: kindOfTrial(trial), source: trialSource(trial) };
  },

  /** Runs the rules of a translated rule file over the samples, and their trials. */
  async run(js: string, samples: readonly Sample[]): Promise<RunResult> {
    rules = [];
    try {
      rules = rulesOf(js);
    } catch (error) {
      return { rules: [], problem: messageOf(error), samples: [], trials: [] };
    }
    const said = rules.map(({ id, title, trials }) => ({ id, title, trials: trials.length }));
    if (rules.length === 0)
      return { rules: [], problem: "The file exports no rule yet.", samples: [], trials: [] };
    const engine = new Engine(rules, around(samples));
    const results: SampleResult[] = [];
    try {
      for (const { path, text } of samples) {
        results.push(await sampleResult(engine, { path, text }, samples));
      }
    } catch (error) {
      return { rules: said, problem: messageOf(error), samples: results, trials: [] };
    }
    ran = results;
    const trials: TrialRow[] = [];
    for (const rule of rules)
      for (const { trial, failure } of await runTrials(rule))
        trials.push({
          rule: rule.id,
          does: kindOfTrial(trial),
          language: trial.language,
          was: trial.was,
          now: trial.now,
          failure,
        });
    return { rules: said, problem: undefined, samples: results, trials };
  },

  /** The conditions of the library about a hole of the rules that ran last, and what each would answer in the samples. */
  async offers(name: string, samples: readonly Sample[]): Promise<readonly Offer[]> {
    const found = new Map<
      string,
      { must: string; imports: readonly string[]; answers: Offer["answers"][number][] }
    >();
    for (const { path, text } of samples) {
      for (const one of await fitting(rules, path, text, around(samples))) {
        const { match } = one;
        const holes: readonly Hole[] = [...match.found.captures.keys()];
        const hole = holes.find((candidate) => candidate.name === name);
        if (!hole) continue;
        for (const { condition, source, imports } of conditionsAbout(hole, holes)) {
          let entry = found.get(source);
          if (!entry) found.set(source, (entry = { must: condition.must, imports, answers: [] }));
          const answer = asked(condition, match);
          if (answer) entry.answers.push({ ...answer, path, at: match.node.line });
        }
      }
    }
    return [...found].map(([source, rest]) => ({ source, ...rest }));
  },

  here: (sample: Sample, offset: number) => hereIn(sample, offset, rules),
  steps: stepsInTemplate,
  wider,
  kindFor,
  draft: drafted,
};

/** The samples are the files of one project. */
const around = (samples: readonly Sample[]) => ({
  files: filesNaming(samples),
  targets: assumedVersions,
});

async function sampleResult(
  engine: Engine,
  { path, text }: Sample,
  samples: readonly Sample[],
): Promise<SampleResult> {
  const result = await engine.file(path, text);
  const none = { path, text, outcomes: [], holes: [], after: text };
  if (!result) return { ...none, problem: `${path} is of a kind that holds no code Uvran reads.` };
  const { unparsed } = result;
  const problem = unparsed && `There is a syntax error in line ${unparsed.line}.`;
  const found = await fitting(rules, path, text, around(samples));
  const places = found.flatMap((one) => placeIn(text, one) ?? []);
  return {
    path,
    text,
    problem,
    outcomes: outcomesOf({ path, text }, result, places),
    holes: places.flatMap(({ holes }) => holes),
    after: await textAfter(path, text, result.changes),
  };
}

function kindOfTrial({ was, now, because, says }: Trial): TrialRow["does"] {
  if (says !== undefined) return "reports";
  if (because !== undefined) return "holds";
  return was === now ? "ignores" : "rewrites";
}

export type Bench = typeof bench;

expose(bench);
