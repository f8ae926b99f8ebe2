import { fill as fillHole, Hole, type Capture } from "../pattern/index.js";
import type { Language, SyntaxNode } from "../syntax/index.js";
import { nearFill, type NearMiss } from "./near.js";
import { present, wordsOf, type AlsoAsks, type Presence } from "./choice.js";
import { fillsAt, type Fill } from "./fills.js";
import { readingMatch, type Reading, type ReadingMatch } from "./reading.js";
import { branchKinds, isStatement } from "./ways.js";

/**
 * A place that is given a value where it has none, however that is spelt: `if (x == null) x = v`, `x = x ?? v`,
 * `x || (x = v)`, `if (x) return x; x = v; return x`.
 */
export function filled(place: Hole, value: Hole, also: AlsoAsks = {}): Reading {
  return new FillReading(present(place, also), place, value);
}

class FillReading implements Reading {
  constructor(
    readonly condition: Presence,
    readonly place: Hole,
    readonly value: Hole,
  ) {}

  kindsIn({ flow, binary }: Language): readonly string[] {
    const operators = binary.filter((kind) => flow.shapes[kind] !== undefined);
    return [...branchKinds(flow.shapes), ...operators, ...Object.keys(flow.assignments)];
  }

  wordsIn(language: Language): readonly string[] | undefined {
    const words = wordsOf(this.condition, language);
    const operators = Object.keys(language.flow.assignsIf).map((operator) => operator.replace("=", ""));
    return words && [...words, ...operators];
  }

  readAt(node: SyntaxNode): ReadingMatch | undefined {
    for (const found of fillsAt(node)) {
      const match = this.#read(found);
      if (match) return match;
    }
    return undefined;
  }

  nearAt(node: SyntaxNode): NearMiss | undefined {
    return nearFill(node, this.condition.asks);
  }

  whyNot(node: SyntaxNode): string | undefined {
    if (fillsAt(node).length > 0)
      return "what is filled in is no place that the rule takes, or it is asked for otherwise";
    return this.nearAt(node)?.says ?? "nothing is given a value here where it has none";
  }

  #read({ place, value, test, nodes, frame }: Fill): ReadingMatch | undefined {
    if (!this.condition.asks.includes(test.asks)) return undefined;
    let captures: ReadonlyMap<Hole, Capture> | undefined = fillHole(this.place, place);
    captures = captures && fillHole(this.value, value, captures);
    if (!captures) return undefined;
    const isStatements = frame !== undefined || isStatement(nodes[0]!);
    return readingMatch({ nodes, captures, tests: [test], frame, isStatements, spelling: [] });
  }
}
