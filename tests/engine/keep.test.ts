import "uvran/node";
import { Engine } from "uvran";
import javascriptPack from "uvran/packs/javascript";
import pythonPack from "uvran/packs/python";
import { GOLDEN_RULES } from "../rewrite/golden-rules.js";

const engine = new Engine([...javascriptPack.rules, ...pythonPack.rules]);

/** Lines of changes, then lines held back by a comment, then lines of comments that keep nothing. */
async function fates(file: string, code: string): Promise<[number[], string[], string[]]> {
  const { changes, heldBack, idleKeeps = [] } = (await engine.file(file, code))!;
  return [
    changes.map((change) => change.line),
    heldBack
      .filter((entry) => entry.reason.startsWith("kept"))
      .map((entry) => `${entry.line}: ${entry.reason}`),
    idleKeeps.map((keep) => `${keep.line}: ${keep.rule}`),
  ];
}

const OLD = "if (a && a.b) c();\n";

test("a comment keeps the next statement and no other", async () => {
  const code = `// uvran-keep javascript/guarded-read: a may be 0\n${OLD}${OLD}`;
  expect(await fates("a.js", code)).toEqual([[3], ["2: kept by a comment: a may be 0"], []]);
});

test("behind a statement it keeps that one; inside a block it keeps what follows there", async () => {
  const code = `x();\nif (a && a.b) c(); /* uvran-keep javascript/guarded-read */\n{\n  // uvran-keep javascript/guarded-read: no\n  ${OLD}}\n${OLD}`;
  expect(await fates("a.js", code)).toEqual([[7], ["2: kept by a comment", "5: kept by a comment: no"], []]);
});

test("the file form keeps every place of the rules it names", async () => {
  const code = `# uvran-keep-file python/branch-to-value, python/none-to-default: house style\nif a:\n    x = a\nelse:\n    x = 1\nif x is None:\n    x = 2\n`;
  const [changes, kept, idle] = await fates("a.py", code);
  expect([changes, kept.length, idle]).toEqual([[], 2, []]);
});

test("a comment that keeps nothing is reported, one for a rule that is not at work is not", async () => {
  const code =
    "# uvran-keep python/scoped-resource: old\nx = 1\n# uvran-keep python/unknown\ny = 2\n# uvran-keep python/scoped-resource\n";
  expect(await fates("a.py", code)).toEqual([
    [],
    [],
    ["1: python/scoped-resource", "5: python/scoped-resource"],
  ]);
});

test("what is kept stays kept when something next to it changes", async () => {
  const code = `// uvran-keep javascript/value-or-fallback: later\nx = y != null ? y : a && a.b || 'c';\n`;
  const result = (await engine.file("a.js", code))!;
  expect(result.changes.map((change) => change.rules[0])).toEqual(["javascript/guarded-read"]);
});

/** In each language: a comment on a line of its own and its mark for one inside a line, and a statement to keep. */
const FORMS = [
  ["a.ts", "// ~", "/* ~ */", "", "!done;", ""],
  ["a.py", "# ~", undefined, "", "x(-done)", ""],
  ["A.java", "// ~", "/* ~ */", "class A { void m() {\n", "x(!done);", "\n} }"],
  ["a.cpp", "// ~", "/* ~ */", "void m() {\n", "x(!done);", "\n}"],
  ["a.cs", "// ~", "/* ~ */", "class A { void M() {\n", "X(!done);", "\n} }"],
  ["a.php", "# ~", "/* ~ */", "<?php\n", "x(!$done);", ""],
  ["a.rb", "# ~", undefined, "", "x(!done)", ""],
  ["a.ps1", "# ~", "<# ~ #>", "", "$x = !$done", ""],
] as const;

test.each(FORMS)(
  "in %s a comment keeps what follows it, or what it stands behind",
  async (path, line, inside, head, code, tail) => {
    const moving = new Engine(GOLDEN_RULES);
    const found = async (text: string) => {
      const { changes, heldBack, idleKeeps = [] } = (await moving.file(path, head + text + tail))!;
      return [changes.length, heldBack.map(({ reason }) => reason), idleKeeps.length];
    };
    const { changes } = (await moving.file(path, head + code + tail))!;
    const id = changes[0]!.rules[0]!;
    const comment = (form: string): string => form.replace("~", `uvran-keep ${id}: it is right`);
    const kept = ["kept by a comment: it is right"];
    expect(await found(`${comment(line)}\n${code}\n${code}`)).toEqual([1, kept, 0]);
    expect(await found(`${code} ${comment(inside ?? line)}`)).toEqual([0, kept, 0]);
    const whole = comment(line).replace("uvran-keep", "uvran-keep-file");
    expect(await found(`${whole}\n${code}\n${code}`)).toEqual([0, [...kept, ...kept], 0]);
    expect(await found(`${code}\n${comment(line)}`)).toEqual([1, [], 1]);
  },
);
