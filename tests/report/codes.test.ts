import { readFileSync } from "node:fs";
import { CODES, codesPage, sayingsOf, type CodeExample, type Pack } from "uvran/core";
import "uvran/node";
import { SHIPPED } from "uvran/packs";

interface Examples {
  codeExamples(packs: readonly Pack[]): readonly CodeExample[];
}
const { codeExamples } = (await import(
  new URL("../../scripts/code-examples.mjs", import.meta.url).href
)) as Examples;

test("every code is explained by an example that says something under it, as the page shows it", async () => {
  const page = readFileSync("docs/codes.md", "utf8");
  expect(await codesPage(SHIPPED, codeExamples(SHIPPED))).toBe(page);
  for (const code of Object.keys(CODES)) expect(page).toContain(`## ${code}\n\nAsks whether `);
});

test("an example needs no more than its rule", async () => {
  const [first] = codeExamples(SHIPPED);
  expect(await sayingsOf(first!)).toEqual([
    {
      as: "unknown",
      code: "name.not-resolved",
      says: "nothing in this file says where `load` comes from",
    },
  ]);
});
