/**
 * How the time for one file grows with its size and its number of changes, as ratios measured in one run:
 *
 *   npx jiti bench/growth.ts [NAME…]
 *
 * Each row is twice as long as the one before it; work that is in step with the size takes twice as long.
 */
import { performance } from "node:perf_hooks";
import { changesInFile, Engine, languageOfFile, parse } from "uvran/core";
import "uvran/node";
import { SHIPPED } from "uvran/packs";

interface Case {
  /** Where it is deeper and not longer, the numbers of levels to try. */
  readonly counts?: readonly number[];
  readonly what: string;
  readonly path: string;
  /** A file with so many of the same thing in it. */
  text(count: number): string;
}

const block = (path: string, what: string, unit: (i: number) => string, head = "", tail = ""): Case => ({
  path,
  what,
  text: (count) => head + Array.from({ length: count }, (_, i) => unit(i)).join("") + tail,
});

const DEPTHS = (process.env["DEPTHS"] ?? "50,100,200,400,800").split(",").map(Number);

const CASES: readonly Case[] = [
  block(
    "plain.py",
    "one change in each function",
    (i) =>
      `def f${i}(hive):\n    log = open("log${i}")\n    text = log.read()\n    log.close()\n    return text\n\n`,
  ),
  block(
    "comments.py",
    "a comment in each match",
    (i) =>
      `def f${i}(hive):\n    log = open("log${i}")  # the log\n    # read it\n    text = log.read()\n    log.close()\n    return text\n\n`,
  ),
  block(
    "plain.js",
    "one change in each line",
    (i) =>
      `const jar${i} = shelf.lots.a${i} !== null && shelf.lots.a${i} !== undefined ? shelf.lots.a${i} : ${i};\n`,
    `const shelf = { lots: {} };\n`,
  ),
  block(
    "comments.js",
    "a comment in each match, one function",
    (i) => `  if (lot${i}) {\n    // number ${i}\n    lot${i}.fill();\n  }\n`,
    `export function fill(${Array.from({ length: 50 }, (_, i) => `lot${i}`).join(", ")}) {\n`,
    "}\n",
  ),
  block(
    "joins.js",
    "matches that appear in a second pass",
    (i) => `function f${i}(a) {\n  if (a && a.b && a.b.c) {\n    a.b.c.d${i}();\n  }\n}\n`,
  ),
  block(
    "Plain.java",
    "one change in each method",
    (i) =>
      `  int f${i}(Map<String, List<String>> jars, String key) {\n    if (!jars.containsKey(key)) {\n      jars.put(key, new ArrayList<>());\n    }\n    return jars.get(key).size();\n  }\n`,
    `import java.util.ArrayList;\nimport java.util.List;\nimport java.util.Map;\n\nclass Plain {\n`,
    "}\n",
  ),
  block(
    "Held.java",
    "what is held back in each method",
    (i) =>
      `  int f${i}(Map<String, List<String>> jars, String key) {\n    if (!jars.containsKey(key)) {\n      /* a */ jars.put(/* b */ key, /* c */ new ArrayList<>()); // d\n    }\n    return jars.get(key).size();\n  }\n`,
    `import java.util.ArrayList;\nimport java.util.List;\nimport java.util.Map;\n\nclass Held {\n`,
    "}\n",
  ),
  block(
    "Plain.cs",
    "one change in each line",
    (i) => `    var jar${i} = lot.Name != null ? lot.Name : "none";\n`,
    `class Plain {\n  class Lot { public string Name; }\n  void Fill(Lot lot) {\n`,
    "  }\n}\n",
  ),
  block(
    "plain.php",
    "one change in each line",
    (i) => `$jar${i} = isset($lot['a${i}']) ? $lot['a${i}'] : ${i};\n`,
    "<?php\n$lot = [];\n",
  ),
  block("plain.rb", "one change in each line", (i) => `x${i} = jar.nil? ? ${i} : jar\n`, "jar = nil\n"),
  block(
    "plain.cpp",
    "one change in each function",
    (i) => `void f${i}() {\n  Hive* hive = new Hive();\n  hive->open();\n  delete hive;\n}\n`,
    "#include <memory>\nstruct Hive { void open(); };\n",
  ),
  block("plain.ps1", "one change in each line", (i) => `if ($lot -eq $null) { $x = ${i} }\n`, "$lot = 1\n"),
  nested(
    "nested.ts",
    "choices nested in one another",
    "declare const d: any, a: any;\nconst x = ",
    (inner, i) => `a.b${i} !== null && a.b${i} !== undefined ? a.b${i} : (${inner})`,
  ),
  nested(
    "nested.php",
    "choices nested in one another",
    "<?php\n$x = ",
    (inner, i) => `(isset($a['b${i}']) ? $a['b${i}'] : ${inner})`,
  ),
  {
    path: "chain.js",
    what: "one chain of operands",
    counts: DEPTHS,
    text: (count) =>
      `const ok = a && ${Array.from({ length: count }, (_, i) => `a.b${i} && a.b${i}.c`).join(" && ")};\n`,
  },
  {
    path: "arguments.py",
    what: "a call with many arguments",
    counts: DEPTHS,
    text: (count) =>
      `x = f(${Array.from({ length: count }, (_, i) => `a${i} if a${i} is not None else ${i}`).join(", ")})\n`,
  },
];

/** Code in code in code, so many levels deep. */
function nested(
  path: string,
  what: string,
  head: string,
  around: (inner: string, i: number) => string,
): Case {
  const text = (count: number): string => {
    let code = "0";
    for (let i = 0; i < count; i++) code = around(code, i);
    return `${head}${code};\n`;
  };
  return { path, what, text, counts: DEPTHS };
}

const rules = SHIPPED.flatMap((pack) => pack.rules).filter(({ taste }) => !taste);
const engine = new Engine(rules);
const COUNTS = (process.env["COUNTS"] ?? "625,1250,2500,5000").split(",").map(Number);
const names = process.argv.slice(2);
for (const { what, path, text, counts = COUNTS } of CASES) {
  if (names.length > 0 && !names.includes(path)) continue;
  const language = languageOfFile(path)!;
  const prepared = await engine.prepare(language);
  console.log(`\n${path}: ${what}`);
  let before: number | undefined;
  for (const count of counts) {
    const source = text(count);
    const parsing = best(() => parse(source, language));
    let changes = 0;
    let held = 0;
    const time = best(() => {
      const result = changesInFile({ path }, source, language, prepared);
      changes = result.changes.length;
      held = result.heldBack.length;
    });
    const ratio = before === undefined ? "" : `${(time / before).toFixed(2)} × half of it`;
    console.log(
      `  ${String(source.split("\n").length - 1).padStart(6)} lines ${String(changes).padStart(5)} changes ` +
        `${String(held).padStart(5)} held back ${time.toFixed(0).padStart(7)} ms  ` +
        `${(time / parsing).toFixed(1).padStart(6)} × parsing  ${ratio}`,
    );
    before = time;
    if (time > 60_000) break;
  }
}

/** The shorter of two rounds, in milliseconds; one round of what takes long. */
function best(work: () => void): number {
  const start = performance.now();
  work();
  const first = performance.now() - start;
  if (first > 3_000) return first;
  const again = performance.now();
  work();
  return Math.min(first, performance.now() - again);
}
