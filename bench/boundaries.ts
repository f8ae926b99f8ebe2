/**
 * Does what is rewritten stay readable for the language's own parser, however the old code is laid out?
 *
 *   npx jiti bench/boundaries.ts FOLDER ENDING [--tries N] [--seed N] [--minutes N]
 *
 * Puts a space, a line break, a comment or a continuation at the borders of tokens in and around code that rules
 * rewrite in files that nobody here wrote. Where the real parser takes the text before the rewrite, it must take the
 * text after it, and a comment that was put in must be there once. Files for which that is not so are kept.
 */
import { spawnSync } from "node:child_process";
import { mkdirSync, mkdtempSync, readFileSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join, resolve } from "node:path";
import { parseArgs } from "node:util";
import ts from "typescript";
import {
  Engine,
  filesNaming,
  languageOfFile,
  loadGrammars,
  parse,
  textAfter,
  type LanguageId,
} from "uvran/core";
import { decode, findSources, inspect } from "uvran/node";
import { SHIPPED } from "uvran/packs";

const { values, positionals } = parseArgs({
  allowPositionals: true,
  options: {
    tries: { type: "string", default: "1000" },
    seed: { type: "string", default: "1" },
    minutes: { type: "string", default: "4" },
  },
});
const root = resolve(positionals[0] ?? ".");
const ending = positionals[1] ?? ".py";
const language = languageOfFile(`a${ending}`)!;

/** What the parsers below understand. */
const VERSIONS: Readonly<Partial<Record<LanguageId, string>>> = { csharp: "7.2", cpp: "17" };
const engine = new Engine(
  SHIPPED.flatMap(({ rules }) => rules).filter(({ taste }) => !taste),
  {
    files: filesNaming([]),
    targets: { targetOf: () => ({ version: VERSIONS[language.id] ?? "9999", says: "by the benchmark" }) },
  },
);

const COMMENTS: Readonly<Partial<Record<LanguageId, readonly string[]>>> = {
  python: ["#%\n"],
  ruby: ["#%\n"],
  php: ["/*%*/", "//%\n", "#%\n"],
};
const CONTINUATIONS: Readonly<Partial<Record<LanguageId, readonly string[]>>> = {
  python: [" \\\n", "\\\n"],
  ruby: [" \\\n"],
  cpp: ["\\\n"],
};
const PIECES = [
  "  ",
  "\n",
  ...(COMMENTS[language.id] ?? ["/*%*/", "//%\n"]),
  ...(CONTINUATIONS[language.id] ?? []),
];

let state = Number(values.seed);
const below = (n: number): number => {
  state = (state * 1103515245 + 12345) & 0x7fffffff;
  return (state >> 8) % n;
};

const work = mkdtempSync(join(tmpdir(), "uvran-boundaries-"));
const run = (command: string, ...rest: string[]): { status: number | null; said: string } => {
  const { status, stdout, stderr } = spawnSync(command, rest, { encoding: "utf8", maxBuffer: 1 << 28 });
  return { status, said: `${stdout}${stderr}` };
};
const PYTHON = `import json, sys
for text in json.load(open(sys.argv[1])):
    try:
        compile(text, "x", "exec")
        print(1)
    except Exception:
        print(0)
`;
const RUBY =
  "JSON.parse(File.read(ARGV[0])).each { |t| begin; RubyVM::InstructionSequence.compile(t); puts 1; rescue SyntaxError; puts 0; end }";
/** What a compiler says of syntax, and not of names and types, for which one file is not enough. */
const OF_SYNTAX = /expected|missing terminating|stray|unterminated|illegal start|not a statement|unclosed/;

