import { readFileSync, rmSync } from "node:fs";
import { join } from "node:path";
import { structuredPatch } from "diff";
import { errorsIn, hashText } from "../engine/index.js";
import { byPath, PlanError, plannedText, type Plan, type PlanChange } from "../plan/index.js";
import type { Project } from "./config.js";
import { isSource } from "./files.js";
import { format, type Written } from "./formatters.js";
import "./grammars.js";
import { Journal, type Entry } from "./journal.js";
import { isLocked, locked } from "./lock.js";
import { messageOf, Problem } from "./problem.js";
import { decode, encode, encodingOf } from "./encoding.js";
import { cleanTemporaries, stateFolder, temporaryFolder } from "./state.js";
import { checkReplaceable, insideRoot, putInPlace, writeLike } from "./write.js";
import { isWritableManifest, onlyMakesModules } from "./writable-manifest.js";

/** A file of the plan with its text before and after. */
export interface Rewritten {
  readonly path: string;
  readonly file: string;
  readonly before: string;
  readonly after: string;
  /** The new text in the encoding of the file. */
  readonly bytes: Uint8Array;
}

/**
 * Works out what changes make of their files without writing anything. A plan is not trusted: throws a Problem or a
 * PlanError for a file that is not what the plan was made for, is none that Uvran would look at, or would parse worse.
 */
export async function rewrittenFiles(
  root: string,
  plan: Plan,
  changes: readonly PlanChange[],
  leaveOut: readonly string[] = [],
): Promise<Rewritten[]> {
  const result: Rewritten[] = [];
  const stale: string[] = [];
  for (const [path, own] of byPath(changes)) {
    const file = insideRoot(root, path);
    if (!isSource(root, path, leaveOut))
      throw new PlanError(`The plan names "${path}", which Uvran would never look at. Nothing was done.`);
    const bytes = readFileSync(file);
    const before = decode(bytes);
    if (hashText(before) !== plan.files[path]) {
      stale.push(path);
      continue;
    }
    const after = await plannedText(path, before, own);
    if (isWritableManifest(path) && !onlyMakesModules(before, after))
      throw new PlanError(`The plan writes more into "${path}" than a kind of module. Nothing was done.`);
    if ((await errorsIn(path, after)) > (await errorsIn(path, before)))
      throw new PlanError(`With the plan's edits "${path}" would have a syntax error. Nothing was done.`);
    const encoded = encode(after, encodingOf(bytes) ?? "utf-8");
    if (!encoded)
      throw new Problem(
        `"${path}" is encoded in ${encodingOf(bytes)}, which cannot hold what is to be written. Nothing was done.`,
        1,
      );
    result.push({ path, file, before, after, bytes: encoded });
  }
  if (stale.length > 0) {
    throw new Problem(
      `The plan was made for other content of:\n  ${stale.join("\n  ")}\n` +
        "Nothing was done. Work out the plan again with: uvran propose",
      1,
    );
  }
  return result;
}

/**
 * Writes the changes, with a journal entry from which they can be taken back. All new contents are on disk before the
 * first file is replaced. When one cannot be replaced, or the command is interrupted, what was done is put back. Formatters
 * run when all is written; what they complain of is given, and does not undo anything.
 */
export function applyChanges(
  { root, leaveOut = [], formatters = [] }: Pick<Project, "root"> & Partial<Project>,
  plan: Plan,
  changes: readonly PlanChange[],
): Promise<Applied> {
  return locked(root, "apply", async () => {
    tidyUp(root);
    const open = interruptedApply(root, true);
    if (open) throw new Problem(`${open} before anything else is applied.`, 1);
    const files = await rewrittenFiles(root, plan, changes, leaveOut);
    if (files.length === 0) return { files, complaints: [] };
    for (const { path, file } of files) checkReplaceable(file, path, stateFolder(root));
    const folder = temporaryFolder(root);
    const staged = files.map((one, i) => ({ ...one, staged: join(folder, `${i}.new`) }));
    const journal = new Journal(root);
    let entry: Entry | undefined;
    const stop = watchForStop();
    try {
      for (const { staged: to, bytes, file } of staged) writeLike(to, bytes, file);
      entry = journal.begin(files);
      for (const { staged: from, file } of staged) {
        await stop.check();
        putInPlace(from, file);
      }
      if (formatters.length === 0) journal.finish(entry);
    } catch (error) {
      if (!entry) throw new Problem(`Nothing was done: ${messageOf(error)}`, 1);
      putBack(root, journal, entry, error);
    } finally {
      stop.end();
      rmSync(folder, { recursive: true, force: true });
    }
    if (formatters.length === 0) return { files, complaints: [] };
    journal.formatting(entry);
    const complaints = format(root, formatters, files.map(written));
    const now = files.map((file) => ({ ...file, bytes: contentOf(file) }));
    journal.finish(entry, new Map(now.map(({ path, bytes }) => [path, hashText(decode(bytes))])));
    return { files: now, complaints };
  });
}

/** What an apply has written, formatted where there are formatters, and what these complain of. */
export interface Applied {
  readonly files: readonly Rewritten[];
  readonly complaints: readonly string[];
}

function contentOf({ file, bytes }: Rewritten): Uint8Array {
  try {
    return readFileSync(file);
  } catch {
    return bytes; // a formatter took it away; undo will say so
  }
}

