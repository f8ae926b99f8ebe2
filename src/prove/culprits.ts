import { availableParallelism } from "node:os";
import { messageOf, Problem } from "../node/index.js";
import { PlanError, type PlanChange } from "../plan/index.js";
import type { Progress, Proof, SetAside } from "./account.js";
import type { Candidates } from "./candidates.js";
import { compareRuns, type Compared } from "./compare.js";
import type { Replacements } from "./copy.js";
import type { KnownTrials } from "./known-trials.js";
import type { Runner } from "./runner.js";
import { largestPassing, type Trial } from "./search.js";
import { cellsOf, filesOf, namedBy, suspectsOf } from "./suspects.js";

/** Compilers and test runners use several cores themselves: half of them are taken, and not more than this. */
const MOST_AT_ONCE = 4;

/** What is different with a change, for people. */
type Why = (change: PlanChange) => readonly string[];

/** What culprits are looked for in. */
interface Around {
  readonly candidates: Candidates;
  readonly atOnce?: number | undefined;
  readonly progress?: ((event: Progress) => void) | undefined;
}

/** Finds the changes to which it is due that checks are different. */
export class Culprits {
  readonly #around: Around;
  readonly #runner: Runner;
  readonly #known: KnownTrials;

  constructor(around: Around, runner: Runner, known: KnownTrials) {
    this.#around = around;
    this.#runner = runner;
    this.#known = known;
  }

  /**
   * The changes among `changes` to which it is due that a check is different; or why that cannot be said. `isKnown` says that
   * the proof is of all of them.
   */
  async find(
    proof: Proof,
    changes: readonly PlanChange[],
    isKnown: boolean,
  ): Promise<readonly SetAside[] | string> {
    const { check } = proof;
    const cells = cellsOf(changes);
    const attempt = (items: readonly number[]): Promise<Trial<Why>> =>
      this.#attempt(proof, changes, items, cells);
    const none = await attempt([]);
    if (!none.passes) return "it is different even without any change";
    const known = isKnown ? await this.#trial(proof, proof.compared, changes, cells) : undefined;
    const all = changes.map((_, i) => i);
    const first = known ?? (await attempt(all));
    if (first.passes) return [];
    const atOnce = check.alone
      ? 1
      : (this.#around.atOnce ?? Math.min(MOST_AT_ONCE, Math.max(1, Math.floor(availableParallelism() / 2))));
    const { setAside } = await largestPassing<Why>(
      { count: changes.length, cellOf: (item) => cells[item]!, attempt, atOnce },
      first,
    );
    return [...setAside].map(([item, { why }]) => ({
      change: changes[item]!,
      check: check.name,
      lines: why?.(changes[item]!) ?? [],
    }));
  }

  async #attempt(
    proof: Proof,
    changes: readonly PlanChange[],
    items: readonly number[],
    cells: readonly number[],
  ): Promise<Trial<Why>> {
    const { check, before } = proof;
    const set = items.map((item) => changes[item]!);
    this.#around.progress?.({
      is: "searching",
      check: check.name,
      runs: this.#runner.runs,
      changes: changes.length,
    });
    let texts: Replacements;
    try {
      texts = await this.#around.candidates.texts(set);
    } catch (error) {
      if (!(error instanceof PlanError) && !(error instanceof Problem)) throw error;
      return { passes: false, blamed: new Set(), why: () => [messageOf(error)] };
    }
    const key = this.#known.keyOf(check, before, texts);
    const known = this.#known.get(key);
    const compared = known ?? (await this.#compared(proof, texts));
    if (known === undefined) this.#known.set(key, compared);
    return this.#trial(proof, compared, changes, cells, items);
  }

  async #compared({ check, before }: Proof, texts: Replacements): Promise<Compared> {
    const copy = this.#runner.take();
    try {
      copy.put(texts);
      return compareRuns(check, before, await this.#runner.observe(check, copy, "new", true));
    } finally {
      this.#runner.free(copy);
    }
  }

  /** What a comparison says of the changes that were made. */
  async #trial(
    { check }: Proof,
    compared: Compared,
    changes: readonly PlanChange[],
    cells: readonly number[],
    items: readonly number[] = changes.map((_, i) => i),
  ): Promise<Trial<Why>> {
    if (compared.same) return { passes: true, blamed: new Set() };
    const set = items.map((item) => changes[item]!);
    const folder = check.in ?? "";
    const { exact, near } = await suspectsOf(compared.places, set, this.#around.candidates.textOf, folder);
    const named = exact.size + near.size === 0 ? namedBy(check, set) : undefined;
    const isBlamed = (change: PlanChange): boolean =>
      named ? named.has(change) : exact.has(change) || near.has(change);
    const paths = compared.isPlaced ? filesOf(compared.places, set, folder) : undefined;
    const failing =
      paths && items.filter((item) => paths.has(changes[item]!.path) || touches(changes[item]!, paths));
    return {
      passes: false,
      blamed: new Set(items.filter((item) => isBlamed(changes[item]!))),
      exact: new Set(items.filter((item) => exact.has(changes[item]!))),
      ...(failing ? { cells: new Set(failing.map((item) => cells[item]!)) } : {}),
      why: (change) => {
        const own = exact.get(change) ?? [];
        return own.length > 0 ? own : compared.lines;
      },
    };
  }
}

function touches({ elsewhere }: PlanChange, paths: ReadonlySet<string>): boolean {
  return elsewhere.some(({ path }) => paths.has(path));
}
