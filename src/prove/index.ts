/**
 * Proof by the project's own checks: they run in scratch copies on old and new code; where they differ, the changes that are
 * to blame are found, and the largest set that passes is left.
 */
export {
  compareByExample,
  type Difference,
  type Examples,
  type ExampleTask,
  type Tried,
} from "./by-example/by-example.js";
export { Candidates } from "./candidates.js";
export { shownExit, type Compared, type Ran } from "./compare.js";
export type { Replacements } from "./copy.js";
export { median, type Figure } from "./figures.js";
export { type Account, type Progress, type Proof, type SetAside } from "./account.js";
export { prove, type Task } from "./prove.js";
export { loadProof, storeProof } from "./stored.js";
export { suggestedChecks, suggestedText, type Suggested } from "./suggest.js";
export type { Run } from "./run.js";
export { largestPassing, type Found, type Search, type Trial } from "./search.js";
