/** Plans: what was worked out, for one state of the files, as data that can be stored and read back. */
export {
  leavesRoot,
  planJsonSchema,
  PlanError,
  planSchema,
  readPlan,
  type Plan,
  type PlanChange,
  pathsOf,
} from "./plan.js";
export { makePlan, type Examined } from "./make.js";
export { joined, type NamedPlan } from "./join.js";
export { isInShard, shardIn, shardText, type Shard } from "./shard.js";
export { atLeast, byPath, countBy, plannedText } from "./texts.js";
export {
  CHANGE_DECISIONS,
  decisionsText,
  PLACE_DECISIONS,
  readDecisions,
  type Decision,
} from "./decision.js";
export {
  ProofReader,
  proofSentence,
  SET_ASIDE,
  proofSchema,
  provesSomething,
  storedProof,
  type ProofOfChange,
  type StoredProof,
} from "./proof.js";
export { makeDesk, readDesk, type Desk, type DeskRule } from "./desk.js";
export { linesOfChange, withText, type Lines } from "./edited.js";
export { doubtsOf, fits, fitsPlace, type Filter, type Left, type Selection, type Wish } from "./filter.js";
export { similar } from "./likeness.js";
export { select } from "./selection.js";
export { linesFor, withSaid, type Said } from "./said.js";
export { standingsOf, standsAs, type Standing, type Standings } from "./standing.js";
export { type TextOf } from "./change-code.js";
