import { availableParallelism } from "node:os";
import { comparisonsOf, messageOf, Problem, type Check, type ScratchConfig } from "../node/index.js";
import { PlanError, type PlanChange } from "../plan/index.js";
import type { Candidates } from "./candidates.js";
import { compareRuns, isDone, observed, type Compared, type Ran } from "./compare.js";
import type { Copy, Replacements } from "./copy.js";
import { figureOf, type Figure } from "./figures.js";
import { reasonFailing, reasonSkipped } from "./idle.js";
import { KnownTrials } from "./known-trials.js";
import { runCheck } from "./run.js";
import { Scratch } from "./scratch.js";
import { largestPassing, type Trial } from "./search.js";
import { cellsOf, filesOf, suspectsOf } from "./suspects.js";

/** One check on the old code and on the new. */
export interface Proof {
  readonly check: Check;
  readonly before: Ran;
  readonly after: Ran;
  /**
   * `same`: the new code does what the old did, as far as the check compares it. `different`: it does not. `skipped`: the
   * check did not run. `failing`: it fails on the old code already. `flaky`: it does not do the same twice. The last three
   * prove nothing.
   */
  readonly verdict: "same" | "different" | "skipped" | "failing" | "flaky";
  /** Why it proves nothing, in the check's own words where it has some. */
  readonly why?: string;
  readonly compared: Compared;
  readonly figures: readonly Figure[];
}

/** A change that checks do not stand. */
export interface SetAside {
  readonly change: PlanChange;
  readonly check: string;
  /** What is different with it, for people. */
  readonly lines: readonly string[];
}

/** What a proof came to. */
export interface Account {
  /** All changes together, as they were asked for. */
  readonly proofs: readonly Proof[];
  /** What is kept, and how the checks do with it: the same as `proofs` where nothing was set aside. */
  readonly kept: readonly PlanChange[];
  readonly final: readonly Proof[];
  readonly setAside: readonly SetAside[];
  /** Checks whose culprit was not found, with the reason. */
  readonly unsettled: readonly { readonly check: string; readonly why: string }[];
  /** How often a check was run. */
  readonly runs: number;
  /** What could not be copied, and was not there for the checks. */
  readonly unreadable: readonly string[];
}

/** Something to tell somebody who waits. */
export type Progress =
  | { readonly is: "running"; readonly check: string; readonly on: "old" | "new" }
  | { readonly is: "searching"; readonly check: string; readonly runs: number; readonly changes: number };

/** What is to be proved, and how. */
export interface Task {
  readonly root: string;
  readonly checks: readonly Check[];
  readonly scratch?: ScratchConfig;
  /** Texts of the old code, where it is not what the project has now. */
  readonly before?: Replacements;
  /** Texts of the new code, where it is not what the project has now. */
  readonly after?: Replacements;
  /** The changes that the new code consists of; without them no culprit is looked for. */
  readonly candidates?: Candidates;
  /** Are culprits looked for? They are where nothing is said. */
  readonly searches?: boolean;
  /** How many checks may run at the same time while a culprit is looked for. */
  readonly atOnce?: number;
  /** Ends it. */
  readonly signal?: AbortSignal;
  readonly progress?: (event: Progress) => void;
}

const MOST_AT_ONCE = 4;
const DEFAULT_RUNS = 5;
/** How often the search begins anew, because what is kept fails for another reason. */
const MOST_SEARCHES = 5;
const NOTHING: Replacements = new Map();

/**
 * Runs each check in scratch copies of the project, with the old and with the new texts in place. Where changes are given and
 * a check is not the same, it finds the largest set of them with which all checks are. The project itself is only read.
 * Throws a Problem when it is interrupted.
 */
export async function prove(task: Task): Promise<Account> {
  const scratch = new Scratch(task.root, task.scratch ?? {});
  try {
    return await new Prover(task, scratch).run();
  } catch (error) {
    throw scratch.explain(error);
  } finally {
    await scratch.close();
  }
}

/** What is different with a change, for people. */
type Why = (change: PlanChange) => readonly string[];

class Prover {
  readonly #task: Task;
  readonly #scratch: Scratch;
  readonly #signal: AbortSignal;
  readonly #before: Copy;
  /** What ran in a copy since it was reset. */
  readonly #ran = new Map<Copy, string[]>();
  readonly #free: Copy[] = [];
  #known: KnownTrials | undefined;
  #runs = 0;

