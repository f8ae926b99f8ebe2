import { spawn, type ChildProcess } from "node:child_process";
import { relative, sep } from "node:path";
import type { Stats } from "node:fs";

/** What a rule, a config or a table of changes may be written in. */
const WRITTEN_IN = /\.(?:[cm]?[jt]s|json|ya?ml|csv|toml)$/;
const LEFT_OUT = ["node_modules", ".git", ".uvran"];
/** An editor writes a file in several steps; so many milliseconds after the last it is done. */
const SETTLED = 150;

/**
 * Runs the same command again, without `--watch`, at once and whenever a file below the root changes that a rule may be
 * written in. Each run is a process of its own, which sees the files as they are. Ends with the process.
 */
export async function runAgain(root: string, args: readonly string[]): Promise<void> {
  const { watch } = await import("chokidar");
  let running: ChildProcess | undefined;
  const run = (): void => {
    running?.kill();
    if (process.stdout.isTTY) process.stdout.write("\u001b[2J\u001b[H");
    running = spawn(process.execPath, [process.argv[1]!, ...args.filter((arg) => arg !== "--watch")], {
      stdio: "inherit",
    });
    running.on("close", (_, signal) => {
      if (signal === null) process.stdout.write("Waiting for changes. Stop with Ctrl+C.\n");
    });
  };
  const isLeftOut = (path: string, stats?: Stats): boolean =>
    relative(root, path)
      .split(sep)
      .some((part) => LEFT_OUT.includes(part)) ||
    (stats?.isFile() === true && !WRITTEN_IN.test(path));
  let settled: NodeJS.Timeout | undefined;
  watch(root, { ignored: isLeftOut, ignoreInitial: true })
    .on("all", () => {
      clearTimeout(settled);
      settled = setTimeout(run, SETTLED);
    })
    .once("ready", run);
}
