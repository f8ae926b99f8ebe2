import { Worker } from "node:worker_threads";
import { Problem } from "./problem.js";

/** A config that takes longer than this to load will not. */
const MOST_SECONDS = 30;

/**
 * Waits for a config to load. Throws a Problem when it never settles; ends the process, with the same words, when it
 * loops without end, or when it exits by itself.
 */
export async function loadedInTime<T>(file: string, load: () => Promise<T>): Promise<T> {
  const seconds = Number(process.env["UVRAN_CONFIG_SECONDS"] ?? MOST_SECONDS);
  const says = `The config does not finish loading within ${seconds} s.\n  ${file}\n`;
  // Only another thread can end a loop; it comes after the timer, which ends everything else.
  const watch = new Worker(
    `const { writeSync } = require("node:fs");
    const { workerData } = require("node:worker_threads");
    setTimeout(() => {
      writeSync(2, workerData.says);
      process.kill(process.pid, "SIGKILL");
    }, workerData.milliseconds);`,
    { eval: true, workerData: { says, milliseconds: seconds * 1000 + 500 } },
  );
  const exits = (): void => {
    process.stderr.write(`The config ends the process instead of giving a value.\n  ${file}\n`);
    process.exitCode = 2;
  };
  process.on("exit", exits);
  let timer: NodeJS.Timeout | undefined;
  const late = new Promise<never>((_, fail) => {
    timer = setTimeout(() => fail(new Problem(says.trimEnd())), seconds * 1000);
  });
  try {
    return await Promise.race([load(), late]);
  } finally {
    clearTimeout(timer);
    process.off("exit", exits);
    await watch.terminate();
  }
}
