import { comparisonsOf, type Check } from "../node/index.js";
import type { Progress } from "./account.js";
import { observed, type Ran } from "./compare.js";
import type { Copy } from "./copy.js";
import { runCheck } from "./run.js";
import type { Scratch } from "./scratch.js";

/** What checks run in. */
interface Around {
  readonly checks: readonly Check[];
  readonly signal?: AbortSignal;
  readonly progress?: (event: Progress) => void;
}

/** Runs checks in copies of a project, and counts how often. */
export class Runner {
  readonly #around: Around;
  readonly #scratch: Scratch;
  readonly #signal: AbortSignal;
  /** What ran in a copy since it was reset. */
  readonly #ran = new Map<Copy, string[]>();
  readonly #free: Copy[] = [];
  #runs = 0;

  constructor(around: Around, scratch: Scratch) {
    this.#around = around;
    this.#scratch = scratch;
    this.#signal = around.signal ?? new AbortController().signal;
  }

  get runs(): number {
    return this.#runs;
  }

  /** Runs a check in a copy, after those that it needs; in a clean copy, unless just these have run in it. */
  async observe(check: Check, copy: Copy, on: "old" | "new", again = false): Promise<Ran> {
    this.#around.progress?.({ is: "running", check: check.name, on });
    const needed = this.#neededBy(check);
    const ran = this.#ran.get(copy);
    const isReady =
      !again &&
      ran !== undefined &&
      needed.length > 0 &&
      ran.join("\0") === needed.map(({ name }) => name).join("\0");
    if (!isReady) {
      copy.reset([...needed, check].flatMap(({ keeps = [] }) => keeps));
      for (const one of needed) await this.#runIn(one, copy);
    }
    this.#ran.set(copy, [...needed.map(({ name }) => name), check.name]);
    return observed(check, copy, await this.#runIn(check, copy));
  }

  #runIn(check: Check, copy: Copy): ReturnType<typeof runCheck> {
    this.#runs++;
    const watchesMemory = check.megabytes !== undefined || comparisonsOf(check).includes("memory");
    return runCheck(check, copy.folder, { mark: copy.mark, signal: this.#signal, watchesMemory });
  }

  /** The checks that run before one, each after those that it needs itself. */
  #neededBy({ after = [] }: Check): Check[] {
    const named = this.#around.checks.filter(({ name }) => after.includes(name));
    return [...new Set(named.flatMap((one) => [...this.#neededBy(one), one]))];
  }

  /** A copy that nobody uses. */
  take(): Copy {
    return this.#free.pop() ?? this.#scratch.copy();
  }

  /** Gives a copy back, for others. */
  free(copy: Copy): void {
    this.#ran.delete(copy);
    this.#free.push(copy);
  }
}
