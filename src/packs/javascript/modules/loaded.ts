import { folderOf, normalized } from "../../../core.js";
import type { SyntaxNode } from "../../../core.js";
import { isBuiltIn } from "./built-in.js";
import { manifestIn } from "./manifest.js";
import { NotAModule } from "./not-a-module.js";

/** What is loaded: a file of the package, a module of Node, another package, or something that is no module. */
export type Loaded =
  | { readonly is: "own"; readonly path: string }
  | { readonly is: "built in" | "data" | "unknown" }
  /** `isKnown`: it is installed, and `import` and `require` give the same of it. */
  | { readonly is: "package"; readonly isKnown: boolean };

/** Where the files of a package are. */
export interface Whereabouts {
  /** Is there a file that holds code? */
  has(path: string): boolean;
  /** Will the file be an ES module that is one no more than now? */
  isOwn(path: string): boolean;
  manifest(path: string): string | undefined;
  /** The manifest of an installed package, as a file at `from` finds it. */
  installed(name: string, from: string): string | undefined;
}

/** What a name that is given to `require` means. Throws a NotAModule where that is not known. */
export function meant(name: string, from: string, where: Whereabouts, call: SyntaxNode): Loaded {
  if (!/^\.\.?(\/|$)/.test(name)) {
    if (name.startsWith("/")) throw new NotAModule(call, "a path from the root of the disk is loaded");
    if (name.startsWith("#"))
      throw new NotAModule(call, "what is loaded depends on the `imports` of the manifest");
    return isBuiltIn(name) ? { is: "built in" } : packageNamed(name, from, where);
  }
  const base = normalized(folderOf(from) + name);
  const found = base === undefined ? undefined : fileAt(base, /(^|\/)\.{0,2}\/?$/.test(name), where);
  if (found !== undefined) {
    if (where.isOwn(found)) return { is: "own", path: found };
    if (/\.cjs$/.test(found)) return { is: "data" };
    throw new NotAModule(call, `${found} does not belong to the package`);
  }
  const isManifest = base !== undefined && where.manifest(`${base}.json`) !== undefined;
  if (isManifest || /\.(json|node|cjs)$/.test(name)) return { is: "data" };
  throw new NotAModule(call, `no source of the project is found at \`${name}\``);
}

/**
 * A package that gives the same to `import` as to `require`: its manifest does not tell them apart, and its files are no ES
 * modules. Any other is loaded by a call as before, and so is a file of a package that is named without its ending.
 */
function packageNamed(name: string, from: string, where: Whereabouts): Loaded {
  const [, own, rest = ""] = /^((?:@[^/]+\/)?[^/]+)(.*)$/.exec(name)!;
  const manifest = manifestIn(where.installed(own!, from));
  if (rest !== "" && !/\.[cm]?js$/.test(rest)) return { is: "data" };
  if (!manifest) return { is: "package", isKnown: false };
  const { type, exports } = manifest;
  const isPlain =
    exports === undefined || !/"(import|module|module-sync|node)"|\.mjs"/.test(JSON.stringify(exports));
  return type !== "module" && isPlain ? { is: "package", isKnown: true } : { is: "data" };
}

/** The file that `require` finds at a path; a folder stands for the file that its manifest names, or for its index. */
function fileAt(base: string, isFolder: boolean, where: Whereabouts): string | undefined {
  const inside = base === "" ? "" : `${base}/`;
  if (!isFolder) for (const path of [base, `${base}.js`]) if (where.has(path)) return path;
  const { main } = manifestIn(where.manifest(`${inside}package.json`)) ?? {};
  const named = main === undefined ? undefined : normalized(inside + main);
  const found = named === undefined ? undefined : fileNamed(named, where.has);
  return found ?? [`${inside}index.js`].find((path) => where.has(path));
}

/** The file that a path stands for without its ending, or as a folder with an index; undefined where there is none. */
export function fileNamed(base: string, has: (path: string) => boolean): string | undefined {
  return [base, `${base}.js`, `${base}/index.js`].find(has);
}

/** The first of some files that a text loads by its path; in comments too. */
export function loadedBy(path: string, text: string, isOne: (path: string) => boolean): string | undefined {
  for (const [, from] of text.matchAll(/\brequire\(\s*["'`](\.[^"'`]*)["'`]/g)) {
    const base = normalized(folderOf(path) + from!);
    const found = base === undefined ? undefined : fileNamed(base, isOne);
    if (found !== undefined) return found;
  }
  return undefined;
}

/** A path as an import must name it, ending and all, where `require` found the file by less. */
export function asImported(name: string, from: string, path: string): string {
  const base = normalized(folderOf(from) + name) ?? "";
  const plain = name.replace(/\/+$/, "");
  if (base === path) return plain;
  const rest = path.slice(base.length);
  return rest.startsWith(".") || rest.startsWith("/") ? plain + rest : `${plain}/${rest}`;
}
