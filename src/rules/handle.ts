import type { LanguageId } from "../syntax/index.js";

/** The languages in which resources are known by their handles; TypeScript shares those of JavaScript. */
export const LANGUAGES_WITH_HANDLES = [
  "javascript",
  "python",
  "java",
  "cpp",
  "csharp",
  "php",
  "ruby",
  "powershell",
] as const satisfies readonly LanguageId[];

/**
 * How a resource is acquired and released: a row of the table that drives the rules for resources. Code in it has
 * `…` for any arguments and `handle` for the variable.
 */
export interface Handle {
  readonly language: (typeof LANGUAGES_WITH_HANDLES)[number];
  /** `open(…)`, `new FileReader(…)`; the module where one must be imported: `socket.socket(…)`. */
  readonly acquire: string;
  /** `handle.close()`, `fclose(handle)`. */
  readonly release: string;
  /**
   * How the language scopes it. `itself`: the value knows how to be scoped (`with`, `using`, a block, try with
   * resources). `closing`: it only has the method. `none`: a `finally` is all there is.
   */
  readonly scoped?: "itself" | "closing" | "none";
}
