import {
  chmodSync,
  chownSync,
  closeSync,
  copyFileSync,
  fsyncSync,
  lstatSync,
  openSync,
  realpathSync,
  renameSync,
  statSync,
  utimesSync,
  writeFileSync,
} from "node:fs";
import { dirname, join, relative, sep } from "node:path";
import { leavesRoot } from "../plan/index.js";
import { messageOf, Problem } from "./problem.js";

/**
 * The real file behind a path of a plan or a journal. Throws a Problem when the path, or the link it turns out
 * to be, leads out of the root.
 */
export function insideRoot(root: string, path: string): string {
  const refuse = (): never => {
    throw new Problem(`"${path}" leads out of the project at ${root}. Nothing was done.`);
  };
  if (leavesRoot(path) || (sep === "\\" && (/^[A-Za-z]:/.test(path) || path.includes("\\")))) refuse();
  const full = join(root, path);
  if (!lstatSync(full, { throwIfNoEntry: false })) {
    throw new Problem(`"${path}" is not there any more. Work out the plan again with: uvran propose`);
  }
  const real = realpathSync(full);
  const shown = relative(realpathSync(root), real);
  if (shown.startsWith(`..${sep}`) || shown === "..") refuse();
  return real;
}

/** Throws a Problem where a file could not be replaced as it is: with its owner, by one rename, under all its names. */
export function checkReplaceable(file: string, path: string, stateFolder: string): void {
  const stat = statSync(file);
  if (!stat.isFile()) throw new Problem(`"${path}" is no file. Nothing was done.`);
  if (stat.nlink > 1)
    throw new Problem(
      `"${path}" has ${stat.nlink} names (hard links), of which only this one would change. Copy the file, or leave it out. Nothing was done.`,
      1,
    );
  if (stat.dev !== statSync(stateFolder).dev)
    throw new Problem(
      `"${path}" is on another file system than ${stateFolder}, so it cannot be replaced in one step. Nothing was done.`,
      1,
    );
  const user = process.getuid?.();
  if (user !== undefined && user !== 0 && user !== stat.uid)
    throw new Problem(`"${path}" belongs to another user, whom it would be taken from. Nothing was done.`, 1);
}

/** Writes a new file to disk, with the mode and the owner of another one. */
export function writeLike(file: string, content: Uint8Array, like: string): void {
  writeFileSync(file, content, { flush: true });
  makeLike(file, like);
}

/** Copies a file to disk, with its mode and its owner. */
export function copyDurably(from: string, to: string): void {
  copyFileSync(from, to);
  makeLike(to, from);
  flush(to);
}

function makeLike(file: string, like: string): void {
  const { mode, uid, gid } = statSync(like);
  const own = statSync(file);
  if (own.uid !== uid || own.gid !== gid) {
    try {
      chownSync(file, uid, gid);
    } catch (error) {
      throw new Problem(`The owner of ${like} cannot be kept: ${messageOf(error)}`, 1);
    }
  }
  chmodSync(file, mode);
}

/** Puts one file in the place of another in one step: after a crash the place holds wholly the old or the new. */
export function putInPlace(from: string, file: string): void {
  const now = new Date();
  utimesSync(from, now, now);
  renameSync(from, file);
  flushFolder(dirname(file));
}

/** Waits until a file is on disk. */
function flush(file: string): void {
  const handle = openSync(file, "r");
  try {
    fsyncSync(handle);
  } finally {
    closeSync(handle);
  }
}

/** Waits until the names in a folder are on disk, where the system can say so. */
export function flushFolder(folder: string): void {
  if (process.platform !== "win32") flush(folder);
}
