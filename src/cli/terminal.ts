import { existsSync, writeFileSync } from "node:fs";
import { createColors } from "picocolors";
import { Problem } from "../node/problem.js";
import type { Paint } from "../report/index.js";
import { languageOfFile } from "../syntax/index.js";

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

/** Colours for what goes to the file of `--out`, where it has none, or else to standard output. */
export const paintForOut = (out: string | undefined): Paint =>
  paintFor(out === undefined ? process.stdout : undefined);

/** Writes to the file of `--out`, else to standard output. */
export function deliver(text: string, out: string | undefined): void {
  if (out === undefined) process.stdout.write(process.stdout.isTTY ? printable(text) : text);
  else {
    if (languageOfFile(out) !== undefined && existsSync(out))
      throw new Problem(`${out} is a source file, which --out would write over. Choose another name.`);
    try {
      writeFileSync(out, text);
    } catch (error) {
      throw new Problem(`Cannot write ${out}: ${(error as Error).message}`);
    }
  }
}

/** A text with its control characters shown instead of obeyed; line ends, tabs and colours stay. */
export function printable(text: string): string {
  const controls = /\u001b(?!\[[\d;]*m)|[\u0000-\u0008\u000b-\u001a\u001c-\u001f\u007f-\u009f]/g;
  return text.replace(/\r\n/g, "\n").replace(controls, "�");
}
