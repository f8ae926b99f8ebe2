import type { SyntaxNode } from "../../../core.js";
import type { CodeFile } from "./code-file.js";
import { type Exported, exportedBy } from "./exported.js";
import type { Whereabouts } from "./loaded.js";
import { type Loading, loadingsIn } from "./requires.js";
import { mainTestsIn } from "./started.js";

/** A file of a package that is to become a module, and what it loads and exports. */
export interface Reading extends CodeFile {
  readonly loadings: readonly Loading[];
  readonly exported: Exported;
  readonly mainTests: readonly SyntaxNode[];
}

/** Reads a file. Throws a NotAModule where it cannot be a module as it stands. */
export function readingOf(file: CodeFile, where: Whereabouts): Reading {
  const mainTests = mainTestsIn(file);
  return { ...file, loadings: loadingsIn(file, where), exported: exportedBy(file), mainTests };
}
