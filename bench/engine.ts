/**
 * How fast the engine is, against what a user would compare it with, as ratios measured in one run:
 *
 *   npm run bench [FOLDER...]
 *
 * Without folders it takes the JavaScript and TypeScript of the installed packages and, where there is a
 * Python, its standard library.
 */
import { execFileSync } from "node:child_process";
import { readFileSync, readdirSync } from "node:fs";
import { join } from "node:path";
import { performance } from "node:perf_hooks";
import { Parser, Language as Grammar } from "web-tree-sitter";
import {
  allLanguages,
  changesInFile,
  Engine,
  languageOfFile,
  parse,
  type Language,
  type Rule,
} from "uvran/core";
import {
  condition,
  holes,
  javascript,
  no,
  python,
  rule,
  type Answer,
  type Condition,
  type Match,
} from "uvran/core";
import { decode, inspect, wasmPath } from "uvran/node";
import javascriptPack from "uvran/packs/javascript";
import pythonPack from "uvran/packs/python";

interface Source {
  readonly path: string;
  readonly bytes: Buffer;
  readonly text: string;
  readonly language: Language;
}

const RULES: readonly Rule[] = [...javascriptPack.rules, ...pythonPack.rules];
const MOST_BYTES = 8_000_000;
const ROUNDS = 3;

const folders = process.argv.slice(2).length > 0 ? process.argv.slice(2) : usualFolders();
const sources = read(folders);
const all = new Engine(RULES);
const one = new Engine(
  RULES.filter((rule) => rule.id === "python/scoped-resource" || rule.id === "javascript/value-or-fallback"),
);
/** Rules that name words without which they find nothing; a fallback by truth needs none that is rare. */
const named = new Engine(
  RULES.filter(({ id }) => id === "python/scoped-resource" || id === "javascript/released-in-finally"),
);

// Loads the grammars.
for (const language of allLanguages()) await all.prepare(language);

for (const title of ["JavaScript and TypeScript", "Python"]) {
  const own = sources.filter(({ language }) => (language.id === "python") === (title === "Python"));
  if (own.length > 0) await measure(title, own);
}

await adversarial();
await growing();

/** An ordinary pattern with a list, in files of which each is twice as long as the one before. */
async function growing(): Promise<void> {
  const { x, body } = holes({ x: "expression", body: "statements" });
  const span = rule({
    id: "bench/span",
    kind: "smell",
    title: "a span",
    why: "to see how time grows with the file",
    was: python`
      begin(${x})
      ${body}
      finish(${x})
    `,
    becomes: python`done(${x})`,
    trials: [],
  });
  const language = languageOfFile("a.py")!;
  const rules = await new Engine([span]).prepare(language);
  console.log("\nA list between two statements, in files of growing length");
  let before: number | undefined;
  for (const count of [5_000, 10_000, 20_000, 40_000]) {
    const text = Array.from(
      { length: count },
      (_, i) => `${["begin", "use", "stop"][i % 3]}(h${i % 7})\n`,
    ).join("");
    const time = median(() => changesInFile({ path: "a.py" }, text, language, rules));
    const ratio = before === undefined ? "" : `${(time / before).toFixed(2)} × half of it`;
    row(`${count} lines`, time, text.length / 1e6, ratio);
    before = time;
  }
}

/** Lists side by side over 10,000 statements, none of which ends what they begin. */
async function adversarial(): Promise<void> {
  const { a, b, c } = holes({ a: "statements", b: "statements", c: "statements" });
  const three = rule({
    id: "bench/three-lists",
    kind: "smell",
    title: "three lists",
    why: "to see what the worst costs",
    was: python`
      begin()
      ${a}
      middle()
      ${b}
      ${c}
      end()
    `,
    becomes: python`done()`,
    trials: [],
  });
  const lines = Array.from({ length: 10_000 }, (_, i) => ["begin()", "middle()", `x = ${i}`][i % 3]!);
  const text = lines.join("\n") + "\nend\n";
  const language = languageOfFile("a.py")!;
  const rules = await new Engine([three]).prepare(language);
  const parsing = median(() => parse(text, language));
  const matching = median(() => changesInFile({ path: "a.py" }, text, language, rules));
  console.log(`\nThree lists over ${lines.length} statements that never match`);
  row("compact tree", parsing, text.length / 1e6, "");
  row("with the rule", matching, text.length / 1e6, `${(matching / parsing).toFixed(1)} × the tree`);
}

