import { readFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { TreeStore, type NamingFile, type SourceFiles } from "../analysis/index.js";
import { languageOfFile } from "../syntax/index.js";
import { decode } from "./encoding.js";
import type { Sources } from "./files.js";
import { inspect } from "./read.js";

/** What a search for sources found, as far as it is needed here. */
type Found = Pick<Sources, "paths"> & Partial<Pick<Sources, "manifests" | "styles">>;

/**
 * The sources of a project by the words in them. All files are read once, when the first rule asks what stands in
 * other files than the one it is looking at; their texts are read again when they are needed.
 */
export class ProjectFiles implements SourceFiles {
  readonly trees = new TreeStore();
  readonly #root: string;
  #paths: ReadonlySet<string>;
  #manifests: ReadonlySet<string>;
  #styles: readonly string[];
  /** The texts of the style sheets; undefined until a word is looked for in them. */
  #styleTexts: Map<string, string> | undefined;
  /** By word, the files in which it stands; undefined until the first word is asked for. */
  #index: Map<string, Set<string>> | undefined;
  /** Where manifests of installed packages were looked for, whether they are there or not. */
  readonly installedManifests = new Set<string>();
  readonly #leftOut = new Map<string, string>();
  /** Texts that stand in for what is on the disk. */
  readonly #unsaved = new Map<string, string>();

  constructor(root: string, { paths, manifests = [], styles = [] }: Found) {
    this.#root = root;
    this.#paths = new Set(paths);
    this.#manifests = new Set(manifests);
    this.#styles = styles;
  }

  /** Another list as soon as a file or a manifest changes. */
  listed(): Iterable<string> {
    return this.#paths;
  }

  manifest(path: string): string | undefined {
    return this.#manifests.has(path) ? this.text(path) : undefined;
  }

  *styling(word: string): Generator<{ path: string; text: string }> {
    this.#styleTexts ??= new Map(this.#styles.map((path) => [path, this.#styleText(path)]));
    for (const [path, text] of this.#styleTexts) if (text.includes(word)) yield { path, text };
  }

  #styleText(path: string): string {
    try {
      return this.text(path);
    } catch {
      return "";
    }
  }

  *naming(word: string): Generator<NamingFile> {
    for (const path of this.having(word).sort())
      yield { path, text: this.text(path), leftOut: this.#leftOut.get(path) };
  }

  at(path: string): NamingFile | undefined {
    if (!this.#paths.has(path)) return undefined;
    this.#words();
    return { path, text: this.text(path), leftOut: this.#leftOut.get(path) };
  }

  installed(name: string, from: string): string | undefined {
    if (!/^(@[\w.-]+\/)?[\w.-]+$/.test(name)) return undefined;
    for (let folder = dirname(join(this.#root, from)); ; folder = dirname(folder)) {
      const path = join(folder, "node_modules", name, "package.json");
      this.installedManifests.add(path);
      try {
        return readFileSync(path, "utf8");
      } catch {
        // not there, or nothing that can be read
      }
      if (dirname(folder) === folder) return undefined;
    }
  }

  /** The text of one of the files. */
  text(path: string): string {
    return this.#unsaved.get(path) ?? decode(readFileSync(join(this.#root, path)));
  }

  /** The bytes of one of the files, and its text; of text that is not saved, the bytes as UTF-8. */
  source(path: string): { readonly bytes: Buffer; readonly unsaved: string | undefined } {
    const unsaved = this.#unsaved.get(path);
    const bytes = unsaved === undefined ? readFileSync(join(this.#root, path)) : Buffer.from(unsaved);
    return { bytes, unsaved };
  }

  get hasUnsaved(): boolean {
    return this.#unsaved.size > 0;
  }

  isUnsaved(path: string): boolean {
    return this.#unsaved.has(path);
  }

  /** Takes a text for that of a file, whatever is on the disk; undefined takes that again. `update` must follow. */
  setUnsaved(path: string, text: string | undefined): void {
    if (text === undefined) this.#unsaved.delete(path);
    else this.#unsaved.set(path, text);
  }

  /** Takes in that the project has these files now, and that some of them have changed, are new or gone. */
  update({ paths, manifests = [], styles = [] }: Found, changed: ReadonlySet<string>): void {
    this.#paths = new Set(paths);
    this.#manifests = new Set(manifests);
    [this.#styles, this.#styleTexts] = [styles, undefined];
    if (!this.#index) return;
    for (const [word, files] of this.#index) {
      for (const path of changed) files.delete(path);
      if (files.size === 0) this.#index.delete(word);
    }
    for (const path of changed) if (this.#paths.has(path)) this.#read(path);
  }

  /** The files in which a word stands. */
  having(word: string): string[] {
    const words = this.#words();
    return [...new Set([...(words.get(word) ?? []), ...(words.get(folded(word)) ?? [])])];
  }

  /** Which of some words stand in a file now; none in one that is gone, or cannot be read. */
  wordsOf(path: string, among: Iterable<string>): string[] {
    const there = this.#paths.has(path) ? this.#wordsAt(path) : new Set();
    return [...among].filter((word) => there.has(word) || there.has(folded(word)));
  }

  #words(): Map<string, Set<string>> {
    if (this.#index) return this.#index;
    this.#index = new Map();
    for (const path of this.#paths) this.#read(path);
    return this.#index;
  }

  /** Puts the words of a file into the index. */
  #read(path: string): void {
    for (const word of this.#wordsAt(path)) {
      const files = this.#index!.get(word);
      if (files) files.add(path);
      else this.#index!.set(word, new Set([path]));
    }
  }

  #wordsAt(path: string): Set<string> {
    this.#leftOut.delete(path);
    let source: ReturnType<ProjectFiles["source"]>;
    try {
      source = this.source(path);
    } catch {
      return new Set(); // said already, where the files are looked at one by one
    }
    const { bytes, unsaved } = source;
    const verdict = inspect(bytes);
    if (verdict && "bad" in verdict) return new Set();
    if (verdict) this.#leftOut.set(path, verdict.skip);
    const text = unsaved ?? decode(bytes);
    const words = text.match(/[\p{L}\p{N}_]+/gu) ?? [];
    const { ignoresCase = "nowhere" } = languageOfFile(path, text) ?? {};
    return new Set(ignoresCase === "nowhere" ? words : [...words, ...words.map(folded)]);
  }
}

/** Under this a word is kept of which upper and lower case are the same. */
function folded(word: string): string {
  return `~${word.toLowerCase()}`;
}
