/** The vocabulary of rule authors: rules, packs, conditions, trials. */
export { condition, type Condition } from "./condition.js";
export { all, builtin, isTarget, neverWritten, sideEffectFree, unchangedDuring } from "./conditions.js";
export { Match } from "./match.js";
export { KINDS, pack, rule, RuleError, TRUSTS } from "./rule.js";
export { type Becomes, type Kind, type Pack, type Rule, type RuleSpec, type Trust } from "./rule.js";
export { trialsIn, type Trial } from "./trial.js";
