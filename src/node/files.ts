import { lstatSync, readdirSync, readFileSync, statSync, type Dirent, type Stats } from "node:fs";
import { basename, dirname, extname, join, relative, resolve, sep } from "node:path";
import ignore, { type Ignore } from "ignore";
import { mayHoldCode } from "../embed/index.js";
import { firstLineOf } from "./file-language.js";
import type { Skipped } from "../report/index.js";
import { messageOf, Problem } from "./problem.js";
import { isManifest } from "./targets.js";
import { isWritableManifest } from "./writable-manifest.js";

/** What a search for sources came back with. Paths are relative to the root, with forward slashes. */
export interface Sources {
  readonly paths: string[];
  /** Files that say for which versions the project is, or how it is compiled. */
  readonly manifests: string[];
  /** Style sheets: they name what markup has, and no rule reads them. */
  readonly styles: string[];
  readonly skipped: Skipped[];
  readonly unreadable: Skipped[];
  readonly notCovered: Map<string, number>;
}

/** Folders that hold other people's code or what tools have made. */
const VENDORED = new Set([
  "node_modules",
  "bower_components",
  "vendor",
  "third_party",
  "site-packages",
  ".venv",
  "venv",
]);
const STYLE = /\.(css|scss|sass|less)$/;
const NEVER = new Set([".git", ".uvran"]);

/** A .gitignore, or the config's own list, and the folder that its lines are relative to. */
interface IgnoreFile {
  readonly folder: string;
  readonly lines: Ignore;
}

/**
 * Finds the sources below the given paths (all of the root when there are none). Throws a Problem for a path
 * that does not exist or lies outside the root.
 */
export function findSources(
  root: string,
  given: readonly string[],
  cwd: string,
  leaveOut: readonly string[],
): Sources {
  const walker = new Walker(root, leaveOut);
  for (const path of given.length > 0 ? given : [root]) {
    if (path === "")
      throw new Problem("A path is empty. Name files or folders, or none for the whole project.");
    walker.start(resolve(cwd, path));
  }
  const { sources } = walker;
  sources.paths.sort();
  return { ...sources, paths: [...new Set(sources.paths)] };
}

/** Would a search come upon this file as a source, or as a manifest that a change may write? Paths are relative to the root. */
export function isSource(root: string, path: string, leaveOut: readonly string[]): boolean {
  if (path.split("/").some((part) => NEVER.has(part) || VENDORED.has(part))) return false;
  if (lstatSync(join(root, path), { throwIfNoEntry: false })?.isFile() !== true) return false;
  const { paths, manifests } = findSources(root, [path], root, leaveOut);
  return paths.includes(path) || (isWritableManifest(path) && manifests.includes(path));
}

/**
 * The path of what lies below a folder from there, with forward slashes; undefined for what does not. Both paths are absolute
 * and in their normal form: `relative` would take most of the time of a walk.
 */
function below(folder: string, path: string): string | undefined {
  const head = folder.endsWith(sep) ? folder : folder + sep;
  if (!path.startsWith(head)) return undefined;
  const inside = path.slice(head.length);
  return sep === "/" ? inside : inside.split(sep).join("/");
}

class Walker {
  readonly sources: Sources = {
    paths: [],
    manifests: [],
    styles: [],
    skipped: [],
    unreadable: [],
    notCovered: new Map(),
  };
  readonly #root: string;
  readonly #own: IgnoreFile;

  constructor(root: string, leaveOut: readonly string[]) {
    this.#root = resolve(root);
    this.#own = { folder: this.#root, lines: ignore().add([...leaveOut]) };
  }

