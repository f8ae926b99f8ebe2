import { execFileSync } from "node:child_process";
import { readFileSync, statSync } from "node:fs";
import { basename, dirname, join, relative, resolve, sep } from "node:path";
import { shareOfSame } from "../draft/likeness.js";
import { mayHoldCode } from "../embed/index.js";
import { countErrors, loadGrammars, type Language } from "../syntax/index.js";
import { decode } from "./encoding.js";
import { findSources } from "./files.js";
import { git, mustGit } from "./git.js";
import { messageOf, Problem } from "./problem.js";
import { languageOfSource, languageOnDisk } from "./file-language.js";
import { inspect } from "./read.js";

/** A file before and after somebody edited it. */
export interface EditedFile {
  readonly path: string;
  readonly language: Language;
  readonly before: string;
  readonly after: string;
}

/** Edited files, and code beside them as it was. */
export interface EditedFiles {
  readonly pairs: readonly EditedFile[];
  readonly beside: readonly { readonly path: string; readonly text: string; readonly language: Language }[];
  /** Files that changed and were not looked at, with the reason. */
  readonly skipped: readonly { readonly path: string; readonly why: string }[];
  /** How many files changed that are of kinds in which Uvran knows no code. */
  readonly unknown: number;
}

/** More commits than this are taken together, as one edit of all their files. */
const MOST_COMMITS = 500;
/** From 0 to 1: how many of their lines two files must share for one to be the other under a new name. */
const RENAMED = 0.5;

/**
 * What was edited between two files, two folders, or two revisions of the git repository around `cwd`; without a second
 * revision, between one and the files as they are. Of a range of commits each is an edit of its own. `among` are files and
 * folders of other code. Throws a Problem where there is nothing of the name.
 */
export async function editedFiles(
  old: string,
  now: string | undefined,
  among: readonly string[],
  cwd: string,
): Promise<EditedFiles> {
  const kinds = [old, ...(now === undefined ? [] : [now])].map((name) => kindOf(resolve(cwd, name)));
  const [from, to] = kinds;
  const gathered = new Gathered();
  if (now !== undefined && from === "file" && to === "file") pairOfFiles(gathered, old, now, cwd);
  else if (now !== undefined && from === "folder" && to === "folder") pairsOfFolders(gathered, old, now, cwd);
  else if (now !== undefined && from !== undefined && to !== undefined)
    throw new Problem(
      `${old} is a ${from} and ${now} is a ${to}. Name two files, two folders, or two revisions.`,
    );
  else pairsOfRevisions(gathered, old, now, cwd);
  for (const path of among) gathered.besideBelow(path, cwd);
  return gathered.finished();
}

function kindOf(path: string): "file" | "folder" | undefined {
  const found = statSync(path, { throwIfNoEntry: false });
  return found?.isFile() ? "file" : found?.isDirectory() ? "folder" : undefined;
}

class Gathered {
  readonly #pairs: EditedFile[] = [];
  readonly #beside = new Map<string, { path: string; text: string; language: Language }>();
  readonly #skipped: { path: string; why: string }[] = [];
  #unknown = 0;

  pair(path: string, before: Buffer, after: Buffer): void {
    const language = languageOfSource(path, before);
    if (before.equals(after)) return;
    if (!language) {
      if (mayHoldCode(path)) this.#skipped.push({ path, why: "its code is only a part of it" });
      else this.#unknown++;
      return;
    }
    for (const bytes of [before, after]) {
      const verdict = inspect(bytes);
      if (!verdict) continue;
      this.#skipped.push({ path, why: "bad" in verdict ? verdict.bad : verdict.skip });
      return;
    }
    this.#pairs.push({ path, language, before: decode(before), after: decode(after) });
  }

  beside(path: string, bytes: Buffer): void {
    const language = languageOfSource(path, bytes);
    if (language && !inspect(bytes)) this.#beside.set(path, { path, text: decode(bytes), language });
  }

  besideBelow(path: string, cwd: string): void {
    const full = resolve(cwd, path);
    const root = kindOf(full) === "file" ? dirname(full) : full;
    for (const one of findSources(root, [full], cwd, []).paths)
      this.beside(shown(join(root, one), cwd), readFileSync(join(root, one)));
  }

  async finished(): Promise<EditedFiles> {
    await loadGrammars([...new Set(this.#pairs.map(({ language }) => language))]);
    const pairs = this.#pairs.filter(({ path, language, before, after }) => {
      const broken = [before, after].findIndex(
        (text) => countErrors(text, language) > 0 && !language.grammarIsPartial,
      );
      if (broken >= 0)
        this.#skipped.push({
          path,
          why: `it has a syntax error ${broken === 0 ? "before" : "after"} the edit`,
        });
      return broken < 0;
    });
    const own = new Set(pairs.map(({ path }) => path));
    const kinds = new Set(pairs.map(({ language }) => language.grammar));
    const beside = [...this.#beside.values()].filter(
      ({ path, language }) => !own.has(path) && kinds.has(language.grammar),
    );
    return { pairs, beside, skipped: this.#skipped, unknown: this.#unknown };
  }
}

/** A path as it is written from where the command runs. */
function shown(path: string, cwd: string): string {
  const from = relative(cwd, path);
  return (from.startsWith("..") ? path : from).split(sep).join("/");
}

