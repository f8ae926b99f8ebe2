import { readFileSync } from "node:fs";
import type { Command } from "commander";
import { hashText } from "../engine/index.js";
import {
  decode,
  insideRoot,
  Journal,
  loadPlan,
  Problem,
  prove,
  rewrittenFiles,
  hasPlan,
  type Project,
  type Proof,
  type Replacements,
} from "../node/index.js";
import { atLeast, type Plan } from "../plan/index.js";
import { fileDiff, plural, type Paint } from "../report/index.js";
import type { Trust } from "../rules/index.js";
import { openProject, trustOption } from "./common.js";
import { examples, paintFor } from "./terminal.js";

interface Options {
  readonly config?: string;
  readonly plan?: string;
  readonly trust: Trust;
  readonly json?: boolean;
}

export function addProve(program: Command): void {
  program
    .command("prove")
    .summary("run the project's checks on old and new code")
    .description(
      "Runs the config's checks in scratch copies with the old and with the new code, and compares exit codes\n" +
        "and output. Before an apply the new code is the plan's; after one it is what the apply wrote.",
    )
    .addOption(trustOption("prove changes that are at least this sure", "certain"))
    .option("--plan <file>", "another plan than the one that propose stored")
    .option("--config <file>", "the config to use instead of the nearest uvran.config.*")
    .option("--json", "the result as JSON")
    .addHelpText("after", examples("uvran prove", "uvran prove --trust likely"))
    .action(proveCommand);
}

async function proveCommand(options: Options): Promise<void> {
  const project = await openProject(options);
  if (project.checks.length === 0) {
    throw new Problem(
      "The config names no checks, so there is nothing to prove with.\n" +
        'Add some to uvran.config.ts: checks: [{ name: "tests", run: "npm test" }]',
    );
  }
  const plan =
    options.plan !== undefined || hasPlan(project.root) ? loadPlan(project.root, options.plan) : undefined;
  const applied = plan && isFresh(project.root, plan) ? undefined : appliedSides(project.root);
  const sides =
    applied ?? (await planSides(project, plan ?? loadPlan(project.root, options.plan), options.trust));
  process.stderr.write(`Comparing ${sides.what} …\n`);
  const proofs = await prove(project.root, project.checks, sides.before, sides.after);
  if (options.json) process.stdout.write(JSON.stringify(proofs, null, 1) + "\n");
  else process.stdout.write(proofText(proofs, paintFor(process.stdout)));
  if (proofs.some((proof) => !proof.same)) process.exitCode = 1;
}

interface Sides {
  readonly what: string;
  readonly before: Replacements;
  readonly after: Replacements;
}

/** After an apply whose files are untouched: the journal's texts against the files. */
function appliedSides(root: string): Sides | undefined {
  const journal = new Journal(root);
  const entry = journal.last();
  const isThere = entry?.files.every(({ path, after }) => hashOf(root, path) === after);
  if (!entry || !isThere) return undefined;
  const before = new Map(entry.files.map(({ path, stored }) => [path, journal.content(entry, stored)]));
  return {
    what: `the files as they were before the last apply with what it wrote (${plural(before.size, "file")})`,
    before,
    after: new Map(),
  };
}

/** Are the files still what the plan was made for, and is there anything in it? */
function isFresh(root: string, plan: Plan): boolean {
  const paths = Object.keys(plan.files);
  return paths.length > 0 && paths.every((path) => hashOf(root, path) === plan.files[path]);
}

function hashOf(root: string, path: string): string | undefined {
  try {
    return hashText(decode(readFileSync(insideRoot(root, path))));
  } catch {
    return undefined;
  }
}

async function planSides({ root, leaveOut }: Project, plan: Plan, trust: Trust): Promise<Sides> {
  const changes = atLeast(plan.changes, trust);
  const files = await rewrittenFiles(root, plan, changes, leaveOut);
  return {
    what: `the files as they are with ${plural(changes.length, "change")} of the plan (trust: ${trust} or better)`,
    before: new Map(),
    after: new Map(files.map(({ path, after }) => [path, after])),
  };
}

function proofText(proofs: readonly Proof[], paint: Paint): string {
  const width = Math.max(...proofs.map(({ check }) => check.name.length)) + 2;
  const out: string[] = [];
  for (const { check, before, after, same } of proofs) {
    const verdict = same ? paint.green("same     ") : paint.red("different");
    const times = `${seconds(before.milliseconds)} → ${seconds(after.milliseconds)}`;
    out.push(
      `${verdict}  ${paint.bold(check.name.padEnd(width))} ` +
        `exit ${before.exit ?? "signal"} → ${after.exit ?? "signal"}, ` +
        `${plural(before.output.split("\n").length - 1, "line")} of output, ${times}  ${paint.dim(check.run)}`,
    );
    if (before.exit !== 0) out.push(paint.yellow("           this check already failed on the old code"));
    if (same) continue;
    const difference = fileDiff("output", before.output, after.output).split("\n").slice(3, 30);
    const errors = after.errors.split("\n").slice(-12);
    const shown = [...difference, ...errors].filter((line) => line.trim() !== "");
    out.push(...shown.map((line) => `           ${painted(line, paint)}`.trimEnd()));
  }
  return out.join("\n") + "\n";
}

function painted(line: string, paint: Paint): string {
  return line.startsWith("-") ? paint.red(line) : line.startsWith("+") ? paint.green(line) : line;
}

function seconds(milliseconds: number): string {
  return `${(milliseconds / 1000).toFixed(2)} s`;
}
