import { existsSync } from "node:fs";
import { loadProject } from "uvran/node";
import { Workspace, type Examples } from "uvran/workspace";
import { Sandbox } from "../cli/run.js";
import { testWith } from "../toolchains.js";
import { planned, processesWith } from "./project.js";

async function compared(files: Readonly<Record<string, string>>, rules = {}): Promise<Examples> {
  const { root } = new Sandbox({ ...files, "uvran.config.json": JSON.stringify({ rules }) });
  const workspace = new Workspace(await loadProject(root));
  await workspace.propose();
  return workspace.compareByExample(await workspace.sides({ trust: "possible" }), {
    marks: false,
    tries: 300,
  });
}

const named = ({ tried }: Examples): Record<string, string> =>
  Object.fromEntries(tried.map(({ name, difference }) => [name, difference?.what ?? "same"]));

test("functions of JavaScript: the smallest input that makes a difference, as a program; or the same", async () => {
  const examples = await compared({
    "lots.js": `
const remark = (text) => text || "none";
function queen(hive) { return hive && hive.queen; }
function isStrong(hive) { if (hive && hive.frames && hive.frames.length > 5) return "strong"; return "weak"; }
function names(hives) { return hives.map((hive) => hive.name || "no name"); }
function fill(jar) { jar.label = jar.tag || "plain"; }
function tell(log, text) { log(text || "nothing"); console.log(text || "nothing"); }
module.exports = { remark, queen, fresh() { return Date.now() || 0; }, later: async (x) => x || 1 };
`,
  });
  expect(named(examples)).toEqual({
    remark: "the result",
    queen: "the result",
    isStrong: "same",
    names: "the result",
    fill: "its arguments afterwards",
    tell: "what it prints",
    "module.exports.fresh": "same",
    "module.exports.later": "the result",
  });
  const first = examples.tried.find(({ name }) => name === "remark");
  expect(first!.difference!.program).toMatch(
    /^const \{ remark \} = require\("\.\/lots\.js"\);\nconsole\.log\(remark\((?:0|""|NaN|false)\)\);$/,
  );
});

test("types say what may be given: a right change for them makes no difference", async () => {
  const examples = await compared({
    "tsconfig.json": '{"compilerOptions":{"strict":true,"module":"nodenext"}}',
    "package.json": '{"type":"module"}',
    "hives.ts": `
interface Hive { readonly queen?: { readonly name: string } | null; readonly frames: readonly string[]; kind: "log" | "box" }
export function queenOf(hive: Hive): string | undefined { return hive.queen ? hive.queen.name : undefined; }
export const frames = (hive: Hive | null): readonly string[] => (hive && hive.frames) || [];
export const kinds = (all: Hive[] | null): string => (all || []).map((hive) => hive.kind || "box").join();
export const count = (jars: number | null): number => jars || 12;
export class Scale { weigh(jar: { grams?: number }): number { return jar.grams || 0; } }
`,
  });
  const found = named(examples);
  expect(found).toMatchObject({ queenOf: "same" });
  for (const what of Object.values(found)) expect(what).toBe("same");
  expect(examples.untried.every(({ why }) => why === "it is in a class")).toBe(true);
});

testWith(["python3"], "functions of Python, by annotation, default and use", async () => {
  const examples = await compared(
    {
      "hives.py": `
import os

def label(lot: str, note: str | None = None) -> str:
    if note is None:
        note = "none"
    return f"{lot}: {note}"

def value(weights, key):
    if key in weights:
        found = weights[key]
    else:
        found = 0
    return found

def listed(frames):
    for i in range(len(frames)):
        print(i, frames[i])

def kept(hive):
    if hive.queen is not None:
        name = hive.queen
    else:
        name = "no queen"
    return name

def inner():
    def deep(x=None):
        if x is None:
            x = "none"
        return x
    return deep()
`,
    },
    { "python/none-to-default": true },
  );
  const found = named(examples);
  expect(found).toMatchObject({ label: "same", listed: "same", kept: "same" });
  for (const { inputs, results } of examples.tried.filter(({ difference }) => !difference)) {
    expect(inputs).toBeGreaterThan(250);
    expect(results).toBeGreaterThan(20);
  }
});

