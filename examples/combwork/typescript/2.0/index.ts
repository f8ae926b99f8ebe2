/** combwork 2.0: frames have a module of their own, and hives are opened with an object. */
import type { Frame } from "./frames.ts";

export const Limits = { frames: 10 } as const;

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

  mass(): number {
    return this.frames.reduce((sum, frame) => sum + frame.grams, 0);
  }

  weigh(tare: number, unit: "kg" | "g"): number {
    const grams = this.mass() - tare;
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

export function openHive(wish: { name: string; frames: number }): Hive {
  return new Hive(wish.name, wish.frames);
}

export function frameCount(hives: Hive[]): number {
  return hives.reduce((sum, hive) => sum + hive.frames.length, 0);
}

export function* names(hives: Hive[]): Generator<string> {
  for (const hive of hives) yield hive.name;
}

export function drain(hive: Hive): number {
  const honey = hive.mass();
  hive.frames = [];
  return honey;
}
