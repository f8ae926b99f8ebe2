import { languageOfFile, parse, type SyntaxTree } from "../syntax/index.js";
import type { SourceFiles } from "./names/source-files.js";
import { placeIn, type Surroundings } from "./project.js";

/** The trees of other files are kept up to so many code units of their texts together. */
const MOST_TEXT = 8_000_000;

interface Kept {
  readonly trees: Map<string, SyntaxTree>;
  size: number;
}

const kept = new WeakMap<SourceFiles, Kept>();

/**
 * The tree of another file of a project, read once for all who ask as long as there is room; undefined for one of no
 * language. `around` is what is around the file that asks.
 */
export function treeOfOther(path: string, text: string, around: Surroundings): SyntaxTree | undefined {
  const language = languageOfFile(path);
  const { files } = around;
  if (!language || !files) return language && parse(text, language);
  let store = kept.get(files);
  if (!store) kept.set(files, (store = { trees: new Map(), size: 0 }));
  const { trees } = store;
  const known = trees.get(path);
  // The last one asked for goes last.
  trees.delete(path);
  if (known && known.text === text) {
    trees.set(path, known);
    return known;
  }
  store.size -= known?.text.length ?? 0;
  const tree = parse(text, language);
  placeIn(tree, { ...around, path });
  trees.set(path, tree);
  store.size += text.length;
  for (const [oldest, old] of trees) {
    if (store.size <= MOST_TEXT || oldest === path) break;
    trees.delete(oldest);
    store.size -= old.text.length;
  }
  return tree;
}
