import { existsSync, readFileSync, writeFileSync } from "node:fs";
import "uvran/node";
import {
  compile,
  HOLE_KINDS,
  Hole,
  holes,
  languageOf,
  loadGrammars,
  matchesIn,
  parse,
  snippetCode,
  type HoleKind,
  type LanguageId,
} from "uvran/core";
import { HOLE_CASES, type HoleCase } from "./hole-cases.js";

const PAGE = "docs/holes.md";
const languages = Object.keys(HOLE_CASES) as LanguageId[];

beforeAll(() => loadGrammars(languages.map(languageOf)));

const cases = languages.flatMap((id) =>
  HOLE_KINDS.flatMap((kind) =>
    (HOLE_CASES[id]![kind] ?? []).map(
      ([pattern, code, captured]) => [id, kind, code, captured, pattern] as const,
    ),
  ),
);

test.each(cases)("%s, a hole for %s in `%s` is `%s`", (id, _kind, code, captured, pattern) => {
  const tree = parse(code, languageOf(id));
  expect(tree.errors).toEqual([]);
  const found = [...matchesIn(compile(pattern, id), tree, 0)].map(({ captures }) => {
    const [capture] = captures.values();
    return capture ? code.slice(capture.start, capture.end) : "";
  });
  expect(found).toEqual([captured]);
});

test.each(languages)("%s has a case for each kind of hole it has a spelling for", (id) => {
  const kinds = (Object.keys(languageOf(id).holes) as HoleKind[]).sort();
  expect(Object.keys(HOLE_CASES[id]!).sort()).toEqual(kinds);
});

test("a kind that a language has no place for is named", () => {
  const mods = new Hole("mods", "modifiers");
  const snippet = HOLE_CASES.ruby!.name![0]![0];
  const wrong = Object.assign(Object.create(Object.getPrototypeOf(snippet) as object), snippet, {
    parts: [mods],
  }) as typeof snippet;
  expect(() => compile(wrong, "ruby")).toThrow('Ruby has no place for a hole of kind "modifiers"');
});

/** `UPDATE_GOLDEN=1 npm test` writes the page. */
test("the table in the docs says what these cases show", () => {
  const page = table();
  if (process.env["UPDATE_GOLDEN"] || !existsSync(PAGE)) writeFileSync(PAGE, page);
  expect(readFileSync(PAGE, "utf8")).toBe(page);
});

function table(): string {
  const titles = languages.map((id) => languageOf(id).title);
  const row = (cells: readonly string[]): string => `| ${cells.join(" | ")} |`;
  const mark = (id: LanguageId, kind: HoleKind): string => (HOLE_CASES[id]![kind] ? "yes" : "–");
  return [
    "# Where holes can stand",
    "",
    "A test runs every example on this page and writes it. A hole is shown as `⟨h⟩`; a dash says that the",
    "language has no such place. Where a pattern is shown with a context, as in `java.member`, its author names it,",
    "because the same code would mean something else elsewhere.",
    "",
    row(["hole", ...titles]),
    row(["---", ...titles.map(() => "---")]),
    ...HOLE_KINDS.map((kind) => row([`\`${kind}\``, ...languages.map((id) => mark(id, kind))])),
    ...languages.flatMap((id) => [
      "",
      `## ${languageOf(id).title}`,
      "",
      row(["hole", "pattern", "fits", "the hole stands for"]),
      row(["---", "---", "---", "---"]),
      ...HOLE_KINDS.flatMap((kind) => (HOLE_CASES[id]![kind] ?? []).map((one) => example(id, kind, one))).map(
        row,
      ),
    ]),
    "",
  ].join("\n");
}

function example(id: LanguageId, kind: HoleKind, [pattern, code, captured]: HoleCase): string[] {
  const tag = pattern.context ? ` (${id}.${pattern.context})` : "";
  const shown = snippetCode(pattern, () => "⟨h⟩");
  return [`\`${kind}\``, inline(shown) + tag, inline(code), captured === "" ? "nothing" : inline(captured)];
}

/** Code in one cell of a table. */
function inline(code: string): string {
  const line = code.replace(/\n/g, "⏎").replace(/\|/g, "\\|");
  return line.includes("`") ? `\`\` ${line} \`\`` : `\`${line}\``;
}

test.each([/^(a+)+$/, /^(\w+\s?)*$/, /(x|xx)*y$/, /^((ab)*)*$/])(
  "the expression %s has no end and is refused",
  (text) => {
    expect(() => holes({ x: { kind: "name", text } })).toThrow(/of the hole "x" takes time without end/);
  },
);

test.each([/^(\w+\.)*\w+$/, /^(get|set)+[A-Z]/, /^[a-z]+(_[a-z]+)*$/, /(a{2,3}){2}/])(
  "%s is allowed",
  (text) => {
    expect(() => holes({ x: { kind: "name", text } })).not.toThrow();
  },
);