  constructor(task: Task, scratch: Scratch) {
    this.#task = task;
    this.#scratch = scratch;
    this.#signal = task.signal ?? new AbortController().signal;
    this.#before = scratch.copy();
    this.#before.put(task.before ?? NOTHING);
  }

  async run(): Promise<Account> {
    const { candidates, after = NOTHING } = this.#task;
    const proofs = await this.#proofs(after);
    const all = candidates?.changes ?? [];
    const account = { proofs, runs: 0, unreadable: this.#before.copied.unreadable };
    const isDifferent = proofs.some(({ verdict }) => verdict === "different");
    if (!isDifferent || candidates === undefined || this.#task.searches === false)
      return { ...account, kept: all, final: proofs, setAside: [], unsettled: [], runs: this.#runs };
    let kept = all;
    let final = proofs;
    const setAside: SetAside[] = [];
    const unsettled = new Map<string, string>();
    for (let i = 0; i < MOST_SEARCHES; i++) {
      const open = final.filter(
        ({ verdict, check }) => verdict === "different" && !unsettled.has(check.name),
      );
      if (open.length === 0) break;
      for (const [number, proof] of open.entries()) {
        const found = await this.#search(proof, candidates, kept, number === 0);
        if (typeof found === "string") unsettled.set(proof.check.name, found);
        else {
          setAside.push(...found);
          kept = kept.filter((change) => !found.some((one) => one.change === change));
        }
      }
      final = await this.#proofs(await candidates.texts(kept), proofs);
    }
    for (const { verdict, check } of final)
      if (verdict === "different" && !unsettled.has(check.name))
        unsettled.set(check.name, "what is kept still fails, with other changes each time");
    return {
      ...account,
      kept,
      final,
      setAside,
      unsettled: [...unsettled].map(([check, why]) => ({ check, why })),
      runs: this.#runs,
    };
  }

  /** All checks on old code and on these texts; what is known of the old code is taken from `known`. */
  async #proofs(after: Replacements, known?: readonly Proof[]): Promise<Proof[]> {
    const copy = this.#take();
    copy.put(after);
    this.#ran.delete(copy);
    const proofs: Proof[] = [];
    for (const [i, check] of this.#task.checks.entries()) {
      const figures = comparisonsOf(check).filter((one) => one === "time" || one === "memory");
      const before = known?.[i]?.before ?? (await this.#observe(check, this.#before, "old"));
      const now = await this.#observe(check, copy, "new");
      const proof = await this.#judged(check, before, now, copy);
      const counts = proof.verdict === "same" && figures.length > 0 && known === undefined;
      proofs.push(counts ? { ...proof, figures: await this.#figures(check, copy, figures, proof) } : proof);
    }
    this.#free.push(copy);
    return proofs;
  }

  async #judged(check: Check, before: Ran, after: Ran, copy: Copy): Promise<Proof> {
    const compared = compareRuns(check, before, after);
    const proof = { check, before, after, compared, figures: [] };
    const skipped = reasonSkipped(before);
    if (skipped !== undefined && before.exit === after.exit)
      return { ...proof, verdict: "skipped", why: skipped };
    const failing = reasonFailing(check, before);
    if (failing !== undefined && (compared.same || before.stopped !== undefined || isDone(check, after)))
      return { ...proof, verdict: "failing", why: failing };
    if (compared.same) return { ...proof, verdict: "same" };
    const again = await this.#observe(check, this.#before, "old", true);
    if (!compareRuns(check, before, again).same)
      return { ...proof, verdict: "flaky", why: "it did not do the same twice on the old code" };
    const anew = await this.#observe(check, copy, "new", true);
    if (compareRuns(check, before, anew).same)
      return {
        ...proof,
        verdict: "flaky",
        why: "on the new code it did what it does on the old one once, and once not",
      };
    return { ...proof, verdict: "different" };
  }

  /** Time and memory, old and new in turn, so that what else the machine does falls on both. */
  async #figures(
    check: Check,
    copy: Copy,
    wanted: readonly ("time" | "memory")[],
    first: { readonly before: Ran; readonly after: Ran },
  ): Promise<Figure[]> {
    const [old, now] = [[first.before], [first.after]];
    for (let i = 1; i < (check.runs ?? DEFAULT_RUNS); i++) {
      old.push(await this.#observe(check, this.#before, "old", true));
      now.push(await this.#observe(check, copy, "new", true));
    }
    return wanted.flatMap((what) => {
      const numbers = (runs: readonly Ran[]): number[] =>
        runs.flatMap(({ milliseconds, memory }) => (what === "time" ? milliseconds : (memory ?? [])));
      const [before, after] = [numbers(old), numbers(now)];
      return before.length === 0 || after.length === 0 ? [] : [figureOf(what, before, after)];
    });
  }

  /** Runs a check in a copy, after those that it needs; in a clean copy, unless just these have run in it. */
  async #observe(check: Check, copy: Copy, on: "old" | "new", again = false): Promise<Ran> {
    this.#task.progress?.({ is: "running", check: check.name, on });
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
    const named = this.#task.checks.filter(({ name }) => after.includes(name));
    return [...new Set(named.flatMap((one) => [...this.#neededBy(one), one]))];
  }

  #take(): Copy {
    return this.#free.pop() ?? this.#scratch.copy();
  }

  /** The changes among `changes` to which it is due that a check is different; or why that cannot be said. */
  async #search(
    proof: Proof,
    candidates: Candidates,
    changes: readonly PlanChange[],
    isKnown: boolean,
  ): Promise<readonly SetAside[] | string> {
    const { check } = proof;
    const cells = cellsOf(changes);
    const attempt = (items: readonly number[]): Promise<Trial<Why>> =>
      this.#attempt(proof, candidates, changes, items, cells);
    const none = await attempt([]);
    if (!none.passes) return "it is different even without any change";
    const known = isKnown ? await this.#trial(proof, proof.compared, changes, candidates, cells) : undefined;
    const all = changes.map((_, i) => i);
    const first = known ?? (await attempt(all));
    if (first.passes) return [];
    const atOnce = check.alone ? 1 : (this.#task.atOnce ?? Math.min(MOST_AT_ONCE, availableParallelism()));
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
    candidates: Candidates,
    changes: readonly PlanChange[],
    items: readonly number[],
    cells: readonly number[],
  ): Promise<Trial<Why>> {
    const { check, before } = proof;
    const set = items.map((item) => changes[item]!);
    this.#task.progress?.({ is: "searching", check: check.name, runs: this.#runs, changes: changes.length });
    let texts: Replacements;
    try {
      texts = await candidates.texts(set);
    } catch (error) {
      if (!(error instanceof PlanError) && !(error instanceof Problem)) throw error;
      return { passes: false, blamed: new Set(), why: () => [messageOf(error)] };
    }
    this.#known ??= new KnownTrials(this.#task.root, this.#before.copied);
    const key = this.#known.keyOf(check, before, texts);
    const known = this.#known.get(key);
    const compared = known ?? (await this.#compared(proof, texts));
    if (known === undefined) this.#known.set(key, compared);
    return this.#trial(proof, compared, changes, candidates, cells, items);
  }

  async #compared({ check, before }: Proof, texts: Replacements): Promise<Compared> {
    const copy = this.#take();
    try {
      copy.put(texts);
      return compareRuns(check, before, await this.#observe(check, copy, "new", true));
    } finally {
      this.#free.push(copy);
    }
  }

  /** What a comparison says of the changes that were made. */
  async #trial(
    { check }: Proof,
    compared: Compared,
    changes: readonly PlanChange[],
    candidates: Candidates,
    cells: readonly number[],
    items: readonly number[] = changes.map((_, i) => i),
  ): Promise<Trial<Why>> {
    if (compared.same) return { passes: true, blamed: new Set() };
    const set = items.map((item) => changes[item]!);
    const folder = check.in ?? "";
    const { exact, near } = await suspectsOf(compared.places, set, candidates.textOf, folder);
    const paths = compared.isPlaced ? filesOf(compared.places, set, folder) : undefined;
    const failing =
      paths && items.filter((item) => paths.has(changes[item]!.path) || touches(changes[item]!, paths));
    return {
      passes: false,
      blamed: new Set(items.filter((item) => exact.has(changes[item]!) || near.has(changes[item]!))),
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
