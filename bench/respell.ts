/**
 * The respelling battery: the old code of the family rules' trials, spelt in other ways that mean the same, must be found
 * as well, with the same trust, and do the same afterwards:
 *
 *   npx jiti bench/respell.ts [--language ID] [--rule ID] [--show N] [--pairs]
 *
 * A respelling that does not do what the code did that it was made of, or that the parser refuses, is left out; where
 * nothing can run the language, only the parser is asked. `--show` prints places that were missed; `--pairs` respells
 * what was respelt once more.
 */
import { parseArgs } from "node:util";
import {
  countErrors,
  languageOf,
  parse,
  textAfter,
  trialEngine,
  TRUSTS,
  type LanguageId,
  type Rule,
  type Trust,
} from "uvran/core";
import { allLanguages, loadGrammars } from "uvran/core";
import "uvran/node";
import { SHIPPED } from "uvran/packs";
import { behaviours } from "./respell/behave.js";
import { goneNames, isSame, mayBeRun } from "./respell/same.js";
import { respellings, RESPELT, type Respelt } from "./respell/respell.js";

/** The rules whose old code is a reading. */
const RULES =
  /\/(value-or-fallback|assigned-if-missing|guarded-read|guarded-call|lookup-or-default|fetch-or-default|branch-to-value|filled-dict|counted-in-map|create-if-absent|optional-consumed|optional-of-null|removed-if-there|null-or-empty|guarded-truth|required-argument|scoped-resource|released-in-finally|block-form|synchronized|scoped-lock|promise-form|steps-awaited|own-keys|comprehension|mapped-list|any-or-all|first-found|summed|mapped-hash|read-or-fallback)$/;

const { values } = parseArgs({
  options: {
    language: { type: "string" },
    rule: { type: "string" },
    show: { type: "string", default: "0" },
    pairs: { type: "boolean", default: false },
  },
});
await loadGrammars(allLanguages());

interface Case extends Respelt {
  readonly rule: Rule;
  readonly language: LanguageId;
  readonly was: string;
  readonly trust: Trust;
  readonly target: string | undefined;
  readonly options: unknown;
}

/** All respellings of the trials of a rule that rewrite; of pairs one in five, so that they stay few. */
function casesOf(rule: Rule): Case[] {
  const seen = new Set<string>();
  return rule.trials.flatMap(({ language, was, now, trust, target, beside, options }): Case[] => {
    if (was === now || trust === undefined || Object.keys(beside ?? {}).length > 0) return [];
    // What may never end cannot be compared.
    if (!RESPELT.includes(language) || /\b(while|until)\b/.test(was)) return [];
    const one = respellings(parse(was, languageOf(language)));
    const two = values.pairs
      ? one.flatMap(({ how, code }, i) =>
          respellings(parse(code, languageOf(language)))
            .filter((_, k) => (i + k) % 5 === 0)
            .map((next) => ({ how: `${how}; ${next.how}`, code: next.code })),
        )
      : [];
    return [...one, ...two].flatMap(({ how, code }) => {
      if (code === was || seen.has(code) || countErrors(code, languageOf(language)) > 0) return [];
      seen.add(code);
      return [{ rule, language, was, trust, target, options, how, code }];
    });
  });
}

const EXTENSIONS: Partial<Record<LanguageId, string>> = {
  javascript: "js",
  typescript: "ts",
  powershell: "ps1",
};
const ENDINGS: Partial<Record<LanguageId, string>> = {
  ...EXTENSIONS,
  python: "py",
  java: "java",
  csharp: "cs",
  php: "php",
  ruby: "rb",
};

async function rewritten({ rule, language, code, target, options }: Case) {
  const told = { ...(target === undefined ? {} : { target }), ...(options === undefined ? {} : { options }) };
  const engine = trialEngine(rule, told);
  const path = `trial.${ENDINGS[language]!}`;
  const result = await engine.file(path, code);
  const changes = result?.changes ?? [];
  const certain = await textAfter(
    path,
    code,
    changes.filter(({ trust }) => trust === "certain"),
  );
  const trust = changes
    .map((change) => change.trust)
    .reduce<Trust | undefined>((a, b) => worse(a, b), undefined);
  return {
    found: changes.length > 0,
    held: (result?.heldBack ?? []).map(({ reason }) => reason),
    trust,
    certain,
  };
}

function worse(a: Trust | undefined, b: Trust): Trust {
  return a === undefined ? b : TRUSTS[Math.max(TRUSTS.indexOf(a), TRUSTS.indexOf(b))]!;
}

const rows: Record<string, string | number>[] = [];
const missed: string[] = [];
for (const pack of SHIPPED) {
  for (const rule of pack.rules) {
    if (!RULES.test(rule.id) || (values.rule !== undefined && rule.id !== values.rule)) continue;
    for (const language of RESPELT) {
      if (values.language !== undefined && language !== values.language) continue;
      const cases = casesOf(rule).filter((one) => one.language === language);
      if (cases.length === 0) continue;
      const olds = [...new Set(cases.map(({ was }) => was))];
      const tried = mayBeRun(rule) ? behaviours : () => undefined;
      const did = tried(language, [...olds, ...cases.map(({ code }) => code)]);
      const sameAs = ({ was }: Case, i: number): boolean =>
        !did || did[olds.indexOf(was)] === did[olds.length + i];
      const sound = cases.filter(sameAs);
      const indices = cases.flatMap((one, i) => (sameAs(one, i) ? [i] : []));
      const results = await Promise.all(sound.map(rewritten));
      const after = tried(
        language,
        results.map(({ certain }) => certain),
      );
      let wrong = 0;
      let [found, held, trusted] = [0, 0, 0];
      results.forEach((result, i) => {
        const { how, code, trust } = sound[i]!;
        if (result.found) found++;
        else if (result.held.length > 0) held++;
        if (!result.found)
          missed.push(
            `${rule.id}, ${how}${result.held.length > 0 ? `; held back: ${result.held[0]}` : ""}\n${code}`,
          );
        if (result.found && result.trust === trust) trusted++;
        const was = did?.[olds.length + indices[i]!];
        if (after && was && !isSame(was, after[i]!, goneNames(code, result.certain))) {
          wrong++;
          missed.unshift(`WRONG ${rule.id}, ${how}\n${code}\n→\n${result.certain}`);
        }
      });
      rows.push({
        rule: `${rule.id}${language === "typescript" ? " (TypeScript)" : ""}`,
        respelt: cases.length,
        "mean the same": did ? sound.length : `${sound.length} (not run)`,
        found: `${found} (${Math.round((100 * found) / Math.max(1, sound.length))} %)`,
        "held back": held,
        "same trust": trusted,
        "behave otherwise": after ? wrong : "not run",
      });
    }
  }
}
console.table(rows);
for (const one of missed.slice(0, Number(values.show))) console.log(`\n--- ${one}`);
