/** Frames, which have a module of their own since 2.0. */
export class Frame {
  constructor(
    readonly kind: string,
    readonly grams: number,
  ) {}
}
