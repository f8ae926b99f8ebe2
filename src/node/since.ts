import { parsePatch } from "diff";
import { git, mustGit } from "./git.js";
import { Problem } from "./problem.js";

/** Lines of files, counted from 1, that are not as they were: all of a file, or these stretches of it. */
export type ChangedLines = ReadonlyMap<string, "all" | readonly (readonly [first: number, last: number])[]>;

/**
 * The lines that have changed since a commit, whether committed or not, and files that git does not know yet; by paths from
 * the root. Throws a Problem where there is no git work tree, or no such commit.
 */
export function changedSince(root: string, revision: string): ChangedLines {
  if (git(root, ["rev-parse", "--is-inside-work-tree"]).out.trim() !== "true")
    throw new Problem("--since needs a git work tree, and there is none here.");
  const commit = git(root, ["rev-parse", "--verify", "--quiet", "--end-of-options", `${revision}^{commit}`]);
  if (commit.status !== 0) throw new Problem(`git knows no commit "${revision}".`);
  const changed = new Map<string, "all" | (readonly [number, number])[]>();
  const diff = mustGit(root, [
    "-c",
    "core.quotePath=false",
    "diff",
    "--unified=0",
    "--no-color",
    "--no-ext-diff",
    "--no-renames",
    "--relative",
    "--dst-prefix=b/",
    "--src-prefix=a/",
    commit.out.trim(),
    "--",
    ".",
  ]).out;
  for (const { newFileName, hunks } of parsePatch(diff)) {
    const lines = hunks
      .filter(({ newLines }) => newLines > 0)
      .map(({ newStart, newLines }) => [newStart, newStart + newLines - 1] as const);
    if (newFileName !== undefined && newFileName !== "/dev/null") changed.set(plainPath(newFileName), lines);
  }
  const unknown = mustGit(root, ["ls-files", "--others", "--exclude-standard", "-z", "--", "."]).out;
  for (const path of unknown.split("\0")) if (path !== "") changed.set(path, "all");
  return changed;
}

/** A path as git names it in a difference, without the letter ahead of it. */
const plainPath = (name: string): string => name.replace(/^b\//, "");

/** Does a stretch of lines of a file have one that has changed? */
export function touches(changed: ChangedLines, path: string, first: number, last: number): boolean {
  const lines = changed.get(path);
  if (lines === undefined || lines === "all") return lines === "all";
  return lines.some(([from, to]) => from <= last && first <= to);
}
