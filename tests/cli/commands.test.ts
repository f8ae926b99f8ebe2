import { chmodSync, readdirSync, statSync } from "node:fs";
import { OLD_JS, NEW_JS, Sandbox } from "./run.js";

test("the whole way on the demo: survey, propose, prove, apply, prove, undo", () => {
  const demo = Sandbox.demo();
  const files = ["apiary/hives.py", "apiary/inspections.py", "market/src/lots.ts", "market/src/labels.ts"];
  const before = files.map((file) => demo.read(file));

  const survey = demo.uvran("survey");
  expect(survey.out).toMatch(/^\d+ places to modernise in 29 of \d+ files/);
  expect(survey.out).toMatch(/javascript\/guarded-read +idiom/);
  // What it remembers is all that it leaves behind.
  expect(readdirSync(demo.path(".uvran")).sort()).toEqual([".gitignore", "cache"]);
  const places = demo.uvran("survey", "--places", "market/src/labels.ts").out;
  expect(places).toMatch(/\n +6 +certain +javascript\/value-or-fallback +const columns = width != null/);

  const proposal = demo.uvran("propose");
  expect(proposal.out).toContain("with open(path) as f:");
  expect(proposal.out).toContain("Held back: 19 places");
  expect(proposal.out).toContain('! when `record.remark` is 0, "", false');
  expect(demo.run("git", "check-ignore", "--no-index", "-q", ".uvran/plan.json").exit).not.toBe(0);
  expect(files.map((file) => demo.read(file))).toEqual(before);

  // The demo's TypeScript checks need the compiler, which lies in the repository and not beside the copy.
  demo.write(
    "only.json",
    JSON.stringify({
      checks: [{ name: "apiary", run: "python3 -B apiary/main.py" }],
      rules: { "python/none-to-default": true },
    }),
  );
  const prove = demo.uvran("prove", "--config", "only.json", "--trust", "likely");
  expect(prove.out).toMatch(/^same +apiary +13 lines of output/);

  expect(demo.uvran("apply", "--trust", "likely").out).toMatch(
    /Left as it is: 4 changes\n  only possible, and not decided  4\n/,
  );
  expect(files.map((file) => demo.read(file))).not.toEqual(before);
  expect(demo.read("market/src/labels.ts")).toContain("width ?? 24;\r\n");
  expect(demo.run("python3", "-B", "apiary/main.py").out).toBe(demo.read("apiary/expected.txt"));
  expect(demo.uvran("prove", "--config", "only.json").err).toContain("before the last apply");

  expect(demo.uvran("undo").exit).toBe(0);
  expect(files.map((file) => demo.read(file))).toEqual(before);
});

test("apply keeps modes and leaves no rubbish; the next run finds nothing; undo refuses what was edited since", () => {
  const sandbox = new Sandbox({ "bin/run.js": `#!/usr/bin/env node\n${OLD_JS}` });
  chmodSync(sandbox.path("bin/run.js"), 0o750);
  sandbox.uvran("propose", "bin");
  expect(sandbox.uvran("apply").out).toContain("1 change in 1 file.");
  expect(statSync(sandbox.path("bin/run.js")).mode & 0o777).toBe(0o750);
  expect(readdirSync(sandbox.path("bin"))).toEqual(["run.js"]);
  expect(sandbox.uvran("survey").out).toContain("0 places");

  const applied = sandbox.read("bin/run.js");
  sandbox.write("bin/run.js", applied + "// more\n");
  const refused = sandbox.uvran("undo");
  expect(refused.exit).toBe(1);
  expect(refused.err).toContain("bin/run.js");
  sandbox.write("bin/run.js", applied);
  expect(sandbox.uvran("undo").exit).toBe(0);
  expect(sandbox.read("bin/run.js")).toContain(OLD_JS);
  expect(sandbox.uvran("undo").exit).toBe(1);
});

test("an apply that was cut off in the middle can be taken back", () => {
  const sandbox = new Sandbox({ "a.js": OLD_JS, "b.js": OLD_JS });
  sandbox.uvran("propose");
  sandbox.uvran("apply");
  sandbox.write("b.js", OLD_JS); // as if the second file had not been written yet
  const entry = sandbox.read(".uvran/journal/1/entry.json");
  sandbox.write(".uvran/journal/1/entry.json", entry.replace('"done"', '"begun"'));
  expect(sandbox.uvran("undo").out).toMatch(/restored +a\.js\n +already as before +b\.js/);
  expect([sandbox.read("a.js"), sandbox.read("b.js")]).toEqual([OLD_JS, OLD_JS]);
});

