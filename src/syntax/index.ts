/**
 * Source text in, compact syntax trees out. Languages are values of `Language`, one file of facts each;
 * nothing outside this room knows which parser stands behind a tree.
 */
import { javascript } from "./facts/javascript.js";
import { python } from "./facts/python.js";
import { tsx, typescript } from "./facts/typescript.js";
import { registerLanguage } from "./language.js";

for (const language of [javascript, typescript, tsx, python]) registerLanguage(language);

export { type Language, type LanguageId, type NameRole } from "./language.js";
export { allLanguages, languageOf, languageOfFile } from "./language.js";
export { loadGrammars, setWasmSource, RUNTIME_FILE, type WasmSource } from "./grammars.js";
export { countErrors, NO_NODE, parse, SyntaxTree, type NodeId } from "./tree.js";
export { SyntaxNode } from "./node.js";
export { treesEqual, sameToken, sameCode, significantChildren, unwrapped } from "./equality.js";
