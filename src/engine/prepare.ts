import type { Library } from "../analysis/index.js";
import { compile, Snippet, snippetFits, SnippetError } from "../pattern/index.js";
import { RuleError, type Old, type Rule } from "../rules/index.js";
import { languageOf, type LanguageId, type NodeId, type SyntaxTree } from "../syntax/index.js";
import { Dispatch } from "./dispatch.js";
import { patternFinder, readingFinder, type Entry, type Finder } from "./entry.js";

/** Rules made ready for the files of one language. */
export class PreparedRules {
  readonly #dispatch = new Dispatch();
  readonly #rules = new Map<string, Rule>();
  /** For each pattern, the words without which a file cannot hold a match. */
  readonly wordLists: readonly (readonly string[])[];
  /** For each of those, lists of further words, of each of which one must be there too. */
  readonly #mentions: readonly (readonly (readonly string[])[])[];

  /** Throws a RuleError for a pattern that does not parse. The grammar must be loaded. */
  constructor(rules: readonly Rule[], language: LanguageId, library?: Library) {
    const lists = new Map<string, { words: readonly string[]; mentions: readonly (readonly string[])[] }>();
    const byId = [...rules].sort((a, b) => (a.id < b.id ? -1 : 1));
    byId.forEach((rule, order) => {
      rule.alternatives.forEach((old, alternative) => {
        if (!isUnderstoodIn(old, rule, language)) return;
        this.#rules.set(rule.id, rule);
        for (const finds of findersFor(old, rule, language)) {
          this.#dispatch.add({ rule, order, alternative, finds });
          const { words, oneOf } = finds;
          const own =
            typeof rule.mentions === "function"
              ? rule.mentions(languageOf(language), library)
              : rule.mentions;
          const mentions = [own, oneOf].filter((list) => list !== undefined);
          const key = [[...words].sort(), ...mentions].map((list) => list.join("\0")).join("\0\0");
          lists.set(key, { words, mentions });
        }
      });
    });
    this.wordLists = [...lists.values()].map(({ words }) => words);
    this.#mentions = [...lists.values()].map(({ mentions }) => mentions);
  }

  get isEmpty(): boolean {
    return this.#dispatch.isEmpty;
  }

  /** Is this rule among those at work here? */
  has(id: string): boolean {
    return this.#rules.has(id);
  }

  /** The rules whose changes make the advice of this one needless. */
  yields(id: string): readonly string[] {
    return this.#rules.get(id)?.yieldsTo ?? [];
  }

  /** Can any pattern begin at nodes of this kind? */
  mayStartAt(kindId: number): boolean {
    return this.#dispatch.has(kindId);
  }

  /** The patterns to try at a node, in order. */
  startingAt(tree: SyntaxTree, n: NodeId): readonly Entry[] {
    return this.#dispatch.at(tree, n);
  }

  /** Can a text in which `has` finds words hold a match of any rule? Asked before a file is parsed. */
  mayMatch(has: (word: string) => boolean): boolean {
    const known = new Map<string, boolean>();
    const once = (word: string): boolean => {
      let found = known.get(word);
      if (found === undefined) known.set(word, (found = has(word)));
      return found;
    };
    const isThere = (words: readonly string[], i: number): boolean =>
      words.every(once) && (this.#mentions[i]?.every((list) => list.some(once)) ?? true);
    return once("uvran-keep") || this.wordLists.some(isThere);
  }
}

/** Is the old code of a rule understood in files of a language? */
export function isUnderstoodIn(old: Old, rule: Rule, language: LanguageId): boolean {
  if (old instanceof Snippet) return snippetFits(old, language);
  return rule.language !== undefined && languageOf(language).speaks.includes(rule.language);
}

function findersFor(old: Old, rule: Rule, language: LanguageId): readonly Finder[] {
  if (!(old instanceof Snippet)) return [readingFinder(old, language)];
  try {
    return compile(old, language).map(patternFinder);
  } catch (error) {
    if (error instanceof SnippetError) throw new RuleError(`rule "${rule.id}": ${error.message}`);
    throw error;
  }
}
