import { execFileSync } from "node:child_process";
import { mkdtempSync, readFileSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import pico from "picocolors";
import fc from "fast-check";
import { changeLines, fileDiff, type Survey } from "uvran/core";
import { placesText, proposalText, surveyText, type Plan } from "uvran/core";

const plain = pico.createColors(false);

/** What `git apply` makes of a difference. */
function applied(before: string, diff: string): string {
  const folder = mkdtempSync(join(tmpdir(), "uvran-diff-"));
  writeFileSync(join(folder, "f.txt"), before);
  writeFileSync(join(folder, "d.patch"), diff);
  execFileSync("git", ["apply", "--whitespace=nowarn", "d.patch"], { cwd: folder });
  return readFileSync(join(folder, "f.txt"), "utf8");
}

test.each([
  ["one line", "a\n", "b\n"],
  ["no final newline before", "a\nb", "a\nc\n"],
  ["no final newline after", "a\nb\n", "a\nc"],
  ["no final newline at all", "a\nb\nc", "a\nB\nc"],
  ["CRLF", "a\r\nb\r\n", "a\r\nc\r\n"],
  ["everything gone", "a\nb\n", ""],
  ["two places", [..."abcdefghijklmnop"].join("\n"), [..."aBcdefghijklmnOp"].join("\n")],
])("git makes the new text of a difference: %s", (_, before, after) => {
  expect(applied(before, fileDiff("f.txt", before, after))).toBe(after);
});

test("no difference is no text", () => {
  expect(fileDiff("f.txt", "a", "a")).toBe("");
});

test("the lines of a change are those of the whole difference, with their old numbers", () => {
  const lines = fc.array(fc.constantFrom("a", "b", "", "  c"), { minLength: 3, maxLength: 12 });
  fc.assert(
    fc.property(lines, fc.nat(), fc.constantFrom("X", "X\nY", ""), (old, seed, put) => {
      const text = old.join("\n") + "\n";
      const start = seed % text.length;
      const shown = changeLines(text, [{ start, end: Math.min(start + 2, text.length), text: put }], 1);
      for (const { mark, line, text: content } of shown) {
        if (mark === " " || mark === "-") expect(old[line! - 1]).toBe(content);
      }
    }),
    { numRuns: 300, seed: 3 },
  );
});

const change: Plan["changes"][number] = {
  id: "0123456789abcdef",
  rules: ["a/one", "a/two"],
  title: "Do it better",
  kind: "idiom",
  trust: "likely",
  path: "src/a.js",
  line: 2,
  range: { start: { line: 2, column: 1 }, end: { line: 2, column: 2 } },
  evidence: [
    { answer: "yes", code: "effect.getter", says: "`x` is plain" },
    { answer: "unknown", code: "value.null", says: "`y` could be null", line: 7 },
    { answer: "yes", code: "own.plain", says: "`z` too", line: 2 },
  ],
  cautions: [{ code: "value.falsy", says: "when `y` is 0, more happens" }],
  notes: ["it happens sooner"],
  edits: [{ start: 4, end: 5, text: "new" }],
  elsewhere: [],
  needs: [],
};
const held: Plan["heldBack"][number] = {
  id: "fedcba9876543210",
  rule: "a/one",
  path: "src/b.js",
  line: 3,
  range: { start: { line: 3, column: 1 }, end: { line: 3, column: 6 } },
  code: "flow.written",
  reason: "`w` is written",
  at: 5,
};

test("a proposal says where, what, how sure, why, and what differs", () => {
  const plan: Plan = { uvranPlan: 3, files: {}, changes: [change], heldBack: [held], advice: [] };
  expect(
    proposalText(
      plan,
      () => "one\nb\nthree\n",
      ({ edits }) => edits,
      plain,
    ),
  ).toBe(`src/a.js:2  Do it better
  likely · idiom · a/one + a/two · 0123456789abcdef
  ✓ \`x\` is plain; \`z\` too
  ? \`y\` could be null (line 7) · value.null
  ! when \`y\` is 0, more happens · value.falsy
  · it happens sooner
    1   one
    2 - b
      + new
    3   three

Held back: 1 place
  src/b.js:3  a/one
    \`w\` is written (line 5) · flow.written
`);
});

const survey: Survey = {
  filesRead: 4,
  rules: [
    { id: "a/one", kind: "idiom" },
    { id: "a/none", kind: "smell" },
  ] as unknown as Survey["rules"],
  changes: [change, { ...change, trust: "certain", line: 1 }],
  heldBack: [held],
  advice: [],
  failures: [],
  unread: [],
  unparsed: [{ path: "bad.py", line: 9, soundFunctions: 0 }],
  silenced: [1, 2].map((line) => ({
    rule: "a/new",
    title: "t",
    path: "a.js",
    line,
    needs: "JavaScript 2020",
    asked: "JavaScript 2015 is asked for by package.json",
  })),
  versions: [
    { version: "JavaScript 2015", says: "by package.json" },
    { version: "Python 3.9", says: undefined },
  ],
  idleKeeps: [{ path: "src/c.js", line: 4, rule: "a/one" }],
  unreadable: [{ path: "latin.py", why: "not valid UTF-8" }],
  skipped: [
    { path: "x", why: "ignored" },
    { path: "y", why: "generated" },
    { path: "z", why: "ignored" },
  ],
  notCovered: new Map([
    [".md", 2],
    [".css", 5],
  ]),
};

test("the table of a survey fits the window", () => {
  const lines = (width: number): string[] => surveyText(survey, plain, width).split("\n");
  const widest = (width: number): number =>
    Math.max(
      ...lines(width)
        .slice(0, 5)
        .map((line) => line.length),
    );
  expect(lines(120).join()).toContain("▆");
  expect(lines(76).join()).not.toContain("▆");
  expect(widest(76)).toBeLessThanOrEqual(76);
  expect(lines(76)[2]).toContain("kind");
  expect(lines(66)[2]).not.toContain("kind");
  expect(widest(66)).toBeLessThanOrEqual(66);
  expect(lines(40).slice(2, 4)).toEqual(["a/one", "  1 certain, 1 likely, 1 held back in 2 files"]);
});

test("a survey counts by rule and trust, and names what was not looked at", () => {
  const text = surveyText(survey, plain);
  const line = (start: string): string => text.split("\n").find((row) => row.startsWith(start)) ?? "";
  expect(line("2 places")).toBe("2 places to modernise in 1 of 4 files (25 %)");
  expect(line("a/one").split(/\s+/).slice(0, 8)).toEqual(["a/one", "idiom", "1", "1", "0", "0", "1", "2"]);
  expect(line("a/none")).toBe("");
  expect(line("all").split(/\s+/)).toEqual(["all", "1", "1", "0", "0", "1"]);
  expect(line("not covered")).toBe("not covered    7 files of other kinds: .css 5, .md 2");
  expect(line("left out")).toBe("left out       1 generated, 2 ignored");
  expect(text).toContain(
    "versions       JavaScript 2015 by package.json\n" +
      '               Python 3.9 is assumed, so what needs it is only likely; "targets" in the config says the version\n' +
      "too new        2 more places of a/new, which needs JavaScript 2020; JavaScript 2015 is asked for by package.json\n",
  );
  expect(line("syntax error")).toContain("bad.py:9");
  expect(line("idle keep")).toContain("src/c.js:4 keeps nothing from a/one");
  expect(line("unreadable")).toContain("latin.py: not valid UTF-8");
  expect(placesText(survey, () => "first\n  second\n", plain)).toContain("     2  likely    a/one + a/two");
});
