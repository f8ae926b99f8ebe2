import {
  copyFileSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  writeFileSync,
} from "node:fs";
import { join } from "node:path";
import { z } from "zod";
import { hashText } from "../engine/index.js";
import { Problem } from "./problem.js";
import { stateFolder } from "./state.js";

const hash = z.string().regex(/^[0-9a-f]{64}$/);
const schema = z.strictObject({
  number: z.int().positive(),
  state: z.enum(["begun", "done"]),
  files: z.array(
    z.strictObject({ path: z.string(), stored: z.string().regex(/^\d+$/), before: hash, after: hash }),
  ),
});

/** One apply: which files, their content before (stored under a number) and hashes of before and after. */
export type Entry = z.infer<typeof schema>;

const MANIFEST = "entry.json";

/** Remembers each apply in a folder of its own, so that `undo` works even after a crash in the middle. */
export class Journal {
  readonly #folder: string;

  constructor(root: string) {
    this.#folder = join(stateFolder(root), "journal");
    mkdirSync(this.#folder, { recursive: true });
  }

  /** Stores the old contents; to be called before the first file is written. */
  begin(files: readonly { path: string; file: string; before: string; after: string }[]): Entry {
    const number = Math.max(0, ...this.#numbers()) + 1;
    const folder = join(this.#folder, String(number));
    mkdirSync(folder);
    const entry: Entry = {
      number,
      state: "begun",
      files: files.map(({ path, before, after }, i) => ({
        path,
        stored: String(i),
        before: hashText(before),
        after: hashText(after),
      })),
    };
    files.forEach(({ file }, i) => copyFileSync(file, join(folder, String(i))));
    this.#write(entry);
    return entry;
  }

  finish(entry: Entry): void {
    this.#write({ ...entry, state: "done" });
  }

  /** The newest entry. An apply that never got to write its manifest has changed nothing and is dropped. */
  last(): Entry | undefined {
    for (const number of this.#numbers().sort((a, b) => b - a)) {
      let json: string;
      try {
        json = readFileSync(join(this.#folder, String(number), MANIFEST), "utf8");
      } catch {
        rmSync(join(this.#folder, String(number)), { recursive: true });
        continue;
      }
      const parsed = schema.safeParse(parseJson(json));
      if (!parsed.success) throw new Problem(`The journal entry ${number} in ${this.#folder} is damaged.`);
      return parsed.data;
    }
    return undefined;
  }

  /** A file's bytes before the apply. */
  content(entry: Entry, stored: string): Uint8Array {
    return readFileSync(join(this.#folder, String(entry.number), stored));
  }

  forget(entry: Entry): void {
    rmSync(join(this.#folder, String(entry.number)), { recursive: true });
  }

  #write(entry: Entry): void {
    const path = join(this.#folder, String(entry.number), MANIFEST);
    writeFileSync(`${path}.new`, JSON.stringify(entry, null, 1) + "\n", { flush: true });
    renameSync(`${path}.new`, path);
  }

  #numbers(): number[] {
    return readdirSync(this.#folder).map(Number).filter(Number.isInteger);
  }
}

function parseJson(json: string): unknown {
  try {
    return JSON.parse(json);
  } catch {
    return undefined;
  }
}
