import { cpSync, readFileSync, rmSync } from "node:fs";
import { join, resolve } from "node:path";
import { runTrials, tableFaults } from "uvran/core";
import { goalIn, loadProject } from "uvran/node";
import { Workspace } from "uvran/workspace";
import { Sandbox } from "./run.js";

/** The made-up framework with its versions, and the programs that are written for the oldest. */
function yards(): Sandbox {
  const sandbox = new Sandbox();
  cpSync("examples/combwork", sandbox.root, { recursive: true });
  return sandbox;
}

const JITI = resolve("node_modules/.bin/jiti");
const TSC = resolve("node_modules/.bin/tsc");

interface Yard {
  readonly folder: string;
  install(sandbox: Sandbox, version: string): void;
  run(sandbox: Sandbox, version: string): string;
}

const PYTHON: Yard = {
  folder: "yard-py",
  install: (sandbox, version) => sandbox.write("yard-py/requirements.txt", `combwork==${version}\n`),
  run: (sandbox, version) => {
    const { out, err } = sandbox
      .below("yard-py")
      .run("env", `PYTHONPATH=../python/${version}`, "python3", "-B", "main.py");
    return out + err;
  },
};

const TYPESCRIPT: Yard = {
  folder: "yard-ts",
  install: (sandbox, version) => {
    const installed = sandbox.path("yard-ts/node_modules/combwork");
    rmSync(installed, { recursive: true, force: true });
    cpSync(join("examples/combwork/typescript", version), installed, { recursive: true });
    const manifest = readFileSync(sandbox.path("yard-ts/package.json"), "utf8");
    sandbox.write("yard-ts/package.json", manifest.replace(/\^[\d.]+/, `^${version}.0`));
  },
  run: (sandbox) => {
    const yard = sandbox.below("yard-ts");
    return yard.run(TSC, "-p", ".").out + yard.run(JITI, "main.ts").out;
  },
};

test.each([PYTHON, TYPESCRIPT])(
  "$folder goes from one version of its framework to the next, and prints the same",
  ({ folder, install, run }) => {
    const sandbox = yards();
    install(sandbox, "1.4");
    const before = run(sandbox, "1.4");
    expect(before).toMatch(/^5 frames in Clover, Heather, Linden\n(.*\n)+drained: 2000\n$/);

    const survey = sandbox.below(folder).uvran("survey", "--to", "combwork@3.0");
    expect(survey.out).toMatch(/^combwork from 1\.4 \(by [\w.]+\) to 3\.0, through 2\.0\n/);
    expect(survey.out).toMatch(/\n2\.0 +8 +8 +0 +0 .*\n3\.0 +6 +5 +0 +1 /);
    expect(survey.out).toContain("work           13 automatic, 0 to review, 1 by hand: about 0.4 hours");

    const first = sandbox.below(folder).uvran("propose", "--to", "combwork@3.0");
    expect(first.err).toContain("combwork 3.0 is reached through 2.0: this plan goes to 2.0.");
    sandbox.uvran("apply");
    install(sandbox, "2.0");
    expect(run(sandbox, "2.0")).toBe(before);

    const second = sandbox.uvran("propose", "--to", "combwork@3.0");
    expect(second.err).not.toContain("is reached through");
    expect(second.out).toContain("Add up the mass, and take the frames out yourself.");
    sandbox.uvran("apply");
    install(sandbox, "3.0");
    // What the survey said is to be done by hand.
    const main = folder === "yard-py" ? "yard-py/main.py" : "yard-ts/main.ts";
    const byHand = sandbox
      .read(main)
      .replace(/drain\((hives\[1\]!?)\)/, "$1.mass()")
      .replace(/\bdrain, /, "");
    sandbox.write(main, byHand);
    expect(run(sandbox, "3.0")).toBe(before);
    expect(sandbox.uvran("survey", "--to", "combwork@3.0").out).toMatch(
      /^combwork is at 3(\.0)? .*\n\n0 places/,
    );
  },
);

