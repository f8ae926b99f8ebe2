import { existsSync, readFileSync } from "node:fs";
import { join } from "node:path";
import ignore from "ignore";

/** Where a CODEOWNERS file may be. */
const PLACES = ["CODEOWNERS", ".github/CODEOWNERS", ".gitlab/CODEOWNERS", "docs/CODEOWNERS"];
const NOBODY = ["nobody"];

/**
 * Who owns each file of a project, as its CODEOWNERS file says: the last line that fits counts. Undefined where there is no
 * such file.
 */
export function ownersIn(root: string): ((path: string) => readonly string[]) | undefined {
  const file = PLACES.map((path) => join(root, path)).find((path) => existsSync(path));
  if (file === undefined) return undefined;
  const lines = readFileSync(file, "utf8")
    .split(/\r?\n/)
    .map((line) => line.replace(/(^|\s)#.*$/, "").trim())
    .filter((line) => line !== "" && !/^\^?\[/.test(line))
    .map((line) => {
      const [pattern = "", ...owners] = line.split(/(?<!\\)\s+/);
      return { fits: ignore().add(pattern), owners };
    });
  return (path) => {
    const owners = lines.findLast(({ fits }) => fits.ignores(path))?.owners ?? [];
    return owners.length > 0 ? owners : NOBODY;
  };
}
