/** A match and a replacement in, edits against the original text out. */
export { EDIT_CODES, type EditCode } from "./codes.js";
export { treeAfter } from "./tree-after.js";
export { applyEdits, clash, clashOnLines, compose, sorted, type Edit } from "./edits.js";
export { Excerpt } from "./excerpt.js";
export { FreshNames, singular } from "./fresh-names.js";
export {
  importMoved,
  nameFor,
  namedInText,
  stayingImports,
  mayLeaveUnused,
  tidyImports,
  type Named,
  type NamedOptions,
} from "./imports/index.js";
export { dedented, indentUnit, lineEnd, reindent, shifted, textAt, withLineEnds } from "./indent.js";
export { fitsAsStatements, fitsInPlace, fitsInStatement } from "./parentheses.js";
export { linesOf, Nearby } from "./nearby.js";
export { tellOwnNames } from "./own-names.js";
export { render } from "./render.js";
export { copy, ownLine, segmentText, text, type Segment } from "./segment.js";
export { misread } from "./misread.js";
export { CannotRewrite, settle } from "./settle.js";
export { growth, Shifts } from "./shifts.js";
export { removal } from "./removal.js";
