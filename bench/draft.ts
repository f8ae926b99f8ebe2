/**
 * How many of the shipped rules can be drafted from their own trials, each rule hidden:
 *
 *   npx jiti bench/draft.ts [PACK...]
 *
 * For each rule one of its pairs is taken, then three. A draft is what comes of them; it has found the rule again where one of its
 * rules makes of all pairs of the hidden rule what they become. How many of the pairs and of the places to be left alone
 * it gets right is counted too.
 */
import {
  draft,
  Engine,
  languageOf,
  parse,
  rule as makeRule,
  sameCode,
  textAfter,
  usual as usualOf,
  type Weighed,
  type Candidate,
  type Pack,
  type Rule,
  type Trial,
} from "uvran/core";
import "uvran/node";

const NAMES = ["javascript", "python", "java", "cpp", "csharp", "php", "ruby", "powershell"];
const wanted = process.argv.slice(2);

interface Row {
  rules: number;
  drafted: number;
  refound: number;
  pairs: number;
  right: number;
  wrong: number;
  still: number;
  touched: number;
}

const isPair = (trial: Trial): boolean =>
  trial.was !== trial.now && trial.options === undefined && Object.keys(trial.beside ?? {}).length === 0;

const fileOf = ({ language }: Trial, i: number): string => `trial${i}${languageOf(language).extensions[0]!}`;

async function becomes(candidate: Candidate, trial: Trial): Promise<string> {
  const made = makeRule({ ...candidate.spec, trials: [] });
  const targets = { targetOf: () => ({ version: trial.target ?? "9999", says: "by the trial" }) };
  const result = await new Engine([made], { targets }).file(fileOf(trial, 0), trial.was);
  return textAfter(fileOf(trial, 0), trial.was, result?.changes ?? []);
}

function isSame(a: string, b: string, { language }: Trial): boolean {
  const [x, y] = [a, b].map((text) => parse(text, languageOf(language)));
  return sameCode(x!.root, y!.root);
}

async function measure(rule: Rule, count: number, row: Row): Promise<void> {
  const pairs = rule.trials.filter(isPair);
  const left = rule.trials.filter(({ was, now }) => was === now);
  if (pairs.length < count) return;
  // Those that stand far apart say more than neighbours.
  const given = Array.from({ length: count }, (_, i) => pairs[Math.floor((i * pairs.length) / count)]!);
  row.rules++;
  const result = await draft({
    pairs: given.map((trial, i) => ({
      path: fileOf(trial, i),
      language: languageOf(trial.language),
      before: trial.was,
      after: trial.now,
    })),
  });
  const candidates = result.moves.flatMap(({ candidates }) => candidates);
  if (candidates.length > 0) row.drafted++;
  let best = 0;
  for (const candidate of candidates) {
    let right = 0;
    for (const pair of pairs) if (isSame(await becomes(candidate, pair), pair.now, pair)) right++;
    best = Math.max(best, right);
  }
  if (best === pairs.length) row.refound++;
  const usual: Weighed[] = [];
  for (const move of result.moves) {
    const one = usualOf(await move.weigh());
    if (one) usual.push(one);
  }
  for (const pair of pairs) {
    row.pairs++;
    const results = await Promise.all(usual.map((one) => becomes(one, pair)));
    if (results.some((text) => isSame(text, pair.now, pair))) row.right++;
    else if (results.some((text) => text !== pair.was)) row.wrong++;
  }
  for (const trial of left) {
    row.still++;
    const results = await Promise.all(usual.map((one) => becomes(one, trial)));
    if (results.some((text) => text !== trial.was)) row.touched++;
    if (process.env["VERBOSE"] === "2" && results.some((text) => text !== trial.was))
      console.log(`---- ${rule.id} touched\n${trial.was}=>\n${results.find((text) => text !== trial.was)}`);
  }
  if (process.env["VERBOSE"] !== undefined)
    console.log(
      `    ${count} ${rule.id}: best ${best} of ${pairs.length}; ${candidates.length} candidates; ${result.unexplained.length} unexplained`,
    );
}

for (const name of NAMES.filter((name) => wanted.length === 0 || wanted.includes(name))) {
  const { default: pack } = (await import(`uvran/packs/${name}`)) as { default: Pack };
  for (const count of [1, 3]) {
    const row: Row = { rules: 0, drafted: 0, refound: 0, pairs: 0, right: 0, wrong: 0, still: 0, touched: 0 };
    for (const rule of pack.rules) await measure(rule, count, row);
    const { rules, drafted, refound, pairs, right, wrong, still, touched } = row;
    const of = (part: number, all: number): string =>
      `${part}/${all} (${Math.round((100 * part) / Math.max(1, all))} %)`;
    console.log(
      `${name.padEnd(11)} from ${count}: drafted ${of(drafted, rules)}, found again ${of(refound, rules)}; pairs right ${of(right, pairs)}, other result ${of(wrong, pairs)}; left alone ${of(still - touched, still)}`,
    );
  }
}
