import { resolve } from "node:path";
import { loadProject, type Check } from "uvran/node";
import { Workspace, type Proof } from "uvran/workspace";
import { Sandbox } from "../cli/run.js";
import { testWith } from "../toolchains.js";
import { FALLBACK, planned } from "./project.js";

const node = JSON.stringify(process.execPath);
/** A command that does one thing on the old code of `a.js`, and another on the new. */
const either = (old: string, now: string): string => `if grep -q '||' a.js; then ${old}; else ${now}; fi`;

type Wanted = Omit<Check, "name">;

/** What checks come to in one project, where `a.js` is all that changes. */
async function checked(
  checks: readonly Wanted[],
  files: Record<string, string> = {},
): Promise<readonly Proof[]> {
  const { root } = new Sandbox({ "a.js": FALLBACK, ...files });
  const project = await loadProject(root);
  const named = checks.map((check, i) => ({ name: String(i), ...check }));
  const workspace = new Workspace({ ...project, checks: named });
  await workspace.propose();
  const { proofs } = await workspace.prove(await workspace.sides({ trust: "possible" }), { searches: false });
  return proofs;
}

interface Compiler {
  readonly tool: string;
  readonly file: string;
  readonly run: string;
  readonly old: string;
  /** The old code two lines further down, with one thing wrong that was not. */
  readonly now: string;
  readonly says: readonly (string | RegExp)[];
}

const TSC = JSON.stringify(resolve("node_modules/.bin/tsc"));
const PYTHON_OLD = 'print("a")\n';

const COMPILERS: readonly Compiler[] = [
  {
    tool: "node",
    file: "hive.ts",
    run: `${TSC} --noEmit --strict --lib es5 hive.ts`,
    old: "const a: number = missing;\n",
    now: "\n\nconst a: number = missing;\nconst b: string = a;\n",
    says: ["hive.ts:4: error: TS2322: Type 'number' is not assignable to type 'string'."],
  },
  {
    tool: "node",
    file: "hive.ts",
    run: `${TSC} --noEmit --strict --lib es5 --pretty hive.ts`,
    old: "const a: number = missing;\n",
    now: "\n\nconst a: number = missing;\nconst b: string = a;\n",
    says: ["hive.ts:4: error: TS2322: Type 'number' is not assignable to type 'string'."],
  },
  {
    tool: "javac",
    file: "Hive.java",
    run: "javac -d out Hive.java",
    old: "class Hive {\n int a = gone;\n}\n",
    now: "\n\nclass Hive {\n int a = gone;\n int b = lost;\n}\n",
    says: ["Hive.java:5: error: cannot find symbol; symbol: variable lost; location: class Hive"],
  },
  {
    tool: "g++",
    file: "hive.cpp",
    run: "g++ -Wall -c -o out.o hive.cpp",
    old: "int a = gone;\n",
    now: "\n\nint a = gone;\nint b = 1;\nint c = lost;\n",
    says: [/^hive\.cpp:5: error: .lost. was not declared in this scope/],
  },
  {
    tool: "g++",
    file: "hive.cpp",
    run: "g++ hive.cpp",
    old: "int main() { return 0; }\n",
    now: "int weigh();\nint main() { return weigh(); }\n",
    says: [/^error: undefined reference to .weigh/, "error: ld returned 1 exit status"],
  },
  {
    // The place is where the macro is used.
    tool: "g++",
    file: "hive.cpp",
    run: "g++ -c -o macro.o hive.cpp",
    old: "#define SET(x) x = 2\nint f() { int a = 1;\nSET(a);\nreturn a; }\n",
    now: "\n\n#define SET(x) x = 2\nint f() { const int a = 1;\nSET(a);\nreturn a; }\n",
    says: [/^hive\.cpp:5: error: assignment of read-only variable .a.$/],
  },
  {
    tool: "mcs",
    file: "Hive.cs",
    run: "mcs -target:library Hive.cs",
    old: "class Hive { int a = gone; }\n",
    now: "\n\nclass Hive { int a = gone; }\nclass Comb { string b = 1; }\n",
    says: [/^Hive\.cs:4: error: CS0029: Cannot implicitly convert type/],
  },
  {
    tool: "python3",
    file: "hive.py",
    run: "python3 -m py_compile hive.py",
    old: PYTHON_OLD,
    now: `\n${PYTHON_OLD}x = = 1\n`,
    says: ["hive.py:3: error: SyntaxError: invalid syntax"],
  },
  {
    tool: "php",
    file: "hive.php",
    run: "php -l hive.php",
    old: "<?php\n$a = 1;\n",
    now: "<?php\n\n$a = = 1;\n",
    says: [/^hive\.php:3: error: syntax error, unexpected token "="/],
  },
  {
    tool: "ruby",
    file: "hive.rb",
    run: "ruby -c hive.rb",
    old: "a = 1\n",
    now: "\na = = 1\n",
    says: [/^hive\.rb:2: error: .*syntax error/],
  },
];

