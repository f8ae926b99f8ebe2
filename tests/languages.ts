import "uvran/node";
import { allLanguages, languageOf, loadGrammars, parse, type LanguageId, type SyntaxTree } from "uvran/core";

await loadGrammars(allLanguages());

/** Parses code in one language; the grammars are loaded by importing this file. */
export function treeOf(language: LanguageId, code: string): SyntaxTree {
  return parse(code, languageOf(language));
}
