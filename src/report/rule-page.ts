import type { Pack, Rule } from "../rules/index.js";
import type { LanguageId } from "../syntax/index.js";
import { factsOf, type Shown } from "./rule-facts.js";

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

/** What a rule says of itself: what, why, before and after, when it holds back. */
async function rulePage(rule: Rule): Promise<string> {
  const { id, title, why, settings, example, reported, musts, unsure, held, ...facts } = await factsOf(rule);
  const said = [
    facts.kind,
    facts.onlyReports ? "reports only" : "rewrites",
    facts.isOff ? "**off** until switched on: a matter of taste" : "on",
    ...(facts.needs === undefined ? [] : [`needs ${facts.needs}`]),
    ...(facts.knowsHandles ? ["knows the handles of the config"] : []),
  ];
  const out = [`## ${id}`, "", `**${title}.** ${why}`, "", said.join(" · "), ""];
  if (settings.length > 0) {
    out.push('Set in the config, as `rules: { "' + id + '": { … } }`:', "");
    for (const { name, preset, says } of settings)
      out.push(`- \`${name}\`: ${says}${preset === "" ? "" : ` Default: \`${preset}\``}`);
    out.push("");
  }
  if (example)
    out.push(
      "Before and after:",
      "",
      ...fenced(example),
      "",
      ...fenced({ ...example, code: example.now }),
      "",
    );
  if (reported) out.push("It says of this:", "", ...fenced(reported), "", `> ${reported.says}`, "");
  if (musts.length > 0)
    out.push("Certain when it is known that", "", ...musts.map((must) => `- ${must}`), "");
  for (const trial of unsure) out.push(`Only ${trial.trust}:`, "", ...fenced(trial), "");
  if (held.length > 0) out.push("Held back, for instance:", "");
  for (const trial of held) out.push(...fenced(trial), "", `> because ${trial.because}`, "");
  return out.join("\n");
}

function fenced({ language, code }: Shown): string[] {
  const longest = Math.max(2, ...[...code.matchAll(/`+/g)].map(([ticks]) => ticks.length));
  const fence = "`".repeat(longest + 1);
  return [`${fence}${FENCES[language] ?? language}`, code.replace(/\n+$/, ""), fence];
}
