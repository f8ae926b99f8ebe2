import { linkSync, mkdirSync, readFileSync, renameSync, rmSync, writeFileSync } from "node:fs";
import { hostname } from "node:os";
import { join } from "node:path";
import { setTimeout as sleep } from "node:timers/promises";
import { z } from "zod";
import { Problem } from "./problem.js";
import { stateFolder } from "./state.js";

const holder = z.object({
  pid: z.int(),
  /** When the process started, as the system counts; another process may have its number later. */
  started: z.string().optional(),
  host: z.string(),
  command: z.string(),
  since: z.string(),
});
type Holder = z.infer<typeof holder>;

const FILE = "lock";
const RETRY_MILLISECONDS = 20;
/** Stale locks that come back this often are not stale. */
const MOST_TRIES = 5;

/**
 * Does something to a project that no two commands may do at once. Throws a Problem that says who else is at it. The lock
 * of a process that is no longer there is taken over. `patience` says how many milliseconds to wait for the others.
 */
export async function locked<T>(
  root: string,
  command: string,
  work: () => Promise<T> | T,
  patience = 0,
): Promise<T> {
  const file = join(stateFolder(root), FILE);
  const { pid } = process;
  const latest = Date.now() + patience;
  for (;;) {
    const since = new Date().toISOString();
    try {
      take(file, { pid, started: startOf(pid), host: hostname(), command, since });
      break;
    } catch (error) {
      if (!(error instanceof Problem) || Date.now() >= latest) throw error;
      await sleep(RETRY_MILLISECONDS);
    }
  }
  try {
    return await work();
  } finally {
    rmSync(file, { force: true });
  }
}

/** Is some command at work on this project now? */
export function isLocked(root: string): boolean {
  const held = read(join(root, ".uvran", FILE));
  return held !== undefined && held !== "unreadable" && isAlive(held);
}

function take(file: string, own: Holder): void {
  // A link appears with its content, so no lock is ever seen half written.
  const temporary = `${file}.${own.pid}`;
  mkdirSync(join(file, ".."), { recursive: true });
  writeFileSync(temporary, JSON.stringify(own));
  try {
    for (let tries = 0; ; tries++) {
      try {
        linkSync(temporary, file);
        return;
      } catch (error) {
        if ((error as NodeJS.ErrnoException).code !== "EEXIST") throw error;
      }
      const held = read(file);
      if (held === undefined) continue;
      if (tries < MOST_TRIES && isStale(held)) {
        takeAway(file, own.pid);
        continue;
      }
      const who =
        held === "unreadable"
          ? "Another command"
          : `\`uvran ${held.command}\` (process ${held.pid} on ${held.host}, since ${held.since})`;
      throw new Problem(
        `${who} is at work on this project. Wait until it is done. If it is not running any more, remove ${file}`,
        1,
      );
    }
  } finally {
    rmSync(temporary, { force: true });
  }
}

function isStale(held: Holder | "unreadable" | undefined): boolean {
  return held === "unreadable" || (held !== undefined && !isAlive(held));
}

/** Removes a stale lock; one that another command has put in its place meanwhile is put back. */
function takeAway(file: string, pid: number): void {
  const aside = `${file}.${pid}.stale`;
  try {
    renameSync(file, aside);
    if (!isStale(read(aside))) linkSync(aside, file);
  } catch (error) {
    const { code } = error as NodeJS.ErrnoException;
    if (code !== "ENOENT" && code !== "EEXIST") throw error;
  } finally {
    rmSync(aside, { force: true });
  }
}

/** Who holds a lock; undefined where nobody does. */
function read(file: string): Holder | "unreadable" | undefined {
  let json: string;
  try {
    json = readFileSync(file, "utf8");
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === "ENOENT") return undefined;
    throw error;
  }
  try {
    return holder.parse(JSON.parse(json));
  } catch {
    return "unreadable";
  }
}

/** A process of another machine is taken to be there. */
function isAlive({ pid, started, host }: Holder): boolean {
  if (host !== hostname()) return true;
  if (started !== undefined && startOf(pid) !== started) return false;
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    return (error as NodeJS.ErrnoException).code === "EPERM";
  }
}

/** When a process started, in the system's own count; undefined where the system does not say. */
function startOf(pid: number): string | undefined {
  try {
    const stat = readFileSync(`/proc/${pid}/stat`, "utf8");
    // The name of the program, in parentheses, may have spaces in it.
    return stat.slice(stat.lastIndexOf(")") + 2).split(" ")[19];
  } catch {
    return undefined;
  }
}
