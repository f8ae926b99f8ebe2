import type { ReadHere } from "../readings/index.js";
import type { RuleLanguage } from "./model.js";
import { escapedCode, holesSource, ruleFile, snippetSource } from "./rule-file.js";
import { exportName } from "./source.js";

/** A call and what it becomes, as code in which the argument is a hole, and a file around it. */
interface Start {
  readonly call: (name: string, argument: string) => string;
  readonly file: (code: string) => string;
}

const call = (name: string, argument: string): string => `${name}(${argument})`;
const line = (code: string): string => `${code}\n`;
const inClass = (code: string): string => `class Apiary { void f() { ${code}; } }\n`;

const STARTS: Readonly<Record<RuleLanguage, Start>> = {
  javascript: { call, file: (code) => `${code};\n` },
  typescript: { call, file: (code) => `${code};\n` },
  python: { call, file: line },
  java: { call, file: inClass },
  cpp: { call, file: (code) => `void f() { ${code}; }\n` },
  csharp: { call, file: inClass },
  php: { call, file: (code) => `<?php\n${code};\n` },
  ruby: { call, file: line },
  powershell: {
    call: (name, argument) => `${name === "weigh" ? "Get-Weight" : "Measure-Hive"} ${argument}`,
    file: line,
  },
};

/** The languages in which rules are written. */
export const RULE_LANGUAGES: readonly string[] = Object.keys(STARTS);

const UNSAID = [
  'kind: "idiom",',
  'title: "Say in one line what the rule does",',
  'why: "Say here what is wrong with the old code.",',
];

/** A small rule that runs, with a trial that passes and one that fails; undefined for an id of an unknown language. */
export function firstRule(id: string): string | undefined {
  const [language = ""] = id.split("/");
  const start = STARTS[language as RuleLanguage];
  if (!start) return undefined;
  const argument = ["php", "powershell"].includes(language) ? "$hive" : "hive";
  const trial = (name: string, given: string): string => JSON.stringify(start.file(start.call(name, given)));
  const two = language === "powershell" ? `${argument} 2` : `${argument}, 2`;
  return ruleFile({
    uses: ["holes", language, "rule", "trialsIn"],
    declared: [...holesSource([["hive", "expression"]]), `const { rewrites } = trialsIn("${language}");`],
    exported: exportName(id),
    body: [
      `id: "${id}",`,
      ...UNSAID,
      `was: ${language}\`${start.call("weigh", "${hive}")}\`,`,
      `becomes: ${language}\`${start.call("measure", "${hive}")}\`,`,
      "trials: [",
      `  rewrites(${trial("weigh", argument)}, ${trial("measure", argument)}),`,
      "  // This one fails: the pattern has one argument. Make it an `ignores` trial, or the pattern wider.",
      `  rewrites(${trial("weigh", two)}, ${trial("measure", two)}),`,
      "],",
    ],
  });
}

/** A rule whose old code is a piece of code, which is also what it becomes: the start of a rule by pointing at code. */
export function ruleFromCode(language: RuleLanguage, code: string): string {
  const snippet = snippetSource(language, escapedCode(code), 2);
  const body = [`was: ${snippet},`, `becomes: ${snippet},`];
  return begun(language, [language], [], body);
}

/** A rule that finds what a piece of code says, and reports it until its author says what it becomes. */
export function ruleFromReading(language: RuleLanguage, { reading, holes, imports }: ReadHere): string {
  const kinds = Object.entries(holes);
  const body = [
    `was: ${reading},`,
    'advice: "Say what to do instead, or write `becomes` in the place of this line.",',
  ];
  return begun(language, [...imports, "holes"], holesSource(kinds), body);
}

function begun(
  language: RuleLanguage,
  uses: readonly string[],
  declared: readonly string[],
  body: readonly string[],
): string {
  const id = `${language}/new-rule`;
  return ruleFile({
    uses: [...uses, "rule"],
    declared,
    exported: exportName(id),
    body: [`id: "${id}",`, ...UNSAID, ...body, "trials: [],"],
  });
}
