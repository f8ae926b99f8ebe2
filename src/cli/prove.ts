import type { Command } from "commander";
import { Problem, type Proof } from "../node/index.js";
import { fileDiff, plural, type Paint } from "../report/index.js";
import type { Trust } from "../rules/index.js";
import { openForPlan, trustOption, wishOf, withPlan, type PlanOptions } from "./common.js";
import { examples, paintFor } from "./terminal.js";

interface Options extends PlanOptions {
  readonly trust: Trust;
  readonly onlyKept?: boolean;
  readonly json?: boolean;
}

export function addProve(program: Command): void {
  withPlan(
    program
      .command("prove")
      .summary("run the project's checks on old and new code")
      .description(
        "Runs the config's checks in scratch copies with the old and with the new code, and compares exit codes " +
          "and output. Before an apply the new code is the plan's, as far as apply would write it; after one it is " +
          "what the apply wrote.",
      ),
  )
    .addOption(trustOption("of changes without a decision, those that are at least this sure", "certain"))
    .option("--only-kept", "none that nobody has decided about")
    .option("--json", "the result as JSON")
    .addHelpText(
      "after",
      "\nA check that exits with 77 on both sides, or whose command is not there (127), is skipped and proves nothing.",
    )
    .addHelpText("after", examples("uvran prove", "uvran prove --trust likely"))
    .action(proveCommand);
}

async function proveCommand(paths: string[], options: Options): Promise<void> {
  const workspace = await openForPlan(options);
  if (workspace.project.checks.length === 0) {
    throw new Problem(
      "The config names no checks, so there is nothing to prove with.\n" +
        'Add some to uvran.config.ts: checks: [{ name: "tests", run: "npm test" }]',
    );
  }
  const sides = await workspace.sides(wishOf(workspace.root, paths, options), options.plan);
  process.stderr.write(`Comparing ${sides.what} …\n`);
  const proofs = await workspace.prove(sides);
  if (options.json) process.stdout.write(JSON.stringify(proofs, null, 1) + "\n");
  else process.stdout.write(proofText(proofs, paintFor(process.stdout)));
  const verdicts = proofs.map(({ verdict }) => verdict);
  if (verdicts.includes("different") || !verdicts.includes("same")) process.exitCode = 1;
}

function proofText(proofs: readonly Proof[], paint: Paint): string {
  const width = Math.max(...proofs.map(({ check }) => check.name.length)) + 2;
  const out: string[] = [];
  for (const { check, before, after, verdict: is, why } of proofs) {
    if (is === "skipped") {
      out.push(
        `${paint.yellow("skipped  ")}  ${paint.bold(check.name.padEnd(width))} ${why}  ${paint.dim(check.run)}`,
      );
      continue;
    }
    const verdict = is === "same" ? paint.green("same     ") : paint.red("different");
    const times = `${seconds(before.milliseconds)} → ${seconds(after.milliseconds)}`;
    out.push(
      `${verdict}  ${paint.bold(check.name.padEnd(width))} ` +
        `exit ${before.exit ?? "signal"} → ${after.exit ?? "signal"}, ` +
        `${plural(before.output.split("\n").length - 1, "line")} of output, ${times}  ${paint.dim(check.run)}`,
    );
    if (before.exit !== 0) out.push(paint.yellow("           this check already failed on the old code"));
    if (is === "same") continue;
    const difference = fileDiff("output", before.output, after.output).split("\n").slice(3, 30);
    const errors = after.errors.split("\n").slice(-12);
    const shown = [...difference, ...errors].filter((line) => line.trim() !== "");
    out.push(...shown.map((line) => `           ${painted(line, paint)}`.trimEnd()));
  }
  const skipped = proofs.filter(({ verdict }) => verdict === "skipped").length;
  if (skipped === proofs.length) out.push(paint.red("No check ran, so nothing is proved."));
  else if (skipped > 0)
    out.push(`${plural(skipped, "check")} did not run, and ${skipped === 1 ? "proves" : "prove"} nothing.`);
  return out.join("\n") + "\n";
}

function painted(line: string, paint: Paint): string {
  return line.startsWith("-") ? paint.red(line) : line.startsWith("+") ? paint.green(line) : line;
}

function seconds(milliseconds: number): string {
  return `${(milliseconds / 1000).toFixed(2)} s`;
}
