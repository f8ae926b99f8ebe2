/** Plans and surveys in, text out. */
export { plural } from "./counted.js";
export { changeLines, type DiffLine } from "./diff-lines.js";
export { fileDiff } from "./unified-diff.js";
export { changeText, elsewhereLines, proposalText } from "./proposal.js";
export {
  notLookedAt,
  placesText,
  surveyText,
  type Skipped,
  type Survey,
  type VersionAsked,
} from "./survey.js";
export { codesPage, sayingsOf, type CodeExample, type Saying } from "./code-page.js";
export { decisionsList, paintStanding, standingWord } from "./decisions.js";
export { factsOf, type RuleFacts, type Shown } from "./rule-facts.js";
export { packPage, rulesIndex } from "./rule-page.js";
export { placeBehind, shownPath } from "./path.js";
export { paintTrust, SIGN, type Paint } from "./paint.js";
export { comparedWith, stockText, type Earlier } from "./stock/stock-text.js";
export { type Checked, type Outcome, type Proved } from "./stock/proved.js";
export { folderOfPath } from "./stock/folders.js";
export { type EffortMinutes } from "./stock/effort.js";
export {
  stockOf,
  WORK,
  type Count,
  type Place,
  type Stock,
  type StockOptions,
  type Work,
} from "./stock/stock.js";
export { coveragePage } from "./coverage-page.js";
