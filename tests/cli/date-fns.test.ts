import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync, symlinkSync } from "node:fs";
import { resolve } from "node:path";
import { runTrials, tableFaults } from "uvran/core";
import pack from "uvran/packs/moves/date-fns";
import "uvran/node";
import { Sandbox } from "./run.js";

function install(sandbox: Sandbox, version: "1" | "2"): void {
  mkdirSync(sandbox.path("node_modules"), { recursive: true });
  rmSync(sandbox.path("node_modules/date-fns"), { force: true });
  symlinkSync(resolve(`node_modules/date-fns-${version}`), sandbox.path("node_modules/date-fns"));
  sandbox.write("package.json", JSON.stringify({ dependencies: { "date-fns": `^${version}.30.0` } }));
}

test("a program goes from version 1 of a package of wide use to version 2, and prints the same", () => {
  const sandbox = new Sandbox({ "rounds.js": readFileSync("tests/golden/moves/rounds.before.js") });
  const run = (): string => {
    const { out, err } = sandbox.run(process.execPath, "rounds.js");
    return out + err;
  };
  install(sandbox, "1");
  const before = run();
  expect(before.split("\n")).toHaveLength(12);
  expect(before).not.toContain("Error");

  const survey = sandbox.uvran("survey", "--to", "date-fns@2.30").out;
  expect(survey).toMatch(/^date-fns from 1\.30 \(by package\.json\) to 2\.30, through 2\.0\n/);
  // What is to be done by hand: the letters of the pattern, and a unit.
  expect(survey).toMatch(/javascript\/date-fns-format +breaks +0 +0 +0 +1 /);
  expect(survey).toMatch(/javascript\/date-fns-strict-unit +breaks +0 +0 +0 +1 /);
  sandbox.uvran("propose", "--to", "date-fns@2.30");
  sandbox.uvran("apply");
  install(sandbox, "2");
  const after = sandbox.read("rounds.js");
  expect(after).toBe(readFileSync("tests/golden/moves/rounds.after.js", "utf8"));
  sandbox.write("rounds.js", after.replace("YYYY-MM-DD", "yyyy-MM-dd").replace('"d"', '"day"'));
  expect(run()).toBe(before);
});

/** How the package's older version was brought in: by each spelling in turn. */
const SPELLINGS: ((name: string, file: string) => string)[] = [
  (name) => `var ${name} = require("date-fns").${name}`,
  (name) => `const { ${name} } = require("date-fns")`,
  (name, file) => `var ${name} = require("date-fns/${file}")`,
];

/** The examples in the package's own comments as programs that print what they come to, a file for each function. */
function documented(): Record<string, string> {
  const folder = "node_modules/date-fns-1";
  const fileOf = (name: string): string =>
    name.replace("ISO", "Iso").replace(/[A-Z]/g, (letter) => `_${letter.toLowerCase()}`);
  const files: Record<string, string> = {};
  for (const path of readdirSync(folder).filter((one) => existsSync(`${folder}/${one}/index.js`))) {
    const source = readFileSync(`${folder}/${path}/index.js`, "utf8");
    const doc = /\/\*\*([^]*?)\*\//.exec(source)?.[1] ?? "";
    const examples = [...doc.matchAll(/@example\n([^]*?)(?=\n \* ?@|\n? *$)/g)]
      .map((found) => found[1]!.replace(/^ \* ?/gm, "  ").trimEnd())
      .filter((code) => code.includes("var result ="));
    const called = new Set(
      examples.flatMap((code) => [...code.matchAll(/(?<![.\w])([a-z]\w+)\(/g)].map((one) => one[1]!)),
    );
    const names = [...called].filter((name) => existsSync(`${folder}/${fileOf(name)}/index.js`));
    if (names.length === 0) continue;
    const spelt = SPELLINGS[Object.keys(files).length % SPELLINGS.length]!;
    const head = names.map((name) => `${spelt(name, fileOf(name))}\n`).join("");
    const body = examples.map(
      (code) => `;(function () {\n${code}\n  console.log("${path}", JSON.stringify(result))\n})()\n`,
    );
    files[`${path}.js`] = `${head}\n${body.join("")}`;
  }
  return files;
}

test("the package's own examples come to the same in the next version, but for those that the survey names", () => {
  const files = documented();
  expect(Object.keys(files).length).toBeGreaterThan(140);
  const all =
    "for (const file of process.argv.slice(2)) try { require('./' + file) } catch (e) { console.log(file.replace('.js', ''), 'throws') }";
  const sandbox = new Sandbox({ ...files, ".gitignore": "all.cjs\n", "all.cjs": all });
  const run = (): Record<string, string[]> => {
    const results: Record<string, string[]> = {};
    for (const line of sandbox
      .run(process.execPath, "all.cjs", ...Object.keys(files))
      .out.trimEnd()
      .split("\n"))
      (results[line.split(" ")[0]!] ??= []).push(line);
    return results;
  };
  install(sandbox, "1");
  const before = run();
  const { places, advice, heldBack } = JSON.parse(
    sandbox.uvran("survey", "--to", "date-fns@2.30", "--json").out,
  ) as Record<"places" | "advice" | "heldBack", { path: string; trust: string }[]>;
  expect(places.every(({ trust }) => trust === "certain")).toBe(true);
  expect(places.length).toBeGreaterThan(60);
  const byHand = new Set([...advice, ...heldBack].map(({ path }) => path.replace(".js", "")));
  sandbox.uvran("propose", "--to", "date-fns@2.30");
  sandbox.uvran("apply");
  install(sandbox, "2");
  const after = run();
  const different = Object.keys(before).filter((name) => before[name]!.join() !== after[name]?.join());
  expect(different.filter((name) => !byHand.has(name))).toEqual([]);
  expect([...byHand].sort()).toEqual(["distance_in_words_strict", "format", "is_this_iso_year", "parse"]);
});

test("each row of its table does what its example says, and none gets in the way of another", async () => {
  expect(pack.rules.length).toBeGreaterThan(190);
  for (const rule of pack.rules)
    for (const { failure } of await runTrials(rule)) expect([rule.id, failure]).toEqual([rule.id, undefined]);
  expect(await tableFaults(pack)).toEqual([]);
});

test("its rules are there only where the package is", () => {
  expect(new Sandbox({ "a.js": "" }).uvran("rules").out).not.toContain("date-fns");
});
