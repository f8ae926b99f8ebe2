import { Command, CommanderError } from "commander";
import { shownVersion } from "../node/installed.js";
import { messageOf, Problem, refusedByMachine } from "../node/problem.js";
import { examples, paintFor } from "./terminal.js";

/** A command as `uvran --help` lists it, and what describes it in full, with its options and what it does. */
interface Listed {
  readonly shown: string;
  readonly summary: string;
  readonly load: () => Promise<(command: Command) => void>;
}

/** The commands in the order of their use. Only the one that is asked for is loaded. */
const COMMANDS: Readonly<Record<string, Listed>> = {
  survey: {
    shown: "survey [path...]",
    summary: "what is outdated, how much, how sure; nothing is changed",
    load: async () => (await import("./survey.js")).describeSurvey,
  },
  propose: {
    shown: "propose [path...]",
    summary: "work out the changes into a plan; no source is changed",
    load: async () => (await import("./propose.js")).describePropose,
  },
  join: {
    shown: "join <plan...>",
    summary: "put plans that several machines have made together",
    load: async () => (await import("./join.js")).describeJoin,
  },
  review: {
    shown: "review [path...]",
    summary: "go through the plan: keep, drop, later",
    load: async () => (await import("./review.js")).describeReview,
  },
  prove: {
    shown: "prove [path...]",
    summary: "run the project's checks on old and new code; single out the changes that break them",
    load: async () => (await import("./prove.js")).describeProve,
  },
  apply: {
    shown: "apply [path...]",
    summary: "write the changes that are kept, and the certain ones that nobody decided about",
    load: async () => (await import("./apply.js")).describeApply,
  },
  undo: {
    shown: "undo",
    summary: "take the last apply back",
    load: async () => (await import("./apply.js")).describeUndo,
  },
  fleet: {
    shown: "fleet [list]",
    summary: "the same job over many repositories, resumable",
    load: async () => (await import("./fleet.js")).describeFleet,
  },
  outline: {
    shown: "outline <file>",
    summary: "the syntax tree of a file, or of the node at a position",
    load: async () => (await import("./outline.js")).describeOutline,
  },
  draft: {
    shown: "draft <old> [new]",
    summary: "a rule drafted from an edit made by hand",
    load: async () => (await import("./draft.js")).describeDraft,
  },
  new: {
    shown: "new rule <id>",
    summary: "a first rule to go on from, with trials",
    load: async () => (await import("./new.js")).describeNew,
  },
  rules: {
    shown: "rules [id]",
    summary: "list the rules, explain one, or run their trials",
    load: async () => (await import("./rules.js")).describeRules,
  },
  lsp: {
    shown: "lsp",
    summary: "language server: what the rules find, in an editor, with each change as an action",
    load: async () => (await import("./lsp.js")).describeLsp,
  },
};

const program = new Command("uvran")
  .description("Moves a codebase to newer language and framework idioms, with the evidence for every change.")
  .version(shownVersion())
  .exitOverride()
  .configureHelp({
    sortSubcommands: false,
    subcommandTerm: (command) => COMMANDS[command.name()]?.shown ?? "help [command]",
  })
  .addHelpText(
    "after",
    examples("uvran survey", "uvran propose", "uvran review", "uvran prove", "uvran apply", "uvran undo"),
  );

const [first = "", wanted = ""] = process.argv.slice(2).filter((word) => !word.startsWith("-"));
const asked = first === "help" ? wanted : first;
for (const [name, { summary, load }] of Object.entries(COMMANDS)) {
  const command = program.command(name).summary(summary).exitOverride();
  if (name === asked) (await load())(command);
}

process.stdout.on("error", (error: NodeJS.ErrnoException) => {
  if (error.code === "EPIPE") process.exit(0);
  throw error;
});

try {
  if (first === "help" && wanted !== "" && !Object.hasOwn(COMMANDS, wanted))
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
  const refused = refusedByMachine(error);
  if (refused !== undefined) {
    process.stderr.write(`${refused}\n`);
    return 1;
  }
  process.stderr.write(
    paint.red(known ? "" : "Uvran failed; this is a fault in it: ") + `${messageOf(error)}\n`,
  );
  if (!known && error instanceof Error) process.stderr.write(`${error.stack}\n`);
  return error instanceof Problem ? error.exitCode : 2;
}