test("what a function must not do, it cannot: write, start others, reach out, go on for ever", async () => {
  const sandbox = new Sandbox();
  const outside = sandbox.path("written-by-a-function");
  const examples = await compared({
    "bad.js": `
const fs = require("node:fs");
const { spawn } = require("node:child_process");
const net = require("node:net");
exports.writes = (x) => { try { fs.writeFileSync(${JSON.stringify(outside)}, "x"); return "wrote"; } catch { return x && x.y; } };
exports.starts = (x) => { try { spawn("sleep", ["424242"]); return "started"; } catch { return x && x.y; } };
exports.calls = (x) => { try { net.connect(80, "127.0.0.1"); return "reached"; } catch { return x && x.y; } };
exports.turns = (x) => { if (x === 0) for (;;); return x && x.y; };
`,
  });
  // None came to its "wrote", so each shows the difference of what comes behind.
  expect(named(examples)).toEqual(
    Object.fromEntries(
      ["writes", "starts", "calls", "turns"].map((name) => [`exports.${name}`, "the result"]),
    ),
  );
  expect([existsSync(outside), processesWith("424242")]).toEqual([false, []]);
});

test("on the command line: what is different is marked, and what could not be tried is said", () => {
  const sandbox = planned(
    {
      "a.js":
        'exports.remark = (text) => text || "none";\nexports.weight = (lot) => (lot && lot.weight) || 0;\n',
      "b.js": 'require("./gone");\nexports.remark = (text) => text || "none";\n',
      "c.js": 'class Jar { label(text) { return text || "none"; } }\nconst x = process.argv[2] || "x";\n',
      "d.rb": "x = y.nil? ? 1 : y\n",
    },
    [],
  );
  const { out, exit } = sandbox.uvran("prove", "--by-example", "--trust", "possible", "--tries", "100");
  expect(exit).toBe(1);
  expect(out).toMatch(
    /^different  a\.js:1  exports\.remark  the result\n +const \{ remark \} = require\("\.\/a\.js"\);\n/m,
  );
  expect(out).toContain("old  'none'");
  expect(out).toMatch(/its module cannot be loaded: Cannot find module '\.\/gone'  b\.js:2/);
  expect(out).toMatch(/it is in a class  c\.js:1/);
  expect(out).toMatch(/it is in no function  c\.js:2/);
  expect(sandbox.uvran("review", "--list", "a.js").out).toContain(
    'Set aside by prove: "by example: exports.remark" is different with this change.',
  );
  expect(sandbox.uvran("prove", "--tries", "9").err).toContain(
    "only means something together with --by-example",
  );
});

test("checks are suggested from manifests; what is suggested is in order, and runs", () => {
  const sandbox = new Sandbox({
    "package.json": '{"scripts":{"test":"node --test","build":"tsc -b"},"devDependencies":{}}',
    "market/tsconfig.json": "{}",
    "market/a.ts": "export const a = 1;\n",
    "hives.test.js": 'require("node:test")("weighs", () => {});\n',
    "pyproject.toml": "[tool.pytest.ini_options]\n",
    "apiary/hives.py": "x = 1\n",
    "pom.xml": "<project/>",
    "ledger/Ledger.java": "class Ledger {}\n",
    "CMakeLists.txt": "enable_testing()\n",
    "queens/hive.cpp": "int x;\n",
    "phpunit.xml": "<phpunit/>",
    "notices.php": "<?php\n",
    Rakefile: "Rake::TestTask.new\n",
    "kiosk.rb": "x = 1\n",
  });
  const { out, err, exit } = sandbox.uvran("prove", "--suggest");
  expect([exit, err]).toEqual([0, "To keep it: uvran prove --suggest --out uvran.config.ts\n"]);
  expect(
    [...out.matchAll(/name: "([^"]+)", run: "([^"]+)"/g)].map(([, name, run]) => `${name}: ${run}`),
  ).toEqual([
    "types market: tsc -p market --noEmit",
    "tests: npm test",
    "builds: npm run build",
    "Python compiles: python3 -m compileall -q -f .",
    "Python tests: python3 -m pytest -q",
    "Java tests: mvn -B test",
    "C++ builds: cmake -S . -B .built && cmake --build .built",
    "C++ tests: ctest --test-dir .built",
    "PHP compiles: find . -name '*.php' -not -path './vendor/*' -print0 | xargs -0 -n 1 php -l",
    "PHP tests: phpunit",
    "Ruby compiles: find . -name '*.rb' -not -path './vendor/*' -print0 | xargs -0 -n 1 ruby -c",
    "Ruby tests: rake test",
  ]);
  expect(sandbox.uvran("prove", "--suggest", "--out", "uvran.config.ts").exit).toBe(0);
  sandbox.write("a.js", "if (hive && hive.queen) mark(hive);\n");
  sandbox.uvran("propose");
  expect(sandbox.uvran("prove", "--check", "tests").out).toMatch(/^same +tests +1 test passed/);
  expect(sandbox.uvran("prove", "--suggest").err).toContain("Put what you want of it into");
  expect(new Sandbox({ "a.txt": "" }).uvran("prove", "--suggest").exit).toBe(1);
});
