import { existsSync, realpathSync } from "node:fs";
import { dirname, join, relative, sep } from "node:path";
import { filesBehind, projectFolder } from "../node/index.js";
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
    this.#folders = folders.map((folder) => realOf(folder));
  }

  /** Undefined for a file that is in none of the folders. Throws what is wrong with the config. */
  async placeOf(file: string): Promise<Place | undefined> {
    const real = realOf(file);
    const folder = [...this.#folders]
      .sort((a, b) => b.length - a.length)
      .find((one) => real.startsWith(one + sep));
    if (folder === undefined) return undefined;
    const near = projectFolder(dirname(real));
    const root = near.startsWith(folder) && hasConfig(near) ? near : folder;
    let workspace = this.#opened.get(root);
    if (!workspace) this.#opened.set(root, (workspace = open(root)));
    const opened = await workspace;
    const path = relative(realOf(opened.root), real).split(sep).join("/");
    return path.startsWith("../") ? undefined : { workspace: opened, path };
  }

  /** All projects that are open; those whose config failed are not. */
  async all(): Promise<Workspace[]> {
    const settled = await Promise.allSettled(this.#opened.values());
    return settled.flatMap((one) => (one.status === "fulfilled" ? [one.value] : []));
  }

  /** Opens projects again at the next question: those whose config is made from one of these files, or has failed. */
  async forget(files: readonly string[]): Promise<boolean> {
    let forgot = false;
    const changed = new Set(files.map((file) => realOf(file)));
    for (const [root, workspace] of [...this.#opened]) {
      const { configFile } = (await workspace.catch(() => undefined))?.project ?? { configFile: "" };
      const isMade =
        configFile === "" ||
        (configFile !== undefined && filesBehind(configFile).some((file) => changed.has(realOf(file)))) ||
        files.some((file) => file.startsWith(join(root, "uvran.config.")));
      if (isMade) forgot = this.#opened.delete(root) || forgot;
    }
    return forgot;
  }
}

async function open(root: string): Promise<Workspace> {
  const { project } = await Workspace.open(root);
  const fileTime = Math.min(project.fileTime ?? EDITOR_MILLISECONDS, EDITOR_MILLISECONDS);
  return new Workspace({ ...project, fileTime });
}

const hasConfig = (folder: string): boolean =>
  ["ts", "mts", "js", "mjs", "json"].some((ending) => existsSync(join(folder, `uvran.config.${ending}`)));

/** A path with its links followed, as far as it is there. */
function realOf(path: string): string {
  try {
    return realpathSync(path);
  } catch {
    return dirname(path) === path ? path : join(realOf(dirname(path)), path.slice(dirname(path).length));
  }
}
