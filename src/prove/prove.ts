import { comparisonsOf, type Check, type ScratchConfig } from "../node/index.js";
import type { Account, Progress, Proof, SetAside } from "./account.js";
import type { Candidates } from "./candidates.js";
import { compareRuns, isDone, type Ran } from "./compare.js";
import type { Copy, Replacements } from "./copy.js";
import { Culprits } from "./culprits.js";
import { figureOf, type Figure } from "./figures.js";
import { reasonFailing, reasonSkipped } from "./idle.js";
import { KnownTrials } from "./known-trials.js";
import { Runner } from "./runner.js";
import { Scratch } from "./scratch.js";

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

class Prover {
  readonly #task: Task;
  readonly #runner: Runner;
  readonly #before: Copy;

  constructor(task: Task, scratch: Scratch) {
    this.#task = task;
    this.#runner = new Runner(task, scratch);
    this.#before = this.#runner.take();
    this.#before.put(task.before ?? NOTHING);
  }

  async run(): Promise<Account> {
    const { candidates, after = NOTHING } = this.#task;
    const proofs = await this.#proofs(after);
    const all = candidates?.changes ?? [];
    const account = { proofs, runs: 0, unreadable: this.#before.copied.unreadable };
    const isDifferent = proofs.some(({ verdict }) => verdict === "different");
    if (!isDifferent || candidates === undefined || this.#task.searches === false)
      return { ...account, kept: all, final: proofs, setAside: [], unsettled: [], runs: this.#runner.runs };
    const known = new KnownTrials(this.#task.root, this.#before.copied, this.#task.checks);
    const culprits = new Culprits({ ...this.#task, candidates }, this.#runner, known);
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
        const found = await culprits.find(proof, kept, number === 0);
        if (typeof found === "string") unsettled.set(proof.check.name, found);
        else {
          setAside.push(...found);
          kept = kept.filter((change) => !found.some((one) => one.change === change));
        }
      }
      final = await this.#proofs(await candidates.texts(kept), proofs);
    }
    for (const [i, { verdict, check, why }] of final.entries()) {
      if (unsettled.has(check.name) || verdict === "same" || proofs[i]!.verdict !== "different") continue;
      unsettled.set(check.name, why ?? "what is kept still fails, with other changes each time");
    }
    return {
      ...account,
      kept,
      final,
      setAside,
      unsettled: [...unsettled].map(([check, why]) => ({ check, why })),
      runs: this.#runner.runs,
    };
  }

  /** All checks on old code and on these texts; what is known of the old code is taken from `known`. */
  async #proofs(after: Replacements, known?: readonly Proof[]): Promise<Proof[]> {
    const copy = this.#runner.take();
    copy.put(after);
    const proofs: Proof[] = [];
    for (const [i, check] of this.#task.checks.entries()) {
      const figures = comparisonsOf(check).filter((one) => one === "time" || one === "memory");
      const before = known?.[i]?.before ?? (await this.#runner.observe(check, this.#before, "old"));
      const now = await this.#runner.observe(check, copy, "new");
      const proof = await this.#judged(check, before, now, copy);
      const counts = proof.verdict === "same" && figures.length > 0 && known === undefined;
      proofs.push(counts ? { ...proof, figures: await this.#figures(check, copy, figures, proof) } : proof);
    }
    this.#runner.free(copy);
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
    const again = await this.#runner.observe(check, this.#before, "old", true);
    if (!compareRuns(check, before, again).same)
      return { ...proof, verdict: "flaky", why: "it did not do the same twice on the old code" };
    const anew = await this.#runner.observe(check, copy, "new", true);
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
      old.push(await this.#runner.observe(check, this.#before, "old", true));
      now.push(await this.#runner.observe(check, copy, "new", true));
    }
    return wanted.flatMap((what) => {
      const numbers = (runs: readonly Ran[]): number[] =>
        runs.flatMap(({ milliseconds, memory }) => (what === "time" ? milliseconds : (memory ?? [])));
      const [before, after] = [numbers(old), numbers(now)];
      return before.length === 0 || after.length === 0 ? [] : [figureOf(what, before, after)];
    });
  }
}
