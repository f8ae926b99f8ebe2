import { endlessOn } from "./endless-expression.js";
import type { ContextName, HoleKind, Import, ImportForm, LanguageId } from "../syntax/index.js";

/** Kinds of hole that stand for any number of things, none included. */
const LISTS: readonly HoleKind[] = ["statements", "arguments", "parameters", "members", "modifiers"];

/** What narrows a hole beside its kind. */
export interface HoleLimits {
  /** The code must have this text, or fit this expression somewhere. */
  readonly text?: string | RegExp;
  /** The code must fit this pattern, whose own holes are filled too. */
  readonly like?: Snippet;
  /** The code must not fit this pattern. */
  readonly unlike?: Snippet;
  /** The node must be of one of these kinds of the grammar; `uvran outline` shows them. */
  readonly node?: string | readonly string[];
  /** The code must name this, by an import or in full. */
  readonly origin?: Import;
}

/** A named blank in a piece of code. The same hole twice in a pattern means the same code twice. */
export class Hole {
  constructor(
    readonly name: string,
    readonly kind: HoleKind,
    readonly limits: HoleLimits = {},
  ) {
    const endless = limits.text instanceof RegExp ? endlessOn(limits.text) : undefined;
    if (endless !== undefined)
      throw new RangeError(
        `the expression ${String(limits.text)} of the hole "${name}" takes time without end on \`${endless}\`: a repetition stands in a repetition`,
      );
  }

  /** Does it stand for any number of things? */
  get isList(): boolean {
    return LISTS.includes(this.kind);
  }
}

/** A pattern, and what stands in the place of each piece of code that fits it. */
export interface Piece {
  readonly pattern: Snippet;
  readonly replacement: Hole | FreshName | Need | Snippet;
}

/** A hole's code with pieces of it replaced; made by `each`. Only for replacements. */
export class Replacing {
  constructor(
    readonly hole: Hole,
    readonly pieces: readonly Piece[],
  ) {}
}

/**
 * Every piece of a hole's code that fits a pattern, to be replaced: `each(pattern, { in: body }).becomes(other)`. The holes of
 * the pattern can be used in what it becomes. What `each` gives can be the code of another one; of pieces that overlap the
 * outermost counts.
 */
export function each(
  pattern: Snippet,
  { in: where }: { readonly in: Hole | Replacing },
): { becomes(replacement: Piece["replacement"]): Replacing } {
  const { hole, pieces } = where instanceof Replacing ? where : new Replacing(where, []);
  return { becomes: (replacement) => new Replacing(hole, [...pieces, { pattern, replacement }]) };
}

/** A new name, chosen for each match so that it hides and captures nothing. */
export class FreshName {
  constructor(
    /** Used when nothing better is known. */
    readonly base: string,
    /** When this hole's code is a plural noun, its singular is preferred. */
    readonly singularOf: Hole | undefined,
    /** Tried in this order where the base is taken. */
    readonly or: readonly string[] = [],
  ) {}
}

/** A piece of a snippet that may be missing; made by `maybe`. */
export class Maybe {
  constructor(readonly snippet: Snippet) {}
}

/**
 * Something from elsewhere; made by `need`. In a replacement it is what the file calls it, and in a pattern all that can
 * name it in the file.
 */
export class Need {
  /** What it stands like in a pattern. */
  readonly hole: Hole;

  constructor(readonly wanted: Import) {
    const { module, name } = wanted;
    this.hole = new Hole(name === undefined ? module : `${module}.${name}`, "expression", { origin: wanted });
  }

  /** Is the same thing meant, whatever it is called? */
  isSame({ wanted: { module, name } }: Need): boolean {
    return this.wanted.module === module && this.wanted.name === name;
  }

  /** A word that stands in every file which names it: its own name, else the last part of its module. */
  get word(): string {
    const { module, name } = this.wanted;
    // What is exported by default goes by any name.
    return lastPart(name === undefined || name === "default" ? module : name);
  }

  /** The name by which it goes where nothing gives it another. */
  get ownName(): string {
    const { name, local } = this.wanted;
    return name === "default" && local !== undefined ? local : this.word;
  }
}

const lastPart = (name: string): string =>
  name
    .split(/[.:\\/]+/)
    .at(-1)!
    .replace(/[<>"]/g, "");

/** What may stand between the texts of a snippet. */
export type Part = Hole | FreshName | Replacing | Maybe | Need;

/** A piece of code with parts left open, as a tagged template makes it. Not yet parsed. */
export class Snippet {
  constructor(
    readonly language: LanguageId,
    readonly texts: readonly string[],
    readonly parts: readonly Part[],
    /** Where it stands; found out by parsing when its author did not say. */
    readonly context?: ContextName,
    /** Are branches only to fit as they are written, and not turned round? */
    readonly isExact = false,
  ) {}
}

/** A hole's kind, alone or with what narrows it. */
export type HoleSpec = HoleKind | ({ readonly kind: HoleKind } & HoleLimits);

type HolesOf<Kinds extends Record<string, HoleSpec>> = { readonly [Name in keyof Kinds]: Hole };

/**
 * Makes holes by name and kind: `const { a, b } = holes({ a: "expression", b: "name" })`. A hole is narrowed
 * by writing `{ kind: "name", text: /^get/ }`.
 */
export function holes<const Kinds extends Record<string, HoleSpec>>(kinds: Kinds): HolesOf<Kinds> {
  const entries = Object.entries(kinds).map(([name, spec]) => {
    if (typeof spec === "string") return [name, new Hole(name, spec)];
    const { kind, ...limits } = spec;
    return [name, new Hole(name, kind, limits)];
  });
  return Object.fromEntries(entries) as HolesOf<Kinds>;
}

/** The pattern as it is written: a branch in it does not fit one that is turned round. */
export function exactly({ language, texts, parts, context }: Snippet): Snippet {
  return new Snippet(language, texts, parts, context, true);
}

/** A name for something new in a replacement. */
export function fresh(
  base: string,
  options: { readonly singularOf?: Hole; readonly or?: readonly string[] } = {},
): FreshName {
  return new FreshName(base, options.singularOf, options.or);
}

/**
 * A piece of a pattern that may be missing. In a replacement it appears where all holes in it stand for
 * something.
 */
export function maybe(snippet: Snippet): Maybe {
  return new Maybe(snippet);
}

/**
 * Something that new code takes from elsewhere: a module as the language writes it (`node:fs`, `java.util`,
 * `<memory>`), and a member of it. Listed in a rule's `needs` it is imported; as a part of a replacement it
 * also gives the name to call it by, which is an alias where the file has one. In a pattern it fits every way in which the
 * file can name it.
 */
export function need(module: string, name?: string, options: { as?: string; form?: ImportForm } = {}): Need {
  const { as: local, form } = options;
  return new Need({ module, name, local, form });
}
