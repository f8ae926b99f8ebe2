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
  let lines: (readonly [number, number])[] = [];
  for (const line of diff.split("\n")) {
    const file = /^\+\+\+ (?:b\/(.+?)\t?|"b\/(.+)"\t?)$/.exec(line);
    if (file) {
      lines = [];
      changed.set(unquoted(file[1], file[2]), lines);
      continue;
    }
    const hunk = /^@@ -\S+ \+(\d+)(?:,(\d+))? @@/.exec(line);
    if (!hunk) continue;
    const [first, count] = [Number(hunk[1]), Number(hunk[2] ?? 1)];
    if (count > 0) lines.push([first, first + count - 1]);
  }
  const unknown = mustGit(root, ["ls-files", "--others", "--exclude-standard", "-z", "--", "."]).out;
  for (const path of unknown.split("\0")) if (path !== "") changed.set(path, "all");
  return changed;
}

const ESCAPES: Readonly<Record<string, string>> = { n: "\n", t: "\t", r: "\r", '"': '"', "\\": "\\" };

/** A path as git writes it, with its quotes and escapes undone. */
function unquoted(plain: string | undefined, quoted: string | undefined): string {
  if (plain !== undefined) return plain;
  const bytes: number[] = [];
  for (const [, octal, letter, other] of (quoted ?? "").matchAll(/\\([0-7]{3})|\\(.)|([^\\]+)/gs)) {
    if (octal !== undefined) bytes.push(parseInt(octal, 8));
    else bytes.push(...Buffer.from(letter === undefined ? other! : (ESCAPES[letter] ?? letter)));
  }
  return Buffer.from(bytes).toString("utf8");
}

/** Does a stretch of lines of a file have one that has changed? */
export function touches(changed: ChangedLines, path: string, first: number, last: number): boolean {
  const lines = changed.get(path);
  if (lines === undefined || lines === "all") return lines === "all";
  return lines.some(([from, to]) => from <= last && first <= to);
}
