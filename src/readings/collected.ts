import { fill, type Capture, type Hole } from "../pattern/index.js";
import type { Language, SyntaxNode } from "../syntax/index.js";
import { collectingAt, collectingKinds } from "./collecting.js";
import { readingMatch, type Reading, type ReadingMatch } from "./reading.js";

/** The holes of a list that is collected in a loop. */
export interface CollectedForms {
  /** What the list is given to. */
  readonly list: Hole;
  /** What is walked. */
  readonly items: Hole;
  /** What is added for an item. */
  readonly value: Hole;
}

/**
 * A list that is made empty and filled by the loop right behind it, with one value for each item, or for those that pass a
 * test: in an `if`, or ahead of a guard that goes on with the next one. What the loop calls an item, and what it tests, stand
 * in `match.collecting`.
 */
export function collected(forms: CollectedForms): Reading {
  return new CollectedReading(forms);
}

class CollectedReading implements Reading {
  constructor(readonly forms: CollectedForms) {}

  kindsIn(language: Language): readonly string[] {
    return collectingKinds(language);
  }

  wordsIn({ flow }: Language): readonly string[] {
    const { adds, addOperators } = flow.collecting;
    return [...adds, ...addOperators];
  }

  whyNot(node: SyntaxNode): string | undefined {
    return collectingAt(node)
      ? undefined
      : "this loop does not only add one value to a list that is made empty right ahead of it";
  }

  readAt(node: SyntaxNode): ReadingMatch | undefined {
    const collecting = collectingAt(node);
    if (!collecting) return undefined;
    const { list, items, value } = this.forms;
    let captures: ReadonlyMap<Hole, Capture> | undefined = fill(list, collecting.list);
    captures = captures && fill(items, collecting.items, captures);
    captures = captures && fill(value, collecting.value, captures);
    if (!captures) return undefined;
    const found = readingMatch({
      nodes: [collecting.first, collecting.loop],
      captures,
      tests: [],
      frame: undefined,
      isStatements: true,
      spelling: [],
    });
    return { ...found, collecting };
  }
}
