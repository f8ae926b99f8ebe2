import { valuesInText } from "../analysis/index.js";
import { originAt, type Need } from "../pattern/index.js";
import { escaped, type Language, type SyntaxNode } from "../syntax/index.js";
import { readingMatch, type Reading, type ReadingMatch } from "./reading.js";

/**
 * A string or a template with a word of text in it that is handed to something that comes from elsewhere: as an argument, in an
 * object or a list that is one, or as what stands behind its name.
 */
export function textWord(word: string, takers: readonly Need[]): Reading {
  return new TextWordReading(word, takers);
}

/** The places of a word in the text of a string, outside of code in it. Offsets are those of the file. */
export function placesOfWord(string: SyntaxNode, word: string): { start: number; end: number }[] {
  const { strings, textParts } = string.tree.language;
  const code = [...string.descendants()].flatMap((node) =>
    node.is(strings) ? valuesInText(node) : node.is(textParts) ? [node] : [],
  );
  return [...string.text.matchAll(formOf(word))]
    .map(({ index }) => ({ start: string.start + index, end: string.start + index + word.length }))
    .filter(({ start, end }) => !code.some((part) => part.start < end && start < part.end));
}

/** The word, where it is no part of a longer one; `hive-card` is none of `hive-card-list`. */
function formOf(word: string): RegExp {
  const ahead = /^[\p{L}\p{N}_]/u.test(word) ? "(?<![\\p{L}\\p{N}_-])" : "";
  const behind = /[\p{L}\p{N}_]$/u.test(word) ? "(?![\\p{L}\\p{N}_-])" : "";
  return new RegExp(ahead + escaped(word) + behind, "gu");
}

class TextWordReading implements Reading {
  constructor(
    readonly word: string,
    readonly takers: readonly Need[],
  ) {}

  kindsIn({ strings, multiLineLiterals }: Language): readonly string[] {
    return [...new Set([...strings, ...multiLineLiterals])];
  }

  wordsIn(): readonly string[] | undefined {
    const [longest] = (this.word.match(/[\p{L}\p{N}_]+/gu) ?? []).sort((a, b) => b.length - a.length);
    return longest === undefined ? undefined : [longest];
  }

  whyNot(node: SyntaxNode): string | undefined {
    if (placesOfWord(node, this.word).length === 0) return `there is no \`${this.word}\` in this text`;
    return this.#takerOf(node) ? undefined : "this text is not handed to what the rule speaks of";
  }

  readAt(node: SyntaxNode): ReadingMatch | undefined {
    if (placesOfWord(node, this.word).length === 0) return undefined;
    const taker = this.#takerOf(node);
    if (!taker) return undefined;
    const { tree, id, start, end } = taker.callee;
    const captures = new Map([[taker.what.hole, { tree, nodes: [id], start, end }]]);
    const nothingElse = { tests: [], frame: undefined, isStatements: false, spelling: [] };
    return readingMatch({ nodes: [node], captures, ...nothingElse });
  }

  /** What the text is handed to, and by what it is called. */
  #takerOf(node: SyntaxNode): { readonly what: Need; readonly callee: SyntaxNode } | undefined {
    const { calls, functions, statementLists } = node.tree.language;
    for (const above of node.ancestors()) {
      if (above.is([...functions, ...statementLists])) return undefined;
      const callee = above.is(calls) ? (above.child("function") ?? above.firstPart) : undefined;
      if (!callee || callee.holds(node)) continue;
      // What takes it first is what it is meant for.
      const what = this.takers.find(({ wanted }) => originAt(callee, wanted) !== "no");
      return what && { what, callee };
    }
    return undefined;
  }
}
