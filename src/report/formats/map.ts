import { hierarchy, treemap } from "d3-hierarchy";

/** A rectangle of a map, in per cent of its width and height. */
export interface Tile<T> {
  readonly of: T;
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
}

interface Branch<T> {
  readonly of?: T;
  readonly children?: readonly Branch<T>[];
}

/** Lays things out on a map that is twice as wide as high, each with an area in proportion to its weight. */
export function laidOut<T>(things: readonly T[], weightOf: (thing: T) => number): Tile<T>[] {
  const root = hierarchy<Branch<T>>({ children: things.map((of) => ({ of })) })
    .sum(({ of }) => (of === undefined ? 0 : weightOf(of)))
    .sort((a, b) => (b.value ?? 0) - (a.value ?? 0));
  return treemap<Branch<T>>()
    .size([200, 100])(root)
    .leaves()
    .flatMap(({ data: { of }, x0, x1, y0, y1 }) => {
      const [left, width] = [percent(x0 / 2), percent((x1 - x0) / 2)];
      const [top, height] = [percent(y0), percent(y1 - y0)];
      return of === undefined || width * height === 0 ? [] : [{ of, left, top, width, height }];
    });
}

const percent = (share: number): number => Math.round(share * 100) / 100;
