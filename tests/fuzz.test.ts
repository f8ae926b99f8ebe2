import {
  allLanguages,
  countErrors,
  Engine,
  filesNaming,
  languageOfFile,
  loadGrammars,
  textAfter,
  type LanguageId,
} from "uvran/core";
import "uvran/node";
import { SHIPPED } from "uvran/packs";
import { Donors, mutated } from "../bench/fuzz/mutate.js";
import { probed, probesIn } from "../bench/fuzz/probe.js";
import { brokenPromises } from "../bench/fuzz/promises.js";
import { Random } from "../bench/fuzz/random.js";
import { ownSeeds } from "../bench/fuzz/seeds.js";

const MOST = 150;
const RULES = SHIPPED.flatMap(({ rules }) => rules);
const around = {
  files: filesNaming([]),
  targets: { targetOf: () => ({ version: "9999", says: "by the test" }) },
};
const engine = new Engine(RULES, around);
const turned = new Engine([...RULES].reverse(), around);
const languages = [...new Set(allLanguages().map(({ id }) => id))];

beforeAll(() => loadGrammars(allLanguages()));

test.each(languages)(
  "all rules keep their promises on code that nobody would write: %s",
  async (id: LanguageId) => {
    const random = new Random(languages.indexOf(id) + 1);
    const seeds = ownSeeds(id);
    const facts = languageOfFile(seeds[0]!.path)!;
    const donors = new Donors(
      facts,
      seeds.map(({ text }) => text),
    );
    // Few seeds are long ones.
    for (let i = 0; i < Math.min(MOST, 10 * seeds.length); i++) {
      const { path, text } = random.of(seeds);
      const code = mutated(text, languageOfFile(path)!, random, donors);
      const { broken } = await brokenPromises(engine, turned, path, code, random);
      expect({ code, broken }).toEqual({ code, broken: [] });
    }
  },
);

test.each(languages)("no call of an unknown function is lost: %s", async (id: LanguageId) => {
  const random = new Random(100 + languages.indexOf(id));
  const seeds = ownSeeds(id);
  const lost: string[] = [];
  for (let i = 0; i < Math.min(MOST, 10 * seeds.length); i++) {
    const { path, text } = random.of(seeds);
    const facts = languageOfFile(path)!;
    const code = probed(text, facts, random);
    if (code === undefined || countErrors(code, facts) > 0) continue;
    const { changes } = (await engine.file(path, code))!;
    const after = await textAfter(path, code, changes);
    if (probesIn(after) < probesIn(code)) lost.push(`${code}\n--- becomes\n${after}`);
  }
  expect(lost).toEqual([]);
});
