import { dirname, relative, sep } from "node:path";
import { configAround, realPath } from "../node/index.js";
import { Workspace } from "../workspace/index.js";

/** A file that takes longer than this is given up while it is edited; the command line is more patient. */
const EDITOR_MILLISECONDS = 5000;

/** A file of a project, as an editor means it. */
export interface Place {
  readonly workspace: Workspace;
  /** From the root, with forward slashes. */
  readonly path: string;
}

/** The projects of the files that an editor has open: that around the nearest config, else the editor's own folder. */
export class Projects {
  readonly #folders: readonly string[];
  readonly #opened = new Map<string, Promise<Workspace>>();

  constructor(folders: readonly string[]) {
    this.#folders = folders.map((folder) => realPath(folder));
  }

  /** Undefined for a file that is in none of the folders. Throws what is wrong with the config. */
  async placeOf(file: string): Promise<Place | undefined> {
    const real = realPath(file);
    const folder = [...this.#folders].sort((a, b) => b.length - a.length).find((one) => isBelow(real, one));
    if (folder === undefined) return undefined;
    const config = configAround(dirname(real));
    const root = config !== undefined && isBelow(config, folder) ? dirname(config) : folder;
    let workspace = this.#opened.get(root);
    if (!workspace) this.#opened.set(root, (workspace = open(root)));
    const opened = await workspace;
    const path = relative(realPath(opened.root), real).split(sep).join("/");
    return path.startsWith("../") ? undefined : { workspace: opened, path };
  }

  /** All projects that are open; those whose config failed are not. */
  async all(): Promise<Workspace[]> {
    const settled = await Promise.allSettled(this.#opened.values());
    return settled.flatMap((one) => (one.status === "fulfilled" ? [one.value] : []));
  }

  /**
   * Opens projects again at the next question: those whose config is made from one of these files, has another one now, or has failed.
   * Are there any?
   */
  async forget(files: readonly string[]): Promise<boolean> {
    const changed = new Set(files.map((file) => realPath(file)));
    let forgot = false;
    for (const [root, opening] of [...this.#opened]) {
      const project = (await opening.catch(() => undefined))?.project;
      const isMade =
        !project ||
        project.configFile !== configAround(root) ||
        project.configFiles.some((file) => changed.has(realPath(file)));
      if (isMade) forgot = this.#opened.delete(root) || forgot;
    }
    return forgot;
  }
}

const isBelow = (path: string, folder: string): boolean => path.startsWith(folder + sep);

async function open(root: string): Promise<Workspace> {
  const { project } = await Workspace.open(root);
  const fileTime = Math.min(project.fileTime ?? EDITOR_MILLISECONDS, EDITOR_MILLISECONDS);
  return new Workspace({ ...project, fileTime });
}
