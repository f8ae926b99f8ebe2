import { workerData } from "node:worker_threads";
import { Examiner, type FileState } from "./examiner.js";
import { openProject, type Opening } from "./opening.js";
import type { Sources } from "../node/index.js";

/** What a thread is begun with. */
export interface WorkerStart {
  readonly opening: Opening;
  readonly sources: Sources;
  /** The ids of the rules, as the thread that began it has them. */
  readonly rules: readonly string[];
}

/** What a thread is asked: to work files out, or where words stand. */
export type WorkerTask =
  | {
      readonly paths: readonly string[];
      /** Where it says which of the files it is at, so that this is known should it end. */
      readonly at: Int32Array;
    }
  | { readonly words: readonly string[] };

export interface WorkedOut {
  readonly states: readonly FileState[];
  /** The files outside of the project's sources that were read. */
  readonly outsideFiles: readonly string[];
}

const examiner = begin();

async function begin(): Promise<Examiner> {
  const { opening, sources, rules } = workerData as WorkerStart;
  // What a config prints was printed when the project was opened.
  const { write } = process.stdout;
  process.stdout.write = () => true;
  const project = await openProject(opening, sources).finally(() => (process.stdout.write = write));
  const own = project.rules.map(({ id }) => id);
  if (own.join() !== rules.join()) throw new Error("the config has changed meanwhile; run again");
  return new Examiner(project, sources);
}

/** Does what a task asks for. */
export default async function work(task: WorkerTask): Promise<WorkedOut | readonly (readonly string[])[]> {
  const own = await examiner;
  if ("words" in task) return task.words.map((word) => own.files.having(word));
  const states: FileState[] = [];
  for (const [i, path] of task.paths.entries()) {
    Atomics.store(task.at, 0, i);
    states.push(await own.examine(path));
  }
  return { states, outsideFiles: own.outsideFiles() };
}
