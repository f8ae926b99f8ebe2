import { isDeepStrictEqual } from "node:util";

/** May a change write a manifest of this name? */
export function isWritableManifest(path: string): boolean {
  return /(^|\/)package\.json$/.test(path);
}

/** Does nothing change in a manifest but that its files are ES modules from now on? A plan may not write more than that. */
export function onlyMakesModules(before: string, after: string): boolean {
  try {
    const [old, now] = [JSON.parse(before), JSON.parse(after)] as Record<string, unknown>[];
    return isDeepStrictEqual({ ...old, type: "module" }, now);
  } catch {
    return false;
  }
}
