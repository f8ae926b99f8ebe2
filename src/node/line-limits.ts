import { existsSync, readFileSync } from "node:fs";
import { dirname, join } from "node:path";
import type editorconfig from "editorconfig";
import type { LineLimit } from "../rules/index.js";
import { languageOnDisk } from "./file-language.js";
import { whenNeeded } from "./when-needed.js";

const editorSettings = whenNeeded<typeof editorconfig>("editorconfig");

/** Files in which formatters and checkers are told how long a line may be, with where they say it. */
const SETTINGS: readonly { readonly file: string; readonly of: RegExp; readonly says: RegExp }[] = [
  { file: "pyproject.toml", of: /^python$/, says: /^\s*(?:line|max-line)[-_]length\s*=\s*(\d+)/m },
  { file: "setup.cfg", of: /^python$/, says: /^\s*max[-_]line[-_]length\s*=\s*(\d+)/m },
  { file: "tox.ini", of: /^python$/, says: /^\s*max[-_]line[-_]length\s*=\s*(\d+)/m },
  { file: ".flake8", of: /^python$/, says: /^\s*max[-_]line[-_]length\s*=\s*(\d+)/m },
  { file: ".prettierrc", of: /^(javascript|typescript|tsx)$/, says: /["']?printWidth["']?\s*:\s*(\d+)/ },
  { file: ".prettierrc.json", of: /^(javascript|typescript|tsx)$/, says: /"printWidth"\s*:\s*(\d+)/ },
  { file: "package.json", of: /^(javascript|typescript|tsx)$/, says: /"printWidth"\s*:\s*(\d+)/ },
];

/** The names of all files that may say how long a line may be. */
export const LINE_SETTINGS: readonly string[] = [".editorconfig", ...SETTINGS.map(({ file }) => file)];

/** How long a line may be, as the settings of a project's editors and formatters say; the nearest above a file counts. */
export class LineLimits {
  readonly #root: string;
  readonly #found = new Map<string, LineLimit | undefined>();
  readonly #told = new Map<string, boolean>();

  constructor(root: string) {
    this.#root = root;
  }

  /** The limit for a file, by its path from the root; undefined where nothing says one. */
  of(path: string): LineLimit | undefined {
    const kind = languageOnDisk(join(this.#root, path))?.id;
    if (kind === undefined) return undefined;
    const folder = dirname(path);
    const key = `${kind} ${folder}`;
    if (!this.#found.has(key)) this.#found.set(key, this.#inFolder(folder, kind));
    // An editor may be told of each file by its name.
    return this.#found.get(key) ?? (this.#isEditorTold(folder) ? this.#byEditor(path) : undefined);
  }

  #inFolder(folder: string, kind: string): LineLimit | undefined {
    for (const { file, of, says } of SETTINGS) {
      const path = join(folder, file);
      if (!of.test(kind) || !existsSync(join(this.#root, path))) continue;
      const limit = says.exec(readFileSync(join(this.#root, path), "utf8"))?.[1];
      if (limit !== undefined) return { most: Number(limit), says: `by ${path}` };
    }
    return folder === "." ? undefined : this.#inFolder(dirname(folder), kind);
  }

  /** Is there a file for editors in this folder, or in one above it? */
  #isEditorTold(folder: string): boolean {
    const known = this.#told.get(folder);
    if (known !== undefined) return known;
    const told =
      existsSync(join(this.#root, folder, ".editorconfig")) ||
      (folder !== "." && this.#isEditorTold(dirname(folder)));
    this.#told.set(folder, told);
    return told;
  }

  #byEditor(path: string): LineLimit | undefined {
    const limit: unknown = editorSettings().parseSync(join(this.#root, path), { root: this.#root })[
      "max_line_length"
    ];
    const most = Number(limit);
    return Number.isInteger(most) && most > 0 ? { most, says: "by .editorconfig" } : undefined;
  }
}
