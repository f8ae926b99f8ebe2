import { existsSync, readFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";

/**
 * A file of this package as it is installed, by its path from the package's folder. The command line runs from one file
 * that many were joined to, so no module can find its neighbours from where it stands itself.
 */
export function installed(path: string): string {
  return join(packageFolder(), path);
}

/** The version of this package. */
export function shownVersion(): string {
  return (JSON.parse(readFileSync(installed("package.json"), "utf8")) as { version: string }).version;
}

function packageFolder(): string {
  let folder = dirname(fileURLToPath(import.meta.url));
  while (!existsSync(join(folder, "package.json"))) folder = dirname(folder);
  return folder;
}
