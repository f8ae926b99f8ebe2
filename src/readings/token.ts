import type { SyntaxNode } from "../syntax/index.js";
import { readingMatch, type Reading, type ReadingMatch } from "./reading.js";

/** A word or a sign of the language, wherever it stands: `token("var")`. What it is part of is above `match.node`. */
export function token(word: string): Reading {
  return new TokenReading(word);
}

class TokenReading implements Reading {
  readonly tokens: readonly string[];

  constructor(readonly word: string) {
    this.tokens = [word];
  }

  kindsIn(): readonly string[] {
    return [];
  }

  wordsIn(): readonly string[] {
    return [this.word];
  }

  whyNot(): string {
    return `this is not the word \`${this.word}\``;
  }

  readAt(node: SyntaxNode): ReadingMatch | undefined {
    if (node.named || node.kind !== this.word) return undefined;
    const captures = new Map();
    return readingMatch({
      nodes: [node],
      captures,
      tests: [],
      frame: undefined,
      isStatements: false,
      spelling: [],
    });
  }
}
