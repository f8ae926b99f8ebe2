#!/usr/bin/env node
import { readFileSync } from "node:fs";
import { Command, CommanderError } from "commander";
import { messageOf, Problem } from "../node/index.js";
import { PlanError } from "../plan/index.js";
import { RuleError } from "../rules/index.js";
import { addApply, addUndo } from "./apply.js";
import { addOutline } from "./outline.js";
import { addPropose } from "./propose.js";
import { addProve } from "./prove.js";
import { addRules } from "./rules.js";
import { addSurvey } from "./survey.js";
import { examples, paintFor } from "./common.js";

const { version } = JSON.parse(readFileSync(new URL("../../package.json", import.meta.url), "utf8")) as {
  version: string;
};

const program = new Command("uvran")
  .description("Moves a codebase to newer language and framework idioms, with the evidence for every change.")
  .version(version)
  .exitOverride()
  .configureHelp({ sortSubcommands: false })
  .addHelpText(
    "after",
    examples("uvran survey", "uvran propose", "uvran prove", "uvran apply", "uvran undo"),
  );

for (const add of [addSurvey, addPropose, addProve, addApply, addUndo, addOutline, addRules]) add(program);
for (const command of program.commands) command.exitOverride();

process.stdout.on("error", (error: NodeJS.ErrnoException) => {
  if (error.code === "EPIPE") process.exit(0);
  throw error;
});

try {
  await program.parseAsync();
} catch (error) {
  process.exitCode = exitCodeFor(error);
}

/** Says what went wrong, unless commander already has, and gives the exit code. */
function exitCodeFor(error: unknown): number {
  if (error instanceof CommanderError) return error.exitCode === 0 ? 0 : 2;
  const known = error instanceof Problem || error instanceof PlanError || error instanceof RuleError;
  const paint = paintFor(process.stderr);
  process.stderr.write(
    paint.red(known ? "" : "Uvran failed; this is a fault in it: ") + `${messageOf(error)}\n`,
  );
  if (!known && error instanceof Error) process.stderr.write(`${error.stack}\n`);
  return error instanceof Problem ? error.exitCode : 2;
}
