import { escaped, type SyntaxNode, type SyntaxTree } from "../../syntax/index.js";
import { no, unknown, yes, type Answer } from "../answer.js";
import { surroundingsOf } from "../project.js";
import { textFound } from "../text-found.js";
import { referencesAt } from "./declarations.js";

/**
 * Does a call of a bare name mean the function of the language's library? Not where the file declares or imports one of
 * the name; unknown where another file of the project defines one that may be meant.
 */
export function isLibraryFunction(name: SyntaxNode): Answer {
  const leaf = name.isLeaf ? name : [...name.descendants()].findLast((node) => node.isLeaf && node.named);
  const text = leaf?.text ?? name.text;
  const references = leaf ? referencesAt(leaf) : [];
  const to = references.find((one) => one.to)?.to;
  if (to) return no("name.library", `\`${text}\` is given a meaning of its own in this file`, to.at[0]);
  const { outermost } = name.tree.language;
  const isOutermost = outermost !== undefined && name.text.startsWith(outermost);
  return (
    (isOutermost ? undefined : isDefinedInProject(text, name.tree)) ??
    yes("name.library", `\`${text}\` is a function of the library`, name)
  );
}

/** Does a file of the project define a function of this name that a call in this one may mean? Undefined where none does. */
export function isDefinedInProject(name: string, tree: SyntaxTree): Answer | undefined {
  const form = tree.language.definesFunction?.(escaped(name));
  if (!form) return undefined;
  const { files, path } = surroundingsOf(tree);
  if (textFound(tree, form) !== undefined)
    return unknown("name.library", `this file defines a \`${name}\` of its own`);
  const word = /[\p{L}\p{N}_]+/u.exec(name)?.[0] ?? name;
  for (const file of files?.naming(word) ?? []) {
    if (file.path !== path && form.test(file.text))
      return unknown("name.library", `${file.path} defines a \`${name}\` of its own`);
  }
  return undefined;
}
