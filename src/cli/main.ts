#!/usr/bin/env node
import { readFileSync } from "node:fs";
import { Command, CommanderError } from "commander";
import { messageOf, Problem } from "../node/problem.js";
import { examples, paintFor } from "./terminal.js";

type Add = (program: Command) => void;

/** The commands in the order of their use. Only the one that is asked for is loaded. */
const COMMANDS: Readonly<Record<string, () => Promise<Add>>> = {
  survey: async () => (await import("./survey.js")).addSurvey,
  propose: async () => (await import("./propose.js")).addPropose,
  review: async () => (await import("./review.js")).addReview,
  prove: async () => (await import("./prove.js")).addProve,
  apply: async () => (await import("./apply.js")).addApply,
  undo: async () => (await import("./apply.js")).addUndo,
  outline: async () => (await import("./outline.js")).addOutline,
  rules: async () => (await import("./rules.js")).addRules,
};

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
    examples("uvran survey", "uvran propose", "uvran review", "uvran prove", "uvran apply", "uvran undo"),
  );

const asked = Object.keys(COMMANDS).find((name) => name === process.argv[2]);
for (const [name, load] of Object.entries(COMMANDS))
  if (asked === undefined || asked === name) (await load())(program);
for (const command of program.commands) command.exitOverride();

process.stdout.on("error", (error: NodeJS.ErrnoException) => {
  if (error.code === "EPIPE") process.exit(0);
  throw error;
});

try {
  const [, , first, wanted] = process.argv;
  if (first === "help" && wanted !== undefined && !wanted.startsWith("-") && !Object.hasOwn(COMMANDS, wanted))
    throw new Problem(
      `There is no command "${wanted}". The commands are: ${Object.keys(COMMANDS).join(", ")}`,
    );
  await program.parseAsync();
} catch (error) {
  process.exitCode = await exitCodeFor(error);
}

/** Says what went wrong, unless commander already has, and gives the exit code. */
async function exitCodeFor(error: unknown): Promise<number> {
  if (error instanceof CommanderError) return error.exitCode === 0 ? 0 : 2;
  const { PlanError } = await import("../plan/index.js");
  const { RuleError } = await import("../rules/index.js");
  const known = error instanceof Problem || error instanceof PlanError || error instanceof RuleError;
  const paint = paintFor(process.stderr);
  process.stderr.write(
    paint.red(known ? "" : "Uvran failed; this is a fault in it: ") + `${messageOf(error)}\n`,
  );
  if (!known && error instanceof Error) process.stderr.write(`${error.stack}\n`);
  return error instanceof Problem ? error.exitCode : 2;
}
