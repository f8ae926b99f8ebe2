import { existsSync, readdirSync, renameSync, rmSync } from "node:fs";
import { dirname, join } from "node:path";
import { git, mustGit, Problem } from "../node/index.js";
import type { Repository } from "./list.js";

/** What goes wrong outside, and may go right another time. */
export class Outage extends Error {
  override readonly name = "Outage";
}

/** Asks git for something from elsewhere. Throws an Outage with what it says. */
function fetched(folder: string, args: readonly string[]): void {
  const { status, err } = git(folder, ["-c", "core.askPass=", ...args]);
  if (status !== 0) throw new Outage(`git ${args[0]}: ${err.trim() || "failed without a word"}`);
}

/**
 * Brings the newest commit of a repository into a copy of its own; gives the commit. Throws an Outage where the repository
 * cannot be reached, and a Problem for a base that it does not have.
 */
export function fetchCopy({ from, base }: Repository, copy: string): string {
  if (!existsSync(copy)) {
    const half = `${copy}.half`;
    // A git of somebody who was cut off may still write there.
    rmSync(half, { recursive: true, force: true, maxRetries: 5, retryDelay: 100 });
    fetched(dirname(copy), ["clone", "--quiet", "--no-tags", "--no-checkout", "--", from, half]);
    renameSync(half, copy);
  } else {
    removeLocks(join(copy, ".git"));
    mustGit(copy, ["remote", "set-url", "origin", from]);
    fetched(copy, ["fetch", "--quiet", "--no-tags", "--prune", "origin"]);
    git(copy, ["remote", "set-head", "origin", "--auto"]);
  }
  const commit = commitOf(copy, base === undefined ? "origin/HEAD" : `origin/${base}`);
  if (commit === undefined)
    throw new Problem(
      base === undefined ? `${from} has no commit to begin from.` : `${from} has no branch "${base}".`,
      1,
    );
  return commit;
}

/** Begins a branch at a commit, whatever an attempt before has left. */
export function startBranch(copy: string, branch: string, commit: string): void {
  mustGit(copy, ["checkout", "--quiet", "--force", "-B", branch, commit]);
  mustGit(copy, ["clean", "--quiet", "-fd"]);
}

/** Forgets a branch. */
export function dropBranch(copy: string, branch: string): void {
  mustGit(copy, ["update-ref", "-d", `refs/heads/${branch}`]);
}

/** The commit that a name stands for; undefined where there is none. */
export function commitOf(copy: string, name: string): string | undefined {
  const { status, out } = git(copy, ["rev-parse", "--verify", "--quiet", `${name}^{commit}`]);
  return status === 0 ? out.trim() : undefined;
}

/** A git that was ended leaves locks, which nobody but the one who works in the copy has. */
function removeLocks(folder: string): void {
  for (const entry of readdirSync(folder, { withFileTypes: true, recursive: true }))
    if (entry.isFile() && entry.name.endsWith(".lock")) rmSync(join(entry.parentPath, entry.name));
}
