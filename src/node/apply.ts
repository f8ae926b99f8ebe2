import { readFileSync } from "node:fs";
import { hashText } from "../engine/index.js";
import { byPath, plannedText, type Plan, type PlanChange } from "../plan/index.js";
import "./grammars.js";
import { Journal, type Entry } from "./journal.js";
import { Problem } from "./problem.js";
import { decode } from "./read.js";
import { insideRoot, replaceFile } from "./write.js";

/** A file of the plan with its text before and after. */
export interface Rewritten {
  readonly path: string;
  readonly file: string;
  readonly before: string;
  readonly after: string;
}

/**
 * Works out what changes make of their files without writing anything. Throws a Problem when a file is not
 * what the plan was made for.
 */
export async function rewrittenFiles(
  root: string,
  plan: Plan,
  changes: readonly PlanChange[],
): Promise<Rewritten[]> {
  const result: Rewritten[] = [];
  const stale: string[] = [];
  for (const [path, own] of byPath(changes)) {
    const file = insideRoot(root, path);
    const before = decode(readFileSync(file));
    if (hashText(before) !== plan.files[path]) stale.push(path);
    else result.push({ path, file, before, after: await plannedText(path, before, own) });
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

/** Writes the changes, with a journal entry from which they can be taken back. */
export async function applyChanges(
  root: string,
  plan: Plan,
  changes: readonly PlanChange[],
): Promise<Rewritten[]> {
  const files = await rewrittenFiles(root, plan, changes);
  if (files.length === 0) return files;
  const journal = new Journal(root);
  const entry = journal.begin(files);
  for (const { file, after } of files) replaceFile(file, after);
  journal.finish(entry);
  return files;
}

/** What `undo` did with one file. */
export interface Restored {
  readonly path: string;
  readonly was: "restored" | "already as before";
}

/** Takes the last apply back. Throws a Problem, and does nothing, when a file was changed since. */
export function undoLast(root: string): Restored[] {
  const journal = new Journal(root);
  const entry = journal.last();
  if (!entry) throw new Problem("There is no apply to take back.", 1);
  const steps = entry.files.map((file) => ({ ...file, state: stateOf(root, entry, file) }));
  const changed = steps.filter((step) => step.state === "changed");
  if (changed.length > 0) {
    throw new Problem(
      `Changed since the apply:\n  ${changed.map((step) => step.path).join("\n  ")}\n` +
        "Nothing was done. Bring these files back to how apply left them, then run: uvran undo",
      1,
    );
  }
  const result = steps.map(({ path, state, stored }): Restored => {
    if (state === "before") return { path, was: "already as before" };
    replaceFile(insideRoot(root, path), journal.content(entry, stored));
    return { path, was: "restored" };
  });
  journal.forget(entry);
  return result;
}

function stateOf(root: string, entry: Entry, file: Entry["files"][number]): "after" | "before" | "changed" {
  const now = hashText(decode(readFileSync(insideRoot(root, file.path))));
  if (now === file.after) return "after";
  return now === file.before ? "before" : "changed";
}
