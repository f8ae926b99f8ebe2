/** A figure of old and new code over several runs. */
export interface Figure {
  readonly what: "time" | "memory";
  readonly before: readonly number[];
  readonly after: readonly number[];
  /** What may be said of it: `alike` where the difference may be chance. */
  readonly is: "less" | "more" | "alike";
}

/** How seldom chance alone may look like a difference. */
const CHANCE = 0.05;
/** A difference of medians below this share is of no use to anybody. */
const SMALLEST = 0.02;

/** Compares the figures of several runs; a difference is only claimed where chance would show such a one less than once in twenty. */
export function figureOf(what: Figure["what"], before: readonly number[], after: readonly number[]): Figure {
  const [old, now] = [median(before), median(after)];
  const isClear = Math.abs(now - old) > SMALLEST * old && chanceOf(before, after) < CHANCE;
  return { what, before, after, is: isClear ? (now < old ? "less" : "more") : "alike" };
}

export function median(numbers: readonly number[]): number {
  const sorted = [...numbers].sort((a, b) => a - b);
  const half = sorted.length / 2;
  return sorted.length % 2 === 1 ? sorted[Math.floor(half)]! : (sorted[half - 1]! + sorted[half]!) / 2;
}

/**
 * How often two samples of the same thing would differ in their ranks as much as these do, or more: the exact two-sided test
 * of ranks by Mann and Whitney (1947). The ways in which m and n numbers can be ordered are counted by the number of pairs in
 * which the first is the larger, with their recurrence.
 */
function chanceOf(a: readonly number[], b: readonly number[]): number {
  const [m, n] = [a.length, b.length];
  const larger = a.reduce((sum, x) => sum + b.reduce((s, y) => s + (x > y ? 1 : x === y ? 0.5 : 0), 0), 0);
  const distance = Math.abs(larger - (m * n) / 2);
  // ways[j][u]: orders of i numbers of the first kind and j of the second with u such pairs
  let ways = Array.from({ length: n + 1 }, () => [1]);
  for (let i = 1; i <= m; i++) {
    const next: number[][] = [[1]];
    for (let j = 1; j <= n; j++) {
      const counts = new Array<number>(i * j + 1).fill(0);
      for (const [u, count] of ways[j]!.entries()) counts[u + j] = (counts[u + j] ?? 0) + count;
      for (const [u, count] of next[j - 1]!.entries()) counts[u] = (counts[u] ?? 0) + count;
      next.push(counts);
    }
    ways = next;
  }
  const orders = ways[n]!;
  const total = orders.reduce((sum, count) => sum + count, 0);
  const far = orders.reduce((sum, count, u) => sum + (Math.abs(u - (m * n) / 2) >= distance ? count : 0), 0);
  return far / total;
}
