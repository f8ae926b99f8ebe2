/** Of so many entries, the number for which something holds that holds for the first ones only; by halving. */
export function countLeading(size: number, holds: (i: number) => boolean): number {
  let low = 0;
  for (let high = size; low < high;) {
    const middle = (low + high) >> 1;
    if (holds(middle)) low = middle + 1;
    else high = middle;
  }
  return low;
}
