import { readFileSync } from "node:fs";
import { coveragePage, pack, packPage, rule, RuleError, rulesIndex, trialsIn } from "uvran/core";
import { SHIPPED } from "uvran/packs";
import pythonPack from "uvran/packs/python";
import { expectTrialsToPass } from "uvran/testing";

test.each(SHIPPED.flatMap((shipped) => shipped.rules.map((r) => [r.id, r] as const)))(
  "the trials of %s pass",
  async (_, tried) => {
    expect(tried.trials.length).toBeGreaterThan(5);
    await expectTrialsToPass([tried]);
  },
);

test("a trial that is not met fails, and shows what came out", async () => {
  const [known] = pythonPack.rules.filter((r) => r.id === "python/branch-to-value");
  const { rewrites, holds, ignores } = trialsIn("python");
  const code = "if a:\n    x = a\nelse:\n    x = 1\n";
  const failing = (trial: ReturnType<typeof ignores>): Promise<void> =>
    expectTrialsToPass([{ ...known!, trials: [trial] }]);
  await expect(failing(ignores(code))).rejects.toThrow("x = a or 1");
  await expect(failing(rewrites(code, "x = a or 1\n", "likely"))).rejects.toThrow("got certain");
  await expect(failing(holds("x = 1\n", "because"))).rejects.toThrow("nothing found");
  await expect(failing(ignores("if a\n"))).rejects.toThrow("syntax error");
});

test("a rule or pack that is not well formed is refused by name", () => {
  const [known] = pythonPack.rules;
  expect(() => rule({ ...known!, id: "No Id" })).toThrow(RuleError);
  expect(() => rule({ ...known!, was: [] })).toThrow("holds no pattern");
  expect(() => pack("twice", [known!, known!])).toThrow('two rules have the id "python/index-and-item"');
});

test("the rules' pages in the docs say what the rules say; `npm run docs` writes them", async () => {
  expect(readFileSync("docs/rules/README.md", "utf8")).toBe(rulesIndex(SHIPPED));
  expect(readFileSync("docs/coverage.md", "utf8")).toBe(coveragePage(SHIPPED));
  for (const shipped of SHIPPED) {
    expect(readFileSync(`docs/rules/${shipped.name}.md`, "utf8")).toBe(await packPage(shipped));
  }
});
