import { NEW_JS, OLD_JS } from "../cli/run.js";
import { FALLBACK, planned, proved } from "./project.js";

const node = JSON.stringify(process.execPath);
/** Prints what each of these files makes of an empty remark. */
const prints = (...files: string[]): string =>
  `${node} -e "for (const f of '${files.join(" ")}'.split(' ')) console.log(f, require('./' + f).remark(''))"`;
/** Prints only what it makes of one that is there. */
const harmless = (file: string): string => `${node} -e "console.log(require('./${file}').remark('x'))"`;

test("each culprit is set aside with what is different, marked, kept away from apply, and taken back by undo", () => {
  const files = Object.fromEntries("abcdefgh".split("").map((name) => [`${name}.js`, FALLBACK]));
  const checks = [
    { name: "b", run: prints("b.js") },
    { name: "rest", run: harmless("a.js") },
    { name: "f", run: prints("f.js") },
  ];
  const sandbox = planned(files, checks);
  const said = sandbox.uvran("review", "--decide", "keep", "f.js", "--note", "an old habit");
  expect(said.exit).toBe(0);
  const { out, exit } = sandbox.uvran("prove", "--trust", "possible");
  expect(exit).toBe(1);
  expect(out).toMatch(/^different +b .*\n +-b\.js none\n +\+b\.js\s*\n/);
  expect(out).toContain("Set aside: 2 changes\n  b.js:1  javascript/falsy-fallback · ");
  expect(out).toContain('  "f" is different with it\n    -f.js none\n');
  expect(out).toMatch(/\n6 of 8 changes passed 3 checks together\. \d+ runs/);
  expect(out).toContain("Write what passed with: uvran apply --proven --trust possible\n");
  const list = sandbox.uvran("review", "--list").out;
  expect(list).toMatch(
    /^later +possible  f\.js:1 .*\n +Set aside by prove: "f" is different with this change\.\n/m,
  );
  expect(list).toContain("an old habit");
  const before = Object.keys(files).map((path) => sandbox.read(path));
  expect(sandbox.uvran("apply", "--proven", "--trust", "possible").out).toContain("6 changes in 6 files.");
  expect(Object.keys(files).filter((path) => sandbox.read(path) !== FALLBACK)).toEqual([
    "a.js",
    "c.js",
    "d.js",
    "e.js",
    "g.js",
    "h.js",
  ]);
  expect(sandbox.uvran("prove").out).toContain("All is as before the apply.");
  sandbox.uvran("undo");
  expect(Object.keys(files).map((path) => sandbox.read(path))).toEqual(before);
});

test("apply --proven writes nothing that was not proved, or that has other code now", () => {
  const sandbox = planned({ "a.js": FALLBACK, "b.js": OLD_JS }, [{ name: "runs", run: "true" }]);
  expect(sandbox.uvran("apply", "--proven")).toMatchObject({
    exit: 1,
    err: expect.stringContaining("First run: uvran prove"),
  });
  sandbox.uvran("prove");
  const { out } = sandbox.uvran("apply", "--proven", "--trust", "possible", "--dry");
  expect(out).toMatch(/would be written  b\.js[\s\S]*not proven  1\n    a\.js:1/);
  sandbox.write("b.js", `\n${OLD_JS}`);
  sandbox.uvran("propose");
  expect(sandbox.uvran("apply", "--proven").out).toContain("0 changes in 0 files.");
  expect(sandbox.read("b.js")).toBe(`\n${OLD_JS}`);
});

test("two changes that only fail together: the less sure one is set aside", () => {
  // Each says whether it still has its old form; the check minds only when neither has.
  const minds = "grep -q '||' a.js || grep -q '&&' b.js";
  const sandbox = planned({ "a.js": FALLBACK, "b.js": OLD_JS, "c.js": OLD_JS }, [
    { name: "minds", run: minds },
  ]);
  const { setAside, kept, checks } = proved(sandbox);
  expect([setAside.map(({ path }) => path), kept.length, checks[0]!.verdict]).toEqual([
    ["a.js"],
    2,
    "different",
  ]);
});

test("a change that breaks only through another file", () => {
  const sandbox = planned(
    {
      "remarks.js": FALLBACK,
      "page.js": `const { remark } = require("./remarks");\n${OLD_JS.replace("hive &&", "hive.a && hive.a.b &&")}`,
      "use.js": 'const { remark } = require("./remarks");\nif (!remark("")) throw new Error("no remark");\n',
    },
    [{ name: "uses", run: `${node} use.js` }],
  );
  expect(proved(sandbox).setAside.map(({ path }) => path)).toEqual(["remarks.js"]);
});

test("a check that fails before, a flaky one, and one that is different without any change", () => {
  const sandbox = planned({ "a.js": FALLBACK, "b.js": OLD_JS }, [
    { name: "fails before", run: `grep -q '??' a.js` },
    { name: "flaky", run: "date +%N" },
    { name: "asks for the new code", run: "if grep -q '||' a.js; then echo old; else date +%N; fi" },
    { name: "passes", run: "true" },
  ]);
  const { checks, setAside } = proved(sandbox);
  expect(checks.map(({ verdict }) => verdict)).toEqual(["failing", "flaky", "different", "same"]);
  expect(setAside.map(({ path, check }) => [path, check])).toEqual([["a.js", "asks for the new code"]]);
});

test("no culprit is looked for with --no-search, and no decision made with --no-mark", () => {
  const sandbox = planned({ "a.js": FALLBACK, "b.js": OLD_JS }, [{ name: "prints", run: prints("a.js") }]);
  const only = sandbox.uvran("prove", "--trust", "possible", "--no-search");
  expect([only.exit, only.out.includes("Set aside"), only.out.includes("apply --proven")]).toEqual([
    1,
    false,
    false,
  ]);
  expect(proved(sandbox, "--no-mark").setAside.length).toBe(1);
  expect(sandbox.uvran("review", "--list").out).toContain("2 changes: 2 open");
  expect(sandbox.uvran("prove", "--check", "print")).toMatchObject({
    exit: 2,
    err: expect.stringContaining("The checks are: prints"),
  });
});

test("a search that was cut off goes on where it was, and a changed file begins it anew", () => {
  const files = Object.fromEntries("abcdefghijkl".split("").map((name) => [`${name}.js`, FALLBACK]));
  const sandbox = planned(files, [{ name: "prints", run: prints("e.js") }]);
  const first = proved(sandbox, "--no-mark").runs;
  const again = proved(sandbox, "--no-mark").runs;
  sandbox.write("e.js", `// remarks\n${FALLBACK}`);
  sandbox.uvran("propose");
  const anew = proved(sandbox, "--no-mark").runs;
  expect(again).toBeLessThan(first - 5);
  expect(anew).toBeGreaterThan(again + 3);
});

test("what is kept can be written although the rest of the plan was never asked for", () => {
  const sandbox = planned({ "a.js": FALLBACK, "b.js": FALLBACK, "c.js": OLD_JS }, [
    { name: "prints", run: prints("a.js") },
  ]);
  proved(sandbox, "a.js", "c.js");
  sandbox.uvran("apply", "--proven", "--trust", "possible");
  expect(["a.js", "b.js", "c.js"].map((path) => sandbox.read(path))).toEqual([FALLBACK, FALLBACK, NEW_JS]);
});
