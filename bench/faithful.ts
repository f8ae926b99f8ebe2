/**
 * Is a rewrite faithful? `npm run build && npx jiti bench/faithful.ts FOLDER… [--show N]` applies each pair of the
 * battery to every file below the folders, there and back, and compares bytes.
 */
import { readFileSync } from "node:fs";
import { resolve } from "node:path";
import { parseArgs } from "node:util";
import { applyEdits, countErrors, Engine, languageOfFile, type Rule } from "uvran/core";
import { findSources } from "uvran/node";
import { batteryOf, type ThereAndBack } from "./battery.js";

const { values, positionals } = parseArgs({
  allowPositionals: true,
  options: { show: { type: "string", default: "3" }, only: { type: "string" } },
});

interface Count {
  files: number;
  bytes: number;
  changes: number;
  held: number;
  different: number;
  worse: number;
}
const counts = new Map<string, Count>();
const reasons = new Map<string, number>();
const unparsed = new Map<string, number>();
const partly = new Map<string, number>();
const engines = new Map<Rule, Engine>();
const engineFor = (rule: Rule): Engine => {
  let engine = engines.get(rule);
  if (!engine) engines.set(rule, (engine = new Engine([rule])));
  return engine;
};
const batteries = new Map<string, ThereAndBack[]>();

/** The text after a rule, or undefined where it changes nothing. */
async function after(rule: Rule, path: string, text: string, count: Count): Promise<string | undefined> {
  const result = (await engineFor(rule).file(path, text))!;
  count.changes += result.changes.length;
  count.held += result.heldBack.length;
  for (const { rule: id, reason } of result.heldBack) {
    const key = `${id}: ${reason.replace(/`[^`]*`/gs, "`…`")}`;
    reasons.set(key, (reasons.get(key) ?? 0) + 1);
  }
  if (result.unparsed)
    (result.unparsed.soundFunctions > 0 ? partly : unparsed).set(path, result.unparsed.line);
  return result.changes.length > 0
    ? applyEdits(
        text,
        result.changes.flatMap((c) => c.edits),
      )
    : undefined;
}

function firstDifference(a: string, b: string): string {
  let at = 0;
  while (a[at] === b[at]) at++;
  const from = Math.max(a.lastIndexOf("\n", Math.max(0, at - 1)) + 1, at - 80);
  return `  was ${JSON.stringify(a.slice(from, at + 50))}\n  now ${JSON.stringify(b.slice(from, at + 50))}`;
}

let shown = 0;
for (const folder of positionals) {
  const root = resolve(folder);
  for (const path of findSources(root, [], root, []).paths) {
    let text: string;
    try {
      text = new TextDecoder("utf-8", { fatal: true, ignoreBOM: true }).decode(
        readFileSync(`${root}/${path}`),
      );
    } catch {
      continue;
    }
    const language = languageOfFile(path);
    if (!language) continue;
    const { id } = language;
    if (!batteries.has(id)) batteries.set(id, batteryOf(id));
    for (const { name, there, back } of batteries.get(id)!) {
      if (values.only && values.only !== name) continue;
      const key = `${id} ${name}`;
      let count = counts.get(key);
      if (!count)
        counts.set(key, (count = { files: 0, bytes: 0, changes: 0, held: 0, different: 0, worse: 0 }));
      const middle = await after(there, path, text, count);
      if (unparsed.has(path)) break;
      count.files++;
      count.bytes += Buffer.byteLength(text);
      if (middle === undefined) continue;
      if (countErrors(middle, language) > countErrors(text, language)) count.worse++;
      const end = back ? ((await after(back, path, middle, count)) ?? middle) : middle;
      if (end === text) continue;
      count.different++;
      if (shown++ < Number(values.show)) console.log(`${key}: ${path}\n${firstDifference(text, end)}`);
    }
  }
}
console.log("language and pair | files | MB | changes | held back | not identical | parse worse");
for (const [key, c] of [...counts].sort()) {
  const cells = [c.files, (c.bytes / 1e6).toFixed(1), c.changes, c.held, c.different, c.worse];
  console.log([key, ...cells].join(" | "));
}
console.log(
  `left alone for a syntax error: ${unparsed.size} files; ${partly.size} more but for sound functions`,
);
for (const [reason, n] of [...reasons].sort((a, b) => b[1] - a[1]).slice(0, 12))
  console.log(`${n} × ${reason}`);