test("propose --diff is what git apply makes of it: CRLF, no final newline, names with spaces", () => {
  const files = {
    "a b.js": OLD_JS,
    "crlf.js": `x();\r\n${OLD_JS.replace("\n", "\r\n")}y();\r\n`,
    "bom.js": `\uFEFF${OLD_JS}`,
    "end.py": "if a:\n    x = a\nelse:\n    x = 1",
    "sub/é.py": "def f(p):\n    f = open(p)\n    t = f.read()\n    f.close()\n    return t\n",
  };
  const sandbox = new Sandbox(files);
  sandbox.run("git", "init", "-q", ".");
  expect(sandbox.uvran("propose", "--diff", "--out", "p.patch").exit).toBe(0);
  const applied = sandbox.run("git", "apply", "--whitespace=nowarn", "p.patch");
  expect(applied.err).toBe("");
  const byGit = Object.keys(files).map((file) => sandbox.read(file));
  expect(byGit[4]).toContain("    with open(p) as f:\n        t = f.read()\n    return t\n");
  for (const [path, content] of Object.entries(files)) sandbox.write(path, content);
  sandbox.uvran("apply");
  expect(Object.keys(files).map((file) => sandbox.read(file))).toEqual(byGit);
  expect(sandbox.read("bom.js")).toBe(`\uFEFF${NEW_JS}`);
});

test("prove tells a difference in output or exit code, and cleans up", () => {
  const sandbox = new Sandbox({
    "a.js": 'const note = process.argv[2] || "none";\nconsole.log(note);\n',
    "uvran.config.json": JSON.stringify({
      checks: [
        { name: "empty", run: 'node a.js ""' },
        { name: "full", run: "node a.js x" },
      ],
    }),
  });
  sandbox.uvran("propose");
  expect(sandbox.uvran("prove").exit).toBe(0);
  const { out, exit } = sandbox.uvran("prove", "--trust", "possible");
  expect(exit).toBe(1);
  expect(out).toMatch(/^different +empty[^\n]*\n +-none\n/);
  expect(out).toMatch(/^same +full/m);
  expect(readdirSync(sandbox.path(".uvran")).sort()).toEqual([
    ".gitattributes",
    ".gitignore",
    "cache",
    "decisions.jsonl",
    "plan.json",
    "proof.json",
    "trials.jsonl",
  ]);
});

test("a check that did not run is skipped, and proves nothing", () => {
  const checks = [
    { name: "asks", run: "echo no scales here; exit 77" },
    { name: "weighs", run: "weigh-the-hives --now" },
  ];
  const runs = { name: "runs", run: "true" };
  const sandbox = new Sandbox({
    "hive.js": OLD_JS,
    "uvran.config.json": JSON.stringify({ checks: [...checks, runs] }),
  });
  sandbox.uvran("propose");
  const { out, exit } = sandbox.uvran("prove");
  expect(out).toMatch(/^skipped +asks +no scales here/);
  expect(out).toMatch(/^skipped +weighs +.*not found/m);
  expect(out).toMatch(/^same +runs/m);
  expect([exit, out.includes("2 checks proved nothing: 2 did not run.")]).toEqual([0, true]);
  sandbox.write("uvran.config.json", JSON.stringify({ checks }));
  expect(sandbox.uvran("prove")).toMatchObject({
    exit: 1,
    out: expect.stringContaining("nothing is proved"),
  });
});

test("after an apply, prove looks at what was written until there is a new plan", () => {
  const sandbox = new Sandbox({
    "a.js": `const hive = {};\n${OLD_JS}const note = process.argv[2] || "none";\nconsole.log(note);\n`,
    "uvran.config.json": JSON.stringify({ checks: [{ name: "prints", run: 'node a.js ""' }] }),
  });
  sandbox.uvran("propose");
  sandbox.uvran("apply");
  expect(sandbox.uvran("prove").err).toContain("as they were before the last apply");
  sandbox.uvran("propose");
  const again = sandbox.uvran("prove", "--trust", "possible");
  expect(again.err).toContain("1 change of the plan");
  expect(again.exit).toBe(1);
});