/** The stretches of lines of a file that are new. */
function written({ path, before, after }: Rewritten): Written {
  const { hunks } = structuredPatch("", "", before, after, undefined, undefined, { context: 0 });
  return {
    path,
    lines: hunks.map((hunk) => [hunk.newStart, hunk.newStart + Math.max(hunk.newLines, 1) - 1]),
  };
}

/** Puts back what an apply has replaced so far, and says how that went. */
function putBack(root: string, journal: Journal, entry: Entry, error: unknown): never {
  const why = messageOf(error);
  const left: string[] = [];
  for (const file of entry.files) {
    try {
      if (stateOf(root, file) === "after")
        putInPlace(journal.stored(entry, file.stored), insideRoot(root, file.path));
    } catch {
      left.push(file.path);
    }
  }
  if (left.length > 0)
    throw new Problem(
      `The apply failed: ${why}\nThese files are changed and could not be put back:\n  ${left.join("\n  ")}\n` +
        "All others are as before. Once the cause is gone, take the apply back with: uvran undo",
      1,
    );
  journal.forget(entry);
  throw new Problem(`The apply failed: ${why}\nAll files are as they were before.`, 1);
}

/** Notices that the command is asked to stop, which must not happen between two files. */
function watchForStop(): { check(): Promise<void>; end(): void } {
  const signals = ["SIGINT", "SIGTERM", "SIGHUP"] as const;
  let asked: string | undefined;
  const note = (signal: string): void => void (asked = signal);
  for (const signal of signals) process.on(signal, note);
  return {
    async check() {
      await new Promise(setImmediate);
      if (asked !== undefined) throw new Error(`it was interrupted (${asked})`);
    },
    end() {
      for (const signal of signals) process.off(signal, note);
    },
  };
}

/** Removes what earlier commands left when they were killed. Only for who holds the lock. */
function tidyUp(root: string): void {
  new Journal(root).clean();
  cleanTemporaries(root);
}

/** A sentence about an apply that was cut off, up to what to do about it; undefined when there is none. */
export function interruptedApply(root: string, isOwner = false): string | undefined {
  if (!isOwner && isLocked(root)) return undefined;
  const entry = new Journal(root).last();
  if (!entry || entry.state === "done") return undefined;
  if (entry.state === "formatting")
    return "An apply was interrupted while the formatters ran: all files are written.\nTake it back with: uvran undo";
  const count = entry.files.filter((file) => stateOf(root, file) === "after").length;
  return (
    `An apply was interrupted: ${count} of ${entry.files.length} files are written.\n` +
    "Take it back with: uvran undo"
  );
}

/** What `undo` did with one file. */
export interface Restored {
  readonly path: string;
  readonly was: "restored" | "already as before" | "left alone: changed since" | "left alone: not there";
}

/**
 * Takes the last apply back. Throws a Problem, and does nothing, when a file was changed since or is gone; unless it may
 * be done `partly`: then those are left alone, and remembered.
 */
export function undoLast(root: string, partly = false): Promise<Restored[]> {
  return locked(root, "undo", () => {
    tidyUp(root);
    const journal = new Journal(root);
    const entry = journal.last();
    if (!entry) throw new Problem("There is no apply to take back.", 1);
    const steps = entry.files.map((file) => {
      const state = stateOf(root, file);
      // Where formatters were cut off, other text than was written is theirs.
      return {
        ...file,
        state: state === "changed" && entry.state === "formatting" ? ("after" as const) : state,
      };
    });
    const named = (state: string, title: string): string => {
      const paths = steps.filter((step) => step.state === state).map(({ path }) => `\n  ${path}`);
      return paths.length > 0 ? `${title}:${paths.join("")}\n` : "";
    };
    const inTheWay = named("changed", "Changed since the apply") + named("gone", "Not there any more");
    if (inTheWay !== "" && !partly)
      throw new Problem(
        `${inTheWay}Nothing was done. Bring these files back to how apply left them, then run: uvran undo\n` +
          "To restore all the others and leave these alone: uvran undo --partly",
        1,
      );
    for (const { path, state } of steps)
      if (state === "after") checkReplaceable(insideRoot(root, path), path, stateFolder(root));
    const result = steps.map(({ path, state, stored }): Restored => {
      if (state === "before") return { path, was: "already as before" };
      if (state === "gone") return { path, was: "left alone: not there" };
      if (state === "changed") return { path, was: "left alone: changed since" };
      putInPlace(journal.stored(entry, stored), insideRoot(root, path));
      return { path, was: "restored" };
    });
    const left = steps.filter(({ state }) => state === "changed" || state === "gone");
    if (left.length > 0)
      journal.keepOnly(
        entry,
        left.map(({ path }) => path),
      );
    else journal.forget(entry);
    return result;
  });
}

function stateOf(root: string, file: Entry["files"][number]): "after" | "before" | "changed" | "gone" {
  let bytes: Uint8Array;
  try {
    bytes = readFileSync(join(root, file.path));
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === "ENOENT") return "gone";
    throw error;
  }
  insideRoot(root, file.path);
  const now = hashText(decode(bytes));
  if (now === file.after) return "after";
  return now === file.before ? "before" : "changed";
}
