import { oncePerTree, type SyntaxTree } from "../syntax/index.js";
import type { SourceFiles } from "./names/source-files.js";
import { surroundingsOf } from "./project.js";

const known = oncePerTree(() => new Map<string, string | undefined>());

/** The first text in a file that a form fits; looked for once. The form must not be a global one. */
export function textFound(tree: SyntaxTree, form: RegExp): string | undefined {
  const found = known(tree);
  const key = form.toString();
  if (!found.has(key)) found.set(key, form.exec(tree.text)?.[0]);
  return found.get(key);
}

/** Does text of this form stand in a file of the project in which the word stands? The files are searched once. */
export function standsInProject(tree: SyntaxTree, word: string, form: RegExp): boolean {
  if (textFound(tree, form) !== undefined) return true;
  const { files } = surroundingsOf(tree);
  if (!files) return false;
  let known = searched.get(files);
  if (!known) searched.set(files, (known = new Map()));
  files.restsOn?.(word);
  let found = known.get(form.source);
  if (found === undefined)
    known.set(form.source, (found = [...files.naming(word)].some(({ text }) => form.test(text))));
  return found;
}

const searched = new WeakMap<SourceFiles, Map<string, boolean>>();
