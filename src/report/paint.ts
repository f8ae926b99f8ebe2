import type { createColors } from "picocolors";
import type { Trust } from "../rules/index.js";

/** Functions that colour text, or leave it alone. */
export type Paint = ReturnType<typeof createColors>;

/** The colour of a trust, the same everywhere. */
export function paintTrust(paint: Paint, trust: Trust): (text: string) => string {
  return { certain: paint.green, likely: paint.yellow, possible: paint.magenta }[trust];
}

/** Sign before a piece of evidence. */
export const SIGN = { yes: "✓", unknown: "?", no: "✗" } as const;
