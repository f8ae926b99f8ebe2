import { execFileSync } from "node:child_process";
import {
  copyFileSync,
  existsSync,
  lstatSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  rmdirSync,
  rmSync,
  utimesSync,
  writeFileSync,
  type Dirent,
} from "node:fs";
import { dirname, join } from "node:path";
import ignore, { type Ignore } from "ignore";
import type { ScratchConfig } from "../node/index.js";
import { copyTree, type Copied } from "./tree.js";

/** Texts that take the place of a project's files, by path. */
export type Replacements = ReadonlyMap<string, string | Uint8Array>;

const NOTHING: Replacements = new Map();

/** What a check has done to the files of its copy. */
export interface Written {
  readonly added: readonly string[];
  readonly changed: readonly string[];
  readonly gone: readonly string[];
}

/** One copy of the project, which takes different texts one after the other. */
export class Copy {
  readonly folder: string;
  readonly copied: Copied;
  readonly #root: string;
  #texts: Replacements = NOTHING;
  /** When each file was last changed by us, as the system counts it. */
  readonly #stamps = new Map<string, number>();
  /** What earlier runs made that may stay. */
  #kept = new Set<string>();

  /** Copies the project into a new folder. */
  constructor(
    root: string,
    folder: string,
    config: ScratchConfig,
    /** By which the processes are known that run in it. */
    readonly mark: string,
  ) {
    this.#root = root;
    this.folder = folder;
    mkdirSync(folder);
    const hasGit = startRepository(root, folder);
    this.copied = copyTree(root, folder, config);
    if (hasGit) git(folder, "reset", "--quiet");
    for (const path of this.copied.files.keys()) this.#stamp(path);
  }

  /** Puts these texts in place, and the project's own where there were others before. */
  put(texts: Replacements): void {
    for (const path of this.#texts.keys()) if (!texts.has(path)) this.#restore(path, true);
    for (const [path, text] of texts) {
      if (sameText(this.#texts.get(path), text)) continue;
      writeFileSync(join(this.folder, path), text);
      this.#stamp(path);
    }
    this.#texts = texts;
  }

  /** What was written since the copy was made or reset, apart from the texts that were put in place. */
  written(): Written {
    const [added, changed] = [[] as string[], [] as string[]];
    const seen = new Set<string>();
    for (const path of filesBelow(this.folder)) {
      seen.add(path);
      const stamp = this.#stamps.get(path);
      if (stamp === undefined) {
        if (!this.#kept.has(path)) added.push(path);
      } else if (stamp !== lstatSync(join(this.folder, path)).ctimeMs) changed.push(path);
    }
    const gone = [...this.#stamps.keys()].filter((path) => !seen.has(path));
    return { added: added.sort(), changed: changed.sort(), gone: gone.sort() };
  }

  /** Brings the copy back to how it was before a check ran; what `keeps` names may stay. */
  reset(keeps: readonly string[] = []): void {
    const staying: Ignore = ignore().add([...keeps]);
    const { added, changed, gone } = this.written();
    for (const path of [...added, ...this.#kept]) {
      if (staying.ignores(path)) this.#kept.add(path);
      else {
        rmSync(join(this.folder, path), { recursive: true, force: true });
        this.#kept.delete(path);
      }
    }
    for (const path of foldersBelow(this.folder)) {
      if (this.copied.folders.has(path) || staying.ignores(`${path}/`)) continue;
      const full = join(this.folder, path);
      if (readdirSync(full).length === 0) rmdirSync(full);
    }
    for (const path of this.copied.folders) mkdirSync(join(this.folder, path), { recursive: true });
    for (const path of [...changed, ...gone]) {
      if (staying.ignores(path)) this.#stamp(path);
      else this.#restore(path, false);
    }
  }

  /** Brings a file back: to the text that was put in its place, else to the project's own, as old as it is there or new. */
  #restore(path: string, isNew: boolean): void {
    const to = join(this.folder, path);
    const text = isNew ? undefined : this.#texts.get(path);
    rmSync(to, { recursive: true, force: true });
    mkdirSync(dirname(to), { recursive: true });
    if (text !== undefined) writeFileSync(to, text);
    else {
      copyFileSync(join(this.#root, path), to);
      // A build that was made of other text is older than this file, and must be made again.
      const seconds = (isNew ? Date.now() : (this.copied.files.get(path)?.modified ?? Date.now())) / 1000;
      utimesSync(to, seconds, seconds);
    }
    this.#stamp(path);
  }

  #stamp(path: string): void {
    this.#stamps.set(path, lstatSync(join(this.folder, path)).ctimeMs);
  }
}

function sameText(a: string | Uint8Array | undefined, b: string | Uint8Array): boolean {
  return a === b || (a !== undefined && Buffer.from(a).equals(Buffer.from(b)));
}

/** Files in a copy, without its repository and its installed packages. */
function* filesBelow(folder: string, path = ""): Generator<string> {
  for (const entry of entriesOf(folder, path)) {
    if (entry.isDirectory()) yield* filesBelow(folder, below(path, entry));
    else if (entry.isFile()) yield below(path, entry);
  }
}

/** Folders in a copy, inner ones first. */
function* foldersBelow(folder: string, path = ""): Generator<string> {
  for (const entry of entriesOf(folder, path)) {
    if (!entry.isDirectory()) continue;
    yield* foldersBelow(folder, below(path, entry));
    yield below(path, entry);
  }
}

function entriesOf(folder: string, path: string): Dirent[] {
  const entries = readdirSync(join(folder, path), { withFileTypes: true });
  return entries.filter(({ name }) => name !== ".git" && name !== "node_modules");
}

function below(path: string, { name }: Dirent): string {
  return path === "" ? name : `${path}/${name}`;
}

/**
 * Gives a copy a repository of its own where the project has one, for checks that ask git. It shares what is committed and
 * nothing else: no index, no hooks, no remotes.
 */
function startRepository(root: string, folder: string): boolean {
  if (!existsSync(join(root, ".git"))) return false;
  try {
    git(folder, "clone", "--quiet", "--shared", "--no-checkout", "--no-tags", root, folder);
    git(folder, "remote", "remove", "origin");
    return readFileSync(join(folder, ".git", "HEAD"), "utf8") !== "";
  } catch {
    rmSync(join(folder, ".git"), { recursive: true, force: true });
    return false;
  }
}

function git(folder: string, ...parts: string[]): void {
  execFileSync("git", ["-c", "core.hooksPath=/dev/null", ...parts], { cwd: folder, stdio: "ignore" });
}
