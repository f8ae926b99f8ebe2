import { languageOfFile, parseFile, type Language, type SyntaxTree } from "../syntax/index.js";

/** Trees are kept up to so many code units of their texts together. */
const MOST_TEXT = 8_000_000;

/** The trees of files, by path and text, for all who ask, as long as there is room. */
export class TreeStore {
  readonly #trees = new Map<string, SyntaxTree>();
  #size = 0;

  /** The tree of a text; undefined for a file of no language, unless one is given. */
  treeOf(path: string, text: string, language = languageOfFile(path, text)): SyntaxTree | undefined {
    if (!language) return undefined;
    const known = this.#trees.get(path);
    // The last one asked for goes last.
    this.#trees.delete(path);
    const isSame = known?.text === text && known.language === language;
    const tree = isSame ? known : this.#read(text, language, known);
    this.#trees.set(path, tree);
    for (const [oldest, old] of this.#trees) {
      if (this.#size <= MOST_TEXT || oldest === path) break;
      this.#trees.delete(oldest);
      this.#size -= old.text.length;
    }
    return tree;
  }

  #read(text: string, language: Language, old: SyntaxTree | undefined): SyntaxTree {
    this.#size += text.length - (old?.text.length ?? 0);
    return parseFile(text, language);
  }
}
