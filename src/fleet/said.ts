import { folderOf } from "./crew.js";
import { copyIn } from "./job.js";
import type { Repository } from "./list.js";
import { STEPS, type RepositoryState } from "./state.js";

/** All counts of a fleet together. */
export interface FleetSums {
  readonly repositories: number;
  readonly done: number;
  readonly failed: number;
  readonly changes: number;
  readonly committed: number;
  readonly commits: number;
  readonly setAside: number;
  readonly heldBack: number;
}

/** Adds up what is known of repositories. */
export function sumsOf(repositories: readonly Repository[], states: readonly RepositoryState[]): FleetSums {
  const sum = (what: "changes" | "committed" | "commits" | "setAside" | "heldBack"): number =>
    states.reduce((all, { counts }) => all + (counts?.[what] ?? 0), 0);
  return {
    repositories: repositories.length,
    done: states.filter((one) => one.is === "done").length,
    failed: states.filter((one) => one.is === "failed").length,
    changes: sum("changes"),
    committed: sum("committed"),
    commits: sum("commits"),
    setAside: sum("setAside"),
    heldBack: sum("heldBack"),
  };
}

/** In what state a repository is, in a few words. */
export function saysOf(state: RepositoryState | undefined): string {
  if (!state) return "";
  if (state.is === "failed") return `${FAILED[state.step]}: ${state.says ?? ""}`;
  if (state.is === "working")
    return `step ${STEPS.indexOf(state.step) + 1} of ${STEPS.length}: ${state.step}`;
  return state.remark ?? "";
}

const FAILED: Readonly<Record<RepositoryState["step"], string>> = {
  fetch: "cannot be fetched",
  prepare: "cannot be made ready",
  propose: "cannot be read",
  prove: "cannot be proved",
  commit: "cannot be committed",
};

/** The command that pushes what is committed of a repository. */
export function pushCommand(folder: string, repository: Repository, { branch }: RepositoryState): string {
  const copy = copyIn(folderOf(folder, repository));
  const quoted = /^[\w./:-]+$/.test(copy) ? copy : `'${copy.replaceAll("'", "'\\''")}'`;
  return `git -C ${quoted} push origin ${branch ?? "HEAD"}`;
}
