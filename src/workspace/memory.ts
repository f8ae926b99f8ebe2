import { z } from "zod";
import type { FileResult } from "../engine/index.js";
import { loadCache, storeCache } from "../node/index.js";
import { AskedWords } from "./asked-words.js";
import type { FileState } from "./examiner.js";

/** A state with the time, size and place of its file on the disk, which change with its content. */
export interface Kept extends FileState {
  readonly stamp: string;
  /** The versions of products in its folder. */
  readonly products: readonly string[];
}

/** A file of which there is no result. */
export interface OtherFile {
  readonly path: string;
  readonly stamp: string;
  /** Of its bytes; empty where only the stamp tells whether it has changed. */
  readonly hash: string;
}

/** What is stored of the results of a project between two runs. */
export interface Remembered {
  readonly kept: Map<string, Kept>;
  readonly others: ReadonlyMap<string, OtherFile>;
  readonly asked: AskedWords;
  /** The files outside of the project that the compiler has read, with their stamps. */
  readonly outside: ReadonlyMap<string, string>;
}

const FORM = 1;
const head = z.object({
  form: z.literal(FORM),
  words: z.array(z.tuple([z.string(), z.array(z.string())])),
  outside: z.array(z.tuple([z.string(), z.string()])),
  others: z.array(z.object({ path: z.string(), stamp: z.string(), hash: z.string() })),
});
/** A file that was written so shortly before it was read may be written again without its stamp changing. */
const TOO_FRESH = 2000;
const SPLIT = "\t";

/** Results of a project as they are stored; they are kept as text until they are asked for, and as long as they stay as they are. */
export class Memory {
  readonly #root: string;
  readonly #key: string;
  readonly #lines = new WeakMap<Kept, string>();

  /** `key` names what the results rest on beside the files. */
  constructor(root: string, key: string) {
    this.#root = root;
    this.#key = key;
  }

  /** Undefined where nothing is stored. */
  load(): Remembered | undefined {
    const [first, ...lines] = loadCache(this.#root, this.#key);
    const parsed = head.safeParse(first === undefined ? undefined : JSON.parse(first));
    if (!parsed.success) return undefined;
    const kept = new Map<string, Kept>();
    for (const line of lines) {
      const state = this.#read(line);
      kept.set(state.path, state);
    }
    const { words, outside, others } = parsed.data;
    return {
      kept,
      others: new Map(others.map((other) => [other.path, other])),
      asked: new AskedWords(words),
      outside: new Map(outside),
    };
  }

  /** Throws what the file system throws. */
  store({ kept, others, asked, outside }: Remembered): void {
    const all = [...kept.values()].filter(({ result, hash }) => hash !== "" && !result?.failures?.length);
    const words = new Set(all.flatMap(({ lookedAt }) => lookedAt.words));
    const first = JSON.stringify({
      form: FORM,
      words: asked.stored(words),
      outside: [...outside],
      others: [...others.values()].map((other) => ({ ...other, stamp: lasting(other.stamp) })),
    });
    const lines = all.map((one) => this.#lines.get(one) ?? lineOf(one));
    storeCache(this.#root, this.#key, [first, ...lines]);
  }

  #read(line: string): Kept {
    const end = line.indexOf(SPLIT);
    const state = JSON.parse(line.slice(0, end)) as Omit<Kept, "result">;
    let found: FileResult | undefined;
    const kept: Kept =
      end === line.length - 1
        ? state
        : Object.defineProperty({ ...state }, "result", {
            enumerable: true,
            get: () => (found ??= JSON.parse(line.slice(end + 1)) as FileResult),
          });
    this.#lines.set(kept, line);
    return kept;
  }
}

function lineOf({ result, ...state }: Kept): string {
  const head = JSON.stringify({ ...state, stamp: lasting(state.stamp) });
  return head + SPLIT + (result === undefined ? "" : JSON.stringify(result));
}

/** A stamp as far as it tells whether its file has changed since. */
function lasting(stamp: string): string {
  const [written, changed] = stamp.split(" ").map(Number);
  return Date.now() - Math.max(written ?? 0, changed ?? 0) < TOO_FRESH ? "" : stamp;
}
