import { NEW_JS, OLD_JS, Sandbox } from "./run.js";

function repository(files: Record<string, string>): Sandbox {
  const sandbox = new Sandbox(files);
  sandbox.run("git", "init", "-q", "-b", "main");
  commit(sandbox, "first");
  return sandbox;
}

function commit(sandbox: Sandbox, message: string): void {
  sandbox.run("git", "add", "-A");
  sandbox.run(
    "git",
    "-c",
    "user.name=Bee",
    "-c",
    "user.email=bee@example.org",
    "commit",
    "-q",
    "-m",
    message,
  );
}

test("a line is held: more places fail, fewer are recorded when asked for", () => {
  const sandbox = repository({ "src/a.js": OLD_JS + OLD_JS, "src/b.js": NEW_JS });
  const first = sandbox.uvran("survey", "--hold-line");
  expect(first.exit).toBe(0);
  expect(first.err).toContain("2 places recorded in .uvran/line.jsonl.");
  const line = '{"rule":"javascript/guarded-read","folder":"src","places":2}\n';
  expect(sandbox.read(".uvran/line.jsonl")).toBe(line);
  expect(sandbox.run("git", "status", "--short", "-uall").out).toBe(
    "?? .uvran/.gitattributes\n?? .uvran/line.jsonl\n",
  );
  expect(sandbox.uvran("survey", "--hold-line").exit).toBe(0);

  sandbox.write("src/b.js", OLD_JS);
  const risen = sandbox.uvran("survey", "--hold-line", "--tighten");
  expect(risen.err).toBe("more places  src  javascript/guarded-read: 2 recorded, 3 now\n");
  expect(risen.exit).toBe(1);
  expect(sandbox.read(".uvran/line.jsonl")).toBe(line);

  sandbox.write("src/a.js", NEW_JS);
  const fallen = sandbox.uvran("survey", "--hold-line");
  expect([fallen.exit, fallen.err]).toEqual([
    0,
    "1 place fewer than recorded. Hold that with: uvran survey --hold-line --tighten\n",
  ]);
  expect(sandbox.uvran("survey", "--hold-line", "--tighten").err).toBe("The line is 1 place lower now.\n");
  sandbox.write("src/a.js", OLD_JS);
  expect(sandbox.uvran("survey", "--hold-line").exit).toBe(1);
});

test("a line is lowered for a language of which no file is left", () => {
  const entry = (rule: string): string => JSON.stringify({ rule, folder: ".", places: 1 });
  const line = `${entry("javascript/guarded-read")}\n${entry("python/index-and-item")}\n`;
  const sandbox = new Sandbox({ "a.js": OLD_JS, ".uvran/line.jsonl": line });
  expect(sandbox.uvran("survey", "--hold-line", "--tighten").err).toBe("The line is 1 place lower now.\n");
  expect(sandbox.read(".uvran/line.jsonl")).toBe(`${entry("javascript/guarded-read")}\n`);
});

test("of two lines that a merge left, the lower is held; a broken one is named", () => {
  const entry = (places: number): string =>
    JSON.stringify({ rule: "javascript/guarded-read", folder: ".", places });
  const sandbox = new Sandbox({ "a.js": OLD_JS + OLD_JS, ".uvran/line.jsonl": `${entry(2)}\n${entry(1)}\n` });
  expect(sandbox.uvran("survey", "--hold-line").err).toContain("1 recorded, 2 now");
  sandbox.write(".uvran/line.jsonl", `${entry(2)}\n<<<<<<< ours\n`);
  const broken = sandbox.uvran("survey", "--hold-line");
  expect(broken.err).toContain("line.jsonl:2: this is no count of a rule and a folder.");
  expect(broken.exit).toBe(2);
  expect(sandbox.uvran("survey", "a.js", "--hold-line").err).toContain("name no paths");
  expect(sandbox.uvran("survey", "--tighten").err).toContain("together with --hold-line");
});

test("only lines that have changed since a commit", () => {
  const sandbox = repository({ "a.js": `${OLD_JS}\nlater();\n`, "old name.js": OLD_JS });
  // A line that looks like the head of a file in a difference.
  sandbox.write("a.js", `${OLD_JS}\nlater();\n${OLD_JS}++ b/none.js\n`);
  sandbox.write('nëw"\t.js', OLD_JS);
  commit(sandbox, "second");
  sandbox.write("unknown.js", OLD_JS);
  const found = (...args: string[]): string[] =>
    (
      JSON.parse(sandbox.uvran("survey", "--json", ...args).out) as {
        places: { path: string; line: number }[];
      }
    ).places.map(({ path, line }) => `${path}:${line}`);
  expect(found()).toHaveLength(5);
  expect(found("--since", "HEAD")).toEqual(["unknown.js:1"]);
  expect(found("--since", "HEAD~1")).toEqual(["a.js:4", 'nëw"\t.js:1', "unknown.js:1"]);
  expect(sandbox.uvran("survey", "--since", "HEAD~1", "--expect-none").exit).toBe(1);
  expect(sandbox.uvran("survey", "--since", "--upload-pack=x").err).toContain("git knows no commit");
  expect(new Sandbox({}).uvran("survey", "--since", "HEAD").err).toContain("needs a git work tree");
});

test("compared with an earlier survey", () => {
  const sandbox = new Sandbox({ "a.js": OLD_JS + OLD_JS });
  sandbox.uvran("survey", "--as", "json", "--out", "before.json");
  sandbox.write("a.js", OLD_JS);
  const { out } = sandbox.uvran("survey", "--against", "before.json");
  expect(out).toMatch(/\nSince \d{4}-\d\d-\d\d: 2 → 1 place\n {2}javascript\/guarded-read 2 → 1\n/);
  sandbox.write("plan.json", "{}");
  const wrong = sandbox.uvran("survey", "--against", "plan.json");
  expect(wrong.err).toContain("plan.json cannot be compared with: it holds no survey.");
  expect(wrong.exit).toBe(2);
});
