import { dirname, join, relative, resolve, sep } from "node:path";
import { stampOf, timeOf } from "./stamp.js";

/** What package managers write at the end of an installation, in the folder that they install into. */
const INSTALLED = [".package-lock.json", ".modules.yaml", ".yarn-integrity", ".yarn-state.yml"];

/** The files that the compiler has read and that are none of the project's own: libraries above all. */
export class OutsideFiles {
  readonly #root: string;
  #stamps: Map<string, string>;
  /** A file that was written since may have been read before that. */
  #begun = Date.now();

  constructor(root: string, known: ReadonlyMap<string, string> = new Map()) {
    this.#root = resolve(root);
    this.#stamps = new Map(known);
  }

  get stamps(): ReadonlyMap<string, string> {
    return this.#stamps;
  }

  /** Adds files that the compiler has read; `isOwn` tells those of the project, by their paths from the root. */
  add(files: Iterable<string>, isOwn: (path: string) => boolean): void {
    for (const file of files) {
      if (this.#stamps.has(file) || isOwn(relative(this.#root, file).split(sep).join("/"))) continue;
      this.#add(file);
      const at = file.lastIndexOf(`${sep}node_modules${sep}`);
      if (at >= 0) for (const name of INSTALLED) this.#add(join(file.slice(0, at), "node_modules", name));
    }
    if (this.#stamps.size === 0) return;
    for (let folder = this.#root; ; folder = dirname(folder)) {
      for (const name of INSTALLED) this.#add(join(folder, "node_modules", name));
      if (dirname(folder) === folder) break;
    }
  }

  /** Has any changed since it was added? They are all forgotten then. */
  haveChanged(): boolean {
    const changed = [...this.#stamps].some(([file, stamp]) => (stampOf(file) ?? "") !== stamp);
    if (changed) [this.#stamps, this.#begun] = [new Map(), Date.now()];
    return changed;
  }

  #add(file: string): void {
    if (this.#stamps.has(file)) return;
    const stamp = stampOf(file);
    this.#stamps.set(file, stamp === undefined || timeOf(stamp) >= this.#begun ? "" : stamp);
  }
}
