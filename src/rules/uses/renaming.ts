import type { Hole } from "../../pattern/index.js";
import { Match } from "../match.js";

/** What a renaming does where a statement of its own makes the name public, as `export { hive }` does. */
export interface RenamingOptions {
  /**
   * `stays`, which holds if nothing is said: other files keep the old name (`export { newName as hive }`). `changes`:
   * they get the new one too.
   */
  readonly publicName?: "stays" | "changes";
}

/** Gives what a hole names another name, with every use of it in all files. */
export class Renaming {
  constructor(
    readonly name: Hole,
    readonly to: string | ((match: Match) => string),
    readonly options: RenamingOptions = {},
  ) {}
}

/** A rule's `uses` that renames: to this name, or to one worked out from the match. */
export function renamed(
  name: Hole,
  to: string | ((match: Match) => string),
  options: RenamingOptions = {},
): Renaming {
  return new Renaming(name, to, options);
}
