import type { Command } from "commander";
import { storePlan } from "../node/index.js";
import { atLeast, byPath, textAfter, type Plan } from "../plan/index.js";
import { fileDiff, plural, proposalText } from "../report/index.js";
import type { Trust } from "../rules/index.js";
import {
  deliver,
  examineProject,
  examples,
  exitForBadInput,
  openProject,
  paintFor,
  trustOption,
} from "./common.js";
import { withSources, type ProjectOptions } from "./common.js";

interface Options extends ProjectOptions {
  readonly json?: boolean;
  readonly diff?: boolean;
  readonly out?: string;
  readonly trust: Trust;
}

export function addPropose(program: Command): void {
  withSources(
    program
      .command("propose")
      .summary("work out the changes into a plan; no source is changed")
      .description("Works out the changes into a plan and shows them. No source is changed."),
  )
    .addOption(trustOption("show changes that are at least this sure", "possible"))
    .option("--diff", "only the difference, in a form that `git apply` accepts")
    .option("--json", "the plan as JSON")
    .option("--out <file>", "write to a file")
    .addHelpText(
      "after",
      examples(
        "uvran propose",
        "uvran propose src --trust likely",
        "uvran propose --diff --out modern.patch",
      ),
    )
    .action(propose);
}

async function propose(paths: string[], options: Options): Promise<void> {
  const project = await openProject(options);
  const examination = await examineProject(project, paths);
  const { plan, texts } = examination;
  const stored = storePlan(project.root, plan);
  const shown: Plan = { ...plan, changes: atLeast(plan.changes, options.trust) };
  const textOf = (path: string): string => texts.get(path) ?? "";
  if (options.json) deliver(JSON.stringify(shown, null, 1) + "\n", options.out);
  else if (options.diff) deliver(diffOf(shown, textOf), options.out);
  else {
    deliver(proposalText(shown, textOf, paintFor(process.stdout)), options.out);
    const sure = atLeast(plan.changes, "certain").length;
    const hint =
      plan.changes.length > 0 ? ` ${sure} of them certain. Next: uvran prove, then uvran apply.` : "";
    process.stderr.write(`${plural(plan.changes.length, "change")} in the plan at ${stored}.${hint}\n`);
  }
  exitForBadInput(examination, paths);
}

function diffOf(plan: Plan, textOf: (path: string) => string): string {
  return [...byPath(plan.changes)]
    .map(([path, changes]) => fileDiff(path, textOf(path), textAfter(path, textOf(path), changes)))
    .join("");
}