for (const { tool, file, run, old, now, says } of COMPILERS)
  testWith([tool], `messages of ${run}: only the new one, whatever lines have moved`, async () => {
    const compiles = (source: string): Wanted => ({
      run: `${either(`cp old ${file}`, `cp ${source} ${file}`)}; ${run}`,
      compare: "messages",
    });
    // The same two lines further down is the same.
    const moved = file.endsWith(".php") ? old.replace("\n", "\n\n\n") : `\n\n${old}`;
    const [found, same] = await checked([compiles("now"), compiles("moved")], { old, now, moved });
    expect([found!.verdict, same!.verdict]).toEqual(["different", "same"]);
    const messages = found!.compared.lines.filter((line) => !line.startsWith("exit"));
    expect(messages).toEqual(says.map((one) => (typeof one === "string" ? one : expect.stringMatching(one))));
  });

test("messages of one's own form, and messages that go away", async () => {
  const message = "^(?<file>\\S+) line (?<line>\\d+) !! (?<text>.*)";
  const own = { compare: "messages", message } as const;
  const says = (...lines: string[]): string => `printf '${lines.join("\\n")}\\n'; exit 1`;
  const [now, healed] = await checked([
    { ...own, run: either(says("a.js line 1 !! old"), says("a.js line 3 !! old", "a.js line 4 !! new")) },
    { ...own, run: either(says("a.js line 1 !! old"), "true") },
  ]);
  expect([now!.verdict, now!.compared.lines]).toEqual(["different", ["a.js:4: error: new"]]);
  expect([healed!.verdict, healed!.compared.summary]).toEqual(["same", "exit 1 → 0, no new message, 1 gone"]);
});

test("output exactly, in any order, by JSON value, and without what does not count", async () => {
  const prints = (old: string, now: string): string => either(`printf '${old}'`, `printf '${now}'`);
  const cases: readonly [string, string, Partial<Check>, string][] = [
    ["a\\nb\\n", "b\\na\\n", {}, "different"],
    ["a\\nb\\n", "b\\na\\n", { compare: "lines" }, "same"],
    ["a\\nb\\n", "b\\nb\\na\\n", { compare: "lines" }, "different"],
    ['{"a":1,"b":[1,2]}', '{ "b": [1, 2], "a": 1.0 }\\n', { compare: "json" }, "same"],
    ['{"a":1,"b":[1,2]}', '{"a":1,"b":[2,1]}', { compare: "json" }, "different"],
    ['{"a":1}\\n{"b":2}\\n', '{"a": 1}\\n{"b": 2}', { compare: "json" }, "same"],
    ["no JSON", "nor this", { compare: "json" }, "different"],
    ['{"a":1}', "nor this", { compare: "json" }, "different"],
    ["a\\n", "a", {}, "different"],
    ["1 ms\\n", "27 ms\\n", {}, "different"],
    ["took 1 ms\\n", "took 27 ms\\n", { ignore: ["\\d+ ms"] }, "same"],
    ["took 1 ms\\n", "took 27 ms\\n", { ignore: [/\d+ MS/i] }, "same"],
    ["a", "b", { compare: "exit" }, "same"],
  ];
  const found = await checked([
    ...cases.map(([old, now, more]) => ({ run: prints(old, now), ...more })),
    { run: either("true", "exit 4"), compare: "exit" },
  ]);
  expect(found.map(({ verdict }) => verdict)).toEqual([...cases.map((one) => one[3]), "different"]);
});

