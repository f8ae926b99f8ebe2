import { closeSync, openSync, readSync } from "node:fs";
import { languageOfFile, mayBeScript, type Language } from "../syntax/index.js";

/** A first line that names an interpreter is shorter than so many bytes. */
const FIRST_LINE = 256;

/** The language of a file on the disk; a script without an ending is opened for its first line. */
export function languageOnDisk(path: string): Language | undefined {
  return languageOfFile(path, firstLineOf(path));
}

/** The language of a file by its name and bytes. */
export const languageOfSource = (path: string, bytes: Buffer): Language | undefined =>
  languageOfFile(path, bytes.toString("utf8", 0, FIRST_LINE));

/** The start of a file that may be a script without an ending; empty for another one, and for what cannot be read. */
export function firstLineOf(path: string): string {
  if (!mayBeScript(path)) return "";
  let file: number | undefined;
  try {
    file = openSync(path, "r");
    const bytes = Buffer.alloc(FIRST_LINE);
    return bytes.toString("utf8", 0, readSync(file, bytes, 0, FIRST_LINE, 0));
  } catch {
    return "";
  } finally {
    if (file !== undefined) closeSync(file);
  }
}
