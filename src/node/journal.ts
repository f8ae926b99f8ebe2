import { existsSync, mkdirSync, readdirSync, readFileSync, renameSync, rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { z } from "zod";
import { hashText } from "../engine/index.js";
import { Problem } from "./problem.js";
import { copyDurably, flushFolder } from "./write.js";

const hash = z.string().regex(/^[0-9a-f]{64}$/);
const schema = z.strictObject({
  number: z.int().positive(),
  state: z.enum(["begun", "formatting", "done"]),
  files: z.array(
    z.strictObject({ path: z.string(), stored: z.string().regex(/^\d+$/), before: hash, after: hash }),
  ),
});

/** One apply: which files, their content before (stored under a number) and hashes of before and after. */
export type Entry = z.infer<typeof schema>;

const MANIFEST = "entry.json";
/** What a folder is called until it is complete, and from when it counts no more. */
const UNFINISHED = ".new";
const FORGOTTEN = ".gone";

/**
 * Remembers each apply in a folder of its own, so that `undo` works even after a crash in the middle. A folder with a
 * number for its name is complete and on disk.
 */
export class Journal {
  readonly #folder: string;

  constructor(root: string) {
    this.#folder = join(root, ".uvran", "journal");
  }

  /** Removes what a crash has left. Only for who holds the lock. */
  clean(): void {
    for (const name of this.#names())
      if (name.endsWith(UNFINISHED) || name.endsWith(FORGOTTEN))
        rmSync(join(this.#folder, name), { recursive: true, force: true });
  }

  /** Stores the old contents; to be called before the first file is written. */
  begin(files: readonly { path: string; file: string; before: string; after: string }[]): Entry {
    const number = Math.max(0, ...this.#numbers()) + 1;
    const folder = this.#of(number);
    const unfinished = folder + UNFINISHED;
    mkdirSync(unfinished, { recursive: true });
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
    files.forEach(({ file }, i) => copyDurably(file, join(unfinished, String(i))));
    writeManifest(unfinished, entry);
    renameSync(unfinished, folder);
    flushFolder(this.#folder);
    return entry;
  }

  /** From here on formatters may change the files to what nobody can foretell. */
  formatting(entry: Entry): void {
    writeManifest(this.#of(entry.number), { ...entry, state: "formatting" });
  }

  /** The apply is done, with these hashes of what the files hold now. */
  finish(entry: Entry, after: ReadonlyMap<string, string> = new Map()): void {
    const files = entry.files.map((file) => ({ ...file, after: after.get(file.path) ?? file.after }));
    writeManifest(this.#of(entry.number), { ...entry, state: "done", files });
  }

  /** Goes on remembering only some of an entry's files. */
  keepOnly(entry: Entry, paths: readonly string[]): void {
    const files = entry.files.filter(({ path }) => paths.includes(path));
    writeManifest(this.#of(entry.number), { ...entry, state: "done", files });
  }

  /** The newest entry. Throws a Problem for one that cannot be read. */
  last(): Entry | undefined {
    const number = Math.max(0, ...this.#numbers());
    if (number === 0) return undefined;
    const path = join(this.#of(number), MANIFEST);
    let json: string;
    try {
      json = readFileSync(path, "utf8");
    } catch (error) {
      throw new Problem(`The journal of the last apply cannot be read: ${(error as Error).message}`);
    }
    const parsed = schema.safeParse(parseJson(json));
    if (!parsed.success)
      throw new Problem(`The journal of the last apply is damaged: ${path}. The old files are beside it.`);
    return parsed.data;
  }

  /** Where a file's bytes from before the apply are. */
  stored(entry: Entry, stored: string): string {
    return join(this.#of(entry.number), stored);
  }

  /** A file's bytes before the apply. */
  content(entry: Entry, stored: string): Uint8Array {
    return readFileSync(this.stored(entry, stored));
  }

  forget(entry: Entry): void {
    const folder = this.#of(entry.number);
    renameSync(folder, folder + FORGOTTEN);
    flushFolder(this.#folder);
    rmSync(folder + FORGOTTEN, { recursive: true, force: true });
  }

  #of(number: number): string {
    return join(this.#folder, String(number));
  }

  #names(): string[] {
    return existsSync(this.#folder) ? readdirSync(this.#folder) : [];
  }

  #numbers(): number[] {
    return this.#names()
      .filter((name) => /^\d+$/.test(name))
      .map(Number);
  }
}

function writeManifest(folder: string, entry: Entry): void {
  const path = join(folder, MANIFEST);
  writeFileSync(path + UNFINISHED, JSON.stringify(entry, null, 1) + "\n", { flush: true });
  renameSync(path + UNFINISHED, path);
  flushFolder(folder);
}

function parseJson(json: string): unknown {
  try {
    return JSON.parse(json);
  } catch {
    return undefined;
  }
}
