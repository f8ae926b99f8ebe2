import { escaped, type LanguageId, type SyntaxNode, type SyntaxTree } from "../../syntax/index.js";
import { no, unknown, yes, type Answer } from "../answer.js";
import { surroundingsOf } from "../project.js";
import { referencesAt } from "./declarations.js";

/** Text that may define a function of this name, for languages in which files see each other's functions. */
const DEFINES: Readonly<Partial<Record<LanguageId, (name: string) => RegExp>>> = {
  php: (name) =>
    new RegExp(`\\bfunction\\s+&?\\s*${name}\\s*\\(|\\buse\\s+function\\b[^;]*\\b${name}\\b`, "i"),
  // `nil?` ends in no letter, so that a word's end says nothing.
  ruby: (name) =>
    new RegExp(
      `\\bdef\\s+(\\w+\\.)?${name}(?![\\w?!=])|\\b(define_method|define_singleton_method|alias_method|alias|def_delegators?|attr_\\w+)\\b[^\\n]*:?${name}(?![\\w?!=])`,
    ),
  cpp: (name) =>
    new RegExp(
      `(^|[\\w*&>]\\s+|[*&])(\\w+::)*${name}\\s*\\([^;{}]*\\)[^;{}]*\\{|#\\s*define\\s+${name}\\b`,
      "m",
    ),
  powershell: (name) =>
    new RegExp(`\\b(function|filter)\\s+(\\w+:)?${name}\\b|Alias\\s+.*\\b${name}\\b`, "i"),
};

/**
 * Does a call of a bare name mean the function of the language's library? Not where the file declares or imports one of
 * the name; unknown where another file of the project defines one that may be meant.
 */
export function isLibraryFunction(name: SyntaxNode): Answer {
  const leaf = name.isLeaf ? name : [...name.descendants()].findLast((node) => node.isLeaf && node.named);
  const text = leaf?.text ?? name.text;
  const references = leaf ? referencesAt(leaf) : [];
  const to = references.find((one) => one.to)?.to;
  if (to) return no(`\`${text}\` is given a meaning of its own in this file`, to.at[0]);
  return isDefinedInProject(text, name.tree) ?? yes(`\`${text}\` is a function of the library`, name);
}

/** Does a file of the project define a function of this name that a call in this one may mean? Undefined where none does. */
export function isDefinedInProject(name: string, tree: SyntaxTree): Answer | undefined {
  const form = DEFINES[tree.language.id]?.(escaped(name));
  if (!form) return undefined;
  const { files, path } = surroundingsOf(tree);
  if (form.test(tree.text)) return unknown(`this file defines a \`${name}\` of its own`);
  const word = /[\p{L}\p{N}_]+/u.exec(name)?.[0] ?? name;
  for (const file of files?.naming(word) ?? []) {
    if (file.path !== path && form.test(file.text))
      return unknown(`${file.path} defines a \`${name}\` of its own`);
  }
  return undefined;
}
