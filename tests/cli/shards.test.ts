import { spawnSync } from "node:child_process";
import { readFileSync, writeFileSync } from "node:fs";
import { Workspace, type Task } from "uvran/workspace";
import { Sandbox } from "./run.js";

/** Makes a plan that is written to a file beside the sandbox; gives the file. */
async function proposed(sandbox: Sandbox, name: string, task: Task = {}, rules?: string[]): Promise<string> {
  const file = `${sandbox.root}-${name}.json`;
  const workspace = await Workspace.open(sandbox.root, rules ? { rules } : {});
  const { plan } = await workspace.propose(task);
  writeFileSync(file, JSON.stringify(plan, null, 1) + "\n");
  return file;
}

async function shardsOf(sandbox: Sandbox, of: number): Promise<string[]> {
  const files = [];
  for (let number = 1; number <= of; number++)
    files.push(await proposed(sandbox, `${number}`, { shard: { number, of } }));
  return files;
}

const contents = (file: string): string => readFileSync(file, "utf8");

/** Two rules that want the same text of `b.py`: which of their changes is held back is decided over all files together. */
const RIVALS = {
  "uvran.config.ts": `import { holes, pack, renamed, rule, python } from "uvran";
const { name, body, a, b } = holes({ name: "name", body: "statements", a: "expression", b: "expression" });
const said = { kind: "idiom", title: "Own", why: "It is old.", trials: [] };
export default { packs: [pack("own", [
  rule({ ...said, id: "python/snake-name",
    was: python\`
      def \${name}():
          \${body}
    \`,
    where: [(match) => /[A-Z]/.test(match.textOf(name))],
    uses: renamed(name, (match) => match.textOf(name).toLowerCase()) }),
  rule({ ...said, id: "python/turned", was: python\`turn(\${a}, \${b})\`, becomes: python\`turned(\${b}, \${a})\` }),
])] };
`,
  "a.py": "def countAll():\n    return 1\n",
  "b.py": "from a import countAll\n\nturn(countAll(), 2)\n",
  "c.py": "turn(1, 2)\n",
  "d.py": "def weighAll():\n    return 1\n",
};

test.each([
  ["the demo", () => Sandbox.demo(), 4],
  ["changes of several files that want the same text", () => new Sandbox(RIVALS), 3],
])("shards make the plan of one machine, byte for byte, in any order: %s", async (_what, made, of) => {
  const sandbox = made();
  const whole = await proposed(sandbox, "whole");
  const shards = await shardsOf(sandbox, of);
  const sizes = shards.map((file) => JSON.parse(contents(file)).changes.length as number);
  expect(sizes.filter((size) => size > 0).length).toBeGreaterThan(1);
  const { err, exit } = sandbox.uvran("join", ...shards.reverse());
  expect(exit).toBe(0);
  expect(err).toMatch(/^\d+ changes in the plan at .uvran\/plan.json. \d+ of them certain. Next: /);
  expect(sandbox.read(".uvran/plan.json")).toBe(contents(whole));
});

test("one of two rival changes is held back by the plan, whoever found them", async () => {
  const sandbox = new Sandbox(RIVALS);
  const shards = await shardsOf(sandbox, 3);
  sandbox.uvran("join", ...shards);
  const { changes, heldBack } = JSON.parse(sandbox.read(".uvran/plan.json"));
  expect(changes).toHaveLength(3);
  expect(heldBack).toMatchObject([{ code: "edit.clash" }]);
});

test("plans that do not belong together are refused, with what is wrong and nothing stored", async () => {
  const sandbox = new Sandbox({ "a.py": "x = {}\ny = x['a'] if 'a' in x else 1\n", "b.py": "z = 1\n" });
  const shards = await shardsOf(sandbox, 3);
  const whole = await proposed(sandbox, "whole");
  const other = await proposed(sandbox, "other", { shard: { number: 1, of: 2 } });
  const narrow = await proposed(sandbox, "narrow", { shard: { number: 2, of: 3 } }, ["python/pairs"]);
  const [one, two, three] = shards as [string, string, string];
  const says = (...files: string[]): string => {
    const { exit, err } = sandbox.uvran("join", ...files);
    expect(exit).toBe(2);
    return err.replaceAll(`${sandbox.root}-`, "");
  };
  const before = sandbox.read(".uvran/plan.json");
  expect(says(one, three)).toBe("Not all shards are there: 2/3 missing. Name their plans too.\n");
  expect(says(one, two, three, three)).toBe("3.json and 3.json are both shard 3/3.\n");
  expect(says(one, whole)).toBe("whole.json is no shard, and the others are. Join shards with shards.\n");
  expect(says(one, other)).toBe("other.json is one of 2 shards, and 1.json one of 3.\n");
  expect(says(one, narrow, three)).toMatch(/^The plans were not asked for the same: rules differ in /);
  expect(says("nothing.json")).toContain("There is no plan at nothing.json.");
  expect(sandbox.read(".uvran/plan.json")).toBe(before);
  const { exit, err } = sandbox.uvran("apply", "--plan", one);
  expect(exit).toBe(2);
  expect(err).toContain("is shard 1/3 only. Put all of them together with: uvran join PLAN…");
});

test("plans for different paths are one plan, in which what both have is there once", async () => {
  const line = "x = {}\ny = x['a'] if 'a' in x else 1\n";
  const sandbox = new Sandbox({ "a/a.py": line, "b/b.py": line, "c/c.py": line });
  const both = await proposed(sandbox, "both", { paths: ["a", "b"] });
  const parts = [
    await proposed(sandbox, "one", { paths: ["a", "b"] }),
    await proposed(sandbox, "two", { paths: ["b"] }),
  ];
  sandbox.uvran("join", ...parts);
  expect(sandbox.read(".uvran/plan.json")).toBe(contents(both));
  const spoilt = JSON.parse(contents(parts[1]!));
  spoilt.files["b/b.py"] = "0".repeat(64);
  writeFileSync(parts[1]!, JSON.stringify(spoilt));
  expect(sandbox.uvran("join", ...parts).err).toContain("were made for different states of b/b.py");
});

test("a plan for changed lines has only those, and is made again for the same", () => {
  const old = "x = {}\ny = x['a'] if 'a' in x else 1\n";
  const sandbox = new Sandbox({ "a.py": old, "b.py": old });
  const git = (...args: string[]) => spawnSync("git", args, { cwd: sandbox.root });
  git("init", "-q");
  git("add", "-A");
  git("-c", "user.name=A", "-c", "user.email=a@thistledown.test", "commit", "-qm", "old");
  sandbox.write("a.py", `${old}z = x['b'] if 'b' in x else 2\n`);
  const { asked, changes } = JSON.parse(sandbox.uvran("propose", "--since", "HEAD", "--json").out);
  expect(asked).toEqual({ since: "HEAD" });
  expect(changes.map(({ path, line }: { path: string; line: number }) => `${path}:${line}`)).toEqual([
    "a.py:3",
  ]);
  expect(sandbox.uvran("survey", "--hold-line", "--shard", "1/2").err).toContain("no --shard");
});
