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
export { atLeast, byPath, countBy, plannedText } from "./select.js";
