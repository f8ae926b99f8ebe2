/** The vocabulary of rule authors: rules, packs, conditions, trials. */
export { after, before, consistsOf, containing, inside } from "./around.js";
export type { Distance, Narrowing, Reach } from "./around.js";
export { ABOUT_HOLE, ABOUT_HOLE_IN, conditionsAbout, type WrittenCondition } from "./about-hole.js";
export { condition, type Condition } from "./condition.js";
export { all, any, askCompiler, builtin } from "./conditions.js";
export { escapes, isOfType, neverWritten, none, not, onlyUse, type NoneOptions } from "./conditions.js";
export { byType, sideEffectFree, unchangedDuring, usedAfter, valuesOf, leavesEarly } from "./conditions.js";
export { LANGUAGES_WITH_HANDLES, SCOPINGS, type Handle, type Wrapper } from "./handle.js";
export { Match, type Around } from "./match.js";
export { KINDS, lower, TRUSTS, type Kind, type Trust } from "./levels.js";
export { options, settingsOf, type RuleOptions } from "./options.js";
export { isRule, isRuleId, pack, rule, RuleError } from "./rule.js";
export {
  type Becomes,
  type Moves,
  type Old,
  type Pack,
  type PackOptions,
  type Rule,
  type RuleSpec,
} from "./rule.js";
export {
  isAtLeast,
  assumedVersions,
  targetAllows,
  versionVerdict,
  type Target,
  type LineLimit,
  type TargetSource,
  type VersionVerdict,
} from "./target.js";
export { changesInNotes, type Noted, type Notes } from "./table/notes.js";
export { CellError, writtenCode } from "./table/code-text.js";
export { changes } from "./table/rules.js";
export { type ChangeRow, type ChangeTable } from "./table/row.js";
export { trialsIn, type Trial } from "./trial.js";
export { use, UsePattern, type UseClause, type UseOutcome } from "./uses/clause.js";
export { type UsePlace } from "./uses/place.js";
export { EveryUse, everyUseOf, type Coverage, type CoveredUse } from "./uses/every-use.js";
export { declarationOfHole, foreignUses } from "./uses/foreign.js";
export { Together, type FileTogether } from "./uses/together.js";
export { renamed, Renaming, type RenamingOptions } from "./uses/renaming.js";
