/** Uvran on files: projects and their configs, search for sources, apply with a journal, proof in scratch copies. */
export {
  applyChanges,
  interruptedApply,
  rewrittenFiles,
  undoLast,
  type Applied,
  type Restored,
  type Rewritten,
} from "./apply.js";
export {
  configAround,
  defineConfig,
  loadProject,
  projectFolder,
  ruleInProject,
  type Project,
  type UvranConfig,
} from "./config.js";
export { comparisonsOf, COMPARISONS, type Check, type Comparison, type ScratchConfig } from "./check.js";
export { loadCache, storeCache } from "./cache.js";
export { commandFolders } from "./command-folders.js";
export { checkCommittable, makeCommits, type Commit } from "./commits.js";
export { git, mustGit } from "./git.js";
export { refusedByMachine } from "./problem.js";
export { filesBehind } from "./config-files.js";
export { type Formatter } from "./formatters.js";
export { changeDecisions, decisionsFile, loadDecisions } from "./decisions.js";
export { findSources, isSource, type Sources } from "./files.js";
export { wasmPath } from "./grammars.js";
export { installed, shownVersion } from "./installed.js";
export { Journal } from "./journal.js";
export { isAlive, ownHolder, readHolder } from "./holder.js";
export { locked } from "./lock.js";
export { compareLine, loadLine, storeLine, type LineEntry, type LineVerdict } from "./line-record.js";
export { editedFiles, type EditedFile, type EditedFiles } from "./edited-files.js";
export { ownersIn } from "./owners.js";
export { changedSince, touches, type ChangedLines } from "./since.js";
export { tableDraft } from "./table-draft.js";
export { ProductVersions, type ProductVersion } from "./products/index.js";
export { goalIn, goalText, stepOf, type Goal, type Journey } from "./moves.js";
export { messageOf, Problem } from "./problem.js";
export { realPath } from "./real-path.js";
export {
  cleanTemporaries,
  hasPlan,
  loadPart,
  loadPlan,
  stateFolder,
  storePlan,
  temporaryFolder,
} from "./state.js";
export { decode, encode, encodingOf, type Encoding } from "./encoding.js";
export { hasWord, inspect } from "./read.js";
export { insideRoot } from "./write.js";
export { ProjectFiles } from "./project-files.js";
export { isManifest, ProjectTargets, type Targets } from "./targets.js";
export { TypeScriptTypes } from "./typescript-types.js";
