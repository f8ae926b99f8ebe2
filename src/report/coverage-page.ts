import type { Pack, Rule } from "../rules/index.js";
import { NEEDS, type Need } from "./coverage-rows.js";

/**
 * The page that says, need by need, which rules there are, with how many trials each, and what is missing. Throws a RangeError
 * for a rule that it names and that is not there, and for one that no need names.
 */
export function coveragePage(packs: readonly Pack[]): string {
  const rules = new Map(
    packs.flatMap((pack) => pack.rules.map((rule) => [rule.id, { rule, pack: pack.name }])),
  );
  const named = new Set(NEEDS.flatMap((need) => need.rules));
  for (const id of named) if (!rules.has(id)) throw new RangeError(`There is no rule "${id}".`);
  for (const id of rules.keys()) if (!named.has(id)) throw new RangeError(`No need names the rule "${id}".`);
  const linked = (id: string): string => {
    const { rule, pack } = rules.get(id)!;
    return `[${id.split("/")[1]}](rules/${pack}.md#${id.replace("/", "")}) (${rule.trials.length})`;
  };
  return [
    "# What is covered",
    "",
    "Written by `npm run docs` from the rules. Each rule with the number of its trials; what has no rules is not done yet.",
    "",
    "| language | from | to | rules | missing |",
    "| --- | --- | --- | --- | --- |",
    ...NEEDS.map(
      (need) =>
        `| ${need.language} | ${need.from} | ${need.to} | ${need.rules.map(linked).join(", ")} | ${missingIn(need)} |`,
    ),
    "",
    `${rules.size} rules with ${countTrials([...rules.values()].map(({ rule }) => rule))} trials.`,
    "",
  ].join("\n");
}

const missingIn = ({ rules, missing }: Need): string => missing ?? (rules.length === 0 ? "all of it" : "");

const countTrials = (rules: readonly Rule[]): number =>
  rules.reduce((sum, { trials }) => sum + trials.length, 0);
