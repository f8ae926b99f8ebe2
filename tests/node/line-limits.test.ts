import { mkdirSync, mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join } from "node:path";
import { Engine } from "uvran";
import { ProjectTargets } from "uvran/node";
import csharp from "uvran/packs/csharp";
import python from "uvran/packs/python";

function projectOf(files: Readonly<Record<string, string>>): ProjectTargets {
  const root = mkdtempSync(join(tmpdir(), "uvran-"));
  for (const [path, text] of Object.entries(files)) {
    mkdirSync(dirname(join(root, path)), { recursive: true });
    writeFileSync(join(root, path), text);
  }
  return new ProjectTargets(root);
}

test.each<[Record<string, string>, string, number | undefined, string | undefined]>([
  [{}, "yard.py", undefined, undefined],
  [{ ".editorconfig": "root = true\n[*.py]\nmax_line_length = 100\n" }, "yard.py", 100, "by .editorconfig"],
  [{ ".editorconfig": "root = true\n[*.py]\nmax_line_length = 100\n" }, "Yard.cs", undefined, undefined],
  [{ ".editorconfig": "root = true\n[*]\nmax_line_length = off\n" }, "yard.py", undefined, undefined],
  [{ "pyproject.toml": "[tool.x]\nline-length = 88\n" }, "a/yard.py", 88, "by pyproject.toml"],
  [
    { "pyproject.toml": "line-length = 88\n", "a/setup.cfg": "[x]\nmax-line-length = 99\n" },
    "a/b/yard.py",
    99,
    "by a/setup.cfg",
  ],
  [{ ".prettierrc": "printWidth: 110\n" }, "yard.ts", 110, "by .prettierrc"],
  [{ "package.json": '{ "prettier": { "printWidth": 70 } }' }, "yard.js", 70, "by package.json"],
])("the longest line by %j for %s is %s", (files, path, most, says) => {
  expect(projectOf(files).lineLimitOf(path)).toEqual(most === undefined ? undefined : { most, says });
});

const LONG = "a_rather_long_name_for_a_hive_of_the_cooperative";
const CODE = `def f(x):\n    if x:\n        ${LONG} = x\n    else:\n        ${LONG} = find()\n`;

test("a result that is too long for a line is held back by the project's own limit", async () => {
  const reasons = async (files: Record<string, string>): Promise<string[]> => {
    const rules = python.rules.filter(({ taste }) => taste !== true);
    const engine = new Engine(rules, { targets: projectOf(files) });
    return (await engine.file("yard.py", CODE))!.heldBack.map(({ reason }) => reason);
  };
  expect(await reasons({ "pyproject.toml": "line-length = 60\n" })).toContainEqual(
    expect.stringContaining("of 60 at most"),
  );
  expect(await reasons({ "pyproject.toml": "line-length = 120\n" })).toEqual([]);
});

test("a change whose line becomes longer than the project allows says so in a note", async () => {
  const targets = projectOf({ ".editorconfig": "root = true\n[*]\nmax_line_length = 60\n" });
  const code = `class A {
  string F(string a) {
    if (a != null) return a;
    return G("the yard behind the house of our own co-op");
  }
}
`;
  const result = await new Engine(csharp.rules, { targets }).file("A.cs", code);
  expect(result!.changes.map(({ notes }) => notes)).toEqual([
    [expect.stringMatching(/a line becomes \d+ characters long, of 60 at most \(by \.editorconfig\)/)],
  ]);
});
