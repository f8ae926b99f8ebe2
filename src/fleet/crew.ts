import { spawn, type ChildProcess } from "node:child_process";
import { mkdirSync } from "node:fs";
import { join } from "node:path";
import { setTimeout as sleep } from "node:timers/promises";
import { isDeepStrictEqual } from "node:util";
import type { FleetList, Repository } from "./list.js";
import type { Job } from "./job.js";
import { begun, readState, writeState, writeWhole, type RepositoryState } from "./state.js";

/** What somebody who waits is told of. */
export type FleetProgress =
  | { readonly is: "begun"; readonly name: string }
  | { readonly is: "ended" | "unchanged"; readonly state: RepositoryState }
  | { readonly is: "again"; readonly state: RepositoryState; readonly inSeconds: number };

/** How a fleet is worked through. */
export interface Crew {
  /** The folder of all that the fleet leaves behind. */
  readonly folder: string;
  /** The command that works one job through; the file that says which is put behind it. */
  readonly command: readonly string[];
  /** So many repositories at the same time. */
  readonly atOnce: number;
  readonly signal?: AbortSignal;
  readonly progress?: (event: FleetProgress) => void;
  /** Is told, once at a time, of what must come back by itself before the work goes on. */
  readonly warn?: (says: string) => void;
}

/** The folder of a repository of the fleet. */
export const folderOf = (folder: string, { name }: Repository): string => join(folder, "repositories", name);

/** The longest wait before another attempt, in seconds. */
const LONGEST_WAIT = 60;

/**
 * Works repositories through, each in a process of its own, so that one that breaks down takes nothing with it. What failed
 * for a reason that may pass is tried again after a while, as often as the policy says. Those that are done already are
 * only looked at for new commits.
 */
export async function runFleet({ policy, repositories }: FleetList, crew: Crew): Promise<void> {
  const waiting = [...repositories];
  const hand = async (): Promise<void> => {
    for (let one = waiting.shift(); one && !crew.signal?.aborted; one = waiting.shift())
      await workThrough({ repository: one, policy, folder: folderOf(crew.folder, one), attempt: 1 }, crew);
  };
  await Promise.all(Array.from({ length: Math.min(crew.atOnce, repositories.length) }, hand));
}

/** A repository until it is done or given up, or all is stopped. */
async function workThrough(job: Job, crew: Crew): Promise<void> {
  const before = readState(job.folder);
  for (let attempt = 1; ; attempt++) {
    const state = await attemptInProcess({ ...job, attempt }, crew);
    if (!state || crew.signal?.aborted) return;
    if (state.is === "done" || state.mayPass !== true || attempt >= job.policy.attempts) {
      crew.progress?.({ is: isDeepStrictEqual(before, state) ? "unchanged" : "ended", state });
      return;
    }
    const inSeconds = Math.min(LONGEST_WAIT, 2 ** attempt);
    crew.progress?.({ is: "again", state, inSeconds });
    await sleep(inSeconds * 1000, undefined, crew.signal ? { signal: crew.signal } : {}).catch(() => {});
    if (crew.signal?.aborted) return;
  }
}

/** Nobody sits there to type a password. */
const NEVER_ASKS = { GIT_TERMINAL_PROMPT: "0", GIT_SSH_COMMAND: "ssh -o BatchMode=yes" };

/** One attempt in a process of its own; undefined where it was stopped. */
export async function attemptInProcess(
  job: Job,
  { command, signal, progress }: Crew,
): Promise<RepositoryState | undefined> {
  const { folder, repository, attempt, policy } = job;
  mkdirSync(folder, { recursive: true });
  writeWhole(folder, "job.json", JSON.stringify(job));
  progress?.({ is: "begun", name: repository.name });
  const started = Date.now();
  const [program, ...words] = command;
  // A group of its own, so that what it starts ends with it.
  const child = spawn(program!, [...words, join(folder, "job.json")], {
    detached: process.platform !== "win32",
    // By the channel it sees that nobody waits for it any more.
    stdio: ["ignore", "ignore", "pipe", "ipc"],
    env: { ...NEVER_ASKS, ...process.env },
  });
  let last = "";
  child.stderr!.on("data", (piece: Buffer) => (last = (last + piece.toString("utf8")).slice(-2000)));
  let outOfTime = false;
  const timer = setTimeout(() => ((outOfTime = true), end(child)), policy.minutes * 60_000);
  const stop = (): void => end(child);
  signal?.addEventListener("abort", stop);
  const ended = await new Promise<string | undefined>((resolve) => {
    child.on("error", (error) => resolve(error.message));
    child.on("close", (code, by) => resolve(code === 0 ? undefined : `its process ended with ${by ?? code}`));
  });
  clearTimeout(timer);
  signal?.removeEventListener("abort", stop);
  if (signal?.aborted) return undefined;
  const state = readState(folder);
  if (ended === undefined && state && state.is !== "working") return state;
  const says = outOfTime
    ? `it was not done after ${policy.minutes} minutes`
    : `${ended ?? "its process left no word"}${last.trim() === "" ? "" : `: ${last.trim()}`}`;
  const seconds = Math.round((Date.now() - started) / 100) / 10;
  const failed: RepositoryState = {
    ...(state ?? begun(repository, attempt)),
    is: "failed",
    attempt,
    says,
    mayPass: true,
    seconds,
  };
  writeState(folder, failed);
  return failed;
}

const GRACE_MILLISECONDS = 5000;

/** Ends a process with all that it has started; one that does not listen, after a while. */
function end(child: ChildProcess): void {
  const send = (signal: NodeJS.Signals): void => {
    try {
      if (process.platform === "win32" || child.pid === undefined) child.kill(signal);
      else process.kill(-child.pid, signal);
    } catch {
      // It is gone already.
    }
  };
  send("SIGTERM");
  setTimeout(() => send("SIGKILL"), GRACE_MILLISECONDS).unref();
}
