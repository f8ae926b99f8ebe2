import type { LanguageId } from "../syntax/index.js";
import { exportName } from "./source.js";

/** A call and what it becomes, as code in which the argument is a hole, and a file around it. */
interface Start {
  readonly call: (name: string, argument: string) => string;
  readonly file: (code: string) => string;
}

const call = (name: string, argument: string): string => `${name}(${argument})`;
const line = (code: string): string => `${code}\n`;
const inClass = (code: string): string => `class Apiary { void f() { ${code}; } }\n`;

const STARTS: Readonly<Partial<Record<LanguageId, Start>>> = {
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

/** The languages that a first rule can be for. */
export const FIRST_RULE_LANGUAGES: readonly string[] = Object.keys(STARTS);

/** A small rule that runs, with a trial that passes and one that fails; undefined for an id of an unknown language. */
export function firstRule(id: string): string | undefined {
  const [language = ""] = id.split("/");
  const start = STARTS[language as LanguageId];
  if (!start) return undefined;
  const argument = ["php", "powershell"].includes(language) ? "$hive" : "hive";
  const trial = (name: string, given: string): string => JSON.stringify(start.file(start.call(name, given)));
  const two = language === "powershell" ? `${argument} 2` : `${argument}, 2`;
  return `import { holes, ${language}, rule, trialsIn } from "uvran";

const { hive } = holes({ hive: "expression" });
const { rewrites } = trialsIn("${language}");

export const ${exportName(id)} = rule({
  id: "${id}",
  kind: "idiom",
  title: "Say in one line what the rule does",
  why: "Say here what is wrong with the old code.",
  was: ${language}\`${start.call("weigh", "${hive}")}\`,
  becomes: ${language}\`${start.call("measure", "${hive}")}\`,
  trials: [
    rewrites(${trial("weigh", argument)}, ${trial("measure", argument)}),
    // This one fails: the pattern has one argument. Make it an \`ignores\` trial, or the pattern wider.
    rewrites(${trial("weigh", two)}, ${trial("measure", two)}),
  ],
});
`;
}
