import { linkSync, mkdirSync, readdirSync, renameSync, rmSync, writeFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { setTimeout as sleep } from "node:timers/promises";
import { isAlive, ownHolder, readHolder, type Holder } from "./holder.js";
import { Problem } from "./problem.js";
import { stateFolder } from "./state.js";

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
  const latest = Date.now() + patience;
  for (;;) {
    try {
      take(file, ownHolder(command));
      break;
    } catch (error) {
      if (!(error instanceof Problem) || Date.now() >= latest) throw error;
      await sleep(RETRY_MILLISECONDS);
    }
  }
  try {
    cleanLeftOvers(file);
    return await work();
  } finally {
    rmSync(file, { force: true });
  }
}

/** Is some command at work on this project now? */
export function isLocked(root: string): boolean {
  const held = readHolder(join(root, ".uvran", FILE));
  return held !== undefined && held !== "unreadable" && isAlive(held);
}

function take(file: string, own: Holder): void {
  // A link appears with its content, so no lock is ever seen half written.
  const temporary = `${file}.${nameOf(own)}`;
  mkdirSync(dirname(file), { recursive: true });
  try {
    writeFileSync(temporary, JSON.stringify(own));
    for (let tries = 0; ; tries++) {
      try {
        linkSync(temporary, file);
        return;
      } catch (error) {
        if ((error as NodeJS.ErrnoException).code !== "EEXIST") throw error;
      }
      const held = readHolder(file);
      if (held === undefined) continue;
      if (tries < MOST_TRIES && isStale(held)) {
        takeAway(file, nameOf(own));
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

/** What the files of a process are called that is about to take the lock, as an end of their names. */
const nameOf = ({ host, pid }: Pick<Holder, "host" | "pid">): string => `${encodeURIComponent(host)}.${pid}`;

/** Removes what processes of this machine left that were killed while they took the lock. Only for who holds it. */
function cleanLeftOvers(file: string): void {
  const { started: _started, ...own } = ownHolder("");
  for (const name of readdirSync(dirname(file))) {
    const [, host, pid] = /^lock\.(.+)\.(\d+)(?:\.stale)?$/.exec(name) ?? [];
    if (host !== encodeURIComponent(own.host) || isAlive({ ...own, pid: Number(pid) })) continue;
    rmSync(join(dirname(file), name), { force: true });
  }
}

function isStale(held: Holder | "unreadable" | undefined): boolean {
  return held === "unreadable" || (held !== undefined && !isAlive(held));
}

/** Removes a stale lock; one that another command has put in its place meanwhile is put back. */
function takeAway(file: string, name: string): void {
  const aside = `${file}.${name}.stale`;
  try {
    renameSync(file, aside);
    if (!isStale(readHolder(aside))) linkSync(aside, file);
  } catch (error) {
    const { code } = error as NodeJS.ErrnoException;
    if (code !== "ENOENT" && code !== "EEXIST") throw error;
  } finally {
    rmSync(aside, { force: true });
  }
}
