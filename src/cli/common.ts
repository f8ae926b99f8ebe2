import { realpathSync } from "node:fs";
import { isAbsolute, relative, resolve, sep } from "node:path";
import { InvalidArgumentError, Option, type Command } from "commander";
import { SingleBar } from "cli-progress";
import { goalIn, Problem, realPath, type Goal } from "../node/index.js";
import { shardIn, type Filter, type Shard, type Wish } from "../plan/index.js";
import { KINDS, TRUSTS, type Kind, type Trust } from "../rules/index.js";
import { Workspace, type Examination, type Task } from "../workspace/index.js";

/** Options that several commands share. */
export interface ProjectOptions {
  readonly config?: string;
  readonly rule?: readonly string[];
  readonly kind?: readonly Kind[];
  /** The version of a product that the code is to reach. */
  readonly to?: Goal;
  /** Only lines that have changed since this commit of git. */
  readonly since?: string;
  /** Only this part of the files. */
  readonly shard?: Shard;
  /** On how many cores to work. */
  readonly workers?: number;
  /** False where nothing is to be remembered, nor what was remembered to be used. */
  readonly cache?: boolean;
}

/** Says which version of a product the code is to reach. */
export function toOption(): Option {
  return new Option(
    "--to <product@version>",
    "only what must change for this version of a product, by its table of changes",
  ).argParser(goalIn);
}

/** The argument and the options of commands that read sources. */
export function withSources(command: Command): Command {
  return command
    .argument("[path...]", "files and folders; the whole project without any")
    .option("--config <file>", "the config to use instead of the nearest uvran.config.*")
    .option("--rule <id>", "only this rule, whether switched on or not; may be given again", gathered)
    .addOption(kindOption("only rules of this kind; may be given again"))
    .option("--since <revision>", "only lines that have changed since this commit of git")
    .addOption(new Option("--shard <k/n>", "only this of so many parts of the files").argParser(shardOption))
    .addOption(new Option("--workers <count>", "on how many cores to work").argParser(countIn))
    .option("--no-cache", "neither use nor store what was found in unchanged files");
}

/** What the options of a command that reads sources ask for. */
export function taskOf(paths: readonly string[], { since, shard }: ProjectOptions): Task {
  return { paths, cwd: process.cwd(), since, shard };
}

function shardOption(text: string): Shard {
  const shard = shardIn(text);
  if (!shard) throw new InvalidArgumentError("Write it like this: 2/4, which is the second of four.");
  return shard;
}

/** A number of an option, such as of things to do at once. */
export function countIn(text: string): number {
  if (!/^[1-9]\d{0,2}$/.test(text)) throw new InvalidArgumentError("Write a number from 1 to 999.");
  return Number(text);
}

function kindOption(what: string): Option {
  return new Option("--kind <kind>", what).choices([...KINDS]).argParser(gatheredOf(KINDS));
}

export function trustOption(what: string, preset?: Trust): Option {
  const option = new Option("--trust <level>", what).choices([...TRUSTS]);
  return preset ? option.default(preset) : option;
}

/** Options that choose among the changes of a plan; the same in all commands that work on one. */
export interface PlanOptions {
  readonly config?: string;
  readonly plan?: string;
  readonly trust?: Trust;
  readonly rule?: readonly string[];
  readonly kind?: readonly Kind[];
  readonly code?: readonly string[];
  readonly id?: readonly string[];
}

/** The argument and the options of commands that work on a plan. */
export function withPlan(command: Command): Command {
  return command
    .argument("[path...]", "only changes in these files and folders; all without any")
    .option("--rule <id>", "only changes of this rule; may be given again", gathered)
    .addOption(kindOption("only changes of this kind; may be given again"))
    .option("--code <code>", "only changes with this code of doubt or caution; may be given again", gathered)
    .option("--id <id>", "only this change; may be given again", gathered)
    .option("--plan <file>", "another plan than the one that propose stored")
    .option("--config <file>", "the config to use instead of the nearest uvran.config.*");
}

export function gathered(value: string, others: readonly string[] | undefined): string[] {
  return [...(others ?? []), value];
}

function gatheredOf<T extends string>(choices: readonly T[]): (value: string, others?: readonly T[]) => T[] {
  return (value, others = []) => {
    const choice = choices.find((one) => one === value);
    if (choice === undefined) throw new InvalidArgumentError(`Allowed choices are ${choices.join(", ")}.`);
    return [...others, choice];
  };
}

