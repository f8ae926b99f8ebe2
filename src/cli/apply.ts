import type { Command } from "commander";
import { countBy, pathsOf } from "../plan/index.js";
import { plural, shownPath } from "../report/index.js";
import type { Trust } from "../rules/index.js";
import { openWorkspace, trustOption } from "./common.js";
import { examples, paintFor } from "./terminal.js";

interface Options {
  readonly config?: string;
  readonly plan?: string;
  readonly trust: Trust;
}

export function addApply(program: Command): void {
  program
    .command("apply")
    .summary("write the changes of the plan; what is certain, unless told otherwise")
    .description("Writes the changes of the plan that are sure enough. `uvran undo` takes them back.")
    .addOption(trustOption("write changes that are at least this sure", "certain"))
    .option("--plan <file>", "another plan than the one that propose stored")
    .option("--config <file>", "the config to use instead of the nearest uvran.config.*")
    .addHelpText("after", examples("uvran apply", "uvran apply --trust likely"))
    .action(apply);
}

async function apply(options: Options): Promise<void> {
  const workspace = await openWorkspace(options);
  const plan = workspace.plan(options.plan);
  const { changes, files } = await workspace.apply(plan, options.trust);
  const paint = paintFor(process.stdout);
  const counts = countBy(changes.flatMap(pathsOf), (path) => path);
  for (const { path } of files)
    process.stdout.write(
      `  ${paint.green("written")}  ${shownPath(path)}  ${plural(counts.get(path)!, "change")}\n`,
    );
  const left = plan.changes.length - changes.length;
  const rest = left > 0 ? ` ${left} less sure ${left === 1 ? "change was" : "changes were"} left out.` : "";
  process.stdout.write(`${plural(changes.length, "change")} in ${plural(files.length, "file")}.${rest}\n`);
  if (files.length > 0) process.stdout.write("Take them back with: uvran undo\n");
}

export function addUndo(program: Command): void {
  program
    .command("undo")
    .summary("take the last apply back")
    .description("Takes the last apply back. Refuses when one of its files was changed since.")
    .option("--partly", "leave alone the files that were changed since, and restore the others")
    .option("--config <file>", "the config to use instead of the nearest uvran.config.*")
    .addHelpText("after", examples("uvran undo", "uvran undo --partly"))
    .action(undo);
}

async function undo(options: { config?: string; partly?: boolean }): Promise<void> {
  const workspace = await openWorkspace(options, "undo");
  const restored = await workspace.undo(options.partly);
  for (const { path, was } of restored) process.stdout.write(`  ${was}  ${shownPath(path)}\n`);
  const left = restored.filter(({ was }) => was.startsWith("left alone")).length;
  process.stdout.write(`${plural(restored.length - left, "file")} as before the apply.\n`);
  if (left > 0)
    process.stdout.write(
      `${plural(left, "file")} left alone. Bring them back to how apply left them, then run: uvran undo\n`,
    );
}
