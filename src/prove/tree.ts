import {
  constants,
  copyFileSync,
  lstatSync,
  mkdirSync,
  readdirSync,
  readlinkSync,
  realpathSync,
  statSync,
  symlinkSync,
  utimesSync,
  type Dirent,
} from "node:fs";
import { dirname, isAbsolute, join, relative, resolve, sep } from "node:path";
import ignore, { type Ignore } from "ignore";
import type { ScratchConfig } from "../node/index.js";

/** Never copied, wherever they are. */
const NEVER = new Set([".git", ".uvran"]);
const PACKAGES = "node_modules";
/** Hidden folders among installed packages that tools read; the others are caches, which each copy makes for itself. */
const READ_BY_TOOLS = new Set([".bin", ".pnpm", ".package-lock.json", ".modules.yaml"]);

/** What a copy was made of. */
export interface Copied {
  /** Files, relative to the root, with forward slashes, and their sizes and times there. */
  readonly files: ReadonlyMap<string, { readonly size: number; readonly modified: number }>;
  readonly folders: ReadonlySet<string>;
  /** What could not be read, and is not in the copy. */
  readonly unreadable: readonly string[];
}

/**
 * Copies a project: its files with their times and modes, by reference where the file system can; its installed packages and
 * virtual environments as links; links inside the project so that they lead to the same place in the copy. Nothing in a copy
 * shares its content with the project, so what a check writes there stays there.
 */
export function copyTree(root: string, to: string, { leaveOut = [], link = [] }: ScratchConfig): Copied {
  const copier = new Copier(realpathSync(root), to, ignore().add([...leaveOut]), ignore().add([...link]));
  copier.folder("");
  return copier;
}

class Copier implements Copied {
  readonly files = new Map<string, { size: number; modified: number }>();
  readonly folders = new Set<string>();
  readonly unreadable: string[] = [];

  constructor(
    readonly root: string,
    readonly to: string,
    readonly leftOut: Ignore,
    readonly linked: Ignore,
  ) {}

  folder(path: string): void {
    let entries: Dirent[];
    try {
      entries = readdirSync(join(this.root, path), { withFileTypes: true });
    } catch (error) {
      return this.#unreadable(path, error);
    }
    mkdirSync(join(this.to, path), { recursive: true });
    this.folders.add(path);
    for (const entry of entries) this.#entry(path === "" ? entry.name : `${path}/${entry.name}`, entry);
  }

  #entry(path: string, entry: Dirent): void {
    if (NEVER.has(entry.name)) return;
    const asked = entry.isDirectory() ? `${path}/` : path;
    if (this.leftOut.ignores(asked)) return;
    if (this.linked.ignores(asked)) return this.#link(path);
    if (entry.isSymbolicLink()) return this.#sameLink(path);
    if (entry.isFile()) return this.#file(path);
    if (!entry.isDirectory()) return; // sockets and pipes of what runs now
    if (entry.name === PACKAGES) return this.#packages(path);
    if (this.#isThere(`${path}/pyvenv.cfg`)) return this.#link(path);
    this.folder(path);
  }

  #file(path: string): void {
    const [from, to] = [join(this.root, path), join(this.to, path)];
    try {
      copyFileSync(from, to, constants.COPYFILE_FICLONE);
      const { atimeMs, mtimeMs, size } = statSync(from);
      utimesSync(to, atimeMs / 1000, mtimeMs / 1000);
      this.files.set(path, { size, modified: mtimeMs });
    } catch (error) {
      this.#unreadable(path, error);
    }
  }

  /** Installed packages, each a link: what a tool adds beside them is in the copy. Packages of the project itself are the copy's. */
  #packages(path: string): void {
    mkdirSync(join(this.to, path), { recursive: true });
    for (const { name } of readdirSync(join(this.root, path), { withFileTypes: true })) {
      const own = `${path}/${name}`;
      if (name.startsWith("@")) this.#packages(own);
      else if (!name.startsWith(".") || READ_BY_TOOLS.has(name)) this.#package(own);
    }
  }

  #package(path: string): void {
    const inProject = this.#inProject(join(this.root, path));
    const isOwn = inProject !== undefined && !inProject.split(sep).includes(PACKAGES);
    symlinkSync(isOwn ? join(this.to, inProject) : join(this.root, path), join(this.to, path));
  }

  #link(path: string): void {
    symlinkSync(join(this.root, path), join(this.to, path));
  }

  #sameLink(path: string): void {
    const target = readlinkSync(join(this.root, path));
    const full = resolve(this.root, dirname(path), target);
    const inside = below(this.root, full);
    if (inside === undefined) symlinkSync(full, join(this.to, path));
    else symlinkSync(isAbsolute(target) ? join(this.to, inside) : target, join(this.to, path));
  }

  /** Where in the project something really is; undefined for what is outside. */
  #inProject(path: string): string | undefined {
    try {
      return below(this.root, realpathSync(path));
    } catch {
      return undefined;
    }
  }

  #isThere(path: string): boolean {
    return lstatSync(join(this.root, path), { throwIfNoEntry: false }) !== undefined;
  }

  #unreadable(path: string, error: unknown): void {
    const { code } = error as NodeJS.ErrnoException;
    // What is gone by now was some other program's.
    if (code === "EACCES" || code === "EPERM") this.unreadable.push(path);
    else if (code !== "ENOENT") throw error;
  }
}

/** A path relative to a folder; undefined where it is not in it. */
function below(folder: string, path: string): string | undefined {
  const found = relative(folder, path);
  return found === ".." || found.startsWith(`..${sep}`) || isAbsolute(found) ? undefined : found;
}
