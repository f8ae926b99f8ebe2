/**
 * Runs all shipped rules over code that nobody here wrote, and holds the result to the promises:
 *
 *   npx jiti bench/corpus.ts FOLDER [--sample N] [--seed N] [--write FOLDER] [--trust LEVEL] [--rule ID]
 *                            [--target LANGUAGE=VERSION]… [--held N] [--taste]
 *
 * Prints how many changes there are of each rule, what was held back and why, how many files parse worse
 * (by Uvran's parser, and by the real one of the language), and what a second run would change. `--sample`
 * prints changes drawn at random, for reading; `--held` prints places that were held back, `--write` stores the rewritten files; `--taste` also runs
 * the rules that are off until somebody switches them on.
 */
import { execFileSync, spawnSync } from "node:child_process";
import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join, resolve } from "node:path";
import { parseArgs } from "node:util";
import ts from "typescript";
import {
  countBy,
  countErrors,
  Engine,
  languageOfFile,
  textAfter,
  type LanguageId,
  type Trust,
} from "uvran/core";
import { decode, findSources, inspect, ProjectFiles, ProjectTargets } from "uvran/node";
import { SHIPPED } from "uvran/packs";
import { changeText } from "../dist/report/index.js";
import pico from "picocolors";

const { values, positionals } = parseArgs({
  allowPositionals: true,
  options: {
    sample: { type: "string", default: "0" },
    seed: { type: "string", default: "1" },
    write: { type: "string" },
    trust: { type: "string", default: "possible" },
    rule: { type: "string" },
    target: { type: "string", multiple: true, default: [] },
    held: { type: "string", default: "0" },
    taste: { type: "boolean", default: false },
  },
});
const LEVELS: readonly Trust[] = ["certain", "likely", "possible"];
const allowed = LEVELS.slice(0, LEVELS.indexOf(values.trust as Trust) + 1);
const root = resolve(positionals[0] ?? ".");
const rules = SHIPPED.flatMap((pack) => pack.rules).filter(
  ({ id, taste }) => (values.rule === undefined || id === values.rule) && (values.taste || !taste),
);
const sources = findSources(root, [], root, []).paths;
const targets = Object.fromEntries(values.target.map((one) => one.split("=") as [LanguageId, string]));
const engine = new Engine(rules, {
  files: new ProjectFiles(root, { paths: sources }),
  targets: new ProjectTargets(root, targets),
});

let bytesRead = 0;
let files = 0;
let unparsed = 0;
let worse = 0;
let again = 0;
const held: string[] = [];
const made: string[] = [];
const advice: string[] = [];
const said: string[] = [];
const samples: string[] = [];
const rewritten: { path: string; before: string; after: string }[] = [];

