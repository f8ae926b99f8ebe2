import { setMaxListeners } from "node:events";
import { join } from "node:path";
import { setTimeout as sleep } from "node:timers/promises";
import { isDeepStrictEqual } from "node:util";
import type { Job as Queued, JobState, Queue, Worker } from "bullmq";
import { Problem, messageOf } from "../node/index.js";
import { hashText } from "../engine/index.js";
import { attemptInProcess, folderOf, type Crew, type FleetProgress } from "./crew.js";
import { Outage } from "./checkout.js";
import { basisOf, hasItsCommits, type Job } from "./job.js";
import type { FleetList, Policy, Repository } from "./list.js";
import {
  packConfig,
  packResult,
  unpackConfig,
  unpackResult,
  type PackedConfig,
  type Parcel,
} from "./parcel.js";
import { withoutSecrets } from "./secrets.js";
import { begun, readState, writeState, type RepositoryState } from "./state.js";

/** A job on its way to another machine. */
interface Sent {
  readonly repository: Repository;
  /** Its config is beside it. */
  readonly policy: Policy;
  readonly config?: PackedConfig | undefined;
  readonly basis: string;
  readonly known?: RepositoryState | undefined;
}

const NAME = "uvran-fleet";
const POLL_MILLISECONDS = 1000;
/** After so long without a sign of life, a job is given to another worker. */
const LOCK_MILLISECONDS = 15_000;

