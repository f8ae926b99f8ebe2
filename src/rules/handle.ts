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

/** How a language scopes a resource: see `Handle.scoped`. */
export const SCOPINGS = ["itself", "closing", "none"] as const;

/**
 * How a resource is acquired and released: a row of the table that drives the rules for resources. Its code is in the text form
 * of tables of changes: `…` stands for any arguments, and `handle` for the variable.
 */
export interface Handle {
  readonly language: (typeof LANGUAGES_WITH_HANDLES)[number];
  /** `open(…)`, `new FileReader(…)`. In C++ also a call that fills a variable: `openScale(…, &handle)`. */
  readonly acquire: string;
  /** Where names of that code come from: `light from smoker`. Without it, functions and classes of the project are meant. */
  readonly from?: string;
  /** `handle.close()`, `fclose(handle)`. */
  readonly release: string;
  /**
   * How the language scopes it. `itself`, which is what holds if nothing is said: the value knows how to be scoped
   * (`with`, `using`, a block, try with resources). `closing`: it only has the method. `none`: a `finally` is all
   * there is.
   */
  readonly scoped?: (typeof SCOPINGS)[number];
  /** Nobody outside of the program can see when it is released, as with a local file that nobody else has open. */
  readonly unseen?: boolean;
  /** The class that owns it in C++; without it `std::unique_ptr` with the release as its deleter. */
  readonly wrapper?: Wrapper;
}

/**
 * A class that owns a resource and gives it back when it goes. Its constructor takes over a raw handle. Code in it has
 * `handle` for the variable.
 */
export interface Wrapper {
  /** `Ref<Queen>`. */
  readonly type: string;
  /** The raw handle: `handle.get()`. */
  readonly get: string;
  /** The address to put a new handle at: `handle.put()`. */
  readonly fill?: string;
  /** The address to read the handle from: `handle.address()`. */
  readonly read?: string;
  /** Give it what it owns from now on: `handle.attach(value)`. */
  readonly take?: string;
  /** Give it back now: `handle.reset()`. */
  readonly reset?: string;
  /** What must be included: `"ref.h"` or `<memory>`, with its quotes or brackets. */
  readonly include?: string;
}
