import { relative } from "node:path";
import type { Command } from "commander";
import { messageOf, Problem } from "../node/index.js";
import type { Edit } from "../rewrite/index.js";
import { atLeast, byPath, plannedText, type Plan, type PlanChange } from "../plan/index.js";
import { fileDiff, notLookedAt, plural, proposalText, shownPath } from "../report/index.js";
import type { Trust } from "../rules/index.js";
import type { Workspace } from "../workspace/index.js";
import { exitForBadInput, openWorkspace, toOption, trustOption, withProgress } from "./common.js";
import { withSources, type ProjectOptions } from "./common.js";
import { deliver, examples, paintFor } from "./terminal.js";

interface Options extends ProjectOptions {
  readonly json?: boolean;
  readonly diff?: boolean;
  readonly out?: string;
  readonly trust: Trust;
}

export function describePropose(command: Command): void {
  withSources(command.description("Works out the changes into a plan and shows them. No source is changed."))
    .addOption(toOption())
    .addOption(trustOption("show changes that are at least this sure", "possible"))
    .option("--diff", "only the difference, in a form that `git apply` accepts")
    .option("--json", "the plan as JSON")
    .option("--out <file>", "write to a file")
    .addHelpText(
      "after",
      examples(
        "uvran propose",
        "uvran propose src --trust likely",
        "uvran propose --to combwork@3.0",
        "uvran propose --diff --out modern.patch",
      ),
    )
    .action(propose);
}

async function propose(paths: string[], options: Options): Promise<void> {
  if (options.json && options.diff)
    throw new Problem("--json and --diff are two forms of the same thing. Choose one of them.");
  const workspace = await openForNextStep(options);
  const examination = await withProgress((progress) =>
    workspace.propose({ paths, cwd: process.cwd(), progress }),
  );
  const { plan, stored } = examination;
  const shown: Plan = { ...plan, changes: atLeast(plan.changes, options.trust) };
  const textOf = (path: string): string => workspace.text(path);
  if (options.json) deliver(JSON.stringify(shown, null, 1) + "\n", options.out);
  else if (options.diff) deliver(await diffOf(shown, textOf), options.out);
  else {
    const edits = new Map<PlanChange, readonly Edit[]>();
    for (const change of shown.changes) {
      try {
        edits.set(change, await workspace.edits(change));
      } catch (error) {
        edits.set(change, change.edits);
        const place = `${shownPath(change.path)}:${change.line}`;
        process.stderr.write(`${place}: the imports of this change cannot be shown: ${messageOf(error)}\n`);
      }
    }
    const text = proposalText(shown, textOf, (change) => edits.get(change)!, paintFor(process.stdout));
    deliver(text, options.out);
    const sure = atLeast(plan.changes, "certain").length;
    const hint =
      plan.changes.length > 0
        ? ` ${sure} of them certain. Next: uvran review, uvran prove, uvran apply.`
        : "";
    process.stderr.write(
      `${plural(plan.changes.length, "change")} in the plan at ${nearby(stored)}.${hint}\n`,
    );
  }
  for (const line of notLookedAt(examination.survey, paintFor(process.stderr)))
    process.stderr.write(`${line}\n`);
  exitForBadInput(examination, paths);
}

/** The project with the rules for the goal; where it cannot be reached at once, for the next version on the way. */
async function openForNextStep(options: Options): Promise<Workspace> {
  const workspace = await openWorkspace(options);
  const way = workspace.project.journeys.find(({ steps }) => steps.length > 1);
  const [next] = way?.steps ?? [];
  if (!way || next === undefined) return workspace;
  process.stderr.write(
    `${way.product} ${way.to} is reached through ${next}: this plan goes to ${next}. ` +
      `Apply it, install ${way.product} ${next}, and propose again.\n`,
  );
  return openWorkspace({ ...options, to: { product: way.product, version: next } });
}

async function diffOf(plan: Plan, textOf: (path: string) => string): Promise<string> {
  let diff = "";
  for (const [path, changes] of byPath(plan.changes)) {
    diff += fileDiff(path, textOf(path), await plannedText(path, textOf(path), changes));
  }
  return diff;
}

/** A path as it is named from here, where it lies below. */
function nearby(path: string): string {
  const near = relative(process.cwd(), path);
  return near.startsWith("..") ? path : near;
}
