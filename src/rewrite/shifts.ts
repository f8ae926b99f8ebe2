import { countLeading } from "../syntax/index.js";
import { sorted, type Edit } from "./edits.js";

/** By how many code units an edit makes a text longer. */
export function growth({ start, end, text }: Edit): number {
  return text.length - (end - start);
}

/** Where the places of a text are after some edits, and where they were before. */
export class Shifts {
  readonly #edits: readonly Edit[];
  /** For each edit, the growth of all before it; one entry more for what is behind the last. */
  readonly #before: readonly number[];

  #places: ReadonlyMap<Edit, number> | undefined;

  constructor(edits: readonly Edit[]) {
    this.#edits = sorted(edits);
    const before = [0];
    for (const edit of this.#edits) before.push(before.at(-1)! + growth(edit));
    this.#before = before;
  }

  /** Where the new text of one of the edits begins; of those at one place each stands behind the one before. */
  startOf(edit: Edit): number {
    this.#places ??= new Map(this.#edits.map((one, i) => [one, this.#newStart(i)]));
    return this.#places.get(edit)!;
  }

  /** By how much the edits that begin before a place of the old text move it. */
  at(offset: number): number {
    return this.#before[this.#countBelow((i) => this.#edits[i]!.start < offset)]!;
  }

  /** By how much the edits that begin before a place of the new text have moved what stands there. */
  beforeNew(offset: number): number {
    return this.#before[this.#countBelow((i) => this.#newStart(i) < offset)]!;
  }

  /** Where code of the new text stood in the old one; undefined for code that an edit touches. */
  original(start: number, end: number): number | undefined {
    // The first edit that does not lie wholly before the code.
    const i = this.#countBelow((k) => this.#newStart(k) + this.#edits[k]!.text.length < start);
    const touches = i < this.#edits.length && this.#newStart(i) <= end;
    return touches ? undefined : start - this.#before[i]!;
  }

  /** Does one of the edits touch this range of the old text? */
  touches(start: number, end: number): boolean {
    const first = this.#edits[this.#countBelow((i) => this.#edits[i]!.end < start)];
    return first !== undefined && first.start <= end;
  }

  #newStart(i: number): number {
    return this.#edits[i]!.start + this.#before[i]!;
  }

  #countBelow(holds: (i: number) => boolean): number {
    return countLeading(this.#edits.length, holds);
  }
}
