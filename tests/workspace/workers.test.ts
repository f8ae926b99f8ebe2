import { cpSync } from "node:fs";
import { Workspace } from "uvran/workspace";
import { Sandbox } from "../cli/run.js";

const examine = async (sandbox: Sandbox, workers: number) =>
  (await Workspace.open(sandbox.root, { workers })).examine();

test("any number of workers gives the same plan and survey", async () => {
  const sandbox = new Sandbox();
  cpSync("tests/golden/families", sandbox.path("golden"), { recursive: true });
  const alone = await examine(sandbox, 1);
  expect(alone.plan.changes.length).toBeGreaterThan(20);
  for (const workers of [3]) {
    const { plan, survey } = await examine(sandbox, workers);
    expect(JSON.stringify(plan)).toBe(JSON.stringify(alone.plan));
    expect({ ...survey, rules: [] }).toEqual({ ...alone.survey, rules: [] });
  }
});

test("what threads have found is worked out again when it does not hold any more", async () => {
  const uses = "class Yard {\n  Hive F(Hive a, Hive b) {\n    return a != null ? a : b;\n  }\n}\n";
  const sandbox = new Sandbox({
    "a.cs": uses,
    "b.cs": "class Hive { public int Weight; }\n",
    "c.js": "f();\n",
  });
  const workspace = await Workspace.open(sandbox.root, { workers: 2 });
  const trusts = async () => (await workspace.examine()).plan.changes.map(({ path, trust }) => [path, trust]);
  expect(await trusts()).toEqual([["a.cs", "certain"]]);
  sandbox.write(
    "b.cs",
    "class Hive {\n  public static bool operator ==(Hive a, Hive b) { return true; }\n}\n",
  );
  expect(await trusts()).toEqual([]);
});

test("a config that only fails in a thread is said, with what to do", () => {
  const sandbox = new Sandbox({
    "uvran.config.ts": `import { isMainThread } from "node:worker_threads";
    if (!isMainThread) throw new Error("not here");
    export default {};\n`,
    "a.js": "f();\n",
    "b.js": "f();\n",
  });
  const { exit, err } = sandbox.uvran("survey", "--workers", "2");
  expect(exit).toBe(1);
  expect(err).toMatch(
    /^Files cannot be worked out on several cores: .*not here.*Use one with: --workers 1\n$/s,
  );
  expect(sandbox.uvran("survey", "--workers", "1").exit).toBe(0);
});

/** A rule that breaks down in one file. */
const config = (breakdown: string): string => `import { javascript, pack, rule, holes } from "uvran";
const { list } = holes({ list: "expression" });
const own = rule({
  id: "javascript/own", kind: "idiom", title: "Own", why: "It is old.", was: javascript\`old(\${list})\`,
  where: [(match) => { if (match.around.path === "bad.js") { ${breakdown} } return true; }],
  becomes: javascript\`now(\${list})\`, trials: [],
});
export default { packs: [pack("own", [own])], secondsPerFile: 1 };
console.log("the config says this once");
`;

test.each([
  ["ends its thread", "process.exit(3);", /^given up: .*exited with code: 3/],
  ["never ends", "for (;;);", /^given up after 7 s, in which it could not be interrupted$/],
])("a rule that %s costs one file, which is named", async (_what, breakdown, says) => {
  const sandbox = new Sandbox({ "uvran.config.ts": config(breakdown) });
  const names = ["a", "b", "bad", "c", "d"].map((name) => `${name}.js`);
  for (const name of names) sandbox.write(name, "old(1);\n");
  const { plan, survey } = await examine(sandbox, 2);
  expect(plan.changes.map(({ path }) => path)).toEqual(names.filter((name) => name !== "bad.js"));
  expect(survey.failures).toEqual([{ path: "bad.js", says: expect.stringMatching(says) }]);
});

test("the command line takes a number of workers, and says what a config prints once", () => {
  const sandbox = new Sandbox({ "uvran.config.ts": config(""), "a.js": "old(1);\n", "b.js": "old(2);\n" });
  const { out, exit } = sandbox.uvran("survey", "--workers", "2");
  expect(exit).toBe(0);
  expect(out.match(/the config says this once/g)).toHaveLength(1);
  expect(out).toContain("2 places to modernise");
  const wrong = sandbox.uvran("survey", "--workers", "0");
  expect(wrong.exit).toBe(2);
  expect(wrong.err).toContain("Write a number from 1 to 999.");
});
