import { symlinkSync, mkdirSync, readFileSync, rmSync } from "node:fs";
import { resolve } from "node:path";
import { runTrials, tableFaults } from "uvran";
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

test("each row of its table does what its example says, and none gets in the way of another", async () => {
  expect(pack.rules.length).toBeGreaterThan(190);
  for (const rule of pack.rules)
    for (const { failure } of await runTrials(rule)) expect([rule.id, failure]).toEqual([rule.id, undefined]);
  expect(await tableFaults(pack)).toEqual([]);
});

test("its rules are there only where the package is", () => {
  expect(new Sandbox({ "a.js": "" }).uvran("rules").out).not.toContain("date-fns");
});
