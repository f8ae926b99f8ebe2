import { folderOf, languageOfFile, mayBeScript, normalized, surroundingsOf } from "../../../core.js";
import type { SourceFiles, SyntaxTree } from "../../../core.js";
import { fileNamed } from "./loaded.js";
import { type Manifest, manifestIn } from "./manifest.js";

/** A package, and the file at which it is looked at as a whole. */
export interface Package {
  readonly path: string;
  readonly manifest: Manifest;
  readonly files: readonly string[];
  readonly leader: string;
}

const ENDING = /\.(jsx?|cjs|mjs|[cm]?tsx?)$/;

/** The package of a file, where the file is the one at which it is looked at; undefined everywhere else. */
export function packageLedBy(tree: SyntaxTree): Package | undefined {
  const { files, path } = surroundingsOf(tree);
  if (!files?.listed || !files.manifest || !files.at || !isConverted(path)) return undefined;
  const listed = files.listed();
  let known = packages.get(listed);
  if (!known) packages.set(listed, (known = packagesOf(files, new Set([...listed, path]))));
  return known.get(path);
}

/**
 * The packages of a project, each by the file that leads it. Kept by the list of the files, which is another one as soon as
 * a file or a manifest changes.
 */
const packages = new WeakMap<Iterable<string>, ReadonlyMap<string, Package>>();

function packagesOf(files: SourceFiles, listed: ReadonlySet<string>): Map<string, Package> {
  const above = new Map<string, string | undefined>();
  /** The nearest manifest from a folder upwards. */
  const manifestOf = (folder: string): string | undefined => {
    if (above.has(folder)) return above.get(folder);
    const path = `${folder}package.json`;
    const parent = folderOf(folder.slice(0, -1));
    const found = files.manifest!(path) !== undefined ? path : folder === "" ? undefined : manifestOf(parent);
    above.set(folder, found);
    return found;
  };
  const isOfPackage = (path: string): boolean =>
    ENDING.test(path) ||
    (mayBeScript(path) && languageOfFile(path, files.at!(path)?.text)?.id === "javascript");
  const owned = new Map<string, string[]>();
  for (const path of [...listed].filter(isOfPackage).sort()) {
    const manifest = manifestOf(folderOf(path));
    if (manifest === undefined) continue;
    const list = owned.get(manifest);
    if (list) list.push(path);
    else owned.set(manifest, [path]);
  }
  const found = [...owned].flatMap(([path, own]) => packageAt(path, own, files) ?? []);
  return new Map(found.map((one) => [one.leader, one]));
}

function packageAt(path: string, own: readonly string[], files: SourceFiles): Package | undefined {
  const manifest = manifestIn(files.manifest!(path));
  if (!manifest) return undefined;
  const sources = own.filter(isConverted);
  const main = normalized(folderOf(path) + (manifest.main ?? "index.js"));
  const named = main === undefined ? undefined : fileNamed(main, (one) => sources.includes(one));
  // A file that is generated or minified is not looked at.
  const isLookedAt = (one: string): boolean => files.at!(one)?.leftOut === undefined;
  const leader = (named === undefined ? sources : [named, ...sources]).find(isLookedAt);
  return leader === undefined ? undefined : { path, manifest, files: own, leader };
}

/** May a file of a package become a module, by its name? */
export const isConverted = (path: string): boolean => /\.jsx?$/.test(path) || mayBeScript(path);
