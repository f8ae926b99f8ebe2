import { spawn } from "node:child_process";
import { cpSync, mkdirSync, mkdtempSync, readdirSync, rmSync, symlinkSync, writeFileSync } from "node:fs";
import { basename, delimiter, join } from "node:path";
import { performance } from "node:perf_hooks";
import { commandFolders } from "./command-folders.js";
import type { Check } from "./config.js";
import { stateFolder } from "./state.js";

/** What a command did. */
export interface Run {
  /** Null when a signal ended it. */
  readonly exit: number | null;
  readonly output: string;
  readonly errors: string;
  readonly milliseconds: number;
}

/** One check on the old code and on the new. */
export interface Proof {
  readonly check: Check;
  readonly before: Run;
  readonly after: Run;
  /** `same`: same exit code and same standard output. `skipped`: it did not run on either side, and proves nothing. */
  readonly verdict: "same" | "different" | "skipped";
  /** Why it was skipped, in the check's own words where it has some. */
  readonly why?: string;
}

/** Texts that take the place of a project's files, by path. */
export type Replacements = ReadonlyMap<string, string | Uint8Array>;

/**
 * Runs each check in two scratch copies of the project, one with the old and one with the new texts in place.
 * The copies lie in the project's `.uvran` folder, so that packages installed further up are found from them
 * too; they are removed afterwards, and the project itself is only read.
 */
export async function prove(
  root: string,
  checks: readonly Check[],
  before: Replacements,
  after: Replacements,
): Promise<Proof[]> {
  const folder = mkdtempSync(join(stateFolder(root), "scratch-"));
  try {
    const old = copyProject(root, join(folder, "old"), before);
    const now = copyProject(root, join(folder, "new"), after);
    const proofs: Proof[] = [];
    for (const check of checks) {
      const [first, second] = [await run(check, old), await run(check, now)];
      const runs = { check, before: first, after: second };
      const why = reasonSkipped(first);
      if (why !== undefined && first.exit === second.exit) proofs.push({ ...runs, verdict: "skipped", why });
      else {
        const same = first.exit === second.exit && neutral(first.output, old) === neutral(second.output, now);
        proofs.push({ ...runs, verdict: same ? "same" : "different" });
      }
    }
    return proofs;
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

/** What test runners exit with when they had to skip, and shells when a command is not there. */
const SKIPPED = 77;
const NOT_FOUND = 127;

/** Why a check did not run; undefined for one that did. */
function reasonSkipped({ exit, output, errors }: Run): string | undefined {
  if (exit !== SKIPPED && exit !== NOT_FOUND) return undefined;
  const said = `${errors}\n${output}`.split("\n").find((line) => line.trim() !== "");
  return said?.trim() ?? (exit === SKIPPED ? "it says so" : "a command was not found");
}

/** The copy's own path may show up in output; it is not a difference. */
function neutral(output: string, copy: string): string {
  return output.replaceAll(copy, "");
}

const LEFT_BEHIND = new Set([".git", ".uvran", "node_modules"]);

function copyProject(root: string, to: string, replacements: Replacements): string {
  mkdirSync(to);
  const filter = (from: string): boolean => !LEFT_BEHIND.has(basename(from));
  for (const name of readdirSync(root)) {
    if (filter(name))
      cpSync(join(root, name), join(to, name), { recursive: true, filter, verbatimSymlinks: true });
  }
  // Installed packages are linked and not copied.
  for (const folder of packageFolders(root)) symlinkSync(join(root, folder), join(to, folder));
  for (const [path, text] of replacements) writeFileSync(join(to, path), text);
  return to;
}

/** The `node_modules` folders of a project, relative to its root. */
function packageFolders(root: string, below = ""): string[] {
  return readdirSync(join(root, below), { withFileTypes: true })
    .filter((entry) => entry.isDirectory() && (entry.name === "node_modules" || !LEFT_BEHIND.has(entry.name)))
    .flatMap(({ name }) =>
      name === "node_modules" ? [join(below, name)] : packageFolders(root, join(below, name)),
    );
}

function run(check: Check, cwd: string): Promise<Run> {
  const start = performance.now();
  return new Promise((resolve, reject) => {
    const child = spawn(check.run, {
      cwd,
      shell: true,
      stdio: ["ignore", "pipe", "pipe"],
      env: { ...process.env, PATH: [...commandFolders(cwd), process.env["PATH"] ?? ""].join(delimiter) },
    });
    const output: Buffer[] = [];
    const errors: Buffer[] = [];
    child.stdout.on("data", (data: Buffer) => output.push(data));
    child.stderr.on("data", (data: Buffer) => errors.push(data));
    child.on("error", reject);
    child.on("close", (exit) => {
      const milliseconds = performance.now() - start;
      resolve({
        exit,
        output: String(Buffer.concat(output)),
        errors: String(Buffer.concat(errors)),
        milliseconds,
      });
    });
  });
}