test("survey as JSON, into a file, and as a guard that keeps old code away", () => {
  const sandbox = new Sandbox({
    "a.js": OLD_JS,
    "vendor/b.js": OLD_JS,
    "out/c.js": OLD_JS,
    ".gitignore": "out/\n",
  });
  expect(sandbox.uvran("survey", "--json", "--out", "s.json").exit).toBe(0);
  const survey = JSON.parse(sandbox.read("s.json")) as {
    places: { path: string; trust: string }[];
    skipped: unknown[];
  };
  expect(survey.places.map((place) => place.path)).toEqual(["a.js"]);
  expect(survey.skipped).toEqual([
    { path: "out", why: "ignored" },
    { path: "vendor", why: "vendored folder" },
  ]);
  expect(sandbox.uvran("survey", "--expect-none").exit).toBe(1);
  expect(sandbox.uvran("survey", "--expect-none", "--rule", "python/scoped-resource").exit).toBe(0);
});

test("outline shows the tree, and the way down to a position", () => {
  const sandbox = new Sandbox({ "a.py": "for x in xs:\n    print(x)\n" });
  expect(sandbox.uvran("outline", "a.py").out).toContain("1:5          left: identifier x");
  const { out } = sandbox.uvran("outline", "a.py", "--at", "2:11");
  expect(out.split("\n")[0]).toBe(
    "module › for_statement › block › expression_statement › call › argument_list › identifier",
  );
  expect(out).toMatch(/\n2:11 +identifier x  ◀\n/);
  expect(JSON.parse(sandbox.uvran("outline", "a.py", "--at", "2:11", "--json").out)).toMatchObject({
    kind: "identifier",
    start: 23,
    text: "x",
  });
});

test("outline says what code reads as, and where a name comes from", () => {
  const sandbox = new Sandbox({
    "a.ts": 'import { take } from "./lots.js";\nconst n = take != null ? take : 0;\nconst q = n && n.size;\n',
    "b.py": "for i in range(len(hives)):\n    print(hives[i])\n",
    "c.java": 'class A { String f(String s) { if (s == null) return ""; return s; } }\n',
  });
  const at = (file: string, place: string): string => sandbox.uvran("outline", file, "--at", place).out;
  expect(at("a.ts", "2:11")).toContain("`take` is `take` of ./lots.js, by an import\n");
  expect(at("a.ts", "2:11")).toContain(
    "line 2 reads as a choice: `take` where `take != null`, else `0`; the test asks whether `take` is missing\n" +
      "  choice(present(value), value, fallback)\n",
  );
  expect(at("a.ts", "3:11")).toContain("`n` is a local, declared in line 2\n");
  expect(at("a.ts", "3:11")).toContain("a guarded read: `n.size` is read only where `n`\n");
  expect(at("b.py", "1:5")).toContain(
    "a loop over positions: `i` counts those of `hives`\n  walked({ index, items, body })",
  );
  expect(at("c.java", "1:36")).toContain("else `s`");
  sandbox.write("d.py", "from lots import take\nx = jar.take\ny = d[k] if k in d else 0\n");
  expect(at("d.py", "2:9")).not.toContain("import");
  expect(at("d.py", "3:15")).toContain("  choice(hasKey(item(map, key)), item(map, key), fallback)\n");
  expect(JSON.parse(sandbox.uvran("outline", "a.ts", "--at", "3:11", "--json").out)).toMatchObject({
    text: "n",
    origin: "`n` is a local, declared in line 2",
    reads: [{ line: 3, reading: 'guarded(subject, read, otherwise, { as: ["and"] })' }],
  });
});

test("rules are listed, explained and tried", () => {
  const sandbox = new Sandbox();
  expect(sandbox.uvran("rules").out).toMatch(/^off +python\/none-to-default/m);
  expect(sandbox.uvran("rules", "javascript/falsy-fallback").out).toContain("It is certain when");
  const tried = sandbox.uvran("rules", "python/scoped-resource", "--try");
  expect(tried.out).toMatch(/^passed +python\/scoped-resource +\d+ trials$/m);
  expect(tried.exit).toBe(0);
  const failing =
    'import { javascript, pack, rule, trialsIn } from "uvran";\n' +
    'const { ignores } = trialsIn("javascript");\n' +
    'export default { packs: [pack("mine", [rule({ id: "mine/one", kind: "smell", title: "t", why: "w",\n' +
    '  was: javascript`f()`, becomes: javascript`g()`, trials: [ignores("f();")] })])] };\n';
  sandbox.write("uvran.config.mjs", failing);
  const failed = sandbox.uvran("rules", "--try");
  expect(failed.exit).toBe(1);
  expect(failed.out).toMatch(/failed +mine\/one[\s\S]*g\(\);/);
});
