/** Code with holes in, compiled patterns and their matches out. */
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
} from "./hole.js";
export { originAt, tellOrigins, type OriginOracle } from "./origins.js";
export type { HoleLimits, HoleSpec, Part, Piece } from "./hole.js";
export {
  cpp,
  csharp,
  java,
  javascript,
  php,
  powershell,
  python,
  ruby,
  typescript,
  type Tag,
} from "./tags.js";
export { compile, snippetFits, type CompiledPattern } from "./compile.js";
export { checkPattern, SnippetError } from "./snippet-error.js";
export { headAt, headOf } from "./head.js";
export { snippetCode } from "./spelling.js";
export { resolved, withoutLimits } from "./variants.js";
export { linesOf, type SnippetLine } from "./snippet-text.js";
export { fill, matchAt, matchesIn, matchOneAt, type PatternMatch } from "./match.js";
export { textOfCapture, type Capture, type CapturePiece } from "./capture.js";
export { mismatchAt, type Mismatch } from "./mismatch.js";
export { holesFilled, holesIn, type HolesIn } from "./holes-in.js";
