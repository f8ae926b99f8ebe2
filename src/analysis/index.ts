/** What is known about code before it is changed. Answers are yes, no or unknown, with evidence. */
export { caution, no, unknown, weakest, yes, type Answer, type Evidence } from "./answer.js";
export { CODES, type Code } from "./codes.js";
export { baseOf, stepsFrom } from "./chains.js";
export { isUnchanged } from "./collections.js";
export { exitsOf, runsLater } from "./exits.js";
export { shortened } from "./shown.js";
export { isSideEffectFree } from "./effects/side-effects.js";
export { mayChangePlaces } from "./effects/order.js";
export { mayRunAnyway } from "./effects/anyway.js";
export { isPlainValue, valuesInText } from "./effects/operations.js";
export { isPointer, memberNamed } from "./effects/reads.js";
export { declaredType, isOnPrimitives, type DeclaredType } from "./types/annotations.js";
export { declarationOf, isBuiltin, readsOf, writesOf } from "./names/builtins.js";
export {
  nameInFile,
  NameInFile,
  changesOf,
  referencesAt,
  referencesOf,
  type Declaration,
  type Reference,
} from "./names/declarations.js";
export { bodyAround, functionAround, scopesAround, type Scope } from "./names/scopes.js";
export {
  isMember,
  isPublicByItself,
  isSeenElsewhere,
  publicNames,
  spelledOut,
  usesOf,
  type Uses,
} from "./names/every-use.js";
export { isDefinedInProject, isLibraryFunction } from "./names/functions.js";
export { importOf, importsIn } from "./names/imports.js";
export { valuesGiven } from "./names/values-given.js";
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
export { isLeftAlone } from "./flow/left-alone.js";
export { howPassed, isPassedByValue } from "./names/passed.js";
export { waysOutWithout, type WayOut } from "./flow/ways-out.js";
export { isOnlyTested } from "./flow/tested.js";
export { operatorOf } from "./flow/parts.js";
export { assignmentOf, valueOf } from "./flow/assignment.js";
export { isMissing } from "./flow/missing.js";
export { canBeMissingHere, givesSomething, isCreation } from "./flow/presence.js";
export { mayBeThere } from "./flow/may-be-there.js";
export { doesEscape, fateOf, type Fate } from "./flow/escape.js";
export { isTarget, mentionsOf, useOf } from "./names/use.js";
export { usesElsewhere, type ForeignUse, type ForeignUses, type Following } from "./names/elsewhere.js";
export { areKin } from "./names/kin.js";
export type { NamingFile, SourceFiles } from "./names/source-files.js";
export { TreeStore } from "./tree-store.js";
export { standsInProject, textFound } from "./text-found.js";
export { treeOfOther } from "./other-trees.js";
export { placeIn, surroundingsOf, type Surroundings } from "./project.js";
export { classesDerivedFrom, classesIn, classesNamed, type FoundClasses } from "./classes/class-index.js";
export { placeOf, type OwnClass, type OwnMember } from "./classes/own-class.js";
export type { AskedFile, ResolvedTo, TypeFacts, TypeSource } from "./types/source.js";
export { isPlatformClass } from "./types/brought-whole.js";
export { namesWanted } from "./types/comes-from.js";
export { comesFromModule, originOf, type Origin, type Wanted } from "./types/origin.js";
export { annotationOf } from "./names/annotation.js";
export { isInstanceOf, typeOf, typeWritten, type KnownType } from "./types/known.js";
export { returnedFromElsewhere } from "./types/abroad.js";
export {
  isLibraryType,
  isMadeByLibrary,
  isOfLibrary,
  madeInSight,
  standInFor,
  type LibraryClass,
} from "./types/library.js";
export type { Abroad } from "./types/known.js";
export {
  EFFECTS,
  TRAITS,
  type Effect,
  type Library,
  type LibraryCalls,
  type LibraryClasses,
  type LibraryLanguage,
  type LibraryValues,
  type Trait,
} from "./library/facts.js";
export { calledFromLibrary } from "./library/called.js";
export { shippedLibrary } from "./library/table.js";
export {
  isNamedLike,
  isOfTrait,
  isTypeOfTrait,
  namesWithTrait,
  rowsNamed,
  type AskedClass,
} from "./library/classes.js";