/** Which changes of a plan these options mean. Throws a Problem for a path outside the project. */
export function filterOf(
  root: string,
  paths: readonly string[],
  { rule, kind, code, id }: PlanOptions,
): Omit<Filter, "trust"> {
  const below = paths.map((path) => {
    const found = relative(realpathSync(root), realPath(resolve(path)));
    if (found === ".." || found.startsWith(`..${sep}`) || isAbsolute(found))
      throw new Problem(`${path} is outside the project at ${root}.`);
    return found.split(sep).join("/");
  });
  return {
    ...(below.length > 0 ? { paths: below } : {}),
    ...(rule ? { rules: rule } : {}),
    ...(kind ? { kinds: kind } : {}),
    ...(code ? { codes: code } : {}),
    ...(id ? { ids: id } : {}),
  };
}

/** What the options of a command that writes or proves ask for. */
export function wishOf(
  root: string,
  paths: readonly string[],
  options: PlanOptions & { readonly trust: Trust; readonly onlyKept?: boolean; readonly proven?: boolean },
): Wish {
  const { trust, onlyKept = false, proven: onlyProven = false } = options;
  return { filter: filterOf(root, paths, options), trust, onlyKept, onlyProven };
}

/**
 * The project around the working directory, for a command that works on a plan; one that asks no rule about anything may say so,
 * and need not wait until all of them are loaded.
 */
export function openForPlan(
  { config }: Pick<PlanOptions, "config">,
  { asksRules = true }: { readonly asksRules?: boolean } = {},
): Promise<Workspace> {
  return openWorkspace(config === undefined ? {} : { config }, asksRules ? {} : { onlyFor: [] });
}

/** The project around the working directory, narrowed to the rules asked for. Says first what must be known of it. */
export async function openWorkspace(
  { config, rule, kind, to, workers, cache }: ProjectOptions,
  { command, onlyFor }: { readonly command?: "undo"; readonly onlyFor?: readonly string[] | undefined } = {},
): Promise<Workspace> {
  const opening = { config, rules: rule, kinds: kind, goal: to, onlyFor };
  const workspace = await Workspace.open(process.cwd(), { ...opening, workers, cache });
  const cut = command === "undo" ? undefined : workspace.interrupted();
  for (const notice of [workspace.elsewhere(process.cwd()), cut])
    if (notice !== undefined) process.stderr.write(`${notice}\n`);
  return workspace;
}

const QUIET_MILLISECONDS = 1000;

/** Gives a function that is told of the progress, and shows it on stderr once something takes longer than a second. */
export async function withProgress<T>(
  work: (progress: (done: number, total: number) => void) => Promise<T>,
): Promise<T> {
  const started = Date.now();
  const bar = new SingleBar({
    format: "reading {bar} {value}/{total} files, {rate}/s, {eta_formatted} left",
    stream: process.stderr,
    clearOnComplete: true,
    etaBuffer: 200,
  });
  let shown = false;
  const progress = (done: number, total: number): void => {
    const milliseconds = Date.now() - started;
    if (!process.stderr.isTTY || milliseconds < QUIET_MILLISECONDS) return;
    const rate = Math.round((done * 1000) / milliseconds);
    if (!shown) bar.start(total, done, { rate });
    else bar.update(done, { rate });
    shown = true;
  };
  try {
    return await work(progress);
  } finally {
    if (shown) bar.stop();
  }
}

/** Says why results could not be stored for the next run, which goes on without them. */
export function sayForgotten({ forgotten }: Examination): void {
  if (forgotten !== undefined)
    process.stderr.write(`Results cannot be kept for the next run: ${forgotten}\n`);
}

/** Sources that were named one by one but could not be read or parsed make the command fail. */
export function exitForBadInput({ survey }: Examination, paths: readonly string[]): void {
  const bad = [...survey.unparsed, ...survey.unreadable].map((entry) => entry.path);
  const named = (path: string): boolean =>
    paths.some((given) => given === path || given.endsWith(`/${path}`) || path.endsWith(`/${given}`));
  if (bad.some(named)) process.exitCode = 2;
}

/** Is aborted when somebody asks the command to stop. */
export function interrupted(): AbortSignal {
  const interrupt = new AbortController();
  for (const signal of ["SIGINT", "SIGTERM", "SIGHUP"] as const)
    process.once(signal, () => interrupt.abort());
  return interrupt.signal;
}
