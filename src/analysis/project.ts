import type { Import, SyntaxTree } from "../syntax/index.js";
import type { SourceFiles } from "./names/source-files.js";
import type { Library } from "./library/facts.js";
import type { TypeSource } from "./types/source.js";

/** What is around the file that a tree was read from. */
export interface Surroundings {
  /** Relative to the project's root. */
  readonly path: string;
  /** The other files; undefined where there are none to look at. */
  readonly files?: SourceFiles | undefined;
  /** What the project's own compiler knows of types; undefined where there is none. */
  readonly types?: TypeSource | undefined;
  /** What is known of libraries beyond what ships. */
  readonly library?: Library | undefined;
  /** Imports that the code needs and that are not written yet, since it is the result of changes. */
  readonly pending?: readonly Import[] | undefined;
}

const known = new WeakMap<SyntaxTree, Surroundings>();

/** Says what is around a tree, so that questions about its nodes can look into the rest of the project. */
export function placeIn(tree: SyntaxTree, { path, files, types, library, pending }: Surroundings): void {
  known.set(tree, { path, files, types, library, pending });
}

/** What is around a tree; nothing but the file itself where nobody said. */
export function surroundingsOf(tree: SyntaxTree): Surroundings {
  return known.get(tree) ?? { path: "" };
}