/** Which of these texts the language's own parser reads. */
function readable(texts: readonly string[]): boolean[] {
  const files = texts.map((text, i) => {
    const folder = join(work, String(i));
    mkdirSync(folder, { recursive: true });
    writeFileSync(join(folder, `in${ending}`), text);
    return join(folder, `in${ending}`);
  });
  const all = join(work, "all.json");
  writeFileSync(all, JSON.stringify(texts));
  switch (language.id) {
    case "python":
      return run("python3", "-W", "ignore", "-c", PYTHON, all)
        .said.trim()
        .split("\n")
        .map((line) => line === "1");
    case "ruby":
      return run("ruby", "-W0", "-rjson", "-e", RUBY, all)
        .said.trim()
        .split("\n")
        .map((line) => line === "1");
    case "php":
      return files.map((file) => run("php", "-l", file).status === 0);
    case "java": {
      const { said } = run(
        "javac",
        "-proc:none",
        "-Xmaxerrs",
        "99999",
        "-d",
        work,
        "-XDshould-stop.at=PARSE",
        ...files,
      );
      const wrong = said.split("\n").filter((line) => OF_SYNTAX.test(line));
      return files.map((file) => !wrong.some((line) => line.startsWith(`${file}:`)));
    }
    case "cpp":
      return files.map((file) => !OF_SYNTAX.test(run("g++", "-std=c++17", "-fsyntax-only", "-w", file).said));
    case "csharp":
      return files.map((file) => !/error/.test(run("mcs", "--parse", "-langversion:7.2", file).said));
    default: {
      const kind = language.id === "javascript" ? ts.ScriptKind.JSX : ts.ScriptKind.TS;
      return texts.map((text) => {
        const { diagnostics = [] } = ts.transpileModule(text, {
          reportDiagnostics: true,
          fileName: kind === ts.ScriptKind.JSX ? "a.jsx" : "a.ts",
          compilerOptions: { target: ts.ScriptTarget.Latest, jsx: ts.JsxEmit.Preserve },
        });
        return !diagnostics.some(({ code }) => code < 2000);
      });
    }
  }
}

interface Case {
  readonly path: string;
  readonly before: string;
  readonly after: string;
  readonly mark: string;
}

const counts = { tried: 0, rewritten: 0, refused: 0, comments: 0 };
function judge(cases: readonly Case[]): void {
  if (cases.length === 0) return;
  const were = readable(cases.map(({ before }) => before));
  const sound = cases.filter((_, i) => were[i]);
  const are = readable(sound.map(({ after }) => after));
  sound.forEach(({ path, before, after, mark }, i) => {
    counts.rewritten++;
    const copies = (text: string): number => text.split(mark).length;
    const isMarked = copies(after) === copies(before);
    if (are[i] && isMarked) return;
    if (!are[i]) counts.refused++;
    if (!isMarked) counts.comments++;
    const kept = join(work, `bad-${counts.refused + counts.comments}`);
    writeFileSync(`${kept}.before${ending}`, before);
    writeFileSync(`${kept}.after${ending}`, after);
    console.log(`${path}: ${are[i] ? "a comment is lost or doubled" : "no longer read"}; see ${kept}.*`);
  });
}

await loadGrammars([language]);
const paths = findSources(root, [], root, []).paths.filter((path) => path.endsWith(ending));
for (let i = paths.length - 1; i > 0; i--) {
  const j = below(i + 1);
  [paths[i], paths[j]] = [paths[j]!, paths[i]!];
}
const until = Date.now() + Number(values.minutes) * 60_000;
const waiting: Case[] = [];
for (const path of paths) {
  if (counts.tried >= Number(values.tries) || Date.now() > until) break;
  const bytes = readFileSync(join(root, path));
  if (inspect(bytes) || bytes.length > 60_000) continue;
  const text = decode(bytes);
  const { changes = [] } = (await engine.file(path, text)) ?? {};
  if (changes.length === 0 || !readable([text])[0]) continue;
  const tree = parse(text, language);
  for (const { edits } of changes.slice(0, 6)) {
    const from = Math.min(...edits.map(({ start }) => start)) - 40;
    const to = Math.max(...edits.map(({ end }) => end)) + 40;
    const borders: number[] = [];
    for (let n = 0; n < tree.size; n++)
      if (tree.isLeaf(n) && tree.starts[n]! >= from && tree.starts[n]! <= to) borders.push(tree.starts[n]!);
    for (let k = 0; k < 5 && borders.length > 0; k++) {
      const at = borders[below(borders.length)]!;
      const mark = `why${1_000_000 + below(8_999_999)}`;
      const before = text.slice(0, at) + PIECES[below(PIECES.length)]!.replace("%", mark) + text.slice(at);
      counts.tried++;
      const result = await engine.file(path, before);
      if (!result || result.changes.length === 0) continue;
      waiting.push({ path, before, after: await textAfter(path, before, result.changes), mark });
      if (waiting.length >= 40) judge(waiting.splice(0));
    }
  }
}
judge(waiting);
console.log(
  `${counts.tried} tried, ${counts.rewritten} read before and rewritten; ${counts.refused} no longer read, ` +
    `${counts.comments} with a comment lost or doubled`,
);
if (counts.refused + counts.comments > 0) process.exitCode = 1;