test("files that are written, and those among them that count", async () => {
  const run = `${either("echo 1 > out.txt; echo log1 > x.log; rm b.js", "echo 2 > out.txt; echo log2 > x.log; echo 3 > more.txt")}`;
  const [all, some] = await checked(
    [
      { run, compare: "files" },
      { run, compare: "files", files: ["*.none"] },
    ],
    { "b.js": "" },
  );
  expect(all!.compared.lines).toEqual([
    "not written now: b.js",
    "written only now: more.txt",
    "written with other content: out.txt",
    "written with other content: x.log",
  ]);
  expect(some!.verdict).toBe("same");
});

/** What runners print, old and new: one test more fails, or is gone. */
const RUNNERS: readonly (readonly [string, string, string, RegExp])[] = [
  [
    "Tests: 3 passed, 3 total",
    "Tests:       1 failed, 2 passed, 3 total",
    "  ● hives › are weighed",
    /fails now: hives › are weighed/,
  ],
  ["      Tests  3 passed (3)", "      Tests  1 failed | 2 passed (3)", "", /1 tests fail, and 0 did/],
  ["  3 passing (2ms)", "  2 passing (2ms)\n  1 failing", "  1) hives\n       weigh:", /fails now: hives/],
  ["ℹ tests 3\nℹ pass 3\nℹ fail 0", "ℹ tests 3\nℹ pass 2\nℹ fail 1", "✖ weighs (0.5ms)", /fails now: weighs/],
  [
    "== 3 passed in 0.01s ==",
    "== 1 failed, 2 passed in 0.02s ==",
    "FAILED tests/test_hive.py::test_weigh - x",
    /fails now: tests\/test_hive.py::test_weigh/,
  ],
  [
    "Ran 3 tests in 0.001s\n\nOK",
    "Ran 3 tests in 0.001s\n\nFAILED (failures=1)",
    "FAIL: test_weigh (hive.Weighs)",
    /fails now: test_weigh/,
  ],
  ["Ran 3 tests in 0.001s\n\nOK", "Ran 2 tests in 0.001s\n\nOK", "", /2 tests pass, and 3 did/],
  [
    "Tests run: 3, Failures: 0, Errors: 0, Skipped: 0",
    "Tests run: 3, Failures: 0, Errors: 1, Skipped: 0",
    "",
    /1 tests fail/,
  ],
  [
    "OK (3 tests, 5 assertions)",
    "Tests: 3, Assertions: 5, Failures: 1.",
    "1) HiveTest::testWeigh",
    /fails now: HiveTest::testWeigh/,
  ],
  [
    "3 examples, 0 failures",
    "3 examples, 1 failure",
    "rspec ./spec/hive_spec.rb:3 # Hive weighs",
    /fails now: Hive weighs/,
  ],
  [
    "3 runs, 5 assertions, 0 failures, 0 errors, 0 skips",
    "3 runs, 5 assertions, 1 failures, 0 errors, 0 skips",
    "HiveTest#test_weigh",
    /fails now: HiveTest#test_weigh/,
  ],
  [
    "Passed!  - Failed:     0, Passed:     3, Skipped:     0, Total:     3",
    "Failed!  - Failed:     1, Passed:     2, Skipped:     0, Total:     3",
    "",
    /1 tests fail/,
  ],
  [
    "100% tests passed, 0 tests failed out of 3",
    "67% tests passed, 1 tests failed out of 3",
    "\t  2 - weighs (Failed)",
    /fails now: weighs/,
  ],
  [
    "[  PASSED  ] 3 tests.",
    "[  PASSED  ] 2 tests.\n[  FAILED  ] 1 test, listed below:",
    "[  FAILED  ] Hive.weighs",
    /fails now: Hive.weighs/,
  ],
  [
    "TAP version 13\nok 1 - opens\nok 2 - weighs\n1..2",
    "TAP version 13\nok 1 - opens\nnot ok 2 - weighs\n1..2",
    "",
    /fails now: weighs/,
  ],
  ["1..1\nok 1 - opens # SKIP no hive", "1..1\nnot ok 1 - opens", "", /fails now: opens/],
];

