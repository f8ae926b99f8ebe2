/**
 * Source text in, compact syntax trees out. Languages are values of `Language`, one file of facts each;
 * nothing outside this room knows which parser stands behind a tree.
 */
import { cpp } from "./facts/cpp.js";
import { csharp } from "./facts/csharp.js";
import { java } from "./facts/java.js";
import { javascript } from "./facts/javascript.js";
import { php } from "./facts/php.js";
import { powershell } from "./facts/powershell.js";
import { python } from "./facts/python.js";
import { ruby } from "./facts/ruby.js";
import { tsx, typescript } from "./facts/typescript.js";
import { registerLanguage } from "./language.js";

const LANGUAGES = [javascript, typescript, tsx, python, java, cpp, csharp, php, ruby, powershell];
for (const language of LANGUAGES) registerLanguage(language);

export { type Language, type LanguageId } from "./language.js";
export { lacksParentheses } from "./bare-facts.js";
export { HOLE_KINDS, type HoleKind } from "./code-facts.js";
export { type CodeFacts, type ContextName, type SnippetContext } from "./code-facts.js";
export type { DeclaredAs, Declares, Does, NameFacts, NameSpace, NameUse, ScopeFacts } from "./name-facts.js";
export type { FlowFacts, FlowShape, IteratorFacts, MissingFacts } from "./flow-facts.js";
export { folderOf, normalized, ordinaryLinks, withoutEnding } from "./link-facts.js";
export type { ClassFacts, DeclaredMember } from "./class-facts.js";
export { escaped } from "./class-facts.js";
export { noveltiesIn, syntaxIn, type Novelty } from "./version-facts.js";
export type { HandedOn, LinkedFile, LinkFacts } from "./link-facts.js";
export type { Renamed, ScopeKind, Use } from "./name-facts.js";
export { type MeaningFacts } from "./meaning-facts.js";
export type { TypeNotation, ValueTypes } from "./type-notation.js";
export { allLanguages, languageOf, languageOfFile, mayBeScript, versionInFirstLine } from "./language.js";
export type {
  Import,
  ImportFacts,
  ImportForm,
  ImportStatement,
  ImportStyle,
  WholeImports,
} from "./import-facts.js";
export type { ListedImport } from "./import-facts.js";
export { importStatements, topLevel } from "./import-facts.js";
export { loadGrammars, setWasmSource, RUNTIME_FILE, type WasmSource } from "./grammars.js";
export { NO_NODE, type NodeId } from "./node-arrays.js";
export { kindIdsOf, kindNamed, tokenIdsOf } from "./grammar-names.js";
export { isLabel, jumpOf, partsOf, partsOfBranch, saidOf, shapeOf } from "./shape.js";
export { oncePerKey, oncePerNode, oncePerTree } from "./once-per-tree.js";
export { SyntaxTree } from "./tree.js";
export { countErrors, otherBranches, parse, parseFile, readsAlone, reparse } from "./parse.js";
export type { Mask } from "./masks/mask.js";
export { inNotebook, isOfOtherLanguage } from "./masks/magics.js";
export { countLeading } from "./count-leading.js";
export { SyntaxNode } from "./node.js";
export { offsetOf, placeOfOffset, type TextPlace, type TextRange } from "./text-range.js";
export {
  anyCase,
  heredocText,
  isLayout,
  treesEqual,
  sameToken,
  sameCode,
  significantChildren,
  unwrapped,
} from "./equality.js";
