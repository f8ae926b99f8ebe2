/** Numbers that look random, and are the same for the same seed on every machine. */
export class Random {
  #state: number;

  constructor(seed: number) {
    this.#state = (seed * 2654435761) >>> 0 || 1;
  }

  /** A whole number from 0 up to, and without, `n` (a linear feedback of shifts, xorshift32). */
  below(n: number): number {
    let x = this.#state;
    x ^= x << 13;
    x ^= x >>> 17;
    x ^= x << 5;
    this.#state = x >>> 0;
    return this.#state % n;
  }

  of<T>(values: readonly T[]): T {
    return values[this.below(values.length)]!;
  }

  /** Each with a chance of one in `n`. */
  some<T>(values: readonly T[], n: number): T[] {
    return values.filter(() => this.below(n) === 0);
  }

  shuffled<T>(values: readonly T[]): T[] {
    const result = [...values];
    for (let i = result.length - 1; i > 0; i--) {
      const j = this.below(i + 1);
      [result[i], result[j]] = [result[j]!, result[i]!];
    }
    return result;
  }
}
