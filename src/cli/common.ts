import { existsSync, realpathSync } from "node:fs";
import { basename, join } from "node:path";
import { Option, type Command } from "commander";
import { SingleBar } from "cli-progress";
import {
  examine,
  interruptedApply,
  loadProject,
  Problem,
  type Examination,
  type Project,
} from "../node/index.js";
import { TRUSTS, type Rule, type Trust } from "../rules/index.js";

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

/** The project around the working directory, narrowed to the rules asked for. */
export async function openProject(options: ProjectOptions, command?: "undo"): Promise<Project> {
  const project = await loadProject(process.cwd(), options.config);
  const { root, configFile } = project;
  if (configFile !== undefined && realpathSync(root) !== realpathSync(process.cwd()))
    process.stderr.write(`Working on ${root}, where the config is: ${basename(configFile)}\n`);
  const open = command === "undo" || !existsSync(join(root, ".uvran")) ? undefined : interruptedApply(root);
  if (open !== undefined) process.stderr.write(`${open}\n`);
  const wanted = options.rule;
  if (!wanted) return project;
  const rules = wanted.map((id): Rule => {
    const found = project.allRules.find((rule) => rule.id === id);
    if (!found) throw new Problem(`There is no rule "${id}". List the rules with: uvran rules`);
    return found;
  });
  return { ...project, rules };
}

const QUIET_MILLISECONDS = 1000;

/** Examines the project, with progress on stderr once it takes longer than a second. */
export async function examineProject(project: Project, paths: readonly string[]): Promise<Examination> {
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
    return await examine({ ...project, paths, cwd: process.cwd(), progress });
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
