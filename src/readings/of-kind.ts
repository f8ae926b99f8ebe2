import { fill, type Hole } from "../pattern/index.js";
import type { Language, SyntaxNode } from "../syntax/index.js";
import { readingMatch, type Reading, type ReadingMatch } from "./reading.js";

/**
 * Code of the kinds of the grammar that the hole names with `node`, whatever stands in it: for rules that speak of a
 * declaration or a function as a whole. Throws a RangeError for a hole that names none.
 */
export function ofKind(hole: Hole): Reading {
  const { node } = hole.limits;
  if (node === undefined) throw new RangeError(`The hole "${hole.name}" names no kind of node.`);
  return new KindReading(hole, typeof node === "string" ? [node] : node);
}

class KindReading implements Reading {
  constructor(
    readonly hole: Hole,
    readonly kinds: readonly string[],
  ) {}

  kindsIn(_language: Language): readonly string[] {
    return this.kinds;
  }

  wordsIn(_language: Language): undefined {
    return undefined;
  }

  whyNot(node: SyntaxNode): string | undefined {
    return this.readAt(node) ? undefined : `\`${node.kind}\` is not what the rule speaks of`;
  }

  readAt(node: SyntaxNode): ReadingMatch | undefined {
    const captures = fill(this.hole, node);
    if (!captures) return undefined;
    const rest = { nodes: [node], tests: [], frame: undefined, isStatements: false, spelling: [] };
    return readingMatch({ ...rest, captures });
  }
}
