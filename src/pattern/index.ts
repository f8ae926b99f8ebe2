/** Code with holes in, compiled patterns and their matches out. */
export { Hole, Replacing, FreshName, Snippet, holes, fresh, type HoleKind, type Part } from "./hole.js";
export { javascript, typescript, python } from "./tags.js";
export { compile, snippetCode, snippetFits, SnippetError, type CompiledPattern } from "./compile.js";
export { linesOf, type SnippetLine } from "./snippet-text.js";
export { matchAt, matchesIn, type Capture, type PatternMatch } from "./match.js";
