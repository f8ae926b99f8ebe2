import { fill, type Capture, type Hole } from "../pattern/index.js";
import type { Language, SyntaxNode } from "../syntax/index.js";
import { collectingAt, collectingKinds, frameOf, type Collecting, type Gathers } from "./collecting.js";
import { readingMatch, type Reading, type ReadingMatch } from "./reading.js";

/** The holes of a list that is collected in a loop. */
export interface CollectedForms {
  /** What the list is given to. */
  readonly list: Hole;
  /** What is walked. */
  readonly items: Hole;
  /** What is added for an item. */
  readonly value: Hole;
  /** What is gathered; a list unless it is said. */
  readonly gathers?: readonly Gathers[];
}

/**
 * A list that is made empty and filled by the loop behind it, with one value for each item, or for those that pass a test: in
 * an `if`, or ahead of a guard that goes on with the next one. With `gathers` also a set, a map, or a number that the loop
 * adds to. What the loop calls an item, and what it tests, stand in `match.collecting`.
 */
export function collected(forms: CollectedForms): Reading {
  return new CollectedReading(forms);
}

class CollectedReading implements Reading {
  constructor(readonly forms: CollectedForms) {}

  kindsIn(language: Language): readonly string[] {
    return collectingKinds(language);
  }

  wordsIn({ flow }: Language): readonly string[] | undefined {
    const words = flow.collecting.containers
      .filter((one) => this.#gathers.includes(one.is))
      .flatMap(({ adds, addOperators }) => [...adds, ...addOperators]);
    // What is put by key or added up has no word of its own.
    const isOpen = this.#gathers.some((one) => one === "map" || one === "total");
    return isOpen ? undefined : words;
  }

  get #gathers(): readonly Gathers[] {
    return this.forms.gathers ?? ["list"];
  }

  whyNot(node: SyntaxNode): string | undefined {
    return this.#at(node)
      ? undefined
      : "this loop does not only add one value to something that is made empty ahead of it";
  }

  #at(node: SyntaxNode): Collecting | undefined {
    const collecting = collectingAt(node);
    return collecting && this.#gathers.includes(collecting.gathers) ? collecting : undefined;
  }

  readAt(node: SyntaxNode): ReadingMatch | undefined {
    const collecting = this.#at(node);
    if (!collecting) return undefined;
    const { list, items, value } = this.forms;
    let captures: ReadonlyMap<Hole, Capture> | undefined = fill(list, collecting.list);
    captures = captures && fill(items, collecting.items, captures);
    captures = captures && fill(value, collecting.value, captures);
    if (!captures) return undefined;
    const found = readingMatch({
      nodes: [collecting.first, ...collecting.between, collecting.loop],
      captures,
      tests: [],
      frame: frameOf(collecting, collecting.loop),
      isStatements: true,
      spelling: [],
    });
    return { ...found, collecting };
  }
}
