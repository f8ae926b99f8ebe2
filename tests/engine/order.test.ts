import { readdirSync, readFileSync } from "node:fs";
import fc from "fast-check";
import "uvran/node";
import {
  Engine,
  holes,
  javascript,
  hashText,
  makePlan,
  need,
  rule,
  textAfter,
  type Examined,
  type Rule,
  type Snippet,
} from "uvran/core";
import javascriptPack from "uvran/packs/javascript";
import pythonPack from "uvran/packs/python";
import { GOLDEN_RULES } from "../rewrite/golden-rules.js";

const { a, args } = holes({ a: "expression", args: "arguments" });
const simple = (id: string, was: Snippet, becomes: Snippet): Rule =>
  rule({ id, kind: "idiom", title: id, why: "It is old.", was, becomes, trials: [] });

/** Rules that want the same text, make work for each other, and import the same things. */
const RIVALS = [
  simple("rival/b", javascript`record(${args})`, javascript`second(${args})`),
  simple("rival/a", javascript`record(${args})`, javascript`${need("log", "first")}(${args})`),
  simple("rival/c", javascript`first(${a})`, javascript`${need("log", "third")}(${a})`),
  simple("rival/d", javascript`!${a}`, javascript`${need("log", "no")}(${a})`),
];
const RULES = [...javascriptPack.rules, ...pythonPack.rules, ...GOLDEN_RULES, ...RIVALS];
const FILES = ["tests/golden", "tests/golden/languages"].flatMap((folder) =>
  readdirSync(folder)
    .filter((name) => name.includes(".before."))
    .map((name) => ({ path: `${folder}/${name}`, text: readFileSync(`${folder}/${name}`, "utf8") })),
);

/** The plan when the files are shared out among several engines, each with the rules in an order of its own. */
async function planned(files: typeof FILES, orders: readonly (readonly Rule[])[]): Promise<string> {
  const engines = orders.map((rules) => new Engine(rules));
  const examined: Examined[] = [];
  for (const [i, { path, text }] of files.entries()) {
    examined.push({
      path,
      hash: hashText(text),
      result: (await engines[i % engines.length]!.file(path, text))!,
    });
  }
  return JSON.stringify(makePlan(examined));
}

const shuffled = <T>(values: readonly T[]): fc.Arbitrary<T[]> =>
  fc.shuffledSubarray([...values], { minLength: values.length });

test("any order of files and rules, and any sharing out of the files, gives the same plan", async () => {
  const plan = await planned(FILES, [RULES]);
  const orders = fc.array(shuffled(RULES), { minLength: 1, maxLength: 3 });
  await fc.assert(
    fc.asyncProperty(shuffled(FILES), orders, async (files, rules) => {
      expect(await planned(files, rules)).toBe(plan);
    }),
    { numRuns: 12 },
  );
}, 120_000);

test("of rules that want the same text the first by id wins; what it makes possible joins it", async () => {
  const { changes } = (await new Engine(RIVALS).file("a.js", "record(1);\n"))!;
  expect(changes.map(({ rules }) => rules)).toEqual([["rival/a", "rival/c"]]);
  expect(await textAfter("a.js", "record(1);\n", changes)).toBe(
    'import { third } from "log";\n\nthird(1);\n',
  );
});

test.each(FILES.map(({ path, text }) => [path, text] as const))(
  "again changes nothing in %s",
  async (path, text) => {
    const engine = new Engine(RULES);
    const after = await textAfter(path, text, (await engine.file(path, text))!.changes);
    expect((await engine.file(path, after))!.changes).toEqual([]);
  },
);
