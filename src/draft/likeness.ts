/** From 0 to 1: how much of two lists is the same, whatever the order; 0 for two empty ones (Dice's coefficient). */
export function shareOfSame(a: readonly string[], b: readonly string[]): number {
  const left = new Map<string, number>();
  for (const one of a) left.set(one, (left.get(one) ?? 0) + 1);
  let same = 0;
  for (const one of b) {
    const count = left.get(one) ?? 0;
    if (count === 0) continue;
    left.set(one, count - 1);
    same++;
  }
  return a.length + b.length === 0 ? 0 : (2 * same) / (a.length + b.length);
}
