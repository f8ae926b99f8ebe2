import { InvalidArgumentError, type Command } from "commander";
import { Problem, type Check } from "../node/index.js";
import { provesSomething } from "../plan/index.js";
import type { Trust } from "../rules/index.js";
import { suggestedText } from "../prove/index.js";
import { proofSurvey, provedBy, type Workspace } from "../workspace/index.js";
import {
  countIn,
  gathered,
  interrupted,
  openForPlan,
  trustOption,
  wishOf,
  withPlan,
  type PlanOptions,
} from "./common.js";
import { examplesJson, examplesText } from "./example-text.js";
import { accountJson, accountText } from "./proof-text.js";
import { ProofProgress } from "./proof-progress.js";
import { formOf, withReport, writeReport, type ReportOptions } from "./report-options.js";
import { deliver } from "./deliver.js";
import { examples, paintForOut } from "./terminal.js";

interface Options extends PlanOptions, ReportOptions {
  readonly trust: Trust;
  readonly onlyKept?: boolean;
  readonly check?: readonly string[];
  readonly search: boolean;
  readonly mark: boolean;
  readonly atOnce?: number;
  readonly byExample?: boolean;
  readonly tries?: number;
  readonly suggest?: boolean;
}

export function describeProve(command: Command): void {
  withPlan(
    command.description(
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
    .option("--at-once <number>", "how many checks may run at the same time in a search", countIn)
    .option("--by-example", "call changed functions, old and new, with inputs made for them; no check is run")
    .option("--tries <number>", "with --by-example: how many inputs for each function", tries)
    .option("--suggest", "only print checks that fit the project, for its config");
  withReport(command)
    .addHelpText(
      "after",
      "\nA check that exits with 77 on both sides, or whose command is not there (127), is skipped and proves nothing." +
        "\nWhat passed is written by: uvran apply --proven",
    )
    .addHelpText(
      "after",
      examples(
        "uvran prove",
        "uvran prove --trust likely",
        'uvran prove src --check "tests" --no-mark',
        "uvran prove --as html --out proof.html",
      ),
    )
    .action(proveCommand);
}

function tries(text: string): number {
  const number = Number(text);
  if (!/^[1-9]\d{0,5}$/.test(text)) throw new InvalidArgumentError("Write a number from 1 to 999999.");
  return number;
}

async function proveCommand(paths: string[], options: Options): Promise<void> {
  const form = formOf(options);
  if ((options.byExample || options.suggest) && form !== "text" && form !== "json")
    throw new Problem(`What --by-example and --suggest print has no form of ${form}.`);
  const workspace = await openForPlan(options);
  if (options.suggest) return suggest(workspace, options);
  if (options.byExample && (options.check || options.atOnce !== undefined || !options.search))
    throw new Problem("--check, --at-once and --no-search are about checks, and --by-example runs none.");
  if (options.byExample) return byExample(workspace, paths, options);
  if (options.tries !== undefined)
    throw new Problem("--tries only means something together with --by-example.");
  if (workspace.project.checks.length === 0) {
    throw new Problem(
      "The config names no checks, so there is nothing to prove with.\n" +
        "To have some suggested: uvran prove --suggest",
    );
  }
  const checks = chosenChecks(workspace.project.checks, options.check);
  const sides = await workspace.sides(wishOf(workspace.root, paths, options), options.plan);
  const changes = sides.candidates?.changes.length;
  process.stderr.write(`Comparing ${sides.what} …\n`);
  const progress = new ProofProgress();
  const started = Date.now();
  const account = await workspace
    .prove(sides, {
      checks,
      searches: options.search,
      marks: options.mark,
      ...(options.atOnce === undefined ? {} : { atOnce: options.atOnce }),
      signal: interrupted(),
      progress: (event) => progress.show(event),
    })
    .finally(() => progress.end());
  const isMarked = options.mark && account.setAside.length > 0;
  const about = { changes, isMarked, trust: options.trust, milliseconds: Date.now() - started };
  const survey = proofSurvey(workspace, sides);
  const shown = { showsChanges: true, context: options.context, proved: provedBy(account) };
  await writeReport(
    workspace,
    { about: "The proof for", survey, stock: () => workspace.stock(survey, shown) },
    options,
    {
      json: () => `${JSON.stringify(accountJson(account), null, 1)}\n`,
      text: () => accountText(account, about, paintForOut(options.out)),
    },
  );
  if (!provesSomething(account.final) || account.setAside.length + account.unsettled.length > 0)
    process.exitCode = 1;
}

async function byExample(workspace: Workspace, paths: string[], options: Options): Promise<void> {
  const sides = await workspace.sides(wishOf(workspace.root, paths, options), options.plan);
  process.stderr.write(`Calling changed functions: ${sides.what} …\n`);
  const signal = interrupted();
  const progress = new ProofProgress();
  const started = Date.now();
  const examples = await workspace
    .compareByExample(sides, {
      marks: options.mark,
      signal,
      ...(options.tries === undefined ? {} : { tries: options.tries }),
      progress: (file, done, total) => progress.show({ is: "calling", file, done, total }),
    })
    .finally(() => progress.end());
  if (signal.aborted) throw new Problem("The proof was interrupted.", 1);
  if (formOf(options) === "json")
    deliver(`${JSON.stringify(examplesJson(examples), null, 1)}\n`, options.out);
  else deliver(examplesText(examples, Date.now() - started, paintForOut(options.out)), options.out);
  const isDifferent = examples.tried.some(({ difference }) => difference !== undefined);
  if (isDifferent || examples.tried.length === 0) process.exitCode = 1;
}

/** Prints checks for the config; a whole one where there is none yet. */
function suggest(workspace: Workspace, { out }: Options): void {
  const suggested = workspace.suggestedChecks();
  if (suggested.checks.length === 0)
    throw new Problem(
      "Nothing in this project says how it is compiled or tested.\n" +
        'Write checks into uvran.config.ts yourself: checks: [{ name: "prints", run: "sh run.sh" }]',
      1,
    );
  const { configFile } = workspace.project;
  deliver(suggestedText(suggested, configFile === undefined), out);
  if (configFile !== undefined) process.stderr.write(`Put what you want of it into ${configFile}\n`);
  else if (out === undefined)
    process.stderr.write("To keep it: uvran prove --suggest --out uvran.config.ts\n");
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
