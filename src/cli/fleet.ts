import { existsSync, mkdirSync, readFileSync } from "node:fs";
import { availableParallelism } from "node:os";
import { basename, extname, join, resolve } from "node:path";
import { Option, type Command } from "commander";
import {
  fleetPage,
  folderOf,
  pushCommand,
  readList,
  readState,
  runFleet,
  runJob,
  runOverQueue,
  saysOf,
  serveQueue,
  sumsOf,
  withoutSecrets,
  writeWhole,
  type Crew,
  type FleetList,
  type FleetProgress,
  type Job,
  type RepositoryState,
} from "../fleet/index.js";
import { locked, Problem } from "../node/index.js";
import { plural, type Paint } from "../report/index.js";
import { countIn, gathered, interrupted } from "./common.js";
import { examples, paintFor } from "./terminal.js";

interface Options {
  readonly out?: string;
  readonly only?: readonly string[];
  readonly atOnce?: number;
  readonly json?: boolean;
  readonly show?: boolean;
  readonly queue?: string;
  readonly worker?: boolean;
  readonly job?: string;
}

const LIST = "uvran.fleet.yaml";

export function describeFleet(command: Command): void {
  command
    .description(
      "Does the same to many repositories: a copy of each is brought up to date, its plan worked out, proved by the checks " +
        "and committed on a branch of its own, with a commit for each rule. The repositories themselves are not touched. " +
        "What was stopped goes on where it was when the command is given again, and what is done is only looked at for new commits.",
    )
    .argument(
      "[list]",
      `the list of repositories: YAML, JSON, or lines of a .txt; ${LIST} where none is named`,
    )
    .option("--out <folder>", "where copies, reports and the page go; beside the list where it is not said")
    .option("--only <name>", "only this repository of the list; may be given again", gathered)
    .option("--at-once <number>", "how many repositories are worked on at the same time", countIn)
    .option("--queue <redis>", "have it done by workers that are joined by this Redis")
    .option("--worker", "be such a worker, until stopped; needs --queue and no list")
    .option("--show", "only say how far each repository is")
    .option("--json", "what came of each repository, for programs")
    .addOption(new Option("--job <file>", "one repository, in a process of its own").hideHelp())
    .addHelpText(
      "after",
      "\nA list:\n" +
        "  config: uvran.config.ts     # for all; else each repository has its own\n" +
        "  repositories:\n" +
        "    - ../hives\n" +
        "    - from: https://git.example/lots.git\n" +
        "      base: main\n",
    )
    .addHelpText(
      "after",
      examples(
        "uvran fleet",
        "uvran fleet apiary.yaml --at-once 4",
        "uvran fleet apiary.yaml --only hives",
        "uvran fleet --show",
        "uvran fleet --queue redis://queue.example:6379",
        "uvran fleet --worker --queue redis://queue.example:6379",
      ),
    )
    .action(fleet);
}

async function fleet(file: string | undefined, options: Options): Promise<void> {
  if (options.job !== undefined)
    return void (await runJob(JSON.parse(readFileSync(options.job, "utf8")) as Job));
  if (options.worker) return serve(file, options);
  const path = listFile(file);
  const whole = readList(path);
  const list = narrowed(whole, options.only ?? [], path);
  const folder = resolve(options.out ?? join(path, "..", `${basename(path, extname(path))}.work`));
  if (!options.show) {
    mkdirSync(folder, { recursive: true });
    const paint = (isRunning: boolean): void => {
      const title = `The fleet of ${basename(path)}`;
      const page = fleetPage(title, whole.repositories, statesOf(whole, folder), isRunning);
      writeWhole(folder, "index.html", page);
    };
    await locked(folder, "fleet", () => workThrough(list, folder, paint, options));
  } else if (!existsSync(folder)) throw new Problem(`Nothing has been done yet: there is no ${folder}.`, 1);
  const states = statesOf(list, folder);
  if (options.json) process.stdout.write(JSON.stringify(jsonOf(list, states), null, 1) + "\n");
  else process.stdout.write(fleetText(list, states, folder, paintFor(process.stdout)));
  if (list.repositories.some(({ name }) => states.get(name)?.is !== "done")) process.exitCode = 1;
}

function listFile(file: string | undefined): string {
  if (file !== undefined) return resolve(file);
  if (!existsSync(LIST))
    throw new Problem(`There is no ${LIST} here. Name a list of repositories: uvran fleet LIST`);
  return resolve(LIST);
}

/** The list with only these repositories. Throws a Problem for a name that it does not have. */
function narrowed({ policy, repositories }: FleetList, names: readonly string[], path: string): FleetList {
  for (const name of names)
    if (!repositories.some((one) => one.name === name))
      throw new Problem(
        `The list ${path} has no repository "${name}". It has: ${repositories.map((one) => one.name).join(", ")}`,
      );
  return {
    policy,
    repositories: names.length === 0 ? repositories : repositories.filter(({ name }) => names.includes(name)),
  };
}

