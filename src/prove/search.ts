/** What came of trying some of the items together. */
export interface Trial<Why = unknown> {
  readonly passes: boolean;
  /** Items that what went wrong points at; empty where it points at none. */
  readonly blamed: ReadonlySet<number>;
  /** Those among them that it points at by themselves, and not only at something near them. */
  readonly exact?: ReadonlySet<number>;
  /**
   * The cells in which something went wrong, where all that went wrong has a place in one: then those of the other cells are
   * in order. Undefined where that cannot be said.
   */
  readonly cells?: ReadonlySet<number>;
  readonly why?: Why;
}

/** How much larger than the last group that passed the next one may be. */
const GROWTH = 8;
/** Up to how many items that are set aside are each tried once more by themselves. */
const MOST_AGAIN = 30;

/** What is searched in. Items are numbers from 0. */
export interface Search<Why> {
  readonly count: number;
  /** What belongs together so closely that one part may go wrong for another: items of one cell are never told apart by places. */
  cellOf(item: number): number;
  /** Tries some items together. May be asked several times at once. */
  attempt(items: readonly number[]): Promise<Trial<Why>>;
  /** How many attempts may run at the same time. */
  readonly atOnce: number;
}

/** The largest set that passes, as far as it was looked for, and what is not in it. */
export interface Found<Why> {
  readonly kept: readonly number[];
  /** Each with what went wrong with it and a part of those that are kept. */
  readonly setAside: ReadonlyMap<number, Trial<Why>>;
}

/** How often what messages point at is taken out before it is no help any more. */
const MOST_ROUNDS = 20;

/**
 * Finds the largest set of items that passes, where all of them together fail.
 *
 * First it takes out what the messages point at, as long as they point at something. What is left passes, or is divided:
 * halves are tried on top of what is known to pass, and a half that fails is halved again. That is adaptive group testing by
 * binary splitting; d culprits among n items cost about d · log2(n / d) attempts. Where everything that goes wrong has a place
 * in a file, the files are divided at the same time in one attempt.
 *
 * What holds: the set that is kept passed as a whole, and each item set aside failed together with a part of it. Where an item
 * that is added never heals what fails without it, nothing that is set aside could be added to what is kept; where each
 * culprit fails by itself, no larger set passes.
 */
export async function largestPassing<Why>(search: Search<Why>, known?: Trial<Why>): Promise<Found<Why>> {
  return new Division(search).run(known);
}

class Division<Why> {
  readonly #search: Search<Why>;
  readonly #failed: ReadonlySet<number>[] = [];
  readonly #setAside = new Map<number, Trial<Why>>();
  #kept: number[] = [];
  /** Up to how many items are tried together next, beyond what one group has. */
  #reach = 0;

  constructor(search: Search<Why>) {
    this.#search = search;
  }