for (const path of sources) {
  const bytes = readFileSync(join(root, path));
  if (inspect(bytes)) continue;
  const text = decode(bytes);
  const language = languageOfFile(path);
  if (!language) continue;
  files++;
  bytesRead += bytes.length;
  const result = (await engine.file(path, text)) ?? { changes: [], heldBack: [] };
  if (result.unparsed) unparsed++;
  advice.push(...(result.advice ?? []).map((entry) => `${entry.rule} ${entry.trust}`));
  said.push(
    ...(result.advice ?? []).map(({ path, line, rule, says }) => `${path}:${line}  ${rule}\n    ${says}`),
    ...result.heldBack.map(
      ({ rule, line, reason, at }) =>
        `${path}:${line}  ${rule}\n    ${reason}${at === undefined ? "" : ` (line ${at})`}\n    ${text.split("\n")[line - 1]}`,
    ),
  );
  held.push(...result.heldBack.map((entry) => `${entry.rule}: ${entry.reason.replace(/`[^`]*`/g, "…")}`));
  const changes = result.changes.filter((change) => allowed.includes(change.trust));
  if (changes.length === 0) continue;
  made.push(...changes.map((change) => `${change.rules.join(" + ")} ${change.trust}`));
  for (const change of changes)
    samples.push(
      `${change.id}\0${changeText(change as never, text, change.edits, pico.createColors(false))}`,
    );
  const after = await textAfter(path, text, changes);
  if (countErrors(after, language) > countErrors(text, language)) {
    worse++;
    console.log(`parses worse: ${path}`);
  }
  const second = ((await engine.file(path, after))?.changes ?? []).filter((c) => allowed.includes(c.trust));
  if (second.length > 0) {
    again += second.length;
    console.log(`changes again: ${path}:${second[0]!.line} ${second[0]!.rules.join(" + ")}`);
  }
  rewritten.push({ path, before: text, after });
}

const wrong = [
  ...typescriptComplaints(),
  ...pythonComplaints(),
  ...complaintsOf(".php", "php", ["-l"]),
  ...complaintsOf(".rb", "ruby", ["-c"]),
];
const show = (title: string, items: readonly string[]): void => {
  console.log(`\n${title}`);
  const counts = [...countBy(items, (item) => item)].sort((a, b) => b[1] - a[1]);
  for (const [item, count] of counts.slice(0, 40)) console.log(`  ${String(count).padStart(6)}  ${item}`);
};
show(`${made.length} changes`, made);
show(`${held.length} held back`, held);
show(`${advice.length} pieces of advice`, advice);
console.log(`
${files} files, ${(bytesRead / 1e6).toFixed(1)} MB; ${unparsed} with a syntax error, left alone
${rewritten.length} files rewritten
${worse} files parse worse
${wrong.length} files that the language's own parser refuses only after the rewrite
${again} changes in a second run`);
for (const line of wrong.slice(0, 20)) console.log(`  ${line}`);

for (const { path, after } of values.write === undefined ? [] : rewritten) {
  const file = join(values.write!, path);
  mkdirSync(dirname(file), { recursive: true });
  writeFileSync(file, after);
}
let seed = Number(values.seed);
const drawn = (from: string[], count: number): string[] =>
  Array.from({ length: Math.min(count, from.length) }, () => {
    seed = (seed * 1103515245 + 12345) % 2147483648;
    return from.splice(seed % from.length, 1)[0]!;
  });
for (const sample of drawn(samples, Number(values.sample)))
  console.log(`\n${sample.slice(sample.indexOf("\0") + 1)}`);
for (const entry of drawn(said, Number(values.held))) console.log(`\n${entry}`);

/** Files that a command which reads one file refuses only after the rewrite. */
function complaintsOf(ending: string, command: string, options: readonly string[]): string[] {
  const folder = mkdtempSync(join(tmpdir(), "uvran-corpus-"));
  const refuses = (text: string): boolean => {
    writeFileSync(join(folder, `one${ending}`), text);
    return spawnSync(command, [...options, join(folder, `one${ending}`)]).status !== 0;
  };
  const found = rewritten
    .filter(({ path }) => path.endsWith(ending))
    .filter(({ before, after }) => refuses(after) && !refuses(before));
  rmSync(folder, { recursive: true });
  return found.map(({ path }) => path);
}

function typescriptComplaints(): string[] {
  const complaints = (path: string, text: string): number => {
    const source = ts.createSourceFile(path, text, ts.ScriptTarget.Latest);
    return (source as unknown as { parseDiagnostics: unknown[] }).parseDiagnostics.length;
  };
  return rewritten
    .filter(({ path }) => /\.[cm]?[jt]sx?$/.test(path))
    .filter(({ path, before, after }) => complaints(path, after) > complaints(path, before))
    .map(({ path }) => path);
}

function pythonComplaints(): string[] {
  const folder = mkdtempSync(join(tmpdir(), "uvran-corpus-"));
  const python = rewritten.filter(({ path }) => path.endsWith(".py"));
  const names = python.flatMap(({ before, after }, i) => {
    writeFileSync(join(folder, `${i}-before`), before);
    writeFileSync(join(folder, `${i}-after`), after);
    return [`${i}-before`, `${i}-after`];
  });
  const program =
    "import ast, sys\n" +
    "for name in sys.stdin.read().split():\n" +
    "  try: ast.parse(open(name, 'rb').read())\n" +
    "  except Exception: print(name)\n";
  const out =
    python.length === 0
      ? ""
      : execFileSync("python3", ["-W", "ignore", "-c", program], { cwd: folder, input: names.join(" ") });
  rmSync(folder, { recursive: true });
  const refused = new Set(String(out).split("\n"));
  return python
    .filter((_, i) => refused.has(`${i}-after`) && !refused.has(`${i}-before`))
    .map(({ path }) => path);
}