  start(path: string): void {
    const shown = relative(this.#root, path);
    const refuse = (error: unknown): never => {
      throw new Problem(`Cannot look at ${path}: ${messageOf(error)}`);
    };
    if (shown.startsWith("..")) throw new Problem(`${path} lies outside the project at ${this.#root}.`);
    let stat: Stats | undefined;
    try {
      stat = statSync(path, { throwIfNoEntry: false });
    } catch (error) {
      refuse(error);
    }
    if (!stat) throw new Problem(`There is no file or folder at ${path}. Check the spelling.`);
    const outside = shown.split(sep).find((part) => NEVER.has(part) || VENDORED.has(part));
    if (outside !== undefined) {
      const why = NEVER.has(outside) ? `in ${outside}` : "vendored folder";
      this.sources.skipped.push({ path: this.#show(path), why });
      return;
    }
    const ignoreFiles = this.#ignoreFilesAbove(path);
    if (stat.isDirectory()) this.#folder(path, ignoreFiles);
    else if (this.#isBelowIgnored(path, ignoreFiles)) this.#skip(path, "ignored");
    else if (stat.isFile()) this.#file(path, ignoreFiles);
    else throw new Problem(`${path} is neither a file nor a folder.`);
  }

  #ignoreFilesAbove(path: string): IgnoreFile[] {
    const found = [this.#own];
    let folder = this.#root;
    for (const part of relative(this.#root, path).split(sep).slice(0, -1)) {
      found.push(...this.#ignoreFileIn(folder));
      folder = join(folder, part);
    }
    if (folder !== path) found.push(...this.#ignoreFileIn(folder));
    return found;
  }

  #ignoreFileIn(folder: string): IgnoreFile[] {
    try {
      return [{ folder, lines: ignore().add(readFileSync(join(folder, ".gitignore"), "utf8")) }];
    } catch {
      return [];
    }
  }

  #folder(folder: string, above: readonly IgnoreFile[]): void {
    let entries: Dirent[];
    try {
      entries = readdirSync(folder, { withFileTypes: true });
    } catch (error) {
      this.sources.unreadable.push({ path: this.#show(folder), why: messageOf(error) });
      return;
    }
    const ignoreFiles = entries.some((entry) => entry.name === ".gitignore")
      ? [
          ...above.filter((file) => file.folder !== folder || file === this.#own),
          ...this.#ignoreFileIn(folder),
        ]
      : above;
    for (const entry of entries.sort((a, b) => (a.name < b.name ? -1 : 1))) {
      const path = join(folder, entry.name);
      if (NEVER.has(entry.name)) continue;
      if (entry.isSymbolicLink()) this.#skip(path, "link");
      else if (entry.isDirectory()) {
        if (VENDORED.has(entry.name)) this.#skip(path, "vendored folder");
        else if (this.#isIgnored(path, true, ignoreFiles)) this.#skip(path, "ignored");
        else this.#folder(path, ignoreFiles);
      } else if (entry.isFile()) this.#file(path, ignoreFiles);
    }
  }

  #file(path: string, ignoreFiles: readonly IgnoreFile[]): void {
    if (this.#isIgnored(path, false, ignoreFiles)) return this.#skip(path, "ignored");
    const shown = this.#show(path);
    // A manifest may be code too, as a Gemfile is.
    if (isManifest(shown)) this.sources.manifests.push(shown);
    if (mayHoldCode(path, firstLineOf(path))) this.sources.paths.push(shown);
    else {
      if (STYLE.test(path)) this.sources.styles.push(shown);
      const ending = extname(path) || basename(path);
      this.sources.notCovered.set(ending, (this.sources.notCovered.get(ending) ?? 0) + 1);
    }
  }

  #isIgnored(path: string, isFolder: boolean, ignoreFiles: readonly IgnoreFile[]): boolean {
    let ignored = false;
    for (const { folder, lines } of ignoreFiles) {
      const inside = below(folder, path);
      if (inside === undefined) continue;
      const verdict = lines.test(isFolder ? `${inside}/` : inside);
      if (verdict.ignored) ignored = true;
      else if (verdict.unignored) ignored = false;
    }
    return ignored;
  }

  /** Is one of the folders on the way to a file ignored? */
  #isBelowIgnored(path: string, ignoreFiles: readonly IgnoreFile[]): boolean {
    for (
      let folder = dirname(path);
      folder !== this.#root && folder.startsWith(this.#root + sep);
      folder = dirname(folder)
    )
      if (this.#isIgnored(folder, true, ignoreFiles)) return true;
    return false;
  }

  #show(path: string): string {
    return below(this.#root, path) ?? "";
  }

  #skip(path: string, why: string): void {
    this.sources.skipped.push({ path: this.#show(path), why });
  }
}
