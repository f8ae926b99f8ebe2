import { spawn, type ChildProcess } from "node:child_process";
import { randomBytes } from "node:crypto";
import {
  existsSync,
  mkdirSync,
  readdirSync,
  realpathSync,
  statfsSync,
  statSync,
  writeFileSync,
} from "node:fs";
import { basename, join } from "node:path";
import {
  installed,
  isAlive,
  messageOf,
  ownHolder,
  Problem,
  readHolder,
  stateFolder,
  type ScratchConfig,
} from "../node/index.js";
import { Copy } from "./copy.js";
import { endMarked } from "./processes.js";
import type { Copied } from "./tree.js";
import { removeFolder } from "./remove.js";

const FOLDER = "scratch";
const HOLDER = "holder.json";
/** A folder without a holder may be one that is just being made. */
const PATIENCE = 60_000;
const MINDER = installed("dist/prove/minder.js");

/**
 * Where the copies of a project are while it is proved: in its `.uvran` folder, so that packages that are installed further
 * up are found from them too. They go when it is closed; when this process is killed, a small one that watches it ends what
 * still runs and removes them; and when that could not do it either, the next proof does.
 */
export class Scratch {
  readonly #root: string;
  readonly #folder: string;
  readonly #config: ScratchConfig;
  readonly #mark: string;
  readonly #minder: ChildProcess;
  #copies = 0;
  #first: Copied | undefined;

  constructor(root: string, config: ScratchConfig) {
    this.#root = realpathSync(root);
    this.#config = config;
    const all = join(stateFolder(this.#root), FOLDER);
    removeStale(all);
    this.#mark = randomBytes(8).toString("hex");
    this.#folder = join(all, this.#mark);
    // Who watches must be there before there is anything to remove.
    this.#minder = spawn(process.execPath, [MINDER, this.#folder, this.#mark], {
      detached: true,
      stdio: ["pipe", "ignore", "ignore"],
    });
    this.#minder.on("error", () => undefined);
    this.#minder.unref();
    (this.#minder.stdin as unknown as { unref(): void }).unref();
    mkdirSync(this.#folder, { recursive: true });
    writeFileSync(join(this.#folder, HOLDER), JSON.stringify(ownHolder("prove")));
  }

  /** Another copy of the project as it is. Throws a Problem where there is no space for it. */
  copy(): Copy {
    const number = this.#copies++;
    // All names are equally long, so that messages with them are broken into lines alike.
    const folder = join(this.#folder, String(number).padStart(3, "0"));
    try {
      const copy = new Copy(this.#root, folder, this.#config, `${this.#mark}/${number}`);
      this.#first ??= copy.copied;
      if (!sameFiles(this.#first, copy.copied))
        throw new Problem("Files of the project changed while it was proved. Prove it again.", 1);
      return copy;
    } catch (error) {
      throw this.explain(error);
    }
  }

  /** What a full disk means here; other errors stay what they are. */
  explain(error: unknown): unknown {
    const { code } = error as NodeJS.ErrnoException;
    if (code !== "ENOSPC" && code !== "EDQUOT") return error;
    const { bavail, bsize } = statfsSync(this.#root);
    return new Problem(
      `There is no space for the copies of the project that its checks run in (${Math.round((bavail * bsize) / 1e6)} MB are free): ${messageOf(error)}\n` +
        "Name what no check needs, and large folders that checks only read, in the config: scratch: { leaveOut: [], link: [] }",
      1,
    );
  }

  /** Ends what still runs, and removes the copies. */
  async close(): Promise<void> {
    endMarked(this.#mark);
    removeFolder(this.#folder);
    const ended = new Promise((resolve) => this.#minder.once("exit", resolve));
    if (this.#minder.exitCode !== null || this.#minder.pid === undefined) return;
    this.#minder.ref();
    this.#minder.stdin?.end();
    await ended;
  }
}

function sameFiles({ files: a }: Copied, { files: b }: Copied): boolean {
  return (
    a.size === b.size &&
    [...a].every(([path, { size, modified }]) => {
      const other = b.get(path);
      return other?.size === size && other.modified === modified;
    })
  );
}

/** Removes what proofs have left that were killed. */
function removeStale(all: string): void {
  if (!existsSync(all)) return;
  for (const name of readdirSync(all)) {
    const folder = join(all, name);
    const held = readHolder(join(folder, HOLDER));
    const isNew = held === undefined && Date.now() - statSync(folder).mtimeMs < PATIENCE;
    if (isNew || (held !== undefined && held !== "unreadable" && isAlive(held))) continue;
    endMarked(basename(folder));
    removeFolder(folder);
  }
}
