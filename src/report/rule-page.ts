import { adviceGiven, reasonHeld } from "../engine/index.js";
import { settingsOf, type Pack, type Rule, type Trial } from "../rules/index.js";
import type { LanguageId } from "../syntax/index.js";

const MADE = "Written by `npm run docs` from the rules and their trials.";

/** The page of a pack in Markdown: a section for each of its rules, made from the rule itself. */
export async function packPage({ name, rules }: Pack): Promise<string> {
  const sections = await Promise.all(rules.map(rulePage));
  return `# Rules for ${name}\n\n${MADE} [All rules](README.md).\n\n${sections.join("\n")}`;
}

/** The page that lists the rules of all packs. */
export function rulesIndex(packs: readonly Pack[]): string {
  const out = ["# The rules", "", MADE, ""];
  for (const { name, rules } of packs) {
    out.push(`## [${name}](${name}.md)`, "", "| rule | | what |", "| --- | --- | --- |");
    for (const { id, taste, advice, title } of rules) {
      const note = taste ? "off" : advice === undefined ? "" : "reports";
      out.push(`| [${id}](${name}.md#${id.replace("/", "")}) | ${note} | ${title} |`);
    }
    out.push("");
  }
  return out.join("\n");
}

const FENCES: Partial<Record<LanguageId, string>> = {
  cpp: "cpp",
  csharp: "csharp",
  powershell: "powershell",
};
const MOST_HELD = 4;

/** What a rule says of itself: what, why, before and after, when it holds back. */
async function rulePage(rule: Rule): Promise<string> {
  const { id, kind, title, why, taste, target, given = [], advice, trials } = rule;
  const facts = [
    kind,
    advice === undefined ? "rewrites" : "reports only",
    taste ? "**off** until switched on: a matter of taste" : "on",
    ...(target === undefined ? [] : [`needs ${LANGUAGES[id.split("/")[0]!] ?? ""} ${target}`]),
    ...(rule.withHandles ? ["knows the handles of the config"] : []),
  ];
  const out = [`## ${id}`, "", `**${title}.** ${why}`, "", facts.join(" · "), ""];
  if (rule.options) {
    out.push('Set in the config, as `rules: { "' + id + '": { … } }`:', "");
    for (const { name, preset, says } of settingsOf(rule.options))
      out.push(`- \`${name}\`: ${says}${preset === "" ? "" : ` Default: \`${preset}\``}`);
    out.push("");
  }
  const examples = trials.filter((trial) => trial.was !== trial.now);
  const sure = examples.find(({ trust }) => trust === "certain") ?? examples[0];
  if (sure) out.push("Before and after:", "", ...fenced(sure.was, sure), "", ...fenced(sure.now, sure), "");
  const reported = trials.find(({ says }) => says !== undefined);
  if (reported)
    out.push(
      "It says of this:",
      "",
      ...fenced(reported.was, reported),
      "",
      `> ${await adviceGiven(rule, reported)}`,
      "",
    );
  if (given.length > 0) {
    out.push("Certain when it is known that", "", ...given.map(({ must }) => `- ${must}`), "");
  }
  const unsure = examples.filter(({ trust }) => trust !== "certain").slice(0, 2);
  for (const trial of unsure) out.push(`Only ${trial.trust}:`, "", ...fenced(trial.was, trial), "");
  const held = trials.filter(({ because }) => because !== undefined).slice(0, MOST_HELD);
  if (held.length > 0) out.push("Held back, for instance:", "");
  for (const trial of held) {
    out.push(...fenced(trial.was, trial), "", `> because ${await reasonHeld(rule, trial)}`, "");
  }
  return out.join("\n");
}

const LANGUAGES: Readonly<Record<string, string>> = {
  cpp: "C++",
  csharp: "C#",
  java: "Java",
  javascript: "ECMAScript",
  php: "PHP",
  powershell: "PowerShell",
  python: "Python",
  ruby: "Ruby",
};

function fenced(code: string, { language }: Trial): string[] {
  const longest = Math.max(2, ...[...code.matchAll(/`+/g)].map(([ticks]) => ticks.length));
  const fence = "`".repeat(longest + 1);
  return [`${fence}${FENCES[language] ?? language}`, code.replace(/\n+$/, ""), fence];
}
