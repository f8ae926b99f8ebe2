import { spawnSync } from "node:child_process";
import { delimiter } from "node:path";
import ignore from "ignore";
import { commandFolders } from "./command-folders.js";

/** A command of the project that lays out what an apply has written. */
export interface Formatter {
  /** The files it is for, written like lines of a .gitignore. */
  readonly files: readonly string[];
  /**
   * Run by the shell in the root. `{files}` stands for all files that were written; with `{file}` it is run for each of
   * them, and with `{from}` and `{to}` beside it for each stretch of changed lines, counted from 1, from the last to the
   * first.
   */
  readonly run: string;
}

/** A file that was written, with the stretches of lines that are new. */
export interface Written {
  readonly path: string;
  readonly lines: readonly (readonly [from: number, to: number])[];
}

/** Runs the formatters over what was written; gives what went wrong, for a person. */
export function format(
  root: string,
  formatters: readonly Formatter[],
  written: readonly Written[],
): string[] {
  const complaints: string[] = [];
  for (const { files, run } of formatters) {
    const asked = ignore().add([...files]);
    const own = written.filter(({ path }) => asked.ignores(path));
    if (own.length === 0) continue;
    for (const command of commandsFor(run, own)) {
      const { status, stdout, stderr, error } = spawnSync(command, {
        cwd: root,
        shell: true,
        encoding: "utf8",
        stdio: ["ignore", "pipe", "pipe"],
        env: { ...process.env, PATH: [...commandFolders(root), process.env["PATH"] ?? ""].join(delimiter) },
      });
      if (status === 0) continue;
      const why = error?.message ?? (`${stderr}\n${stdout}`.trim().split("\n")[0] || `exit code ${status}`);
      complaints.push(`The formatter failed: ${command}\n  ${why}`);
    }
  }
  return complaints;
}

function commandsFor(run: string, written: readonly Written[]): string[] {
  if (!run.includes("{file}")) {
    const all = written.map(({ path }) => quoted(path)).join(" ");
    return [run.replaceAll("{files}", () => all)];
  }
  return written.flatMap(({ path, lines }) => {
    const one = run.replaceAll("{file}", () => quoted(path));
    if (!one.includes("{from}") && !one.includes("{to}")) return [one];
    return [...lines]
      .reverse()
      .map(([from, to]) => one.replaceAll("{from}", `${from}`).replaceAll("{to}", `${to}`));
  });
}

/** A path as one word of a shell command, and never an option. */
function quoted(path: string): string {
  return `'${`./${path}`.replaceAll("'", "'\\''")}'`;
}
