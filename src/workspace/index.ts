/** An opened project: what commands, pages and editors ask for surveys, plans, texts and proof. */
export { earlierSurvey } from "./earlier.js";
export { proofSurvey, provedBy } from "./proof-report.js";
export { documentByTemplate, documentOf, journeyLines, type Document } from "./report.js";
export { type Opening } from "./opening.js";
export { Workspace, type Examination, type Opened, type Task, type Working } from "./workspace.js";
export { type Sides } from "./sides.js";
export { DecidedMeanwhile, Review } from "./review.js";
export {
  largestPassing,
  prove,
  type Account,
  type Examples,
  type Found,
  type Progress,
  type Proof,
  type Search,
  type SetAside,
  type Trial,
} from "../prove/index.js";
