import type { SyntaxTree } from "../syntax/index.js";
import type { SourceFiles } from "./names/source-files.js";
import { placeIn, type Surroundings } from "./project.js";
import { TreeStore } from "./tree-store.js";

const stores = new WeakMap<SourceFiles, TreeStore>();

/**
 * The tree of another file of a project, read once for all who ask; undefined for one of no language. `around` is what
 * is around the file that asks.
 */
export function treeOfOther(path: string, text: string, around: Surroundings): SyntaxTree | undefined {
  const tree = storeOf(around.files).treeOf(path, text);
  if (tree) placeIn(tree, { ...around, path });
  return tree;
}

function storeOf(files: SourceFiles | undefined): TreeStore {
  if (!files) return new TreeStore();
  if (files.trees) return files.trees;
  let store = stores.get(files);
  if (!store) stores.set(files, (store = new TreeStore()));
  return store;
}
