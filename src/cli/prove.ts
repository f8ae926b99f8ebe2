import { InvalidArgumentError, type Command } from "commander";
import { Problem, type Check } from "../node/index.js";
import { provesSomething } from "../plan/index.js";
import type { Trust } from "../rules/index.js";
import { gathered, openForPlan, trustOption, wishOf, withPlan, type PlanOptions } from "./common.js";
import { accountJson, accountText } from "./proof-text.js";
import { ProofProgress } from "./proof-progress.js";
import { deliver, examples, paintFor } from "./terminal.js";

interface Options extends PlanOptions {
  readonly trust: Trust;
  readonly onlyKept?: boolean;
  readonly check?: readonly string[];
  readonly search: boolean;
  readonly mark: boolean;
  readonly atOnce?: number;
  readonly json?: boolean;
}

export function addProve(program: Command): void {
  withPlan(
    program
      .command("prove")
      .summary("run the project's checks on old and new code; single out the changes that break them")
      .description(
        "Runs the config's checks in scratch copies with the old and with the new code, and compares what they do. " +
          "Before an apply the new code is the plan's, as far as apply would write it; after one it is what the apply " +
          "wrote. Where a check is different, the changes that are to blame are found, and the largest set that passes is " +
          'left: those that are set aside are marked "later" in the decisions.',
      ),
  )
    .addOption(trustOption("of changes without a decision, those that are at least this sure", "certain"))
    .option("--only-kept", "none that nobody has decided about")
    .option("--check <name>", "only this check; may be given again", gathered)
    .option("--no-search", "only compare, and look for no culprits")
    .option("--no-mark", "leave the decisions as they are")
    .option("--at-once <number>", "how many checks may run at the same time in a search", count)
    .option("--json", "the result as JSON")
    .addHelpText(
      "after",
      "\nA check that exits with 77 on both sides, or whose command is not there (127), is skipped and proves nothing." +
        "\nWhat passed is written by: uvran apply --proven",
    )
    .addHelpText(
      "after",
      examples("uvran prove", "uvran prove --trust likely", 'uvran prove src --check "tests" --no-mark'),
    )
    .action(proveCommand);
}

function count(text: string): number {
  const number = Number(text);
  if (!/^[1-9]\d{0,2}$/.test(text)) throw new InvalidArgumentError("Write a number from 1 to 999.");
  return number;
}

async function proveCommand(paths: string[], options: Options): Promise<void> {
  const workspace = await openForPlan(options);
  if (workspace.project.checks.length === 0) {
    throw new Problem(
      "The config names no checks, so there is nothing to prove with.\n" +
        'Add some to uvran.config.ts: checks: [{ name: "tests", run: "npm test" }]',
    );
  }
  const checks = chosenChecks(workspace.project.checks, options.check);
  const sides = await workspace.sides(wishOf(workspace.root, paths, options), options.plan);
  const changes = sides.candidates?.changes.length;
  process.stderr.write(`Comparing ${sides.what} …\n`);
  const interrupt = new AbortController();
  const signals = ["SIGINT", "SIGTERM", "SIGHUP"] as const;
  for (const signal of signals) process.once(signal, () => interrupt.abort());
  const progress = new ProofProgress();
  const started = Date.now();
  const account = await workspace
    .prove(sides, {
      checks,
      searches: options.search,
      marks: options.mark,
      ...(options.atOnce === undefined ? {} : { atOnce: options.atOnce }),
      signal: interrupt.signal,
      progress: (event) => progress.show(event),
    })
    .finally(() => progress.end());
  const isMarked = options.mark && account.setAside.length > 0;
  const about = { changes, isMarked, trust: options.trust, milliseconds: Date.now() - started };
  if (options.json) deliver(`${JSON.stringify(accountJson(account), null, 1)}\n`, undefined);
  else deliver(accountText(account, about, paintFor(process.stdout)), undefined);
  if (!provesSomething(account.final) || account.setAside.length > 0) process.exitCode = 1;
}

/** The checks of these names, with those that run before them. */
function chosenChecks(checks: readonly Check[], names: readonly string[] | undefined): readonly Check[] {
  if (names === undefined) return checks;
  for (const name of names)
    if (!checks.some((check) => check.name === name))
      throw new Problem(
        `There is no check "${name}". The checks are: ${checks.map((check) => check.name).join(", ")}`,
      );
  const wanted = new Set(names);
  for (const { name, after = [] } of [...checks].reverse())
    if (wanted.has(name)) for (const before of after) wanted.add(before);
  return checks.filter(({ name }) => wanted.has(name));
}
