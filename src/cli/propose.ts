import { relative } from "node:path";
import type { Command } from "commander";
import { messageOf } from "../node/index.js";
import type { Edit } from "../rewrite/index.js";
import { atLeast, type Plan, type PlanChange } from "../plan/index.js";
import { notLookedAt, plural, proposalText, shownPath, type Stock } from "../report/index.js";
import type { Trust } from "../rules/index.js";
import type { Workspace } from "../workspace/index.js";
import {
  exitForBadInput,
  openWorkspace,
  sayForgotten,
  taskOf,
  toOption,
  trustOption,
  withProgress,
} from "./common.js";
import { withSources, type ProjectOptions } from "./common.js";
import { formOf, withReport, writeReport, type ReportOptions } from "./report-options.js";
import { examples, paintFor, paintForOut, widthForOut } from "./terminal.js";

interface Options extends ProjectOptions, ReportOptions {
  readonly trust: Trust;
}

export function describePropose(command: Command): void {
  withReport(
    withSources(
      command.description("Works out the changes into a plan and shows them. No source is changed."),
    )
      .addOption(toOption())
      .addOption(trustOption("show changes that are at least this sure", "possible"))
      .option("--diff", "the same as --as diff: only the difference, in a form that `git apply` accepts"),
  )
    .addHelpText(
      "after",
      examples(
        "uvran propose",
        "uvran propose src --trust likely",
        "uvran propose --to combwork@3.0",
        "uvran propose --diff --out modern.patch",
        "uvran propose --as markdown --out request.md",
      ),
    )
    .action(propose);
}

async function propose(paths: string[], options: Options): Promise<void> {
  formOf(options);
  const workspace = await openForNextStep(paths, options);
  const examination = await withProgress((progress) =>
    workspace.propose({ ...taskOf(paths, options), progress }),
  );
  const { plan, stored } = examination;
  const shown: Plan = { ...plan, changes: atLeast(plan.changes, options.trust) };
  const survey = { ...examination.survey, changes: shown.changes };
  const stock = (): Promise<Stock> =>
    workspace.stock(survey, { showsChanges: true, context: options.context });
  await writeReport(workspace, { about: "The plan for", survey, stock }, options, {
    json: () => JSON.stringify(shown, null, 1) + "\n",
    text: () => planText(workspace, shown, options.out),
  });
  if (formOf(options) === "text") process.stderr.write(nextLine(plan, stored));
  for (const line of notLookedAt(examination.survey, paintFor(process.stderr)))
    process.stderr.write(`${line}\n`);
  sayForgotten(examination);
  exitForBadInput(examination, paths);
}

/** The project with the rules for the goal; where it cannot be reached at once, for the next version on the way. */
async function openForNextStep(paths: readonly string[], options: Options): Promise<Workspace> {
  const how = { onlyFor: paths };
  const workspace = await openWorkspace(options, how);
  const way = workspace.project.journeys.find(({ steps }) => steps.length > 1);
  const [next] = way?.steps ?? [];
  if (!way || next === undefined) return workspace;
  process.stderr.write(
    `${way.product} ${way.to} is reached through ${next}: this plan goes to ${next}. ` +
      `Apply it, install ${way.product} ${next}, and propose again.\n`,
  );
  return openWorkspace({ ...options, to: { product: way.product, version: next } }, how);
}

async function planText(workspace: Workspace, plan: Plan, out: string | undefined): Promise<string> {
  const edits = new Map<PlanChange, readonly Edit[]>();
  for (const change of plan.changes) {
    try {
      edits.set(change, await workspace.edits(change));
    } catch (error) {
      edits.set(change, change.edits);
      const place = `${shownPath(change.path)}:${change.line}`;
      process.stderr.write(`${place}: the imports of this change cannot be shown: ${messageOf(error)}\n`);
    }
  }
  const textOf = (path: string): string => workspace.text(path);
  return proposalText(plan, textOf, (change) => edits.get(change)!, paintForOut(out), widthForOut(out));
}

export function nextLine({ changes, asked }: Plan, stored: string): string {
  const sure = atLeast(changes, "certain").length;
  const isPart = asked?.shard !== undefined;
  const hint = isPart
    ? ` It is shard ${asked.shard}: put all of them together with uvran join.`
    : changes.length > 0
      ? ` ${sure} of them certain. Next: uvran review, uvran prove, uvran apply.`
      : "";
  return `${plural(changes.length, "change")} in the plan at ${nearby(stored)}.${hint}\n`;
}

/** A path as it is named from here, where it lies below. */
function nearby(path: string): string {
  const near = relative(process.cwd(), path);
  return near.startsWith("..") ? path : near;
}
