import type { LanguageId } from "../syntax/index.js";

/** What a hole can stand for. The last two stand for any number of things, none included. */
export type HoleKind = "name" | "expression" | "statement" | "statements" | "arguments";

/** A named blank in a piece of code. The same hole twice in a pattern means the same code twice. */
export class Hole {
  constructor(
    readonly name: string,
    readonly kind: HoleKind,
  ) {}

  /** Does it stand for any number of things? */
  get isList(): boolean {
    return this.kind === "statements" || this.kind === "arguments";
  }

  /**
   * This hole's code with every place that fits `pattern` replaced. Only for replacements.
   */
  replacing(pattern: Snippet, replacement: Part): Replacing {
    return new Replacing(this, pattern, replacement);
  }
}

/** A hole's code with inner places replaced; made by `Hole.replacing`. */
export class Replacing {
  constructor(
    readonly hole: Hole,
    readonly pattern: Snippet,
    readonly replacement: Part,
  ) {}
}

/** A new name, chosen for each match so that it hides and captures nothing. */
export class FreshName {
  constructor(
    /** Used when nothing better is known. */
    readonly base: string,
    /** When this hole's code is a plural noun, its singular is preferred. */
    readonly singularOf: Hole | undefined,
  ) {}
}

/** What may stand between the texts of a snippet. */
export type Part = Hole | FreshName | Replacing;

/** A piece of code with parts left open, as a tagged template makes it. Not yet parsed. */
export class Snippet {
  constructor(
    readonly language: LanguageId,
    readonly texts: readonly string[],
    readonly parts: readonly Part[],
  ) {}
}

type HolesOf<Kinds extends Record<string, HoleKind>> = { readonly [Name in keyof Kinds]: Hole };

/** Makes holes by name and kind: `const { a, b } = holes({ a: "expression", b: "name" })`. */
export function holes<const Kinds extends Record<string, HoleKind>>(kinds: Kinds): HolesOf<Kinds> {
  const entries = Object.entries(kinds).map(([name, kind]) => [name, new Hole(name, kind)]);
  return Object.fromEntries(entries) as HolesOf<Kinds>;
}

/** A name for something new in a replacement. */
export function fresh(base: string, options: { singularOf?: Hole } = {}): FreshName {
  return new FreshName(base, options.singularOf);
}
