import { totalmem } from "node:os";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import { Piscina } from "piscina";
import { messageOf, Problem, type Sources } from "../node/index.js";
import { languageOfFile } from "../syntax/index.js";
import { failedState, MOST_TIME, type FileState, type Ground } from "./examiner.js";
import type { Opening } from "./opening.js";
import type { WorkedOut, WorkerStart, WorkerTask } from "./worker.js";

/** Files that are handed to a thread together have about so many bytes. */
const BYTES_AT_ONCE = 100_000;
const MEGABYTE = 1_048_576;
/** The part of the machine's memory that all threads together may take. */
const MEMORY = 0.7;
const WATCH_MILLISECONDS = 250;
/** A file may take so much longer than its time before its thread is ended: some of it cannot be interrupted in between. */
const PATIENCE = { times: 1.5, milliseconds: 5000 };

/**
 * Examiners in threads of their own. A thread that breaks down, or does not come back, costs the file that it was at; that file is
 * tried once more, since what came before may be to blame.
 */
export class Workers {
  readonly #pool: Piscina<WorkerTask>;
  readonly #patience: number;
  readonly #outsideFiles = new Set<string>();

  constructor(opening: Opening, sources: Sources, { rules, fileTime = MOST_TIME }: Ground, threads: number) {
    const start: WorkerStart = {
      opening,
      sources: { ...sources, skipped: [], unreadable: [], notCovered: new Map() },
      rules: rules.map(({ id }) => id),
    };
    this.#patience = fileTime * PATIENCE.times + PATIENCE.milliseconds;
    const megabytes = Math.floor((totalmem() / MEGABYTE / threads) * MEMORY);
    this.#pool = new Piscina({
      filename: join(dirname(fileURLToPath(import.meta.url)), "worker.js"),
      workerData: start,
      minThreads: threads,
      maxThreads: threads,
      atomics: "disabled",
      resourceLimits: { maxOldGenerationSizeMb: Math.max(megabytes, 256) },
    });
  }

  /** The files outside of the project's sources that were read in any thread. */
  get outsideFiles(): Iterable<string> {
    return this.#outsideFiles;
  }

  /** Works files out, in any order. `sizeOf` gives the bytes of a file, and `done` is told how many are done. */
  async examine(
    paths: readonly string[],
    sizeOf: (path: string) => number,
    give: (state: FileState) => void,
    done: (count: number) => void,
  ): Promise<void> {
    let count = 0;
    const tell = (state: FileState): void => {
      give(state);
      done(++count);
    };
    await Promise.all(batchesOf(paths, sizeOf).map((batch) => this.#batch(batch, tell, new Set())));
  }

  /** The files in which each of some words stands. */
  async having(words: readonly string[]): Promise<readonly (readonly string[])[]> {
    return words.length === 0 ? [] : ((await this.#pool.run({ words })) as readonly (readonly string[])[]);
  }

  async stop(): Promise<void> {
    await this.#pool.destroy();
  }

  async #batch(
    paths: readonly string[],
    give: (state: FileState) => void,
    tried: ReadonlySet<string>,
  ): Promise<void> {
    const at = new Int32Array(new SharedArrayBuffer(4)).fill(-1);
    const watch = new AbortController();
    const timer = this.#watch(at, () => watch.abort());
    try {
      const task = this.#pool.run({ paths, at }, { signal: watch.signal });
      const { states, outsideFiles } = (await task) as WorkedOut;
      for (const file of outsideFiles) this.#outsideFiles.add(file);
      states.forEach(give);
    } catch (error) {
      clearInterval(timer);
      const path = paths[Atomics.load(at, 0)];
      if (path === undefined)
        throw new Problem(
          `Files cannot be worked out on several cores: ${messageOf(error)}. Use one with: --workers 1`,
          1,
        );
      const others = paths.filter((one) => one !== path);
      const isGivenUp = watch.signal.aborted || tried.has(path);
      if (isGivenUp) give(failedState(path, reasonOf(error, watch.signal.aborted, this.#patience)));
      if (others.length > 0) await this.#batch(others, give, tried);
      if (!isGivenUp) await this.#batch([path], give, new Set([...tried, path]));
    } finally {
      clearInterval(timer);
    }
  }

  /** Calls back once a thread is at the same file for longer than that may take. */
  #watch(at: Int32Array, tooLong: () => void): NodeJS.Timeout {
    let [last, since] = [-1, Date.now()];
    return setInterval(() => {
      const now = Atomics.load(at, 0);
      if (now !== last || now === -1) [last, since] = [now, Date.now()];
      else if (Date.now() - since > this.#patience) tooLong();
    }, WATCH_MILLISECONDS).unref();
  }
}

function reasonOf(error: unknown, isLate: boolean, patience: number): string {
  if (isLate) return `given up after ${Math.round(patience / 1000)} s, in which it could not be interrupted`;
  const { code } = error as NodeJS.ErrnoException;
  return code === "ERR_WORKER_OUT_OF_MEMORY"
    ? "given up: it takes more memory than there is"
    : `given up: ${messageOf(error)}`;
}

/** Files that are alike and near each other go to a thread together, so that what it has loaded serves again. */
function batchesOf(paths: readonly string[], sizeOf: (path: string) => number): string[][] {
  const kind = (path: string): string => languageOfFile(path)?.grammar ?? "";
  const kinds = new Map(paths.map((path) => [path, kind(path)]));
  const ordered = [...paths].sort((a, b) => {
    const [one, other] = [kinds.get(a)!, kinds.get(b)!];
    return one === other ? (a < b ? -1 : 1) : one < other ? -1 : 1;
  });
  const batches: string[][] = [];
  let [last, size] = ["", Infinity];
  for (const path of ordered) {
    const isFull = size >= BYTES_AT_ONCE || kinds.get(path) !== last;
    if (isFull) [last, size] = [kinds.get(path)!, 0];
    if (isFull) batches.push([]);
    batches.at(-1)!.push(path);
    size += sizeOf(path);
  }
  return batches;
}
