import { appendFileSync, existsSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { hashText } from "../engine/index.js";
import { stateFolder, type Check } from "../node/index.js";
import type { Compared, Ran } from "./compare.js";
import type { Copied } from "./tree.js";
import type { Replacements } from "./copy.js";

const NAME = "trials.jsonl";

/**
 * What came of each set of changes that was tried, by the content of all files, the check, and what it did on the old code; so
 * that a search that was cut off goes on where it was. What a check does beside that, with other tools or the network, is not
 * known here; the first runs and the last are therefore always made.
 */
export class KnownTrials {
  readonly #file: string;
  readonly #project: string;
  readonly #known = new Map<string, Compared>();

  /** What some check needs may be made by others, so all of them count. */
  constructor(root: string, copied: Copied, checks: readonly Check[]) {
    this.#file = join(stateFolder(root), NAME);
    const files = [...copied.files].map(([path, { size, modified }]) => [path, size, modified]).sort();
    this.#project = hash([files, checks]);
    this.#load();
  }

  /** By what a trial is known. */
  keyOf(check: Check, before: Ran, texts: Replacements): string {
    const content = [...texts]
      .map(([path, text]) => [path, hash(Buffer.from(text).toString("base64"))])
      .sort();
    const { exit, output, errors } = before;
    return hash([this.#project, check.name, exit, output, before.messages ? errors : "", content]);
  }

  get(key: string): Compared | undefined {
    return this.#known.get(key);
  }

  set(key: string, compared: Compared): void {
    this.#known.set(key, compared);
    try {
      appendFileSync(this.#file, `${JSON.stringify({ project: this.#project, key, compared })}\n`);
    } catch {
      // The search goes on without.
    }
  }

  /** Those of other states of the project are of no use any more. */
  #load(): void {
    if (!existsSync(this.#file)) return;
    const lines = readFileSync(this.#file, "utf8").split("\n");
    const kept = lines.filter((line) => {
      try {
        const { project, key, compared } = JSON.parse(line) as {
          project: string;
          key: string;
          compared: Compared;
        };
        if (project !== this.#project || typeof compared.same !== "boolean") return false;
        this.#known.set(key, compared);
        return true;
      } catch {
        return false;
      }
    });
    writeFileSync(this.#file, kept.map((line) => `${line}\n`).join(""));
  }
}

function hash(value: unknown): string {
  return hashText(
    JSON.stringify(value, (_, inner: unknown) => (inner instanceof RegExp ? String(inner) : inner)),
  );
}
