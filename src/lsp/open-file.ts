import { join } from "node:path";
import { pathToFileURL } from "node:url";
import type { Plan } from "../plan/index.js";
import type { Workspace } from "../workspace/index.js";

/** An open file with what was found in it, for one version of its text. */
export interface OpenFile {
  readonly workspace: Workspace;
  /** From the root of the project. */
  readonly path: string;
  readonly uri: string;
  readonly version: number;
  readonly text: string;
  readonly plan: Plan;
  /** Is the text what is on the disk? */
  readonly isSaved: boolean;
}

export const uriOf = (workspace: Workspace, path: string): string =>
  pathToFileURL(join(workspace.root, path)).href;
