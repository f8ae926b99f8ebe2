import { readFileSync, statSync } from "node:fs";
import { createRequire } from "node:module";
import { dirname, resolve } from "node:path";

const ENDINGS = ["", ".ts", ".mts", ".cts", ".js", ".mjs", ".cjs", ".json", "/index.ts", "/index.js"];
/** `./a.js` in a file in TypeScript may be `./a.ts`. */
const FOR_OTHERS = /\.([cm]?)js$/;
const NAMED = /(?:\bfrom|\bimport|\brequire)\s*\(?\s*["'`]([^"'`\n]+)["'`]/g;

/**
 * A config and the files that it is made from, as far as their own imports name them: the project's own, and what is in packages
 * that are linked in. Of installed packages only the manifest is given. Paths are absolute.
 */
export function filesBehind(config: string): string[] {
  const found = new Set<string>();
  const waiting = [resolve(config)];
  for (let file = waiting.pop(); file !== undefined; file = waiting.pop()) {
    if (found.has(file)) continue;
    found.add(file);
    if (/[\\/]node_modules[\\/]/.test(file)) continue;
    for (const [, name] of textOf(file).matchAll(NAMED)) {
      const next = fileFor(name!, file);
      if (next !== undefined) waiting.push(next);
    }
  }
  return [...found].sort();
}

function textOf(file: string): string {
  try {
    return readFileSync(file, "utf8");
  } catch {
    return "";
  }
}

/** The file that an import means; of a package, the one that tells which version it is, where that is installed. */
function fileFor(name: string, from: string): string | undefined {
  if (name.startsWith("node:") || /^uvran(\/|$)/.test(name)) return undefined;
  if (/^\.{0,2}\//.test(name)) {
    const path = resolve(dirname(from), name);
    const others = FOR_OTHERS.test(path) ? [path.replace(FOR_OTHERS, ".$1ts")] : [];
    return [...ENDINGS.map((ending) => path + ending), ...others].find(isFile);
  }
  try {
    const file = createRequire(from).resolve(name);
    const installed = /^.*[\\/]node_modules[\\/](?:@[^\\/]+[\\/])?[^\\/]+/.exec(file)?.[0];
    return installed === undefined ? file : `${installed}/package.json`;
  } catch {
    return undefined;
  }
}

const isFile = (path: string): boolean => statSync(path, { throwIfNoEntry: false })?.isFile() === true;
