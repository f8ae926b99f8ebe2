import { existsSync } from "node:fs";
import { join } from "node:path";
import { fileURLToPath, pathToFileURL } from "node:url";
import type { TextDocuments } from "vscode-languageserver/node";
import type { TextDocument } from "vscode-languageserver-textdocument";
import { loadDecisions } from "../node/index.js";
import { standingsOf, type Plan } from "../plan/index.js";
import type { Workspace } from "../workspace/index.js";
import type { Place, Projects } from "./projects.js";

/** An open file with what was found in it, for one version of its text. */
export interface OpenFile extends Place {
  readonly uri: string;
  readonly version: number;
  readonly text: string;
  readonly plan: Plan;
  /** Is the text what is on the disk? */
  readonly isSaved: boolean;
}

/** Whom the open files tell of themselves. */
export interface Told {
  /** What was found in a file; undefined for one that no project looks at, or that is closed. */
  found(uri: string, version: number | undefined, file: OpenFile | undefined): Promise<void>;
  wrong(error: unknown): void;
}

/** So long after the last key a file is looked at. */
const QUIET_MILLISECONDS = 120;

/** The files that an editor has open, in the text that it has, saved or not. */
export class OpenFiles {
  readonly #documents: TextDocuments<TextDocument>;
  readonly #projects: Projects;
  readonly #told: Told;
  readonly #files = new Map<string, OpenFile>();
  readonly #waiting = new Map<string, NodeJS.Timeout>();

  constructor(documents: TextDocuments<TextDocument>, projects: Projects, told: Told) {
    this.#documents = documents;
    this.#projects = projects;
    this.#told = told;
  }

  /** The version of the text that the editor has of a file; null for one that it does not have open. */
  readonly versionOf = (uri: string): number | null => this.#documents.get(uri)?.version ?? null;

  /** What is known of a file, whatever its text is by now. */
  known(uri: string): OpenFile | undefined {
    return this.#files.get(uri);
  }

  /** What was found in a file, in the text that the editor has now; looked at where that is not done yet. */
  async current(uri: string): Promise<OpenFile | undefined> {
    if (this.versionOf(uri) !== null && this.#files.get(uri)?.version !== this.versionOf(uri))
      await this.look(uri);
    const file = this.#files.get(uri);
    return file && file.version === this.versionOf(uri) ? file : undefined;
  }

  /** Looks at a file once no key is pressed any more. */
  lookSoon(uri: string): void {
    clearTimeout(this.#waiting.get(uri));
    this.#waiting.set(
      uri,
      setTimeout(() => void this.look(uri), QUIET_MILLISECONDS),
    );
  }

  /** Looks at a file as it is in the editor, and tells what is found. */
  async look(uri: string): Promise<void> {
    this.#stopWaiting(uri);
    const document = this.#documents.get(uri);
    const place = document && (await this.#placeOf(uri));
    if (!document || !place) return;
    const { workspace, path } = place;
    const [version, text] = [document.version, document.getText()];
    try {
      const stale = workspace.setUnsaved(path, text);
      const found = await workspace.fileNow(path);
      // Meanwhile more was typed, or the file was closed: another look is on its way.
      if (this.versionOf(uri) !== version) return;
      const plan = found && withoutDropped(place, found.plan, text);
      const file = plan && { ...place, uri, version, text, plan, isSaved: workspace.isSaved(path, text) };
      if (file) this.#files.set(uri, file);
      else this.#files.delete(uri);
      await this.#told.found(uri, version, file);
      this.#lookAgain(workspace, stale, uri);
    } catch (error) {
      this.#told.wrong(error);
    }
  }

  /** Takes in that a file is closed: what is on the disk counts again. */
  async close(uri: string): Promise<void> {
    this.#stopWaiting(uri);
    this.#files.delete(uri);
    const place = await this.#placeOf(uri);
    if (place && this.versionOf(uri) === null) {
      const stale = place.workspace.setUnsaved(place.path, undefined);
      this.#lookAgain(place.workspace, stale, uri);
    }
    await this.#told.found(uri, undefined, undefined);
  }

  /** Takes in that files have changed on the disk: what rests on them is looked at again, with other rules where these have changed. */
  async changedOnDisk(uris: readonly string[]): Promise<void> {
    const hasOtherRules = await this.#projects.forget(uris.filter(isFile).map((uri) => fileURLToPath(uri)));
    for (const workspace of await this.#projects.all()) this.#lookAgain(workspace, workspace.refresh());
    for (const { uri } of this.#documents.all())
      if (hasOtherRules || !this.#files.has(uri) || uris.includes(uri)) this.lookSoon(uri);
  }

  #lookAgain(workspace: Workspace, stale: readonly string[], but?: string): void {
    const paths = new Set(stale);
    for (const [uri, file] of this.#files)
      if (uri !== but && file.workspace === workspace && paths.has(file.path)) this.lookSoon(uri);
  }

  #stopWaiting(uri: string): void {
    clearTimeout(this.#waiting.get(uri));
    this.#waiting.delete(uri);
  }

  /** Where a file is; undefined for one that is in no project, or whose config fails, which is told. */
  async #placeOf(uri: string): Promise<Place | undefined> {
    try {
      return isFile(uri) ? await this.#projects.placeOf(fileURLToPath(uri)) : undefined;
    } catch (error) {
      this.#told.wrong(error);
      return undefined;
    }
  }
}

/** Is this the address of a file? */
export const isFile = (uri: string): boolean => uri.startsWith("file:");

export const uriOf = ({ root }: Workspace, path: string): string => pathToFileURL(join(root, path)).href;

/** A plan without the changes that somebody has decided to drop. */
function withoutDropped({ workspace, path }: Place, plan: Plan, text: string): Plan {
  const decisions = loadDecisions(workspace.root);
  if (decisions.length === 0) return plan;
  const standings = standingsOf(plan, decisions, {
    textOf: (other) => (other === path ? text : workspace.text(other)),
    isThere: (other) => existsSync(join(workspace.root, other)),
  });
  const isDropped = ({ id }: { readonly id: string }): boolean => {
    const { decision, misfit } = standings.of(id);
    return misfit === undefined && decision === "drop";
  };
  return { ...plan, changes: plan.changes.filter((change) => !isDropped(change)) };
}
