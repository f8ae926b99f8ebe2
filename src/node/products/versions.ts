import { existsSync, readdirSync, readFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { coerce } from "semver";
import type { LanguageId } from "../../syntax/index.js";
import { letsThrough, lowest } from "../manifests.js";
import { messageOf, Problem } from "../problem.js";
import { NPM } from "./npm.js";
import { OTHERS } from "./others.js";
import type { Place } from "./place.js";
import { PYTHON } from "./python.js";

/** The version of a product that a project has, and who says so. */
export interface ProductVersion {
  readonly version: string;
  /** As the end of a sentence: "by package-lock.json". */
  readonly says: string;
  /** What a manifest asks for, where the lock file has something that it does not let through. */
  readonly disagrees?: string;
}

/** What the files of one folder say. */
interface Said {
  readonly locked?: ProductVersion;
  readonly asked?: ProductVersion & { readonly range: string };
}

const PLACES: readonly Place[] = [...NPM, ...PYTHON, ...OTHERS];

/** The versions of a product in the folders of a project. */
export class ProductVersions {
  readonly #root: string;
  readonly #product: string;
  readonly #places: readonly Place[];
  readonly #set: ProductVersion | undefined;
  readonly #found = new Map<string, ProductVersion | undefined>();

  /** `set` is the version that the config names for all of the project. */
  constructor(root: string, product: string, language: LanguageId, set?: string) {
    this.#root = root;
    this.#product = product;
    this.#places = PLACES.filter(({ languages }) => languages.includes(language));
    this.#set = set === undefined ? undefined : { version: set, says: "by the config" };
  }

  /**
   * The version that holds in a folder of the project, by its path from the root (`.` for that): by the nearest folder upwards
   * in which a manifest or lock file names the product. What is locked comes first, else it is the lowest that is let through.
   * Throws a Problem for a file that cannot be read.
   */
  in(folder: string): ProductVersion | undefined {
    if (this.#set) return this.#set;
    if (!this.#found.has(folder)) this.#found.set(folder, this.#lookUp(folder));
    return this.#found.get(folder);
  }

  #lookUp(folder: string): ProductVersion | undefined {
    const { locked, asked } = this.#said(folder, folder);
    if (locked && asked) return compared(locked, asked);
    if (locked) return locked;
    if (!asked) return folder === "." ? undefined : this.in(dirname(folder));
    // In a project of several packages the lock file stands above them.
    for (let above = folder; above !== ".";) {
      above = dirname(above);
      const { locked: there } = this.#said(above, folder);
      if (there && letsThrough(asked.range, there.version)) return there;
    }
    return { version: asked.version, says: asked.says };
  }

  /** What files of one folder say of what holds in it, or in one below. */
  #said(folder: string, below: string): Said {
    const full = join(this.#root, folder);
    const names = existsSync(full) ? readdirSync(full).sort() : [];
    const inside = below === folder ? "" : folder === "." ? below : below.slice(folder.length + 1);
    let said: Said = {};
    for (const { file, isLock, read } of this.#places)
      for (const name of names.filter((one) => file.test(one))) {
        const path = folder === "." ? name : `${folder}/${name}`;
        const found = readIn(join(full, name), (text) => read(text, this.#product, inside));
        const version = lowest(found, "0.0.0");
        if (found === undefined || version === undefined) continue;
        const says = { version, says: `by ${path}` };
        said = isLock
          ? { ...said, locked: said.locked ?? says }
          : { ...said, asked: said.asked ?? { ...says, range: found } };
      }
    return said;
  }
}

function compared(locked: ProductVersion, asked: Said["asked"] & object): ProductVersion {
  const isOlder = compareVersions(locked.version, asked.version) < 0;
  return isOlder ? { ...locked, disagrees: `${asked.range.trim()} ${asked.says}` } : locked;
}

function readIn(file: string, read: (text: string) => string | undefined): string | undefined {
  try {
    return read(readFileSync(file, "utf8"));
  } catch (error) {
    throw new Problem(`${file} cannot be read: ${messageOf(error)}. It says which versions are installed.`);
  }
}

/** Less than 0 where the first version is the older one, more than 0 where it is the newer one. */
export function compareVersions(one: string, other: string): number {
  return coerce(one)?.compare(coerce(other) ?? "0.0.0") ?? 0;
}

/** A version without the zeros at its end that say nothing: `2.0.0` is 2. */
export function shortVersion(version: string): string {
  return version.replace(/^v/, "").replace(/(\.0)+$/, "");
}
