/**
 * Rules out of edits made by hand: pairs of files as they were and as they became go in; the edits that are instances of
 * one move are found, and for each move comes a rule, from tight to general, with the places it would change.
 */
export {
  draft,
  usual,
  type Draft,
  type DraftedEdit,
  type DraftedMove,
  type DraftPair,
  type DraftRequest,
} from "./draft.js";
export { firstRule, RULE_LANGUAGES, ruleFromCode, ruleFromReading } from "./first-rule.js";
export { languageOfRule, type RuleLanguage } from "./model.js";
export { exportName, trialSource } from "./source.js";
export { shownCode } from "./wording.js";
export type { Candidate, Weighed } from "./candidate.js";
export type { DraftPlace } from "./probe.js";
export { drafted } from "./drafted.js";
