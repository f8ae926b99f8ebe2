import { dirname, join } from "node:path";

/** Folders in which commands of packages are that are installed in a folder or above it, as in npm scripts. */
export function commandFolders(folder: string): string[] {
  const folders: string[] = [];
  for (let at = folder; ; at = dirname(at)) {
    folders.push(join(at, "node_modules", ".bin"));
    if (dirname(at) === at) return folders;
  }
}
