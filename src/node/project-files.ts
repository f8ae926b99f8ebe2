import { readFileSync } from "node:fs";
import { join } from "node:path";
import type { NamingFile, SourceFiles } from "../analysis/index.js";
import { decode, inspect } from "./read.js";

/**
 * The sources of a project by the words in them. All files are read once, when the first rule asks what stands in
 * other files than the one it is looking at; their texts are read again when they are needed.
 */
export class ProjectFiles implements SourceFiles {
  readonly #root: string;
  readonly #paths: readonly string[];
  #index: Map<string, number[]> | undefined;
  readonly #leftOut = new Map<string, string>();

  constructor(root: string, paths: readonly string[]) {
    this.#root = root;
    this.#paths = paths;
  }

  *naming(word: string): Generator<NamingFile> {
    for (const i of this.#words().get(word) ?? []) {
      const path = this.#paths[i]!;
      yield { path, text: this.text(path), leftOut: this.#leftOut.get(path) };
    }
  }

  /** The text of one of the files. */
  text(path: string): string {
    return decode(readFileSync(join(this.#root, path)));
  }

  #words(): Map<string, number[]> {
    if (this.#index) return this.#index;
    this.#index = new Map();
    for (const [i, path] of this.#paths.entries()) {
      let bytes: Buffer;
      try {
        bytes = readFileSync(join(this.#root, path));
      } catch {
        continue; // said already, where the files are looked at one by one
      }
      const verdict = inspect(bytes);
      if (verdict && "bad" in verdict) continue;
      if (verdict) this.#leftOut.set(path, verdict.skip);
      for (const word of new Set(decode(bytes).match(/[\p{L}\p{N}_]+/gu))) {
        const list = this.#index.get(word);
        if (list) list.push(i);
        else this.#index.set(word, [i]);
      }
    }
    return this.#index;
  }
}
