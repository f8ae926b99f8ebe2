/** What is known about code before it is changed. Answers are yes, no or unknown, with evidence. */
export { no, unknown, weakest, yes, type Answer, type Evidence } from "./answer.js";
export { baseOf, stepsFrom } from "./chains.js";
export { isUnchanged } from "./collections.js";
export { earlyExits, runsLater, shortened, isSideEffectFree } from "./effects.js";
export { declaredType, isOnPrimitives, type DeclaredType } from "./types/annotations.js";
export {
  declarationOf,
  functionAround,
  isBuiltin,
  isLeftAlone,
  readsOf,
  scopeAround,
  writesOf,
} from "./names/builtins.js";
export {
  nameInFile,
  NameInFile,
  referencesAt,
  type Declaration,
  type Reference,
} from "./names/declarations.js";
export { bodyAround, scopesAround, type Scope } from "./names/scopes.js";
export { isMember, isSeenElsewhere, spelledOut, usesOf, type Uses } from "./names/every-use.js";
export { isNamedAtRunTime, renamings } from "./names/rename.js";
export {
  canLeaveEarly,
  canThrow,
  everyWayReaches,
  flowAround,
  isCertainlyAssigned,
  isUsedAfter,
  isWrittenBetween,
} from "./flow/questions.js";
export { waysOutWithout, type WayOut } from "./flow/ways-out.js";
export { isOnlyTested } from "./flow/tested.js";
export { canBeMissingHere, isMissing } from "./flow/presence.js";
export { doesEscape, fateOf, type Fate } from "./flow/escape.js";
export { isTarget, useOf } from "./names/use.js";
export {
  areKin,
  usesElsewhere,
  type ForeignUse,
  type ForeignUses,
  type NamingFile,
  type SourceFiles,
} from "./names/elsewhere.js";
export type { AskedFile, ResolvedTo, TypeFacts, TypeSource } from "./types/source.js";
export { comesFromModule, originOf, type Origin, type Wanted } from "./types/origin.js";
export { annotationOf } from "./names/annotation.js";
export { isInstanceOf, typeOf, typeOfDeclaration, type KnownType } from "./types/known.js";
export { returnedFromElsewhere } from "./types/abroad.js";
export type { Abroad } from "./types/known.js";
