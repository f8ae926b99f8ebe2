import { z } from "zod";
import type { FileResult } from "../engine/index.js";
import { loadCache, storeCache } from "../node/index.js";
import { AskedWords } from "./asked-words.js";
import type { FileState } from "./examiner.js";
import { timeOf } from "./stamp.js";

/** The state of a file, as long as it holds. */
export interface Kept extends FileState {
  /** The versions of products in its folder. */
  readonly products: readonly string[];
}

/** What is stored of the results of a project between two runs. */
export interface Remembered {
  readonly kept: ReadonlyMap<string, Kept>;
  /** The stamps of all files of the project when they were looked over; empty where only the content tells of a change. */
  readonly stamps: ReadonlyMap<string, string>;
  /** The hashes of files of which there is no state; empty where only the stamp tells of a change. */
  readonly hashes: ReadonlyMap<string, string>;
  readonly asked: AskedWords;
  /** The files outside of the project that the compiler has read, with their stamps. */
  readonly outside: ReadonlyMap<string, string>;
}

const FORM = 2;
const pairs = z.array(z.tuple([z.string(), z.string()]));
const head = z.object({
  form: z.literal(FORM),
  words: z.array(z.tuple([z.string(), z.array(z.string())])),
  stamps: pairs,
  hashes: pairs,
  outside: pairs,
});
/** A file that was written so shortly before it was read may be written again without its stamp changing. */
const TOO_FRESH = 2000;
/** Between a state and its result; no JSON text has it. */
const SPLIT = "\t";

/** Results of a project as they are stored; each is kept as text until it is asked for, and as long as it holds. */
export class Memory {
  readonly #root: string;
  readonly #key: string;
  readonly #texts = new WeakMap<Kept, string>();

  /** `key` names what the results rest on beside the files. */
  constructor(root: string, key: string) {
    this.#root = root;
    this.#key = key;
  }

  /** Undefined where nothing is stored, or its head is damaged. */
  load(): Remembered | undefined {
    const [first = "", ...lines] = loadCache(this.#root, this.#key);
    const parsed = head.safeParse(first.includes(SPLIT) || first === "" ? undefined : JSON.parse(first));
    if (!parsed.success) return undefined;
    const { words, stamps, hashes, outside } = parsed.data;
    return {
      kept: new Map(lines.map((line) => this.#read(line)).map((state) => [state.path, state])),
      stamps: new Map(stamps),
      hashes: new Map(hashes),
      asked: new AskedWords(words),
      outside: new Map(outside),
    };
  }

  /** Throws what the file system throws. */
  store({ kept, stamps, hashes, asked, outside }: Remembered): void {
    const words = new Set([...kept.values()].flatMap(({ lookedAt }) => lookedAt.words));
    const first = JSON.stringify({
      form: FORM,
      words: asked.stored(words),
      stamps: [...stamps].map(([path, stamp]) => [path, lasting(stamp)]),
      hashes: [...hashes],
      outside: [...outside],
    });
    const lines = [...kept.values()].map((state) => this.#texts.get(state) ?? textOf(state));
    storeCache(this.#root, this.#key, [first, ...lines]);
  }

  #read(text: string): Kept {
    const end = text.indexOf(SPLIT);
    const state = JSON.parse(text.slice(0, end)) as Kept;
    let found: FileResult | undefined;
    if (end < text.length - 1)
      Object.defineProperty(state, "result", {
        enumerable: true,
        get: () => (found ??= JSON.parse(text.slice(end + 1)) as FileResult),
      });
    this.#texts.set(state, text);
    return state;
  }
}

function textOf({ result, ...state }: Kept): string {
  return JSON.stringify(state) + SPLIT + (result === undefined ? "" : JSON.stringify(result));
}

/** A stamp as far as it tells whether its file has changed since. */
const lasting = (stamp: string): string => (Date.now() - timeOf(stamp) < TOO_FRESH ? "" : stamp);