function pairOfFiles(gathered: Gathered, old: string, now: string, cwd: string): void {
  const [before, after] = [old, now].map((name) => read(resolve(cwd, name)));
  const [a, b] = [old, now].map((name) => languageOnDisk(resolve(cwd, name)));
  // A copy kept aside may have another ending: `hives.py.orig`.
  const path = a ? old : now;
  if (!a && !b) throw new Problem(`${old} and ${now} are of a kind that Uvran does not read.`);
  if (a && b && a.grammar !== b.grammar)
    throw new Problem(`${old} is ${a.title} and ${now} is ${b.title}. A rule is about code of one language.`);
  if (before!.equals(after!))
    throw new Problem(`${old} and ${now} are the same, so there is no edit to learn from.`, 1);
  gathered.pair(shown(resolve(cwd, path), cwd), before!, after!);
}

function read(file: string): Buffer {
  try {
    return readFileSync(file);
  } catch (error) {
    throw new Problem(`Cannot read ${file}: ${messageOf(error)}`);
  }
}

function pairsOfFolders(gathered: Gathered, old: string, now: string, cwd: string): void {
  const [from, to] = [old, now].map((name) => resolve(cwd, name));
  const [before, after] = [from!, to!].map((root) => new Set(findSources(root, [root], cwd, []).paths));
  const gone = [...before!].filter((path) => !after!.has(path));
  const added = [...after!].filter((path) => !before!.has(path));
  const bytes = (root: string, path: string): Buffer => read(join(root, path));
  for (const path of [...before!].filter((path) => after!.has(path))) {
    const [a, b] = [bytes(from!, path), bytes(to!, path)];
    if (a.equals(b)) gathered.beside(path, a);
    else gathered.pair(path, a, b);
  }
  const taken = new Set<string>();
  for (const path of gone) {
    const a = bytes(from!, path);
    const [best] = added
      .filter(
        (other) =>
          !taken.has(other) && languageOnDisk(join(to!, other)) === languageOnDisk(join(from!, path)),
      )
      .map((other) => ({
        other,
        like: alike(a, bytes(to!, other)) + (basename(other) === basename(path) ? 0.2 : 0),
      }))
      .sort((x, y) => y.like - x.like);
    if (best && best.like > RENAMED) {
      taken.add(best.other);
      gathered.pair(path, a, bytes(to!, best.other));
    } else gathered.beside(path, a);
  }
}

/** How many of the lines of two files are the same, from 0 to 1. */
function alike(a: Buffer, b: Buffer): number {
  const lines = (bytes: Buffer): string[] =>
    decode(bytes)
      .split("\n")
      .map((line) => line.trim())
      .filter((line) => line !== "");
  return shareOfSame(lines(a), lines(b));
}

function pairsOfRevisions(gathered: Gathered, old: string, now: string | undefined, cwd: string): void {
  if (git(cwd, ["rev-parse", "--is-inside-work-tree"]).out.trim() !== "true")
    throw new Problem(
      `There is no file or folder "${old}"${now === undefined ? "" : ` or "${now}"`}, and no git repository in which it could be a revision.`,
    );
  const top = mustGit(cwd, ["rev-parse", "--show-toplevel"]).out.trim();
  const [from, to] = [old, ...(now === undefined ? [] : [now])].map((name) => commitOf(top, name));
  const seen = new Set<string>();
  if (to === undefined) {
    for (const { path, oldPath } of changedBetween(top, from!, undefined)) {
      seen.add(path);
      gathered.pair(path, blob(top, from!, oldPath), read(join(top, path)));
    }
  } else {
    const isAncestor = git(top, ["merge-base", "--is-ancestor", from!, to]).status === 0;
    const commits = isAncestor
      ? mustGit(top, ["rev-list", "--reverse", "--no-merges", `${from}..${to}`])
          .out.split("\n")
          .filter((line) => line !== "")
      : [];
    const steps =
      commits.length > 1 && commits.length <= MOST_COMMITS
        ? commits.map((commit) => [`${commit}^`, commit] as const)
        : [[from!, to] as const];
    for (const [a, b] of steps)
      for (const { path, oldPath } of changedBetween(top, a, b)) {
        // What a file was at different times are different files.
        const name = steps.length > 1 ? `${b.slice(0, 7)}:${path}` : path;
        seen.add(path);
        gathered.pair(name, blob(top, a, oldPath), blob(top, b, path));
      }
  }
  for (const path of findSources(top, [top], top, []).paths)
    if (!seen.has(path)) gathered.beside(path, read(join(top, path)));
}

function commitOf(top: string, name: string): string {
  const found = git(top, ["rev-parse", "--verify", "--quiet", "--end-of-options", `${name}^{commit}`]);
  if (found.status !== 0)
    throw new Problem(`There is no file or folder "${name}", and git knows no revision of that name.`);
  return found.out.trim();
}

/** The files that were changed, not those that came or went, by their paths from the top. */
function changedBetween(top: string, a: string, b: string | undefined): { path: string; oldPath: string }[] {
  const { out } = mustGit(top, [
    "diff",
    "--name-status",
    "-z",
    "-M",
    "--diff-filter=MR",
    a,
    ...(b === undefined ? [] : [b]),
    "--",
  ]);
  const fields = out.split("\0");
  const found: { path: string; oldPath: string }[] = [];
  for (let i = 0; i + 1 < fields.length;) {
    const isRenamed = fields[i]!.startsWith("R");
    const oldPath = fields[i + 1]!;
    const path = isRenamed ? fields[i + 2]! : oldPath;
    found.push({ path, oldPath });
    i += isRenamed ? 3 : 2;
  }
  return found;
}

/** The bytes of a file in a commit, in whatever encoding they are. */
function blob(top: string, commit: string, path: string): Buffer {
  try {
    return execFileSync("git", ["cat-file", "blob", `${commit}:${path}`], { cwd: top, maxBuffer: 1 << 28 });
  } catch (error) {
    throw new Problem(`git cannot give ${path} as it was in ${commit.slice(0, 7)}: ${messageOf(error)}`, 1);
  }
}
