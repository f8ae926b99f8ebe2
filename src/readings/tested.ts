import { fill, type Hole } from "../pattern/index.js";
import type { Language, SyntaxNode } from "../syntax/index.js";
import { present, wordsOf } from "./choice.js";
import { presenceOf } from "./presence-test.js";
import { readingMatch, type Reading, type ReadingMatch } from "./reading.js";

/** A test for all missing values, wherever it stands and however it is spelt; not one that a truth could be. */
export function tested(what: Hole): Reading {
  return new TestedReading(what);
}

class TestedReading implements Reading {
  constructor(readonly what: Hole) {}

  kindsIn({ binary, flow, calls, memberReads }: Language): readonly string[] {
    const { questions, patterns } = flow.missing;
    const asking = Object.keys(questions).length > 0 ? [...calls, ...memberReads] : [];
    return [...new Set([...binary, ...patterns.tests, ...asking])];
  }

  wordsIn(language: Language): readonly string[] | undefined {
    return wordsOf(present(this.what), language);
  }

  whyNot(node: SyntaxNode): string | undefined {
    const { asks, subject } = presenceOf(node);
    return asks === "missing"
      ? `\`${subject.text}\` is not what the rule asks about`
      : "this is no test for all missing values";
  }

  readAt(node: SyntaxNode): ReadingMatch | undefined {
    const test = presenceOf(node);
    if (test.asks !== "missing" || !test.test.same(node)) return undefined;
    const captures = fill(this.what, test.subject);
    if (!captures) return undefined;
    const rest = { nodes: [node], tests: [test], frame: undefined, isStatements: false, spelling: [] };
    return readingMatch({ ...rest, captures });
  }
}
