import { changesInNotes } from "uvran/core";
import { Sandbox } from "../cli/run.js";

const MARKDOWN = `# combwork 3.0

Read this first.

## Breaking changes

- \`Hive\` is now called \`Colony\` ([why](https://combwork.example/why)).
- Use \`open(name)\` instead of \`open_hive(name)\`.
- \`drain\` and \`pour\` lost an argument.

## Deprecated

* \`weigh(kg)\` → \`load(kg)\`

  Before:

  \`\`\`python
  hive.weigh(3)
  \`\`\`

  After:

  \`\`\`python
  hive.load(3)
  \`\`\`

# combwork 2.5

- \`mass\` became a method.

  \`\`\`diff
  -print(hive.mass)
  +print(hive.mass())
  \`\`\`
`;

const short = (text: string, isRestructured = false) =>
  changesInNotes(text, isRestructured).changes.map(({ line, since, kind, old, now }) => [
    line,
    since,
    kind,
    old,
    now,
  ]);

test("changes are read off notes in Markdown, and nothing that they do not say", () => {
  expect(changesInNotes(MARKDOWN, false).product).toBe("combwork");
  expect(short(MARKDOWN)).toEqual([
    [7, "3.0", "breaks", "Hive", "Colony"],
    [8, "3.0", "breaks", "open_hive(name)", "open(name)"],
    [9, "3.0", "breaks", "drain", undefined],
    [13, "3.0", "deprecated", "weigh(kg)", "load(kg)"],
    [29, "2.5", undefined, "mass", undefined],
  ]);
  const { changes } = changesInNotes(MARKDOWN, false);
  expect(changes.map(({ before, after }) => [before, after])).toEqual([
    [undefined, undefined],
    [undefined, undefined],
    [undefined, undefined],
    ["hive.weigh(3)", "hive.load(3)"],
    ["print(hive.mass)", "print(hive.mass())"],
  ]);
  expect(changes[0]!.link).toBe("https://combwork.example/why");
});

test("and off notes in reStructuredText", () => {
  const text = `
combwork 2.0
============

Removed
-------

* \`\`MAX_FRAMES\`\` is \`\`Limits.FRAMES\`\`.
* :func:\`count_frames\` is renamed to :func:\`frame_count\`.

1.9 (2021)
----------

- Nothing of note.
`;
  expect(short(text, true)).toEqual([
    [8, "2.0", "breaks", "MAX_FRAMES", "Limits.FRAMES"],
    [9, "2.0", "breaks", "count_frames", "frame_count"],
    [14, "1.9", undefined, undefined, undefined],
  ]);
});

test("a first table says where each row comes from and what is missing", () => {
  const sandbox = new Sandbox({ "notes.md": MARKDOWN, "empty.md": "# combwork 4.0\n\nNothing.\n" });
  const { out, exit } = sandbox.uvran("rules", "--from-notes", "notes.md");
  expect(exit).toBe(0);
  expect(out).toContain("product: combwork\n");
  expect(out).toMatch(
    / {2}# notes\.md:9\n {2}# to be completed: .*the new code, where there is one, the example\n/,
  );
  expect(out).toMatch(/- old: weigh\(kg\)\n {4}new: load\(kg\)\n {4}kind: deprecated\n {4}since: "3\.0"\n/);
  // The table is not taken for one before somebody has completed it.
  sandbox.write("moves.yaml", out);
  sandbox.write("uvran.config.json", '{"tables":["moves.yaml"]}');
  expect(sandbox.uvran("survey").err).toMatch(/moves\.yaml: table "combwork", language: /);
  const empty = sandbox.uvran("rules", "--from-notes", "empty.md");
  expect(empty.err).toContain("empty.md: no list of changes was found");
  expect(empty.exit).toBe(2);
  expect(sandbox.uvran("rules", "--from-notes", "none.md").err).toContain("The notes none.md cannot be read");
});
