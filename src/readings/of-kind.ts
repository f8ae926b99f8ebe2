import { fill, type Capture, type Hole } from "../pattern/index.js";
import type { Language, SyntaxNode } from "../syntax/index.js";
import { readingMatch, type Reading, type ReadingMatch } from "./reading.js";

/**
 * Code of the kinds of the grammar that the hole names with `node`, whatever stands in it: for rules that speak of a
 * declaration or a function as a whole. Throws a RangeError for a hole that names none.
 */
export function ofKind(hole: Hole, forms: KindForms = {}): Reading {
  const { node } = hole.limits;
  if (node === undefined) throw new RangeError(`The hole "${hole.name}" names no kind of node.`);
  return new KindReading(hole, typeof node === "string" ? [node] : node, forms);
}

/** What belongs to the code that is found. */
export interface KindForms {
  /** Is it what is looked for? Asked first, of each node of the kind: the cheapest way to tell the few from the many. */
  readonly when?: (node: SyntaxNode) => boolean;
  /** All statements that are rewritten with it, from the first to the last; undefined where it is not what is looked for. */
  readonly together?: (node: SyntaxNode) => readonly SyntaxNode[] | undefined;
  /** The expression that is rewritten, where it is more than what the hole stands for. */
  readonly inPlaceOf?: (node: SyntaxNode) => SyntaxNode | undefined;
  /** What other holes stand for, for the replacement; undefined where it is not what is looked for. */
  readonly fills?: (node: SyntaxNode) => readonly Filled[] | undefined;
}

/** A hole and the code that it stands for: nodes side by side, or none at all. */
export type Filled = readonly [hole: Hole, nodes: readonly SyntaxNode[]];

class KindReading implements Reading {
  constructor(
    readonly hole: Hole,
    readonly kinds: readonly string[],
    readonly forms: KindForms,
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
    const { when, together, inPlaceOf, fills } = this.forms;
    if (when?.(node) === false) return undefined;
    const nodes = together ? together(node) : [inPlaceOf?.(node) ?? node];
    const filled = nodes && (fills ? fills(node) : []);
    const captures = filled && fill(this.hole, node);
    if (!captures) return undefined;
    const others = filled.map(([hole, list]): [Hole, Capture] => [hole, captureOf(list, node)]);
    const rest = {
      nodes,
      tests: [],
      frame: undefined,
      isStatements: together !== undefined,
      spelling: [],
    };
    return readingMatch({ ...rest, captures: new Map([...captures, ...others]) });
  }
}

function captureOf(nodes: readonly SyntaxNode[], { tree, end }: SyntaxNode): Capture {
  const [first, last] = [nodes[0], nodes.at(-1)];
  return { tree, nodes: nodes.map(({ id }) => id), start: first?.start ?? end, end: last?.end ?? end };
}
