import { createHash } from "node:crypto";
import { statSync } from "node:fs";

/** Times, size and place on the disk of a file, which change with its content; undefined where it is not there. */
export function stampOf(file: string): string | undefined {
  try {
    const { mtimeMs, ctimeMs, size, ino } = statSync(file);
    return `${mtimeMs} ${ctimeMs} ${size} ${ino}`;
  } catch {
    return undefined;
  }
}

/** The time in milliseconds at which the file of a stamp was written or replaced last. */
export function timeOf(stamp: string): number {
  const [written, changed] = stamp.split(" ").map(Number);
  return Math.max(written ?? 0, changed ?? 0);
}

/** The bytes of a file by a stamp. */
export const sizeOf = (stamp: string): number => Number(stamp.split(" ")[2] ?? 0);

/** Of the bytes of a file. */
export function hashOf(bytes: Uint8Array): string {
  return createHash("sha256").update(bytes).digest("base64");
}