test("the tables of the framework have no faults of their own", async () => {
  for (const folder of ["yard-py", "yard-ts"]) {
    const [table] = (await loadProject(resolve("examples/combwork", folder))).tables;
    expect(table!.rules.length).toBeGreaterThan(9);
    for (const rule of table!.rules)
      for (const { failure } of await runTrials(rule))
        expect([rule.id, failure]).toEqual([rule.id, undefined]);
    expect(await tableFaults(table!)).toEqual([]);
  }
  const { out, exit } = yards().below("yard-py").uvran("rules", "python/combwork-frame", "--try");
  expect([out, exit]).toEqual(["passed  python/combwork-frame  1 trial\n", 0]);
});

const TABLE = `
product: combwork
language: python
module: combwork
rows:
  - old: drain(…)
    from: drain
    since: "2.0"
    advice: Take the frames out.
    note: It is gone.
    example: { old: "from combwork import drain\\ndrain(1)" }
`;

const CODE = "from combwork import drain\n\ndrain(1)\n";

function project(files: Record<string, string>): Sandbox {
  return new Sandbox({
    "moves.yaml": TABLE,
    "uvran.config.json": JSON.stringify({ tables: ["moves.yaml"] }),
    "a.py": CODE,
    ...files,
  });
}

test("rules of a table are on from the version on that they are for", () => {
  const old = project({ "requirements.txt": "combwork==1.9\n" });
  expect(old.uvran("survey").out).toMatch(/^combwork is at 1\.9 \(by requirements\.txt\)\n\n0 places/);
  expect(old.uvran("survey").out).not.toContain("python/combwork-drain");
  expect(project({ "requirements.txt": "combwork>=2.1\n" }).uvran("survey").out).toContain(
    "python/combwork-drain",
  );
  const unsaid = project({});
  expect(unsaid.uvran("survey").out).toContain("combwork is at a version that nothing names");
  // What rests on a version that is only assumed is not certain.
  const [advice] = JSON.parse(unsaid.uvran("survey", "--json").out).advice;
  expect(advice).toMatchObject({ rule: "python/combwork-drain", trust: "likely" });
});

test("each folder has the rules for the version that it has", () => {
  const sandbox = project({
    "requirements.txt": "combwork==2.1\n",
    "old/requirements.txt": "combwork==1.9\n",
    "old/a.py": CODE,
    "old/deep/a.py": CODE,
    "new/pyproject.toml": '[project]\ndependencies = ["combwork>=3"]\n',
    "new/a.py": CODE,
  });
  const { out } = sandbox.uvran("survey");
  expect(out).toContain(
    "combwork is at 1.9 (by old/requirements.txt), 2.1 (by requirements.txt), 3 (by new/pyproject.toml)\n",
  );
  const found = JSON.parse(sandbox.uvran("survey", "--json").out) as {
    advice: { path: string; trust: string }[];
  };
  expect(found.advice.map(({ path, trust }) => [path, trust])).toEqual([
    ["a.py", "certain"],
    ["new/a.py", "certain"],
  ]);
  expect(sandbox.uvran("survey", "--to", "combwork@2").err).toContain(
    "combwork 2 is older than 3, which is installed by new/pyproject.toml.",
  );
});

test("two versions that one lock file has are both seen", async () => {
  const asks = (range: string): string => JSON.stringify({ dependencies: { combwork: range } });
  const packages = {
    "node_modules/combwork": { version: "2.4.0" },
    "old/node_modules/combwork": { version: "1.3.0" },
  };
  const { root } = project({
    "moves.yaml": TABLE.replace("python", "javascript"),
    "package-lock.json": JSON.stringify({ packages }),
    "package.json": asks("^2.0.0"),
    "a.js": "",
    "old/package.json": asks("^1.0.0"),
    "old/a.js": "",
  });
  const [way] = (await loadProject(root)).journeys;
  expect([way!.from, way!.elsewhere.map(({ version }) => version), way!.versionAt("old/a.js")]).toEqual([
    "1.3",
    ["2.4"],
    "1.3.0",
  ]);
});

