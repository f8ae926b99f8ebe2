/**
 * Holds the engine to its promises on code that nobody would write:
 *
 *   npx jiti bench/fuzz.ts [FOLDER…] [--inputs N] [--seed N] [--language ID]… [--minutes N] [--out FOLDER] [--behave | --probe]
 *
 * Each input is made of a trial of a shipped rule, of a golden file, or of a file below the folders, by one to four steps
 * over its syntax tree. All shipped rules work on it; what must hold is in `fuzz/promises.ts`. With `--behave`, code of
 * trials is run before and after its `certain` changes with several sets of values, where the language can be run.
 * With `--probe`, a call of an unknown function is put into each input, and must still stand in what becomes of it.
 * Each kind of finding is printed once, with its first input, which is kept in the folder `--out`.
 */
import { mkdirSync, mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { extname, join } from "node:path";
import { parseArgs } from "node:util";
import {
  allLanguages,
  countErrors,
  Engine,
  filesNaming,
  languageOfFile,
  loadGrammars,
  textAfter,
  type LanguageId,
} from "uvran/core";
import "uvran/node";
import { SHIPPED } from "uvran/packs";
import { compareRuns, mayRun, type Run } from "./fuzz/runs.js";
import { Donors, mutated } from "./fuzz/mutate.js";
import { probed, probesIn } from "./fuzz/probe.js";
import { brokenPromises, type Broken } from "./fuzz/promises.js";
import { Random } from "./fuzz/random.js";
import { ownSeeds, seedsBelow, type Seed } from "./fuzz/seeds.js";

const { values, positionals } = parseArgs({
  allowPositionals: true,
  options: {
    inputs: { type: "string", default: "2000" },
    seed: { type: "string", default: "1" },
    language: { type: "string", multiple: true },
    minutes: { type: "string", default: "600" },
    out: { type: "string" },
    behave: { type: "boolean", default: false },
    probe: { type: "boolean", default: false },
  },
});
await loadGrammars(allLanguages());
const out = values.out ?? mkdtempSync(join(tmpdir(), "uvran-fuzz-"));
mkdirSync(out, { recursive: true });
const random = new Random(Number(values.seed));
const rules = SHIPPED.flatMap((pack) => pack.rules);
const around = {
  files: filesNaming([]),
  targets: { targetOf: () => ({ version: "9999", says: "by the benchmark" }) },
};
const engine = new Engine(rules, around);
const other = new Engine(random.shuffled(rules), around);

interface Pool {
  readonly language: LanguageId;
  readonly seeds: readonly Seed[];
  readonly donors: Donors;
}
const asked = (values.language as LanguageId[] | undefined) ?? [
  ...new Set(allLanguages().map(({ id }) => id)),
];
const pools = asked.map((language): Pool => {
  const own = ownSeeds(language);
  const found = positionals.flatMap((folder) => seedsBelow(folder, language));
  const seeds = values.behave ? own.filter(mayRun) : [...own, ...found];
  const texts = random.shuffled(found).slice(0, 100);
  return {
    language,
    seeds,
    donors: new Donors(
      languageOfFile(own[0]!.path)!,
      [...own, ...texts].map(({ text }) => text),
    ),
  };
});

const counts = { inputs: 0, changed: 0, heldBack: 0, run: 0, differ: 0 };
const kinds = new Map<string, number>();
function found({ promise, says, rules: about }: Broken, path: string, was: string, now: string): void {
  const key = `${promise}: ${about.join(", ")}`;
  const count = (kinds.get(key) ?? 0) + 1;
  kinds.set(key, count);
  if (count > 1) return;
  const name = `${kinds.size}-${promise.replace(/\W+/g, "-")}`;
  writeFileSync(join(out, `${name}.before${extname(path)}`), was);
  writeFileSync(join(out, `${name}.after${extname(path)}`), now);
  console.log(`${key}\n  ${says.slice(0, 300)}\n  ${join(out, name)}.*`);
}

const waiting = new Map<LanguageId, Run[]>();
function judgeRuns(language: LanguageId, least: number): void {
  const runs = waiting.get(language) ?? [];
  if (runs.length < least) return;
  waiting.set(language, []);
  for (const { run, old, fresh } of compareRuns(language, runs)) {
    counts.differ++;
    found(
      { promise: "certain is true", says: `${old}\n  ${fresh}`, rules: run.rules },
      run.path,
      run.was,
      run.now,
    );
  }
}

const until = Date.now() + Number(values.minutes) * 60_000;
const started = Date.now();
while (counts.inputs < Number(values.inputs) && Date.now() < until) {
  const { language, seeds, donors } = random.of(pools);
  if (seeds.length === 0) continue;
  const seed = random.of(seeds);
  const facts = languageOfFile(seed.path)!;
  const text = mutated(seed.text, facts, random, donors);
  counts.inputs++;
  try {
    if (values.probe) {
      const code = probed(random.below(3) === 0 ? text : seed.text, facts, random);
      if (code === undefined || countErrors(code, facts) > 0) continue;
      const { changes } = (await engine.file(seed.path, code))!;
      if (changes.length > 0) counts.changed++;
      for (const change of changes) {
        const now = await textAfter(seed.path, code, [change]);
        if (probesIn(now) < probesIn(code))
          found(
            { promise: "no call is lost", says: change.title, rules: change.rules },
            seed.path,
            code,
            now,
          );
      }
      continue;
    }
    if (values.behave) {
      if (countErrors(text, facts) > 0) continue;
      const { changes } = (await engine.file(seed.path, text))!;
      const certain = changes.filter(({ trust }) => trust === "certain");
      if (certain.length === 0) continue;
      counts.changed++;
      const now = await textAfter(seed.path, text, certain);
      const runs = waiting.get(language) ?? [];
      waiting.set(language, [
        ...runs,
        { path: seed.path, was: text, now, rules: [...new Set(certain.flatMap((one) => one.rules))] },
      ]);
      counts.run++;
      judgeRuns(language, 100);
      continue;
    }
    const { broken, result, after } = await brokenPromises(engine, other, seed.path, text, random);
    if (result.changes.length > 0) counts.changed++;
    if (result.heldBack.length > 0) counts.heldBack++;
    for (const one of broken) found(one, seed.path, text, after);
  } catch (error) {
    const says = error instanceof Error ? (error.stack ?? error.message) : String(error);
    found({ promise: "nothing throws", says, rules: [says.split("\n")[1] ?? ""] }, seed.path, text, text);
  }
}
for (const language of asked) judgeRuns(language, 1);
const seconds = (Date.now() - started) / 1000;
console.log(
  `\n${counts.inputs} inputs in ${seconds.toFixed(0)} s; ${counts.changed} were changed, ${counts.heldBack} had places held back` +
    (values.behave ? `; ${counts.run} were run, ${counts.differ} do something else` : ""),
);
for (const [key, count] of [...kinds].sort((a, b) => b[1] - a[1])) console.log(`${count} × ${key}`);
