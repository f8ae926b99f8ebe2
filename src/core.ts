/**
 * The core of Uvran: rules over syntax trees, and the engine that works out what they change. Nothing here
 * touches files or processes, so it runs in the browser; `uvran/node` adds the rest.
 */
export * from "./syntax/index.js";
export {
  each,
  exactly,
  fresh,
  FreshName,
  Hole,
  holes,
  Maybe,
  maybe,
  Need,
  need,
  Replacing,
  Snippet,
} from "./pattern/index.js";
export { cpp, csharp, java, javascript, php, powershell, python, ruby, typescript } from "./pattern/index.js";
export { compile, matchAt, matchesIn, matchOneAt, snippetCode, SnippetError } from "./pattern/index.js";
export type {
  Capture,
  CompiledPattern,
  HoleLimits,
  HoleSpec,
  Part,
  Piece,
  PatternMatch,
  Tag,
} from "./pattern/index.js";
export {
  applyEdits,
  compose,
  copy,
  indentUnit,
  ownLine,
  removal,
  reindent,
  shifted,
  singular,
  text,
  textAt,
  type Edit,
  type Segment,
} from "./rewrite/index.js";
export { mayHoldCode, regionsOf, type Region } from "./embed/index.js";
export * from "./analysis/index.js";
export * from "./readings/index.js";
export * from "./rules/index.js";
export * from "./engine/index.js";
export * from "./plan/index.js";
export * from "./draft/index.js";
export * from "./report/index.js";