test("test results as common runners print them", async () => {
  const files = Object.fromEntries(
    RUNNERS.flatMap(([old, now, names], i) => [
      [`${i}.old`, `${old}\n`],
      [`${i}.now`, `${now}\n${names}\n`],
    ]),
  );
  const found = await checked(
    RUNNERS.map((_, i) => ({ run: either(`cat ${i}.old`, `cat ${i}.now; exit 1`), compare: "tests" })),
    files,
  );
  expect(found.map(({ verdict }) => verdict)).toEqual(RUNNERS.map(() => "different"));
  for (const [i, [, , , says]] of RUNNERS.entries())
    expect(found[i]!.compared.lines.join("\n")).toMatch(says);
});

test("test results in files; old ones do not count, and those that were failing may go on failing", async () => {
  const xml = (...tests: string[]): string =>
    `<testsuites><testsuite name="hives">${tests.map((one) => `<testcase classname="hive" ${one}</testcase>`).join("")}</testsuite></testsuites>`;
  const results = { compare: "tests", results: ["report.xml"] } as const;
  const writes = (now: string): string =>
    either("cp old.xml report.xml; exit 1", `cp ${now} report.xml; exit 1`);
  const [now, same, gone, none] = await checked(
    [
      { ...results, run: writes("more.xml") },
      { ...results, run: writes("old.xml") },
      { ...results, run: writes("fewer.xml") },
      { ...results, run: "true" },
    ],
    {
      "old.xml": xml('name="opens">', 'name="weighs"><failure/>'),
      "more.xml": xml('name="opens"><error/>', 'name="weighs"><failure/>'),
      "fewer.xml": xml('name="weighs"><failure/>'),
      "report.xml": xml('name="opens">'),
    },
  );
  expect([now!.verdict, now!.compared.lines[0]]).toEqual(["different", "fails now: hive › opens"]);
  expect([same!.verdict, same!.compared.summary]).toEqual(["same", "exit 1 → 1, 1 test passed, 1 failed"]);
  expect(gone!.compared.lines[0]).toBe("passed, and did not run now: hive › opens");
  expect([none!.verdict, none!.why]).toEqual(["failing", expect.stringContaining("no test results")]);
});

test("tests that say nothing: none passes, or some fail that nobody names", async () => {
  const found = await checked([
    { run: "echo 'Tests run: 0, Failures: 0, Errors: 0'", compare: "tests" },
    { run: "echo 'Tests run: 3, Failures: 1, Errors: 0'; exit 1", compare: "tests" },
  ]);
  expect(found.map(({ verdict, why }) => [verdict, why])).toEqual([
    ["failing", "no test passes on the old code"],
    ["failing", "1 tests fail on the old code, and what it prints does not name them"],
  ]);
});

test("time and memory over several runs: a difference is claimed where there is one, and not from noise", async () => {
  const run = (old: string, now: string): string => either(`${node} -e "${old}"`, `${node} -e "${now}"`);
  const wait = "setTimeout(() => 0, 1200)";
  const [both, alike] = await checked([
    { run: run("0", `${wait}; globalThis.a = Buffer.alloc(2e8, 1)`), compare: ["time", "memory"] },
    { run: run("1", "2"), compare: "time", runs: 3 },
  ]);
  expect(both!.figures.map(({ what, is, before }) => [what, is, before.length])).toEqual([
    ["time", "more", 5],
    ["memory", "more", 5],
  ]);
  expect([both!.verdict, alike!.figures.map(({ is }) => is)]).toEqual(["same", ["alike"]]);
});

test("a check that is not in order is refused with the place", async () => {
  const one = { name: "x", run: "true" };
  const refused: readonly [object[], string][] = [
    [[{ ...one, compare: "colour" }], "checks.0.compare"],
    [[{ ...one, ignore: ["("] }], "is no regular expression"],
    [[{ ...one, message: "error" }], "must have a group (?<text>…)"],
    [[one, one], 'there are two checks "x"'],
    [[{ ...one, after: ["y"] }], 'there is no check "y" before this one'],
    [[{ ...one, in: "../out" }], "must be a folder of the project"],
  ];
  for (const [checks, says] of refused) {
    const { root } = new Sandbox({ "uvran.config.json": JSON.stringify({ checks }) });
    await expect(loadProject(root)).rejects.toThrow(says);
  }
  const nowhere = planned({ "a.js": FALLBACK }, [{ ...one, in: "gone" }]).uvran("prove");
  expect([nowhere.exit, nowhere.err]).toEqual([
    2,
    expect.stringContaining("which is no folder of the project"),
  ]);
});
