import { readdirSync, readFileSync } from "node:fs";
import { basename, extname, join, resolve } from "node:path";
import { fileURLToPath } from "node:url";
import { languageOfFile, languageOf, type LanguageId, type Rule } from "uvran/core";
import { decode, findSources, inspect } from "uvran/node";
import { SHIPPED } from "uvran/packs";

/** Code that inputs are made of. */
export interface Seed {
  readonly path: string;
  readonly text: string;
  /** The rule in whose trials it stands. */
  readonly rule?: Rule;
}

/** The trials of the shipped rules and the golden files: small, and full of what rules look for. */
export function ownSeeds(language: LanguageId): Seed[] {
  const ending = languageOf(language).extensions[0]!;
  const trials = SHIPPED.flatMap(({ rules }) => rules).flatMap((rule) =>
    rule.trials
      .filter((trial) => trial.language === language && Object.keys(trial.beside ?? {}).length === 0)
      .map(({ was }) => ({ path: `trial${ending}`, text: was, rule })),
  );
  const golden = ["tests/golden", "tests/golden/languages"].flatMap((folder) => {
    const from = fileURLToPath(new URL(`../../${folder}`, import.meta.url));
    return readdirSync(from)
      .filter((name) => name.includes(".before.") && languageOfFile(name)?.id === language)
      .map((name) => ({ path: name, text: readFileSync(join(from, name), "utf8") }));
  });
  return [...trials, ...golden];
}

/** Files of a language below a folder, none longer than 20,000 characters. */
export function seedsBelow(folder: string, language: LanguageId): Seed[] {
  const root = resolve(folder);
  return findSources(root, [], root, []).paths.flatMap((path) => {
    if (languageOfFile(path)?.id !== language) return [];
    const bytes = readFileSync(join(root, path));
    if (bytes.length > 20_000 || inspect(bytes)) return [];
    const ending = extname(path);
    return [{ path: ending === "" ? basename(path) : `file${ending}`, text: decode(bytes) }];
  });
}
