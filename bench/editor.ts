/**
 * How long an editor waits after one key: from the key until the diagnostics are there, and until the actions at the caret are, in
 * files of growing length. The first column is the bare parse of the file in the same run.
 *
 *   npx jiti bench/editor.ts [LINES]
 */
import { performance } from "node:perf_hooks";
import { languageOfFile, loadGrammars, parse } from "uvran/core";
import "uvran/node";
import { Editor } from "../tests/cli/editor.js";
import { Sandbox } from "../tests/cli/run.js";

const most = Number(process.argv[2] ?? 5000);
const KEYS = 9;

const median = (values: number[]): number => values.sort((a, b) => a - b)[values.length >> 1]!;

/** A file in which one line in twenty has something to do. */
function source(path: string, lines: number): string {
  const isPython = path.endsWith(".py");
  const out: string[] = [];
  for (let i = 0; out.length < lines; i++)
    out.push(
      ...(isPython
        ? [
            `def weigh${i}(hive, frames):`,
            `    total = ${i}`,
            ...Array.from({ length: 15 }, (_, k) => `    total += frames.read(${k})`),
            `    for n in range(len(frames)):`,
            `        print(n, frames[n])`,
            `    return total`,
          ]
        : [
            `export function weigh${i}(hive, frames) {`,
            `  let total = ${i};`,
            ...Array.from({ length: 15 }, (_, k) => `  total += frames.read(${k});`),
            `  if (hive !== null && hive !== undefined) total += hive.weight;`,
            `  return total;`,
            `}`,
          ]),
    );
  return out.slice(0, lines).join("\n") + "\n";
}

for (const path of ["a.js", "a.ts", "a.py"])
  for (const lines of [most / 10, most]) {
    const text = source(path, lines);
    const editor = await Editor.open(new Sandbox({ [path]: text }), true);
    await editor.type(path, text);
    const language = languageOfFile(path)!;
    await loadGrammars([language]);
    const [parses, told, acted]: [number[], number[], number[]] = [[], [], []];
    for (let key = 0; key < KEYS; key++) {
      const now = text
        .replace("total = 1", `total = 1${"0".repeat(key + 1)}`)
        .replace("total = 1", "total = 1");
      let start = performance.now();
      parse(now, language);
      parses.push(performance.now() - start);
      start = performance.now();
      await editor.type(path, now);
      told.push(performance.now() - start);
      start = performance.now();
      await editor.actions(path, path.endsWith(".py") ? "range(len(frames))" : "hive !== null");
      acted.push(performance.now() - start);
    }
    const show = (values: number[]): string => `${median(values).toFixed(0).padStart(6)} ms`;
    console.log(
      `${path} ${String(lines).padStart(6)} lines   parse ${show(parses)}   diagnostics ${show(told)}   actions ${show(acted)}   ${(median(told) / median(parses)).toFixed(1)} × parse`,
    );
    await editor.close();
  }
