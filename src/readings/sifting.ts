import { fill, type Hole } from "../pattern/index.js";
import type { Language, SyntaxNode } from "../syntax/index.js";
import { collectingKinds } from "./collecting.js";
import type { Frame } from "./frame.js";
import { readingMatch, type Reading, type ReadingMatch } from "./reading.js";
import type { Sifted } from "./walk.js";

/** A loop that was read, with the statements that it takes and the place where its value goes. */
export interface SiftedLoop<What extends Sifted> {
  readonly what: What;
  readonly nodes: readonly SyntaxNode[];
  readonly frame: Frame;
}

/** What a reading of loops with tests looks for. */
export interface Sifting<What extends Sifted> {
  /** Words of which one must be there; undefined where there is none. */
  readonly words?: readonly string[];
  readonly whyNot: string;
  at(loop: SyntaxNode): SiftedLoop<What> | undefined;
  /** The part of the match that the rule reads. */
  part(what: What): Partial<ReadingMatch>;
}

/** A reading of loops that come to one value, and take the items that pass tests for it. */
export class SiftedReading<What extends Sifted> implements Reading {
  constructor(
    readonly items: Hole,
    readonly sifting: Sifting<What>,
  ) {}

  kindsIn(language: Language): readonly string[] {
    return collectingKinds(language);
  }

  wordsIn(): readonly string[] | undefined {
    return this.sifting.words;
  }

  whyNot(node: SyntaxNode): string | undefined {
    return this.sifting.at(node) ? undefined : this.sifting.whyNot;
  }

  readAt(node: SyntaxNode): ReadingMatch | undefined {
    const found = this.sifting.at(node);
    const captures = found && fill(this.items, found.what.items);
    if (!found || !captures) return undefined;
    const { nodes, frame, what } = found;
    const rest = { tests: [], isStatements: true, spelling: [] };
    return { ...readingMatch({ ...rest, nodes, captures, frame }), ...this.sifting.part(what) };
  }
}
