import { fill, Hole } from "../pattern/index.js";
import type { Language, SyntaxNode } from "../syntax/index.js";
import { wordsOf, type Presence } from "./choice.js";
import { presenceOf } from "./presence-test.js";
import { readingMatch, type Reading, type ReadingMatch } from "./reading.js";
import { branchKinds, isStatement, waysOf } from "./ways.js";

/** Statements that are run only where a test holds, with nothing done otherwise; `body` is a hole for statements. */
export function onlyIf(condition: Presence, body: Hole): Reading {
  return new OnlyIfReading(condition, body);
}

class OnlyIfReading implements Reading {
  constructor(
    readonly condition: Presence,
    readonly body: Hole,
  ) {}

  kindsIn({ flow }: Language): readonly string[] {
    return branchKinds(flow.shapes);
  }

  wordsIn(language: Language): readonly string[] | undefined {
    return wordsOf(this.condition, language);
  }

  whyNot(node: SyntaxNode): string {
    return waysOf(node)
      ? "something else is tested, or something is done otherwise"
      : "nothing is tested here";
  }

  readAt(node: SyntaxNode): ReadingMatch | undefined {
    const ways = waysOf(node);
    if (!ways || !isStatement(node)) return undefined;
    const { yes, no } = ways;
    if (yes.length > 0 === no.length > 0) return undefined;
    const test = presenceOf(ways.test);
    const { subject, asks, isThere } = this.condition;
    if (!asks.includes(test.asks) || (test.isThere === isThere) !== yes.length > 0) return undefined;
    const captures = subject instanceof Hole ? fill(subject, test.subject) : undefined;
    if (!captures) return undefined;
    const body = yes.length > 0 ? yes : no;
    const { tree } = node;
    const [start, end] = [body[0]!.start, body.at(-1)!.end];
    const whole = { tree, nodes: body.map(({ id }) => id), start, end };
    return readingMatch({
      nodes: [node],
      captures: new Map([...captures, [this.body, whole]]),
      tests: [test],
      frame: undefined,
      isStatements: true,
      spelling: [],
    });
  }
}