/** The rules asked for all their conditions, and those asked for none; nothing is rewritten by either. */
function refusing(): { readonly asked: readonly Rule[]; readonly unasked: readonly Rule[] } {
  // The last condition says no.
  const refused = condition("nothing", (match) => no("own.nothing", "not asked", match.node));
  return {
    asked: RULES.map((rule) => ({ ...rule, given: [...(rule.given ?? []).map(answeredAnyway), refused] })),
    unasked: RULES.map((rule) => ({ ...rule, given: [refused] })),
  };
}

/** Asks a condition, and goes on whatever it answers. */
function answeredAnyway(given: Condition): Condition {
  const ask = (match: Match): Answer => ({ ...given.ask(match), is: "yes" });
  return { ...given, ask };
}

async function measure(title: string, own: readonly Source[]): Promise<void> {
  const megabytes = own.reduce((sum, source) => sum + source.bytes.length, 0) / 1e6;
  console.log(`\n${title}: ${own.length} files, ${megabytes.toFixed(1)} MB`);
  const parsers = await bareParsers(own);
  const { asked, unasked } = refusing();
  let parsed = 0;
  const skipping = (rules: Ready) => (): void => {
    parsed = 0;
    for (const { path, language } of own) {
      const bytes = readFileSync(path);
      if (inspect(bytes) || !rules.get(language.id)!.mayMatch((word) => bytes.includes(word))) continue;
      parsed++;
    }
  };
  const [wordy, few] = [await ready(named), await ready(one)];
  const times = medians({
    bare: () => {
      for (const { text, language } of own) parsers.get(language.grammar)!.parse(text)!.delete();
    },
    trees: () => {
      for (const { text, language } of own) parse(text, language);
    },
    all: working(own, await ready(all)),
    asked: working(own, await ready(new Engine(asked))),
    unasked: working(own, await ready(new Engine(unasked))),
    single: working(own, few),
    hundred: working(own, await ready(new Engine(callRules(100)))),
    first: working(own, await ready(new Engine(callRules(1)))),
    reading: () => {
      for (const { path } of own) readFileSync(path);
    },
    wordy: skipping(wordy),
    truth: skipping(few),
  });
  const { bare, reading } = times;
  const to = (time: number, other: number): string => (time / other).toFixed(2);
  row("parser alone", bare, megabytes, "");
  row("compact trees", times.trees, megabytes, `${to(times.trees, bare)} × the parser alone`);
  row(`all ${RULES.length} rules`, times.all, megabytes, `${to(times.all, bare)} × the parser alone`);
  const conditions = times.asked - times.unasked;
  row("finding alone", times.unasked, megabytes, `${to(times.unasked, bare)} × the parser alone`);
  row("all their conditions", conditions, megabytes, `${to(conditions, bare)} × the parser alone`);
  row("one rule", times.single, megabytes, `all rules: ${to(times.all, times.single)} × one rule`);
  row("100 rules", times.hundred, megabytes, `${to(times.hundred, times.first)} × the first of them`);
  row("reading bytes", reading, megabytes, "");
  for (const [what, rules, time] of [
    ["words first", wordy, times.wordy],
    ["tests by truth", few, times.truth],
  ] as const) {
    skipping(rules)();
    const left = `${parsed} of ${own.length} files left to parse`;
    row(what, time, megabytes, `${to(time, reading)} × reading; ${left}`);
  }
}

type Ready = ReadonlyMap<string, Awaited<ReturnType<Engine["prepare"]>>>;