test("a rule that is asked for by name is no surer of the version, and its plan can be made again", async () => {
  const sandbox = project({});
  const only = await Workspace.open(sandbox.root, { rules: ["python/combwork-drain"] });
  expect((await only.examine()).survey.advice.map(({ trust }) => trust)).toEqual(["likely"]);
  sandbox.write("requirements.txt", "combwork==1.9\n");
  const older = await Workspace.open(sandbox.root, { rules: ["python/combwork-drain"] });
  expect((await older.examine()).survey.advice).toEqual([]);
  const moving = await Workspace.open(sandbox.root, { goal: goalIn("combwork@2.0") });
  const { plan } = await moving.propose();
  expect([plan.asked?.to, plan.advice.length]).toEqual(["combwork@2.0", 1]);
  const again = await (await Workspace.open(sandbox.root)).proposeAgain(plan);
  expect(again.plan.advice).toEqual(plan.advice);
  expect(sandbox.uvran("rules").out).not.toMatch(/on +python\/combwork-drain/);
  sandbox.write("requirements.txt", "combwork==2.0\n");
  expect(sandbox.uvran("rules").out).toMatch(/on +python\/combwork-drain/);
});

const BAD: [what: string, files: Record<string, string>, to: string | undefined, says: string][] = [
  ["a product without a table", {}, "hive@2", 'Nothing is known of "hive": there are tables for combwork.'],
  [
    "an older goal",
    { "requirements.txt": "combwork==3.0\n" },
    "combwork@2",
    "combwork 2 is older than 3, which is installed by requirements.txt. Name a newer version.",
  ],
  ["a manifest that is broken", { "Pipfile.lock": "{" }, undefined, "Pipfile.lock cannot be read"],
  [
    "a table that is not there",
    { "uvran.config.json": '{"tables":["none.yaml"]}' },
    undefined,
    "none.yaml cannot be read",
  ],
  ["a table that is no YAML", { "moves.yaml": "rows: [\n" }, undefined, "moves.yaml:2:1: this is no YAML"],
  [
    "a table with a typo",
    { "moves.yaml": TABLE.replace("advice", "advise") },
    undefined,
    'moves.yaml: table "combwork", row 1',
  ],
  [
    "code that does not parse",
    { "moves.yaml": TABLE.replace("old: drain(…)", "old: drain(a") },
    undefined,
    'moves.yaml: table "combwork", row 1, old: This Python snippet has a syntax error',
  ],
  [
    "what would parse in its place",
    { "moves.yaml": TABLE.replace("old: drain(…)", 'old: "@drain(…)"') },
    undefined,
    "This would parse: @drain(…)\nclass A: pass",
  ],
  [
    "JSON that is none",
    { "uvran.config.json": '{"tables":["a.json"]}', "a.json": "{" },
    undefined,
    "a.json is no JSON",
  ],
];

test.each(BAD)("%s is named", async (_, files, to, says) => {
  const opened = loadProject(project(files).root, { goal: to === undefined ? undefined : goalIn(to) });
  await expect(opened).rejects.toThrow(says);
});

test("a goal that is none is named, with the right exit code", () => {
  const { exit, err } = project({}).uvran("survey", "--to", "combwork");
  expect(err).toBe('"combwork" names no product and version. Write it like this: combwork@3.0\n');
  expect(exit).toBe(2);
});

test("a lock file that has less than the manifest asks for is named", () => {
  const sandbox = new Sandbox({
    "moves.yaml": TABLE.replace("python", "typescript"),
    "uvran.config.json": JSON.stringify({ tables: ["moves.yaml"] }),
    "package.json": JSON.stringify({ dependencies: { combwork: "^2.0.0" } }),
    "package-lock.json": JSON.stringify({ packages: { "node_modules/combwork": { version: "1.2.0" } } }),
    "a.ts": "export {};\n",
  });
  const { out } = sandbox.uvran("survey");
  expect(out).toContain("combwork is at 1.2 (by package-lock.json)");
  expect(out).toContain("The lock file disagrees: ^2.0.0 by package.json asks for more than it has.");
  sandbox.write("package.json", "{");
  expect(sandbox.uvran("survey").err).toContain("package.json cannot be read");
});
