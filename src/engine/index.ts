/** Rules and files in, changes out: dispatch, passes until nothing changes, clashes, verification. */
export {
  type Change,
  type FileResult,
  type Ground,
  type HeldBack,
  type Advice,
  type IdleKeep,
  type Silenced,
  type Failure,
  type Unparsed,
  type Unread,
} from "./change.js";
export { changesInFile } from "./file.js";
export { editsFor, errorsIn, textAfter } from "./outcome.js";
export { Engine } from "./project.js";
export { hashText } from "./fingerprint.js";
export { PreparedRules } from "./prepare.js";
export { keepComment } from "./keep-comment.js";
export { adviceGiven, filesNaming, reasonHeld, runTrials, trialEngine, type TrialResult } from "./trials.js";
export { tableFaults, type TableFault } from "./table-faults.js";
export { explain, type Explanation } from "./why.js";
export { fitting, type Fitting } from "./fitting.js";
