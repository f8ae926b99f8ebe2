import type { SyntaxTree } from "../syntax/index.js";

const known = new WeakMap<SyntaxTree, Map<string, string | undefined>>();

/** The first text in a file that a form fits; looked for once. The form must not be a global one. */
export function textFound(tree: SyntaxTree, form: RegExp): string | undefined {
  let found = known.get(tree);
  if (!found) known.set(tree, (found = new Map()));
  const key = form.toString();
  if (!found.has(key)) found.set(key, form.exec(tree.text)?.[0]);
  return found.get(key);
}
