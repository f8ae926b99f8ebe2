import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { dirname, join, relative, resolve, sep } from "node:path";
import { isDeepStrictEqual } from "node:util";
import { gunzipSync, gzipSync } from "node:zlib";
import { filesBehind, mustGit } from "../node/index.js";
import { leavesRoot } from "../plan/index.js";
import { fetchCopy } from "./checkout.js";
import { copyIn, hasItsCommits, PAGE } from "./job.js";
import type { Repository } from "./list.js";
import { readState, stateFrom, writeState, writeWhole, type RepositoryState } from "./state.js";

/** A config with what it imports of its own, to go to another machine. */
export interface PackedConfig {
  /** The config among the files. */
  readonly main: string;
  readonly files: Readonly<Record<string, string>>;
}

/** Packs a config and the files that it imports; packages must be installed where it goes. */
export function packConfig(config: string): PackedConfig {
  const own = filesBehind(config).filter((file) => !/[\\/]node_modules[\\/]/.test(file));
  let folder = dirname(config);
  while (own.some((file) => relative(folder, file).startsWith(".."))) folder = dirname(folder);
  const named = (file: string): string => relative(folder, file).split(sep).join("/");
  return {
    main: named(config),
    files: Object.fromEntries(own.map((file) => [named(file), readFileSync(file, "utf8")])),
  };
}

/** Puts the files of a config into a folder; gives the config. Throws a RangeError for a file that would lie outside. */
export function unpackConfig({ main, files }: PackedConfig, folder: string): string {
  for (const [name, text] of Object.entries({ ...files })) {
    if (leavesRoot(name)) throw new RangeError(`"${name}" leads out of its folder`);
    const file = join(folder, name);
    mkdirSync(dirname(file), { recursive: true });
    writeFileSync(file, text);
  }
  return resolve(folder, main);
}

/** What comes back from another machine: the state, the reports, and the commits of the branch. */
export interface Parcel {
  readonly state: RepositoryState;
  /** By their names, compressed, in base 64. */
  readonly files: Readonly<Record<string, string>>;
}

const BUNDLE = "branch.bundle";
const REPORTS = ["plan.json", "survey.json", PAGE];

/** Packs what a job has left in its folder. */
export function packResult(folder: string, state: RepositoryState): Parcel {
  const files: Record<string, string> = {};
  const add = (name: string): void => {
    const file = join(folder, name);
    if (existsSync(file)) files[name] = gzipSync(readFileSync(file)).toString("base64");
  };
  const { commit, branch, counts } = state;
  if (state.is === "done") REPORTS.forEach(add);
  if (state.is === "done" && (counts?.commits ?? 0) > 0) {
    mustGit(copyIn(folder), ["bundle", "create", "--quiet", join(folder, BUNDLE), branch!, `^${commit!}`]);
    add(BUNDLE);
    rmSync(join(folder, BUNDLE));
  }
  return { state, files };
}

/**
 * Puts what came back where a job of this machine would have left it: the reports, and the branch in a copy of the repository.
 * What came is not trusted: only `branch` is taken of its commits. To do it again changes nothing. Gives the state; throws an
 * Outage where the repository cannot be reached from here, and an Error for what is no result.
 */
export function unpackResult(
  parcel: Parcel,
  repository: Repository,
  branch: string,
  folder: string,
): RepositoryState {
  const { files } = parcel;
  const state = { ...stateFrom(parcel.state), name: repository.name };
  if (isDeepStrictEqual(readState(folder), state)) return state;
  mkdirSync(folder, { recursive: true });
  for (const name of REPORTS) {
    const packed = files[name];
    if (packed !== undefined)
      writeWhole(folder, name, gunzipSync(Buffer.from(packed, "base64")).toString("utf8"));
  }
  const bundle = files[BUNDLE];
  if (bundle !== undefined) {
    const copy = copyIn(folder);
    fetchCopy(repository, copy);
    const file = join(folder, BUNDLE);
    writeFileSync(file, gunzipSync(Buffer.from(bundle, "base64")));
    // The branch may be checked out from an earlier time.
    const all = `+refs/heads/${branch}:refs/heads/${branch}`;
    mustGit(copy, ["fetch", "--quiet", "--update-head-ok", file, all]);
    mustGit(copy, ["checkout", "--quiet", "--force", branch]);
    rmSync(file);
  }
  if (state.is === "done" && !hasItsCommits(folder, state)) throw new Error("it came without its commits");
  writeState(folder, state);
  return state;
}
