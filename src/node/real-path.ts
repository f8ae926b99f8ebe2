import { realpathSync } from "node:fs";
import { basename, dirname, join } from "node:path";

/** A path with its links followed, as far as it is there. */
export function realPath(path: string): string {
  try {
    return realpathSync(path);
  } catch {
    return dirname(path) === path ? path : join(realPath(dirname(path)), basename(path));
  }
}
