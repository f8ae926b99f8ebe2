/** combwork 1.4: hives, frames, and what happens to them. */

export const MAX_FRAMES = 10;

export class Frame {
  constructor(
    readonly kind: string,
    readonly grams: number,
  ) {}
}

export class Hive {
  frames: Frame[] = [];
  readonly handlers = new Map<string, ((hive: Hive) => void)[]>();

  constructor(
    readonly name: string,
    readonly size: number,
  ) {}

  add(frame: Frame): void {
    this.frames.push(frame);
  }

  get mass(): number {
    return this.frames.reduce((sum, frame) => sum + frame.grams, 0);
  }

  weigh(tare: number, unit: "kg" | "g"): number {
    const grams = this.mass - tare;
    return unit === "kg" ? grams / 1000 : grams;
  }

  on(event: "swarm", handler: (hive: Hive) => void): void {
    this.handlers.set(event, [...(this.handlers.get(event) ?? []), handler]);
  }

  split(): void {
    this.frames = this.frames.slice(0, Math.floor(this.frames.length / 2));
    for (const handler of this.handlers.get("swarm") ?? []) handler(this);
  }
}

export function openHive(name: string, size: number): Hive {
  return new Hive(name, size);
}

export function countFrames(hives: Hive[]): number {
  return hives.reduce((sum, hive) => sum + hive.frames.length, 0);
}

export function names(hives: Hive[]): string[] {
  return hives.map((hive) => hive.name);
}

export function drain(hive: Hive): number {
  const honey = hive.mass;
  hive.frames = [];
  return honey;
}
