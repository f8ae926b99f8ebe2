import { statSync } from "node:fs";
import { git, mustGit } from "./git.js";
import { Problem } from "./problem.js";

/** What one commit says, and what its files are once it is made. */
export interface Commit {
  readonly subject: string;
  readonly body: string;
  readonly files: readonly { readonly path: string; readonly file: string; readonly bytes: Uint8Array }[];
}

/**
 * Throws a Problem unless commits can be made of an apply to these files: in a git work tree, with nothing in the index,
 * none of the files changed, and no other changes but those of decisions, unless these are `allowed`.
 */
export function checkCommittable(root: string, paths: readonly string[], allowed: boolean): void {
  const inside = git(root, ["rev-parse", "--is-inside-work-tree"]);
  if (inside.status !== 0 || inside.out.trim() !== "true")
    throw new Problem("--commit needs a git work tree, and there is none here. Nothing was done.", 1);
  const { out } = mustGit(root, [
    "status",
    "--porcelain=v1",
    "-z",
    "--untracked-files=all",
    "--",
    ".",
    ":(exclude).uvran",
  ]);
  const entries = out.split("\0").filter((entry) => entry !== "");
  const staged = entries.filter((entry) => !/^[ ?]/.test(entry));
  if (staged.length > 0)
    throw new Problem("--commit needs an empty index, and git has something staged. Nothing was done.", 1);
  const prefix = prefixOf(root);
  const dirty = entries.map((entry) => entry.slice(3).slice(prefix.length));
  const own = paths.filter((path) => dirty.includes(path));
  if (own.length > 0)
    throw new Problem(
      `These files have changes that are not committed, which --commit would mix with its own:\n  ${own.join("\n  ")}\nNothing was done.`,
      1,
    );
  const tracked = entries.filter((entry) => !entry.startsWith("??"));
  if (tracked.length > 0 && !allowed)
    throw new Problem(
      `The work tree has changes that are not committed (${tracked.length}). Commit them, or add --even-dirty. Nothing was done.`,
      1,
    );
}

/** Makes the commits one after another, with these contents, whatever the work tree holds. Throws a Problem with what git says. */
export function makeCommits(root: string, commits: readonly Commit[]): number {
  const prefix = prefixOf(root);
  let made = 0;
  for (const { subject, body, files } of commits) {
    for (const { path, file, bytes } of files) {
      const blob = mustGit(root, ["hash-object", "-w", "--stdin", "--path", path], bytes).out.trim();
      const mode = statSync(file).mode & 0o100 ? "100755" : "100644";
      mustGit(root, ["update-index", "--add", "--cacheinfo", mode, blob, prefix + path]);
    }
    if (git(root, ["diff", "--cached", "--quiet"]).status === 0) continue;
    mustGit(root, ["commit", "--quiet", "-m", subject, "-m", body]);
    made++;
  }
  return made;
}

/** What stands before a path below the root, as git counts from the top of the work tree. */
function prefixOf(root: string): string {
  return mustGit(root, ["rev-parse", "--show-prefix"]).out.trimEnd();
}
