import {
  mkdirSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  utimesSync,
  writeFileSync,
} from "node:fs";
import { openSync, closeSync } from "node:fs";
import { join } from "node:path";
import { crc32 } from "node:zlib";
import { stateFolder } from "./state.js";

const FOLDER = "cache";
/** So many files are kept, and so many bytes of them; those that were used longest ago go first. */
const MOST = { files: 8, bytes: 400_000_000 };
/** A file that is not finished after so many milliseconds never will be. */
const UNFINISHED = 3_600_000;
const LINE_END = 10;
const LINES_AT_ONCE = 2000;

/**
 * The lines that were stored under a key in a project's `.uvran/cache`; those that are damaged are left out, and none are there
 * where nothing was stored. The key must be fit for a file name.
 */
export function loadCache(root: string, key: string): string[] {
  const file = join(root, ".uvran", FOLDER, key);
  let bytes: Buffer;
  try {
    bytes = readFileSync(file);
    // What was used last is kept longest.
    utimesSync(file, new Date(), new Date());
  } catch {
    return [];
  }
  const lines: string[] = [];
  for (let start = 0, end; (end = bytes.indexOf(LINE_END, start)) !== -1; start = end + 1) {
    const [check = "", ...rest] = bytes.toString("utf8", start, end).split(" ");
    const line = rest.join(" ");
    if (check === checkOf(line)) lines.push(line);
  }
  return lines;
}

/**
 * Stores lines under a key, in place of those before. Whoever reads meanwhile sees the old lines or the new ones. Throws what the
 * file system throws.
 */
export function storeCache(root: string, key: string, lines: Iterable<string>): void {
  const folder = join(stateFolder(root), FOLDER);
  mkdirSync(folder, { recursive: true });
  const temporary = join(folder, `${key}.${process.pid}.tmp`);
  try {
    const file = openSync(temporary, "w");
    try {
      let waiting: string[] = [];
      const write = (): void => {
        writeFileSync(file, waiting.join(""));
        waiting = [];
      };
      for (const line of lines) {
        waiting.push(`${checkOf(line)} ${line}\n`);
        if (waiting.length >= LINES_AT_ONCE) write();
      }
      write();
    } finally {
      closeSync(file);
    }
    renameSync(temporary, join(folder, key));
  } catch (error) {
    rmSync(temporary, { force: true });
    throw error;
  }
  makeRoom(folder);
}

function makeRoom(folder: string): void {
  const files = readdirSync(folder).flatMap((name) => {
    const stat = statSync(join(folder, name), { throwIfNoEntry: false });
    return stat?.isFile() ? [{ name, used: stat.mtimeMs, size: stat.size }] : [];
  });
  let [count, bytes] = [0, 0];
  for (const { name, used, size } of files.sort((a, b) => b.used - a.used)) {
    const isUnfinished = name.endsWith(".tmp");
    if (isUnfinished && Date.now() - used < UNFINISHED) continue;
    [count, bytes] = [count + 1, bytes + size];
    if (isUnfinished || count > MOST.files || (count > 1 && bytes > MOST.bytes))
      rmSync(join(folder, name), { force: true });
  }
}

const checkOf = (line: string): string => crc32(line).toString(36);
