import {
  closeSync,
  fchmodSync,
  fsyncSync,
  lstatSync,
  openSync,
  realpathSync,
  renameSync,
  rmSync,
  statSync,
  writeSync,
} from "node:fs";
import { basename, dirname, join, relative, sep } from "node:path";
import { leavesRoot } from "../plan/index.js";
import { Problem } from "./problem.js";

/**
 * The real file behind a path of a plan or a journal. Throws a Problem when the path, or the link it turns out
 * to be, leads out of the root.
 */
export function insideRoot(root: string, path: string): string {
  const refuse = (): never => {
    throw new Problem(`"${path}" leads out of the project at ${root}. Nothing was done.`);
  };
  if (leavesRoot(path)) refuse();
  const full = join(root, path);
  if (!lstatSync(full, { throwIfNoEntry: false })) {
    throw new Problem(`"${path}" is not there any more. Work out the plan again with: uvran propose`);
  }
  const real = realpathSync(full);
  const shown = relative(realpathSync(root), real);
  if (shown.startsWith(`..${sep}`) || shown === "..") refuse();
  return real;
}

/** Replaces a file's content in one step: after a crash it is wholly old or wholly new. Its mode is kept. */
export function replaceFile(file: string, content: string | Uint8Array): void {
  const { mode } = statSync(file);
  const temporary = join(dirname(file), `.${basename(file)}.uvran-${process.pid}`);
  try {
    const handle = openSync(temporary, "w", mode);
    try {
      const bytes = typeof content === "string" ? Buffer.from(content) : content;
      let written = 0;
      while (written < bytes.length) written += writeSync(handle, bytes, written);
      fchmodSync(handle, mode);
      fsyncSync(handle);
    } finally {
      closeSync(handle);
    }
    renameSync(temporary, file);
  } catch (error) {
    rmSync(temporary, { force: true });
    throw error;
  }
}
