import { Option, type Command } from "commander";
import { SingleBar } from "cli-progress";
import { TRUSTS, type Trust } from "../rules/index.js";
import { Workspace, type Examination } from "../workspace/index.js";

/** Options that several commands share. */
export interface ProjectOptions {
  readonly config?: string;
  readonly rule?: readonly string[];
}

/** The argument and the options of commands that read sources. */
export function withSources(command: Command): Command {
  return command
    .argument("[path...]", "files and folders; the whole project without any")
    .option("--config <file>", "the config to use instead of the nearest uvran.config.*")
    .option(
      "--rule <id>",
      "only this rule, whether switched on or not; may be given again",
      (id: string, others: readonly string[] | undefined) => [...(others ?? []), id],
    );
}

export function trustOption(what: string, preset?: Trust): Option {
  const option = new Option("--trust <level>", what).choices([...TRUSTS]);
  return preset ? option.default(preset) : option;
}

/** The project around the working directory, narrowed to the rules asked for. Says first what must be known of it. */
export async function openWorkspace({ config, rule }: ProjectOptions, command?: "undo"): Promise<Workspace> {
  const workspace = await Workspace.open(process.cwd(), {
    ...(config === undefined ? {} : { config }),
    ...(rule === undefined ? {} : { rules: rule }),
  });
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
    format: "reading {bar} {value}/{total} files",
    stream: process.stderr,
    clearOnComplete: true,
  });
  let shown = false;
  const progress = (done: number, total: number): void => {
    if (!process.stderr.isTTY || Date.now() - started < QUIET_MILLISECONDS) return;
    if (!shown) bar.start(total, done);
    else bar.update(done);
    shown = true;
  };
  try {
    return await work(progress);
  } finally {
    if (shown) bar.stop();
  }
}

/** Sources that were named one by one but could not be read or parsed make the command fail. */
export function exitForBadInput({ survey }: Examination, paths: readonly string[]): void {
  const bad = [...survey.unparsed, ...survey.unreadable].map((entry) => entry.path);
  const named = (path: string): boolean =>
    paths.some((given) => given === path || given.endsWith(`/${path}`) || path.endsWith(`/${given}`));
  if (bad.some(named)) process.exitCode = 2;
}
