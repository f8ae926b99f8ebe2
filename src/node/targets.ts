import { existsSync, readdirSync, readFileSync } from "node:fs";
import { dirname, join } from "node:path";
import type { LineLimit, Target, TargetSource } from "../rules/index.js";
import { versionInFirstLine, type Language, type LanguageId } from "../syntax/index.js";
import { LINE_SETTINGS, LineLimits } from "./line-limits.js";
import { MANIFESTS } from "./manifests.js";

/** Where some editors keep what they know of a project. */
const SETTINGS = ".settings";

/** Versions by language, as the config gives them. */
export type Targets = Readonly<Partial<Record<LanguageId, string>>>;

/** Does a file of this name say for which version of a language a project is, or how it is compiled? */
export function isManifest(path: string): boolean {
  const name = path.slice(path.lastIndexOf("/") + 1);
  return (
    path.includes(`${SETTINGS}/`) ||
    /^tsconfig.*\.json$/.test(name) ||
    LINE_SETTINGS.includes(name) ||
    MANIFESTS.some(({ file }) => file.test(name))
  );
}

/**
 * The versions that a project's code must run on: as its config says, else the file itself, else the nearest manifest
 * above it that speaks of the language. Of several manifests in one folder the one that comes first by name counts.
 */
export class ProjectTargets implements TargetSource {
  readonly #root: string;
  readonly #config: Targets;
  readonly #found = new Map<string, Target | undefined>();
  readonly #lineLimits: LineLimits;

  constructor(root: string, config: Targets = {}) {
    this.#root = root;
    this.#config = config;
    this.#lineLimits = new LineLimits(root);
  }

  targetOf(file: { path: string; readonly text: string; language: Language }): Target | undefined {
    const { path, text, language } = file;
    const set = this.#config[language.id] ?? (language.id === "tsx" ? this.#config.typescript : undefined);
    if (set !== undefined) return { version: set, says: "by the config" };
    const required =
      language.id === "powershell" ? /^#Requires\s+-Version\s+([\d.]+)/im.exec(text)?.[1] : undefined;
    if (required !== undefined) return { version: required, says: "by #Requires" };
    const named = versionInFirstLine(text, language);
    if (named !== undefined) return { version: named, says: "by the first line of the file" };
    return this.#inFolder(dirname(path), language);
  }

  lineLimitOf(path: string): LineLimit | undefined {
    return this.#lineLimits.of(path);
  }

  #inFolder(folder: string, language: Language): Target | undefined {
    const key = `${language.id} ${folder}`;
    if (!this.#found.has(key)) {
      const above = folder === "." ? undefined : dirname(folder);
      const here = this.#manifestIn(folder, language);
      this.#found.set(key, here ?? (above === undefined ? undefined : this.#inFolder(above, language)));
    }
    return this.#found.get(key);
  }

  #manifestIn(folder: string, { id }: Language): Target | undefined {
    const full = join(this.#root, folder);
    if (!existsSync(full)) return undefined;
    const settings = existsSync(join(full, SETTINGS)) ? readdirSync(join(full, SETTINGS)) : [];
    const names = [...readdirSync(full), ...settings.map((name) => join(SETTINGS, name))].sort();
    for (const { languages, file, read, parent } of MANIFESTS) {
      if (!languages.includes(id)) continue;
      for (const name of names.filter((one) => file.test(one))) {
        const seen = new Set<string>();
        let path: string | undefined = join(folder, name);
        while (path !== undefined && !seen.has(path) && existsSync(join(this.#root, path))) {
          seen.add(path);
          const text: string = readFileSync(join(this.#root, path), "utf8");
          const version = read(text);
          if (version !== undefined) return { version: version.replace(/(\.0)+$/, ""), says: `by ${path}` };
          const above: string | undefined = parent?.(text);
          path = above === undefined ? undefined : join(dirname(path), above);
        }
      }
    }
    return undefined;
  }
}
