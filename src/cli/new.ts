import { mkdirSync, writeFileSync } from "node:fs";
import { dirname, join } from "node:path";
import type { Command } from "commander";
import { exportName, firstRule, RULE_LANGUAGES } from "../draft/index.js";
import { messageOf, Problem } from "../node/problem.js";
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

function newRule(id: string, { out }: { readonly out?: string }): void {
  checkRuleId(id);
  const source = firstRule(id);
  if (source === undefined)
    throw new Problem(
      `Uvran does not read "${id.split("/")[0]}". The languages are ${RULE_LANGUAGES.join(", ")}.`,
    );
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