/** What BullMQ needs to know of a Redis: connections wait for one that is away. */
function connectionTo(url: string): { readonly url: string; readonly maxRetriesPerRequest: null } {
  if (!/^rediss?:\/\//.test(url))
    throw new Problem(`"${url}" is no address of a Redis, such as redis://127.0.0.1:6379`);
  return { url, maxRetriesPerRequest: null };
}

const QUIET_MILLISECONDS = 30_000;

/** While Redis is away, what is asked of it waits, and somebody is told from time to time. */
function onceAtATime(url: string, warn: Crew["warn"]): (error: Error) => void {
  let last = -Infinity;
  return (error) => {
    if (Date.now() - last < QUIET_MILLISECONDS) return;
    last = Date.now();
    warn?.(`Waiting for the Redis at ${withoutSecrets(url)}: ${error.message || "it cannot be reached"}`);
  };
}

/**
 * Has a fleet worked through by workers of a queue, which may be on other machines. A job has an id made of what it is about,
 * so that to ask twice is to ask once: somebody who waits can be ended, and wait again. What comes back is put where `runFleet`
 * would have left it.
 */
export async function runOverQueue(
  { policy, repositories }: FleetList,
  url: string,
  { folder, signal, progress, warn }: Pick<Crew, "folder" | "signal" | "progress" | "warn">,
): Promise<void> {
  const { Queue } = await import("bullmq");
  const queue = new Queue<Sent, Parcel>(NAME, { connection: connectionTo(url) });
  queue.on("error", onceAtATime(url, warn));
  const basis = basisOf(policy);
  const { config, ...rest } = policy;
  const sent = { policy: rest, basis, config: config === undefined ? undefined : packConfig(config) };
  const stopped = new Promise<undefined>((resolve) =>
    signal?.addEventListener("abort", () => resolve(undefined)),
  );
  if (signal) setMaxListeners(repositories.length + 16, signal);
  const asked = (repository: Repository): Asked => ({
    queue,
    id: hashText(JSON.stringify([repository, basis])),
    signal,
    stopped,
  });
  const through = async (repository: Repository): Promise<void> => {
    const own = folderOf(folder, repository);
    await takeUp(asked(repository), (parcel) => stored(parcel, repository, policy.branch, own));
    const last = readState(own);
    const known = last?.is === "done" && hasItsCommits(own, last) ? last : undefined;
    const parcel = await answered(asked(repository), { ...sent, repository, known }, policy.attempts);
    if (!parcel) return;
    const isAsBefore = known !== undefined && sameWork(known, parcel.state);
    const state = isAsBefore ? known : stored(parcel, repository, policy.branch, own);
    await queue.remove(asked(repository).id).catch(() => {});
    progress?.({ is: isAsBefore ? "unchanged" : "ended", state });
  };
  try {
    await Promise.all(repositories.map(through));
  } finally {
    await Promise.race([queue.close(), sleep(1000, undefined, { ref: false })]);
  }
}

/** Asks whether a worker had nothing to do but what is done: it may have done the same itself, another time. */
const sameWork = (known: RepositoryState, { is, basis, commit }: RepositoryState): boolean =>
  is === "done" && basis === known.basis && commit === known.commit;

/** Puts what came back into its place; gives what is to be said of the repository. */
function stored(parcel: Parcel, repository: Repository, branch: string, folder: string): RepositoryState {
  try {
    return unpackResult(parcel, repository, branch, folder);
  } catch (error) {
    const says = withoutSecrets(messageOf(error));
    const state: RepositoryState = { ...begun(repository, 1), is: "failed", says, mayPass: true };
    writeState(folder, state);
    return state;
  }
}

/** A job of the queue: its id is the same for the same repository with the same things to do. */
interface Asked {
  readonly queue: Queue<Sent, Parcel>;
  readonly id: string;
  readonly signal: AbortSignal | undefined;
  /** Comes when somebody does not want to wait any longer. */
  readonly stopped: Promise<undefined>;
}

/** What a job has come to; undefined where there is none, or where somebody does not want to wait any longer. */
interface Found {
  readonly job: Queued<Sent, Parcel>;
  readonly state: JobState | "unknown";
}

/**
 * Looks a job up. Its state is asked for first: a job that was fetched before it ended knows nothing of its result, whatever
 * its state is by now.
 */
async function found({ queue, id, stopped }: Asked): Promise<Found | undefined> {
  const state = await Promise.race([queue.getJobState(id), stopped]);
  const job = state && (await Promise.race([queue.getJob(id), stopped]));
  return job && { job, state };
}

/** Takes up what a job has come to that somebody asked for who was cut off, and makes room for a new one. */
async function takeUp(asked: Asked, store: (parcel: Parcel) => void): Promise<void> {
  const { job, state } = (await found(asked)) ?? {};
  if (!job || (state !== "completed" && state !== "failed")) return;
  if (state === "completed") store(job.returnvalue);
  await Promise.race([job.remove(), asked.stopped]);
}

/** Asks for a job, and waits for what comes of it; undefined where somebody does not want to wait any longer. */
async function answered(asked: Asked, data: Sent, attempts: number): Promise<Parcel | undefined> {
  const { queue, id, signal, stopped } = asked;
  while (!signal?.aborted) {
    const { job, state } = (await found(asked)) ?? {};
    if (signal?.aborted) return undefined;
    if (job && state === "completed") return job.returnvalue;
    if (job && state === "failed") return failedParcel(data, job);
    const options = { jobId: id, attempts, backoff: { type: "exponential", delay: 2000 } };
    // What is there already is not added again.
    if (!job) await Promise.race([queue.add(data.repository.name, data, options), stopped]);
    await sleep(POLL_MILLISECONDS, undefined, signal ? { signal } : {}).catch(() => {});
  }
  return undefined;
}

function failedParcel(
  { repository, basis }: Sent,
  { failedReason, attemptsMade }: Queued<Sent, Parcel>,
): Parcel {
  const says = withoutSecrets(failedReason);
  const state = { ...begun(repository, attemptsMade, basis), is: "failed", says, mayPass: true } as const;
  return { files: {}, state };
}

/**
 * Works jobs of a queue through until the signal comes, each in a process of its own. A worker that is cut off loses nothing:
 * within half a minute its jobs go to another one, which begins them anew.
 */
export async function serveQueue(url: string, crew: Crew): Promise<void> {
  const bullmq = await import("bullmq");
  /** Leaves a job to others, and does not count the attempt. */
  const putBack = async (job: Queued<Sent, Parcel>, token: string | undefined): Promise<never> => {
    await job.moveToDelayed(Date.now(), token);
    throw new bullmq.DelayedError();
  };
  const worker: Worker<Sent, Parcel> = new bullmq.Worker<Sent, Parcel>(
    NAME,
    (job, token) => served(job, crew, () => putBack(job, token)),
    {
      connection: connectionTo(url),
      concurrency: crew.atOnce,
      lockDuration: LOCK_MILLISECONDS,
      stalledInterval: LOCK_MILLISECONDS / 3,
      // To be cut off is not the fault of a job.
      maxStalledCount: 100,
    },
  );
  worker.on("error", onceAtATime(url, crew.warn));
  await new Promise<void>((resolve) => {
    if (crew.signal?.aborted) resolve();
    crew.signal?.addEventListener("abort", () => resolve());
  });
  await Promise.race([worker.close(), sleep(GRACE_MILLISECONDS, undefined, { ref: false })]);
}

const GRACE_MILLISECONDS = 8000;

/** One attempt of a job. Throws where another one may come to something. */
async function served(
  { data, attemptsMade }: Queued<Sent, Parcel>,
  crew: Crew,
  stopped: () => Promise<never>,
): Promise<Parcel> {
  const { repository, basis, known } = data;
  // Repositories of several fleets may have the same name, and what comes from the queue names no folder of this machine.
  const folder = folderOf(crew.folder, { ...repository, name: hashText(JSON.stringify(repository)) });
  const config = data.config && unpackConfig(data.config, join(folder, "config"));
  const policy: Policy = { ...data.policy, ...(config === undefined ? {} : { config }) };
  const job: Job = { repository, policy, folder, basis, known, attempt: attemptsMade + 1 };
  const state = await attemptInProcess(job, crew);
  if (!state) return stopped();
  const isLast = state.is === "done" || state.mayPass !== true || attemptsMade + 1 >= policy.attempts;
  const event: FleetProgress = isLast
    ? { is: "ended", state }
    : { is: "again", state, inSeconds: 2 ** (attemptsMade + 1) };
  crew.progress?.(event);
  if (!isLast) throw new Outage(state.says ?? "");
  // Who waits has what is known, with its branch.
  return known && isDeepStrictEqual(known, state) ? { state, files: {} } : packResult(folder, state);
}