async function ready(engine: Engine): Promise<Ready> {
  const result = new Map<string, Awaited<ReturnType<Engine["prepare"]>>>();
  for (const language of allLanguages()) result.set(language.id, await engine.prepare(language));
  return result;
}

/** Works out the changes of all files. */
function working(own: readonly Source[], rules: Ready): () => void {
  return () => {
    for (const { path, text, language } of own)
      changesInFile({ path }, text, language, rules.get(language.id)!);
  };
}

/** Rules of the commonest kind: a call of one name becomes a call of another. None of the names occurs. */
function callRules(count: number): Rule[] {
  const { args } = holes({ args: "arguments" });
  const about = {
    kind: "deprecated",
    title: "renamed",
    why: "to see what many rules cost",
    trials: [],
  } as const;
  return Array.from({ length: count }, (_, i) => i).flatMap((i) => {
    // The name is part of the snippet's text, as if each rule had been written out.
    const call = (tag: typeof python, name: string) =>
      tag(Object.assign([`${name}(`, ")"], { raw: [`${name}(`, ")"] }), args);
    return [python, javascript].map((tag, k) =>
      rule({
        ...about,
        id: `bench/call-${i}-${k}`,
        was: call(tag, `oldCall${i}`),
        becomes: call(tag, `newCall${i}`),
      }),
    );
  });
}

function row(what: string, milliseconds: number, megabytes: number, ratio: string): void {
  const rate = (megabytes / (milliseconds / 1000)).toFixed(1);
  console.log(
    `  ${what.padEnd(14)} ${milliseconds.toFixed(0).padStart(7)} ms ${rate.padStart(8)} MB/s   ${ratio}`,
  );
}

/** The median of several rounds of each piece of work, in milliseconds; one round of each follows the other. */
function medians<Name extends string>(works: Readonly<Record<Name, () => void>>): Record<Name, number> {
  const names = Object.keys(works) as Name[];
  const rounds = Array.from({ length: ROUNDS }, () =>
    names.map((name) => {
      const start = performance.now();
      works[name]();
      return performance.now() - start;
    }),
  );
  const middle = (times: readonly number[]): number => [...times].sort((a, b) => a - b)[ROUNDS >> 1]!;
  return Object.fromEntries(
    names.map((name, i) => [name, middle(rounds.map((times) => times[i]!))]),
  ) as Record<Name, number>;
}

function median(work: () => void): number {
  return medians({ work }).work;
}

async function bareParsers(own: readonly Source[]): Promise<Map<string, Parser>> {
  const parsers = new Map<string, Parser>();
  for (const { language } of own) {
    if (parsers.has(language.grammar)) continue;
    const parser = new Parser();
    parser.setLanguage(await Grammar.load(wasmPath(`${language.grammar}.wasm`)));
    parsers.set(language.grammar, parser);
  }
  return parsers;
}

function usualFolders(): string[] {
  const found = ["node_modules"];
  try {
    found.push(
      execFileSync("python3", ["-c", "import os; print(os.path.dirname(os.__file__))"], {
        encoding: "utf8",
      }).trim(),
    );
  } catch {
    console.log("no python3 here, so its library is not measured");
  }
  return found;
}

function read(from: readonly string[]): Source[] {
  const result: Source[] = [];
  for (const folder of from) {
    let total = 0;
    for (const name of readdirSync(folder, { recursive: true, encoding: "utf8" }).sort()) {
      const path = join(folder, name);
      const language = languageOfFile(name);
      if (!language || /\.d\.[cm]?ts$|\.min\.js$|site-packages/.test(name) || total > MOST_BYTES) continue;
      let bytes: Buffer;
      try {
        bytes = readFileSync(path);
      } catch {
        continue;
      }
      if (inspect(bytes) || bytes.length > 500_000) continue;
      total += bytes.length;
      result.push({ path, bytes, text: decode(bytes), language });
    }
  }
  return result;
}
