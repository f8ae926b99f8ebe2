import { isDeepStrictEqual } from "node:util";

/** May a change write a manifest of this name? */
export function isWritableManifest(path: string): boolean {
  return /(^|\/)package\.json$/.test(path);
}

/** Does a manifest say the same as before, but for the kind of module that its files are? A plan may not write more than that. */
export function saysTheSame(before: string, after: string): boolean {
  try {
    const [old, now] = [JSON.parse(before), JSON.parse(after)] as Record<string, unknown>[];
    return isDeepStrictEqual({ ...old, type: undefined }, { ...now, type: undefined });
  } catch {
    return false;
  }
}
