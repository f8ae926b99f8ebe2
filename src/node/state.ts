import { existsSync, mkdirSync, readFileSync, renameSync, rmSync, statSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { PlanError, readPlan, type Plan } from "../plan/index.js";
import { messageOf, Problem } from "./problem.js";

const PLAN = "plan.json";
const TEMPORARY = "tmp";
/** What git is to ignore: all but decisions, and the line that is held. */
const IGNORED = "*\n!decisions.jsonl\n!line.jsonl\n!.gitattributes\n";
/** Of these files git keeps the lines of both sides when it merges them. */
const MERGED = ["decisions.jsonl merge=union", "line.jsonl merge=union"];
/** A plan of more bytes than this is none that anybody could review. */
const MOST_BYTES = 500_000_000;

/** The project's `.uvran` folder, made when needed. Everything in it but decisions is ignored by git. */
export function stateFolder(root: string): string {
  const folder = join(root, ".uvran");
  mkdirSync(folder, { recursive: true });
  const ignoreFile = join(folder, ".gitignore");
  if (!existsSync(ignoreFile) || readFileSync(ignoreFile, "utf8") !== IGNORED)
    writeFileSync(ignoreFile, IGNORED);
  return folder;
}

/** Tells git how to merge the files of the folder that are meant to be committed. */
export function mergedByLines(root: string): void {
  const file = join(stateFolder(root), ".gitattributes");
  const there = existsSync(file) ? readFileSync(file, "utf8") : "";
  const missing = MERGED.filter((line) => !there.split(/\r?\n/).includes(line));
  if (missing.length > 0) writeFileSync(file, there + missing.map((line) => `${line}\n`).join(""));
}

/** The folder for files that are not yet in their places. */
export function temporaryFolder(root: string): string {
  const folder = join(stateFolder(root), TEMPORARY);
  mkdirSync(folder, { recursive: true });
  return folder;
}

/** Removes what a crash has left there. Only for who holds the lock. */
export function cleanTemporaries(root: string): void {
  rmSync(join(root, ".uvran", TEMPORARY), { recursive: true, force: true });
}

/** Stores the plan where the other commands look for it; gives the path. Only for who holds the lock. */
export function storePlan(root: string, plan: Plan): string {
  const path = join(stateFolder(root), PLAN);
  const temporary = join(temporaryFolder(root), PLAN);
  try {
    writeFileSync(temporary, JSON.stringify(plan, null, 1) + "\n", { flush: true });
    renameSync(temporary, path);
  } finally {
    cleanTemporaries(root);
  }
  return path;
}

/** Has `propose` stored a plan? */
export function hasPlan(root: string): boolean {
  return existsSync(join(root, ".uvran", PLAN));
}

/**
 * The plan that `propose` stored, or the one in `file`. Throws a Problem when there is none, and for one that is part of another and
 * must be joined with the rest first.
 */
export function loadPlan(root: string, file?: string): Plan {
  const path = file ?? join(root, ".uvran", PLAN);
  const plan = loadPart(path);
  const shard = plan.asked?.shard;
  if (shard === undefined) return plan;
  throw new Problem(
    `The plan at ${path} is shard ${shard} only. Put all of them together with: uvran join PLAN…`,
  );
}

/** A plan in a file, be it part of another or not. Throws a Problem when there is none. */
export function loadPart(path: string): Plan {
  let json: string;
  try {
    const stat = statSync(path);
    if (!stat.isFile()) throw new Problem(`${path} is no file, so there is no plan in it.`);
    if (stat.size > MOST_BYTES) throw new PlanError(`The plan at ${path} is too large to be one.`);
    json = readFileSync(path, "utf8");
  } catch (error) {
    if (error instanceof Problem || error instanceof PlanError) throw error;
    if ((error as NodeJS.ErrnoException).code !== "ENOENT")
      throw new Problem(`The plan at ${path} cannot be read: ${messageOf(error)}`);
    throw new Problem(`There is no plan at ${path}. Make one with: uvran propose`);
  }
  return readPlan(json);
}
