import type { Command } from "commander";
import { Problem } from "../node/index.js";
import { countBy, pathsOf, type Left, type PlanChange } from "../plan/index.js";
import { plural, shownPath, type Paint } from "../report/index.js";
import type { Trust } from "../rules/index.js";
import type { Workspace } from "../workspace/index.js";
import { openForPlan, openWorkspace, trustOption, wishOf, withPlan, type PlanOptions } from "./common.js";
import { examples, paintFor } from "./terminal.js";

interface Options extends PlanOptions {
  readonly trust: Trust;
  readonly onlyKept?: boolean;
  readonly proven?: boolean;
  readonly dry?: boolean;
  readonly commit?: boolean;
  readonly evenDirty?: boolean;
}

export function describeApply(command: Command): void {
  withPlan(
    command.description(
      "Writes the changes of the plan that were kept in a review, and of those without a decision the ones that " +
        "are sure enough. `uvran undo` takes them back.",
    ),
  )
    .addOption(
      trustOption("of changes without a decision, write those that are at least this sure", "certain"),
    )
    .option("--only-kept", "write none that nobody has decided about")
    .option("--proven", "write only what the checks passed in the last uvran prove")
    .option("--dry", "only say what would be written")
    .option("--commit", "commit what is written, the changes of each rule by themselves")
    .option("--even-dirty", "with --commit: even where other files have changes that are not committed")
    .addHelpText(
      "after",
      examples(
        "uvran apply",
        "uvran apply --trust likely",
        "uvran apply src --only-kept",
        "uvran apply --proven",
        "uvran apply --commit",
      ),
    )
    .action(apply);
}

async function apply(paths: string[], options: Options): Promise<void> {
  if (options.evenDirty && !options.commit)
    throw new Problem("--even-dirty only means something together with --commit.");
  // What is committed is told with a rule's own reason.
  const workspace = await openForPlan(options, { asksRules: options.commit === true });
  const plan = workspace.plan(options.plan);
  if (options.proven && !workspace.hasProof())
    throw new Problem(
      "Nothing has been proved yet, so nothing can be written as proven. First run: uvran prove",
      1,
    );
  const { chosen, left } = workspace.review(plan).select(wishOf(workspace.root, paths, options));
  const paint = paintFor(process.stdout);
  if (options.dry) {
    const files = await workspace.rewritten(plan, chosen);
    process.stdout.write(filesText(files, chosen, "would be written", paint));
    process.stdout.write(
      `${plural(chosen.length, "change")} in ${plural(files.length, "file")}. Nothing was written.\n`,
    );
    return void process.stdout.write(leftText(left, paint));
  }
  const { files, complaints, commits } = await write(workspace, plan, chosen, options);
  process.stdout.write(filesText(files, chosen, "written", paint));
  process.stdout.write(`${plural(chosen.length, "change")} in ${plural(files.length, "file")}.\n`);
  process.stdout.write(leftText(left, paint));
  for (const complaint of complaints) process.stderr.write(`${complaint}\n`);
  if (complaints.length > 0) process.exitCode = 1;
  if (commits !== undefined)
    process.stdout.write(`${plural(commits, "commit")} made. They stay when you undo.\n`);
  if (files.length > 0) process.stdout.write("Take them back with: uvran undo\n");
}

async function write(
  workspace: Workspace,
  plan: Parameters<Workspace["apply"]>[0],
  chosen: readonly PlanChange[],
  { commit, evenDirty = false }: Options,
): Promise<Awaited<ReturnType<Workspace["apply"]>> & { commits?: number }> {
  return commit ? workspace.applyAndCommit(plan, chosen, evenDirty) : workspace.apply(plan, chosen);
}

function filesText(
  files: readonly { readonly path: string }[],
  chosen: readonly PlanChange[],
  verb: string,
  paint: Paint,
): string {
  const counts = countBy(chosen.flatMap(pathsOf), (path) => path);
  return files
    .map(
      ({ path }) =>
        `  ${paint.green(verb)}  ${shownPath(path)}  ${plural(counts.get(path) ?? 0, "change")}\n`,
    )
    .join("");
}

const MOST_LEFT = 12;

/** What is not written, and why: the reasons with their counts, then the places as far as they are few. */
function leftText(left: readonly Left[], paint: Paint): string {
  if (left.length === 0) return "";
  const out = [`Left as it is: ${plural(left.length, "change")}`];
  const reasons = [...countBy(left, ({ why }) => why)].sort((a, b) => b[1] - a[1]);
  for (const [why, count] of reasons) {
    out.push(`  ${paint.yellow(why)}  ${count}`);
    const own = left.filter((one) => one.why === why);
    for (const { change } of own.slice(0, MOST_LEFT))
      out.push(`    ${shownPath(change.path)}:${change.line}  ${paint.dim(change.rules.join(" + "))}`);
    if (own.length > MOST_LEFT) out.push(`    and ${own.length - MOST_LEFT} more`);
  }
  out.push("Decide about them with: uvran review");
  return out.join("\n") + "\n";
}

export function describeUndo(command: Command): void {
  command
    .description("Takes the last apply back. Refuses when one of its files was changed since.")
    .option("--partly", "leave alone the files that were changed since, and restore the others")
    .option("--config <file>", "the config to use instead of the nearest uvran.config.*")
    .addHelpText("after", examples("uvran undo", "uvran undo --partly"))
    .action(undo);
}

async function undo(options: { config?: string; partly?: boolean }): Promise<void> {
  const workspace = await openWorkspace(options, { command: "undo", onlyFor: [] });
  const restored = await workspace.undo(options.partly);
  for (const { path, was } of restored) process.stdout.write(`  ${was}  ${shownPath(path)}\n`);
  const left = restored.filter(({ was }) => was.startsWith("left alone")).length;
  process.stdout.write(`${plural(restored.length - left, "file")} as before the apply.\n`);
  if (left > 0)
    process.stdout.write(
      `${plural(left, "file")} left alone. Bring them back to how apply left them, then run: uvran undo\n`,
    );
}
