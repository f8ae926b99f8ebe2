import { spawnSync } from "node:child_process";
import { Problem } from "./problem.js";

/** What git answered. */
export interface GitAnswer {
  readonly status: number | null;
  readonly out: string;
  readonly err: string;
}

/** Runs git in a folder. */
export function git(root: string, args: readonly string[], input?: Uint8Array): GitAnswer {
  const { status, stdout, stderr, error } = spawnSync("git", args, {
    cwd: root,
    encoding: "utf8",
    maxBuffer: 1 << 28,
    ...(input === undefined ? {} : { input }),
  });
  return { status, out: stdout ?? "", err: error?.message ?? stderr ?? "" };
}

/** The same; throws a Problem with what git says where it fails. */
export function mustGit(root: string, args: readonly string[], input?: Uint8Array): GitAnswer {
  const result = git(root, args, input);
  if (result.status !== 0)
    throw new Problem(`git ${args[0]} failed: ${result.err.trim() || "without a word"}`, 1);
  return result;
}
