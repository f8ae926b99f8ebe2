import { existsSync, readdirSync, readFileSync, writeFileSync } from "node:fs";
import { languageOf, languageOfFile, loadGrammars, type Language } from "uvran/core";
import "uvran/node";
import { programsIn, type Program } from "./programs.js";

/** `UPDATE_GOLDEN=1 npm test` writes the page. */
const PAGE = "docs/knowledge.md";

const files = readdirSync(new URL("./programs/", import.meta.url)).sort();
await loadGrammars(files.map((file) => languageOfFile(file)!));

const QUESTIONS: readonly [title: string, says: RegExp][] = [
  ["what a name declares, means, does", /^\S+ (declares|means|reads|writes|updates|addresses|passes|is)\b/],
  ["captured by an inner function", /^\S+ captures\b/],
  ["certainly assigned", /^\S+ assigned\b/],
  ["unchanged between two places", /^\S+ (un)?changed\b/],
  ["can be missing", /^\S+ missing\b/],
  ["read afterwards", /^\S+ after\b/],
  ["gets out of the function", /^\S+ escapes\b/],
  ["leaves early, throws, reaches", /^(leaves|throws|reaches)\b/],
];

function row(cells: readonly (string | number)[]): string {
  return `| ${cells.join(" | ")} |`;
}

function isUnknown({ expectations }: Program): boolean {
  return expectations.some(({ says }) => /\bunknown\b/.test(says));
}

function page(): string {
  const languages = files.map((file): [Language, Program[]] => [
    languageOfFile(file)!,
    programsIn(`./programs/${file}`),
  ]);
  const sorted = languages.sort(([a], [b]) => (a.title < b.title ? -1 : 1));
  const count = (programs: readonly Program[], says: RegExp): string => {
    const all = programs.flatMap(({ expectations }) => expectations).filter((one) => says.test(one.says));
    const unknown = all.filter((one) => /\bunknown\b/.test(one.says)).length;
    return unknown > 0 ? `${all.length} (${unknown})` : String(all.length);
  };
  return [
    "# What analysis knows",
    "",
    "Answers are yes, no or unknown; unknown never counts as yes. Small programs in each language say in their",
    "comments what is to be known of them, and a test holds the answers to it. The table counts these expectations,",
    "in brackets those that must be answered with unknown. It is written from the programs themselves, as are the",
    "lists below: what each language's programs are about, and where it must be said that nothing is known.",
    "",
    row(["", ...sorted.map(([language]) => language.title)]),
    row(["---", ...sorted.map(() => "---")]),
    row(["programs", ...sorted.map(([, programs]) => programs.length)]),
    ...QUESTIONS.map(([title, says]) => row([title, ...sorted.map(([, programs]) => count(programs, says))])),
    ...sorted.flatMap(([language, programs]) => [
      "",
      `## ${language.title}`,
      "",
      `Known: ${programs
        .filter((one) => !isUnknown(one))
        .map(({ title }) => title)
        .join("; ")}.`,
      "",
      "Unknown:",
      ...programs.filter(isUnknown).flatMap(({ title, tree }) => [
        "",
        `- ${title}`,
        "",
        `  \`\`\`${languageOf(language.id).fences[0]}`,
        ...tree.text
          .trimEnd()
          .split("\n")
          .map((line) => `  ${line}`.trimEnd()),
        "  ```",
      ]),
    ]),
    "",
  ].join("\n");
}

test("the page in the docs says what the programs show", () => {
  const text = page();
  if (process.env["UPDATE_GOLDEN"] || !existsSync(PAGE)) writeFileSync(PAGE, text);
  expect(readFileSync(PAGE, "utf8")).toBe(text);
});
