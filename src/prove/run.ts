import { spawn } from "node:child_process";
import { delimiter, dirname, join } from "node:path";
import { performance } from "node:perf_hooks";
import { commandFolders, Problem, type Check } from "../node/index.js";
import { end, endMarked, MARK, memoryOf } from "./processes.js";

/** What a command did. */
export interface Run {
  /** Null when a signal ended it. */
  readonly exit: number | null;
  readonly output: string;
  readonly errors: string;
  readonly milliseconds: number;
  /** Why it was stopped, where it was. */
  readonly stopped?: string;
  /** The most memory that was seen of all its processes together, in bytes, where it was looked at. */
  readonly memory?: number;
}

const DEFAULT_SECONDS = 600;
/** Of one stream. */
const MOST_OUTPUT = 50_000_000;
const LOOK_MILLISECONDS = 100;
/** How long to wait for the rest of the output once the command has ended. */
const REST_MILLISECONDS = 2000;

/** What runs may ask of those who start them. */
export interface Surroundings {
  /** By which their processes are known. */
  readonly mark: string;
  /** Ends them when it is aborted. */
  readonly signal: AbortSignal;
  /** Looks at their memory. */
  readonly watchesMemory?: boolean;
}

/**
 * Runs a check in a copy of the project: in a session of its own, so that it has no terminal, with limits of time, memory
 * and output. When it has ended, all that it started has ended too. Throws a Problem when it is interrupted.
 */
export async function runCheck(check: Check, copy: string, around: Surroundings): Promise<Run> {
  const { mark, signal, watchesMemory = check.megabytes !== undefined } = around;
  if (signal.aborted) throw new Problem("The proof was interrupted.", 1);
  const cwd = join(copy, check.in ?? "");
  const start = performance.now();
  const child = spawn(check.run, {
    cwd,
    shell: true,
    detached: true,
    stdio: ["ignore", "pipe", "pipe"],
    env: {
      ...process.env,
      PATH: [...commandFolders(cwd), process.env["PATH"] ?? ""].join(delimiter),
      // Else git would find the project itself around the copy.
      GIT_CEILING_DIRECTORIES: dirname(copy),
      ...check.environment,
      [MARK]: mark,
    },
  });
  let stopped: string | undefined;
  let memory: number | undefined;
  const { pid } = child;
  const stop = (why: string): void => {
    stopped ??= why;
    if (pid !== undefined) end(-pid);
    endMarked(mark);
  };
  const abort = (): void => stop("interrupted");
  signal.addEventListener("abort", abort);
  const seconds = check.seconds ?? DEFAULT_SECONDS;
  const timer = setTimeout(() => stop(`it took more than ${seconds} s`), seconds * 1000);
  const look = (): void => {
    const now = pid === undefined ? undefined : memoryOf(pid);
    if (now === undefined) return;
    memory = Math.max(memory ?? 0, now);
    if (check.megabytes !== undefined && now > check.megabytes * 1e6)
      stop(`it used more than ${check.megabytes} MB of memory`);
  };
  const looks = watchesMemory ? setInterval(look, LOOK_MILLISECONDS) : undefined;
  if (watchesMemory) setTimeout(look, LOOK_MILLISECONDS / 10);
  const output = gather(child.stdout, () => stop(`it printed more than ${MOST_OUTPUT / 1e6} MB`));
  const errors = gather(child.stderr, () => stop(`it printed more than ${MOST_OUTPUT / 1e6} MB`));
  try {
    const exit = await new Promise<number | null>((resolve, reject) => {
      child.on("error", (error: NodeJS.ErrnoException) =>
        reject(
          error.code === "ENOENT"
            ? new Problem(
                `The check "${check.name}" runs in ${check.in ?? "."}, which is no folder of the project.`,
              )
            : error,
        ),
      );
      child.on("exit", resolve);
      child.on("exit", () => clearTimeout(timer));
    });
    const milliseconds = performance.now() - start;
    if (pid !== undefined) end(-pid);
    endMarked(mark);
    await Promise.race([Promise.all([output.ended, errors.ended]), rest()]);
    if (signal.aborted) throw new Problem("The proof was interrupted.", 1);
    return {
      exit,
      output: output.text(),
      errors: errors.text(),
      milliseconds,
      ...(stopped === undefined ? {} : { stopped }),
      ...(memory === undefined ? {} : { memory }),
    };
  } finally {
    clearTimeout(timer);
    clearInterval(looks);
    signal.removeEventListener("abort", abort);
    child.stdout.destroy();
    child.stderr.destroy();
  }
}

function rest(): Promise<void> {
  return new Promise((resolve) => setTimeout(resolve, REST_MILLISECONDS).unref());
}

function gather(
  stream: NodeJS.ReadableStream,
  tooMuch: () => void,
): { text(): string; readonly ended: Promise<void> } {
  const parts: Buffer[] = [];
  let size = 0;
  stream.on("data", (data: Buffer) => {
    if (size > MOST_OUTPUT) return;
    parts.push(data);
    size += data.length;
    if (size > MOST_OUTPUT) tooMuch();
  });
  return {
    text: () => String(Buffer.concat(parts).subarray(0, MOST_OUTPUT)),
    ended: new Promise((resolve) => stream.on("close", () => resolve())),
  };
}
