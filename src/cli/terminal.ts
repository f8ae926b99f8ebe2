import { createColors } from "picocolors";
import type { Paint } from "../report/index.js";

/** Help lines with examples. */
export function examples(...lines: readonly string[]): string {
  return "\nExamples:\n" + lines.map((line) => `  ${line}`).join("\n");
}

/** Colours where the output is a terminal and NO_COLOR is not set; none for a file. */
export function paintFor(stream: NodeJS.WriteStream | undefined): Paint {
  const forced = process.env["FORCE_COLOR"] !== undefined && process.env["FORCE_COLOR"] !== "0";
  return createColors(
    process.env["NO_COLOR"] === undefined && stream !== undefined && (stream.isTTY || forced),
  );
}

/** How many characters a line has room for in what goes to the file of `--out`, which takes any, or else to standard output. */
export const widthForOut = (out: string | undefined): number =>
  (out === undefined && process.stdout.isTTY && process.stdout.columns) || Infinity;

/** Colours for what goes to the file of `--out`, where it has none, or else to standard output. */
export const paintForOut = (out: string | undefined): Paint =>
  paintFor(out === undefined ? process.stdout : undefined);
