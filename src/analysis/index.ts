/** What is known about code before it is changed. Answers are yes, no or unknown, with evidence. */
export { no, unknown, weakest, yes, type Answer, type Evidence } from "./answer.js";
export { isUnchanged } from "./collections.js";
export { earlyExits, runsLater, shortened, isSideEffectFree } from "./effects.js";
export { declaredType, isOnPrimitives, type DeclaredType } from "./annotations.js";
export {
  declarationOf,
  functionAround,
  isBuiltin,
  isLeftAlone,
  readsOf,
  scopeAround,
  writesOf,
} from "./names.js";
export { nameInFile, NameInFile, referencesAt, type Declaration, type Reference } from "./declarations.js";
export { bodyAround, scopesAround, type Scope } from "./scopes.js";
export { isMember, isSeenElsewhere, spelledOut, usesOf, type Uses } from "./every-use.js";
export { isNamedAtRunTime, renamings } from "./rename.js";
export {
  canLeaveEarly,
  canThrow,
  everyWayReaches,
  flowAround,
  isCertainlyAssigned,
  isUsedAfter,
  isWrittenBetween,
} from "./flow/questions.js";
export { canBeMissingHere, isMissing } from "./flow/presence.js";
export { doesEscape, fateOf, type Fate } from "./escape.js";
export { isTarget, useOf } from "./name-use.js";
export { areKin, usesElsewhere, type ForeignUse, type ForeignUses, type SourceFiles } from "./elsewhere.js";
export type { AskedFile, ResolvedTo, TypeFacts, TypeSource } from "./type-source.js";
export { comesFromModule, originOf, type Origin, type Wanted } from "./origin.js";
export { annotationOf, isInstanceOf, typeOf, typeOfDeclaration, type KnownType } from "./types.js";
