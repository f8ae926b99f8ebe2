import { existsSync, writeFileSync } from "node:fs";
import { languageOnDisk } from "../node/file-language.js";
import { Problem } from "../node/problem.js";

/** Writes to the file of `--out`, else to standard output. */
export function deliver(text: string, out: string | undefined): void {
  if (out === undefined) process.stdout.write(process.stdout.isTTY ? printable(text) : text);
  else {
    if (languageOnDisk(out) !== undefined && existsSync(out))
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
