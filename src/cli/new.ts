import { mkdirSync, writeFileSync } from "node:fs";
import { dirname, join } from "node:path";
import type { Command } from "commander";
import { exportName } from "../draft/index.js";
import { messageOf, Problem } from "../node/problem.js";
import type { LanguageId } from "../syntax/index.js";
import { checkRuleId } from "./rule-id.js";
import { examples } from "./terminal.js";

export function describeNew(command: Command): void {
  command.description("Writes a first file to go on from.");
  command
    .command("rule <id>")
    .description(
      "Writes a rule with a trial that passes and one that fails, to see how both look. Change the code to what you want to " +
        "rewrite, and run the trials again.",
    )
    .option("--out <file>", "the file; rules/NAME.ts where it is left out")
    .addHelpText(
      "after",
      examples("uvran new rule python/lit-smoker", "uvran new rule java/sealed-jar --out own/jar.ts"),
    )
    .action(newRule);
}

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

/** The first rule for an id. Throws a Problem for an id that is none. */
export function firstRule(id: string): string {
  checkRuleId(id);
  const [language = ""] = id.split("/");
  const start = STARTS[language as LanguageId];
  if (!start)
    throw new Problem(
      `Uvran does not read "${language}". The languages are ${Object.keys(STARTS).join(", ")}.`,
    );
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

function newRule(id: string, { out }: { readonly out?: string }): void {
  const source = firstRule(id);
  const file = out ?? join("rules", `${id.split("/")[1]!}.ts`);
  try {
    mkdirSync(dirname(file), { recursive: true });
    writeFileSync(file, source, { flag: "wx" });
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === "EEXIST")
      throw new Problem(`${file} is there already. Choose another name with --out.`);
    throw new Problem(`Cannot write ${file}: ${messageOf(error)}`);
  }
  const specifier = `./${file.replaceAll("\\", "/").replace(/\.ts$/, ".js")}`;
  process.stdout.write(`Written to ${file}. Add it to uvran.config.ts:

  import { pack } from "uvran";
  import { defineConfig } from "uvran/node";
  import { ${exportName(id)} } from "${specifier}";

  export default defineConfig({ packs: [pack("own", [${exportName(id)}])] });

Then run its trials, again at every change: uvran rules ${id} --try --watch
`);
}