/** Works for fleets of others until it is stopped. */
async function serve(
  file: string | undefined,
  { queue, out, atOnce, only, show, json }: Options,
): Promise<void> {
  if (queue === undefined) throw new Problem("--worker needs --queue, which says where the jobs are.");
  if (file !== undefined || only || show || json)
    throw new Problem("A worker does what comes: name no list, no --only, no --show and no --json.");
  const folder = resolve(out ?? "uvran.worker");
  mkdirSync(folder, { recursive: true });
  process.stderr.write(`At work for the fleets of ${withoutSecrets(queue)}. Stop it with Ctrl+C.\n`);
  await locked(folder, "fleet", () => serveQueue(queue, crewOf(folder, atOnce, interrupted())));
}

function crewOf(folder: string, atOnce: number | undefined, signal: AbortSignal, ended?: () => void): Crew {
  const say = paintFor(process.stderr);
  return {
    folder,
    command: [process.execPath, process.argv[1]!, "fleet", "--job"],
    atOnce: atOnce ?? Math.max(1, Math.floor(availableParallelism() / 2)),
    signal,
    warn: (says) => void process.stderr.write(`${says}\n`),
    progress: (event) => {
      process.stderr.write(`${lineOf(event, say)}\n`);
      if (event.is === "ended") ended?.();
    },
  };
}

async function workThrough(
  list: FleetList,
  folder: string,
  paint: (isRunning: boolean) => void,
  { atOnce, queue }: Options,
): Promise<void> {
  paint(true);
  const signal = interrupted();
  const crew = crewOf(folder, atOnce, signal, () => paint(true));
  if (queue === undefined) await runFleet(list, crew);
  else await runOverQueue(list, queue, crew);
  paint(false);
  if (signal.aborted)
    throw new Problem("The fleet was stopped. It goes on where it was with the same command.", 1);
}

function lineOf(event: FleetProgress, paint: Paint): string {
  if (event.is === "begun") return `  ${paint.dim(`at work  ${event.name}`)}`;
  const { name } = event.state;
  if (event.is === "again")
    return `  ${paint.yellow("again")}  ${name}  in ${event.inSeconds} s; ${saysOf(event.state)}`;
  if (event.is === "unchanged") return `  ${paint.dim("as before")}  ${name}`;
  const { is, counts, seconds } = event.state;
  if (is === "failed") return `  ${paint.red("failed")}  ${name}  ${saysOf(event.state)}`;
  const what = counts ? `${counts.committed} of ${plural(counts.changes, "change")} committed` : "";
  return `  ${paint.green("done")}  ${name}  ${what}  ${paint.dim(`${seconds} s`)}`;
}

function statesOf({ repositories }: FleetList, folder: string): Map<string, RepositoryState> {
  return new Map(
    repositories.flatMap((one): [string, RepositoryState][] => {
      const state = readState(folderOf(folder, one));
      return state ? [[one.name, state]] : [];
    }),
  );
}

function jsonOf({ repositories }: FleetList, states: ReadonlyMap<string, RepositoryState>): object {
  return {
    sums: sumsOf(repositories, [...states.values()]),
    repositories: repositories.map(({ name, from }) => states.get(name) ?? { name, from, is: "waiting" }),
  };
}

function fleetText(
  list: FleetList,
  states: ReadonlyMap<string, RepositoryState>,
  folder: string,
  paint: Paint,
): string {
  const out: string[] = [];
  const wide = Math.max(...list.repositories.map(({ name }) => name.length));
  const colours = { done: paint.green, failed: paint.red, working: paint.yellow, waiting: paint.dim };
  for (const { name } of list.repositories) {
    const state = states.get(name);
    const is = state?.is ?? "waiting";
    const counts = state?.counts;
    const figures = counts
      ? `${plural(counts.changes, "change")}, ${counts.committed} committed in ${plural(counts.commits, "commit")}`
      : "";
    const parts = [figures, saysOf(state)].filter((part) => part !== "");
    out.push(
      `${name.padEnd(wide)}  ${colours[is](is.padEnd(7))}  ${parts.join("; ").replaceAll("\n", `\n${" ".repeat(wide + 11)}`)}`,
    );
  }
  const sums = sumsOf(list.repositories, [...states.values()]);
  out.push(
    "",
    `${sums.done} of ${sums.repositories} repositories done, ${sums.failed} failed: ` +
      `${plural(sums.changes, "change")} found, ${sums.committed} committed, ${sums.setAside} set aside by checks.`,
    `The page: ${join(folder, "index.html")}`,
  );
  const ready = list.repositories.flatMap((one) => {
    const state = states.get(one.name);
    return state?.is === "done" && (state.counts?.commits ?? 0) > 0 ? [pushCommand(folder, one, state)] : [];
  });
  if (ready.length > 0)
    out.push("Look at the branches, then push them:", ...ready.map((line) => `  ${line}`));
  return out.join("\n") + "\n";
}
