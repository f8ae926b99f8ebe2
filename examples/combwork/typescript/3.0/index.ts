/** combwork 3.0: a hive with bees in it is a colony. */
import type { Frame } from "./frames.ts";

export const Limits = { frames: 10 } as const;

export class Colony {
  frames: Frame[] = [];
  readonly handlers = new Map<string, ((colony: Colony) => void)[]>();

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

  weightIn(unit: "kg" | "g", tare: number): number {
    const grams = this.mass() - tare;
    return unit === "kg" ? grams / 1000 : grams;
  }

  on(event: "swarmed", handler: (colony: Colony) => void): void {
    if (event !== "swarmed") throw new Error(`a colony knows no event ${String(event)}`);
    this.handlers.set(event, [...(this.handlers.get(event) ?? []), handler]);
  }

  split(): void {
    this.frames = this.frames.slice(0, Math.floor(this.frames.length / 2));
    for (const handler of this.handlers.get("swarmed") ?? []) handler(this);
  }
}

export function openHive(wish: { name: string; frames: number }): Colony {
  return new Colony(wish.name, wish.frames);
}

export function frameCount(hives: Colony[]): number {
  return hives.reduce((sum, hive) => sum + hive.frames.length, 0);
}

export function* names(hives: Colony[]): Generator<string> {
  for (const hive of hives) yield hive.name;
}
