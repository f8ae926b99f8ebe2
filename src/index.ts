/**
 * What authors of rules write with, and what a program needs to run rules on code and to read a plan. It runs in the browser;
 * `uvran/core` has everything else of which this is made, `uvran/node` files, configs, journal and proof.
 */

// Code with holes.
export { cpp, csharp, java, javascript, php, powershell, python, ruby, typescript } from "./pattern/index.js";
export {
  each,
  exactly,
  fresh,
  holes,
  maybe,
  need,
  type Hole,
  type HoleSpec,
  type Snippet,
} from "./pattern/index.js";
export { copy, ownLine, text, type Segment } from "./rewrite/index.js";

// What code says, however it is spelt.
export {
  brought,
  choice,
  countedItem,
  filled,
  filledItem,
  guarded,
  hasKey,
  hasMember,
  collected,
  equalOrMissing,
  firstFound,
  flagged,
  item,
  missing,
  named,
  ofKind,
  oneOrMany,
  onlyIf,
  orThrows,
  passingOf,
  present,
  required,
  scoped,
  switched,
  takenSafely,
  tested,
  token,
  truthy,
  unprotected,
  walked,
  walkedByKey,
  type Chain,
  type Choice,
  type Collecting,
  type Demand,
  type EqualOrMissing,
  type Flagged,
  type Sought,
  type Loop,
  type OneOrMany,
  type Passing,
  type PresenceTest,
  type Reading,
  type Resource,
  type Switched,
} from "./readings/index.js";

// Rules, their conditions and trials.
export {
  options,
  pack,
  rule,
  RuleError,
  trialsIn,
  type Becomes,
  type Pack,
  type Rule,
  type RuleSpec,
} from "./rules/index.js";
export { after, before, consistsOf, containing, inside, type Narrowing } from "./rules/index.js";
export {
  all,
  any,
  askCompiler,
  builtin,
  condition,
  escapes,
  everyUseOf,
  isOfType,
  leavesEarly,
  neverWritten,
  none,
  not,
  onlyUse,
  renamed,
  Together,
  sideEffectFree,
  assumedVersions,
  targetAllows,
  unchangedDuring,
  use,
  usedAfter,
  valuesOf,
  type Condition,
  type Handle,
  type Kind,
  type Match,
  type Trial,
  type Trust,
} from "./rules/index.js";
export { changes, type ChangeRow, type ChangeTable } from "./rules/index.js";

// Answers, and what can be asked about code.
export { caution, no, unknown, weakest, yes, type Answer, type Evidence } from "./analysis/index.js";
export {
  canLeaveEarly,
  canThrow,
  classesDerivedFrom,
  classesNamed,
  everyWayReaches,
  functionAround,
  isCertainlyAssigned,
  isInstanceOf,
  isLibraryFunction,
  isOfLibrary,
  isOfTrait,
  isSideEffectFree,
  isWrittenBetween,
  mayRunAnyway,
  nameInFile,
  originOf,
  shortened,
  typeOf,
  usesOf,
  type Library,
} from "./analysis/index.js";
export {
  sameCode,
  type LanguageId,
  type SyntaxNode,
  type SyntaxTree,
  type TextRange,
} from "./syntax/index.js";

// Rules at work, drafts and plans.
export {
  languageOfFile,
  loadGrammars,
  parse,
  setWasmSource,
  type Language,
  type WasmSource,
} from "./syntax/index.js";
export { applyEdits, type Edit } from "./rewrite/index.js";
export {
  Engine,
  explain,
  runTrials,
  textAfter,
  type Advice,
  type Change,
  type FileResult,
  type HeldBack,
  type TrialResult,
} from "./engine/index.js";
export { draft, drafted, usual, type Draft, type DraftedMove, type DraftPair } from "./draft/index.js";
export { makePlan, planJsonSchema, readPlan, type Plan } from "./plan/index.js";