  async run(known?: Trial<Why>): Promise<Found<Why>> {
    const all = Array.from({ length: this.#search.count }, (_, i) => i);
    const first = known ?? (await this.#attempt(all));
    if (first.passes) return this.#found(all);
    this.#failed.push(new Set(all));
    let trial = first;
    let good = all;
    const suspects: number[] = [];
    for (let round = 0; round < MOST_ROUNDS && !trial.passes; round++) {
      const { blamed } = trial;
      const rest = good.filter((item) => !blamed.has(item));
      if (rest.length === good.length || rest.length === 0) break;
      suspects.push(...good.filter((item) => blamed.has(item)));
      good = rest;
      trial = await this.#attempt(good);
    }
    this.#kept = trial.passes ? good : [];
    const rest = trial.passes ? suspects : [...good, ...suspects];
    const byCells = first.cells !== undefined && (await this.#growByCells(rest));
    if (!byCells) {
      const left = rest.filter((item) => !this.#kept.includes(item) && !this.#setAside.has(item));
      await this.#grow(left.length > 0 ? [left] : []);
    }
    await this.#again();
    return this.#found(this.#kept);
  }

  #found(kept: readonly number[]): Found<Why> {
    return { kept: sorted(kept), setAside: this.#setAside };
  }

  async #attempt(items: readonly number[]): Promise<Trial<Why>> {
    const trial = await this.#search.attempt(sorted(items));
    if (!trial.passes) this.#failed.push(new Set(items));
    return trial;
  }

  /** Adding something does not heal: what has all of a set that failed fails too. */
  #isKnownToFail(items: readonly number[]): boolean {
    const set = new Set(items);
    return this.#failed.some(
      (failed) => failed.size <= set.size && [...failed].every((item) => set.has(item)),
    );
  }

  /** Adds to what is kept as much as passes of these groups. */
  async #grow(groups: readonly (readonly number[])[]): Promise<void> {
    const queue = groups.map((group) => [...group]);
    while (queue.length > 0) {
      const batch = this.#nextOf(queue);
      const trials = await Promise.all(batch.map(([group, knownToFail]) => this.#tried(group, knownToFail)));
      this.#reach = Math.max(
        0,
        ...batch.map(([group], i) => (trials[i]!.passes ? GROWTH * group.length : 0)),
      );
      const passing = batch.flatMap(([group], i) => (trials[i]!.passes ? [group] : []));
      const parts = batch.flatMap(([group], i) =>
        trials[i]!.passes ? [] : this.#divided(group, trials[i]!),
      );
      queue.unshift(...parts);
      const [first, ...others] = passing;
      if (!first) continue;
      const together = [...this.#kept, ...passing.flat()];
      if (others.length === 0 || (await this.#attempt(together)).passes) this.#kept = together;
      else {
        // Each passes by itself, and they do not pass together.
        this.#kept.push(...first);
        queue.unshift(...others);
      }
    }
  }

  /** Takes as many groups from the queue as may be tried at once; one that is known to fail costs nothing. */
  #nextOf(queue: number[][]): [number[], boolean][] {
    const batch: [number[], boolean][] = [];
    let attempts = 0;
    while (queue.length > 0 && attempts < this.#search.atOnce) {
      const group = queue.shift()!;
      const isKnown = (items: readonly number[]): boolean => this.#isKnownToFail([...this.#kept, ...items]);
      const knownToFail = isKnown(group);
      if (!knownToFail) {
        attempts++;
        // Where the last group passed, several that stand ahead of it in size may as well.
        while (queue.length > 0 && group.length + queue[0]!.length <= this.#reach) {
          if (isKnown([...group, ...queue[0]!])) break;
          group.push(...queue.shift()!);
        }
      }
      batch.push([group, knownToFail]);
    }
    return batch;
  }

  async #tried(group: readonly number[], knownToFail: boolean): Promise<Trial<Why>> {
    return knownToFail ? { passes: false, blamed: new Set() } : this.#attempt([...this.#kept, ...group]);
  }

  /** The parts of a group that fails, the likelier ones first; one item is set aside. */
  #divided(group: readonly number[], trial: Trial<Why>): number[][] {
    const told = group.length === 1 ? group : group.filter((item) => trial.exact?.has(item));
    if (told.length > 0) {
      for (const item of told) this.#setAside.set(item, trial);
      const others = group.filter((item) => !told.includes(item));
      return others.length > 0 ? [others] : [];
    }
    const rest = group.filter((item) => !trial.blamed.has(item));
    if (rest.length > 0 && rest.length < group.length)
      return [rest, group.filter((item) => trial.blamed.has(item))];
    const half = Math.ceil(group.length / 2);
    return [group.slice(0, half), group.slice(half)];
  }

  /**
   * The same, for all cells in each attempt. Gives false, with the rest still to do, where something goes wrong that no cell
   * in play accounts for.
   */
  async #growByCells(items: readonly number[]): Promise<boolean> {
    const cells = new Map<number, number[][]>();
    for (const item of items) {
      const cell = this.#search.cellOf(item);
      const known = cells.get(cell);
      if (known) known[0]!.push(item);
      else cells.set(cell, [[item]]);
    }
    const sure = [...this.#kept];
    while (cells.size > 0) {
      const batch = [...cells].map(([cell, groups]) => ({ cell, group: groups.shift()! }));
      const together = batch.flatMap(({ group }) => group);
      const trial = await this.#attempt([...this.#kept, ...together]);
      const isFailing = (cell: number): boolean => !trial.passes && trial.cells!.has(cell);
      if (!trial.passes && !batch.some(({ cell }) => trial.cells?.has(cell))) {
        this.#kept = sure;
        return false;
      }
      for (const { cell, group } of batch) {
        if (isFailing(cell)) cells.get(cell)!.unshift(...this.#divided(group, trial));
        else this.#kept.push(...group);
        if (cells.get(cell)!.length === 0) cells.delete(cell);
      }
    }
    if ((await this.#attempt(this.#kept)).passes) return true;
    this.#kept = sure;
    return false;
  }

  /**
   * Tries what was set aside once more on top of all that is kept, since it may have been for another's fault. Many that
   * messages point at are tried in a few parts; those that they do not point at any more are divided.
   */
  async #again(): Promise<void> {
    const doubtful = sorted([...this.#setAside.keys()]);
    if (doubtful.length > MOST_AGAIN) {
      // Neighbours, which are most often taken for each other, come into different parts; others do in one of two ways.
      const root = Math.ceil(Math.sqrt(doubtful.length));
      const parts = [root, root + 1].flatMap((count) =>
        Array.from({ length: count }, (_, part) => doubtful.filter((_, i) => i % count === part)),
      );
      const open = new Set<number>();
      for (const part of parts) {
        const trial = await this.#search.attempt(sorted([...this.#kept, ...part]));
        for (const item of part) {
          if (trial.exact?.has(item)) this.#setAside.set(item, trial);
          else open.add(item);
        }
      }
      for (const item of open) this.#setAside.delete(item);
      await this.#grow(open.size > 0 ? [[...open]] : []);
      return;
    }
    for (const item of doubtful) {
      const trial = await this.#search.attempt(sorted([...this.#kept, item]));
      if (trial.passes) {
        this.#kept.push(item);
        this.#setAside.delete(item);
      } else this.#setAside.set(item, trial);
    }
  }
}

function sorted(items: readonly number[]): number[] {
  return [...items].sort((a, b) => a - b);
}
