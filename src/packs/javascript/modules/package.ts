import { folderOf, normalized, shortened, surroundingsOf, treeOfOther, unknown, yes } from "../../../core.js";
import type { Answer, FileTogether, SourceFiles, SyntaxTree } from "../../../core.js";
import { type CodeFile, given } from "./code-file.js";
import { refuseLateCycles } from "./cycles.js";
import { type Form, Forms, readingOf, type Reading, refuseUnlike } from "./forms.js";
import { type Manifest, manifestIn, withModules } from "./manifest.js";
import { NotAModule } from "./not-a-module.js";
import { overtakenIn, type Overtaken } from "./order.js";
import { mainOf, type Whereabouts } from "./requires.js";
import { strictnessOf } from "./strict.js";
import { refuseTools, refuseUsersOutside, startedAs } from "./surrounding.js";
import { writtenAsModule } from "./written.js";

/** What becomes of a package: its files as modules, or the first thing that stands against it. */
export type Verdict = Moved | Refused;

export interface Moved {
  readonly files: readonly FileTogether[];
  readonly says: Answer;
  /** What may be otherwise, and how much that lowers the trust. */
  readonly likely: readonly Answer[];
  readonly possible: readonly Answer[];
}

export interface Refused {
  readonly refused: NotAModule;
  /** Where more stands against it, one place in each of the other files: `lib/jar.js:3`. */
  readonly others: readonly string[];
}

/** A package, and the file at which it is looked at as a whole. */
interface Package {
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

/** The packages of a project, each by the file that leads it; kept by the list of the files, which is another one as soon as a file or a manifest changes. */
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
  const owned = new Map<string, string[]>();
  for (const path of [...listed].filter((one) => ENDING.test(one)).sort()) {
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
  const text = files.manifest!(path);
  const manifest = manifestIn(text);
  if (!manifest) return undefined;
  const main = normalized(folderOf(path) + (mainOf(text) ?? "index.js")) ?? "";
  const sources = own.filter(isConverted);
  const leader = [main, `${main}.js`, `${main}/index.js`].find((one) => sources.includes(one)) ?? sources[0];
  return leader === undefined ? undefined : { path, manifest, files: own, leader };
}

const isConverted = (path: string): boolean => /\.jsx?$/.test(path);

/** Works out what becomes of a package; undefined where it has nothing to change. `tree` is that of the file that leads it. */
export function verdictOn(owner: Package, tree: SyntaxTree): Verdict | undefined {
  const around = surroundingsOf(tree);
  const files = around.files!;
  const sources = new Set(owner.files.filter(isConverted));
  const listed = new Set([...files.listed!(), around.path]);
  const where: Whereabouts = {
    has: (path) => listed.has(path),
    isOwn: (path) => sources.has(path),
    manifest: (path) => files.manifest!(path),
    installed: (name, from) => files.installed?.(name, from),
  };
  const refused: { at: NotAModule; path: string }[] = [];
  const attempt = <T>(path: string, work: () => T): T | undefined => {
    try {
      return work();
    } catch (error) {
      if (!(error instanceof NotAModule)) throw error;
      refused.push({ at: error, path });
      return undefined;
    }
  };
  const likely: Answer[] = [];
  const possible: Answer[] = [];
  attempt(owner.path, () => likely.push(...startedAs(owner.manifest, owner.path, where.has)));
  const modules: CodeFile[] = [];
  const readings = owner.files.flatMap((path) => {
    const file = attempt(path, () => fileAt(path, path === around.path ? tree : undefined, files, tree));
    if (!file) return [];
    if (/\.d\.[cm]?ts$/.test(path)) return [];
    const isTypeScript = /tsx?$/.test(path);
    if (!isTypeScript && (isModule(file) || path.endsWith(".mjs"))) {
      modules.push(file);
      return attempt(path, () => refuseMixture(file, owner.manifest)) ?? [];
    }
    if (!isConverted(path)) {
      attempt(path, () => refuseOther(file, where));
      return [];
    }
    return (
      attempt(path, (): Reading => {
        likely.push(...refuseTools(path, file.tree), ...strictnessOf(file.tree));
        return readingOf(file, where);
      }) ?? []
    );
  });
  attempt(owner.path, () =>
    refuseUsersOutside(files, (path) => owner.files.includes(path), where.isOwn, owner.manifest),
  );
  const forms = new Forms(readings);
  const loads = readings.some(
    ({ loadings, exported }) => loadings.length > 0 || exported.whole || exported.puts.length > 0,
  );
  const written: FileTogether[] = [];
  if (refused.length === 0) {
    for (const file of readings)
      attempt(file.path, () => {
        const handedOn = refuseUnlike(file, forms);
        if (handedOn)
          possible.push(
            unknown(
              "value.kind",
              "what is loaded is handed on as an object, and a module's object cannot be changed",
              handedOn,
            ),
          );
        add(overtakenIn(file, file.loadings), likely, possible);
        const [missing] = file.loadings.filter(
          ({ loaded, how }) =>
            loaded.is === "package" && !loaded.isKnown && how !== "stays" && how !== "bare",
        );
        if (missing)
          possible.push(
            unknown(
              "name.not-resolved",
              `\`${missing.name}\` is not installed here, and may give something else to \`import\``,
              missing.call,
            ),
          );
        const open = file.loadings.find(({ loaded }) => loaded.is === "unknown");
        if (open)
          possible.push(
            unknown(
              "name.not-resolved",
              `what \`${shortened(open.call.text)}\` loads is not known, and must not be a file of the package`,
              open.call,
            ),
          );
        const late = file.loadings.find(({ isLate }) => isLate);
        if (late)
          likely.push(
            unknown(
              "flow.order",
              `\`${late.name}\` is loaded at once from now on, and not only when it is needed`,
              late.call,
            ),
          );
        if (file.mainTests[0])
          likely.push(
            unknown(
              "value.result",
              "a program that is started through a link, or without its ending, is not recognised",
              file.mainTests[0],
            ),
          );
        const edits = writtenAsModule(file, forms);
        if (edits.length > 0) written.push({ path: file.path, text: file.tree.text, edits });
      });
    for (const module of modules) attempt(module.path, () => refuseImports(module, where, forms));
    attempt(owner.path, () => possible.push(...refuseLateCycles(readings)));
  }
  const [first] = refused;
  if (first) {
    const places = refused.map(({ at: { at }, path }) => [path, at ? `${path}:${at.line}` : path] as const);
    return {
      refused: first.at,
      others: [...new Map(places)].filter(([path]) => path !== first.path).map(([, at]) => at),
    };
  }
  if (!loads) return undefined;
  const count = written.length;
  const says = `${count} ${count === 1 ? "file becomes an ES module" : "files become ES modules"}, of ${readings.length} in the package`;
  return { files: [...written, ...saidBy(owner, files)], says: yes("form.fits", says), likely, possible };
}

function add(overtaken: Overtaken | undefined, likely: Answer[], possible: Answer[]): void {
  if (overtaken) (overtaken.unknownIs === "likely" ? likely : possible).push(overtaken.answer);
}

/** The manifest, which says what its files are. */
function saidBy({ path, manifest }: Package, files: SourceFiles): FileTogether[] {
  if (manifest.type === "module") return [];
  const text = files.manifest!(path)!;
  const edit = withModules(text);
  if (!edit) throw new NotAModule(undefined, `\`"type": "module"\` cannot be written into ${path}`);
  return [{ path, text, edits: [edit] }];
}

function fileAt(path: string, own: SyntaxTree | undefined, files: SourceFiles, asker: SyntaxTree): CodeFile {
  const found = files.at!(path);
  const text = own?.text ?? found?.text;
  if (text === undefined) throw new NotAModule(undefined, `${path} cannot be read`);
  const tree = own ?? treeOfOther(path, text, surroundingsOf(asker))!;
  const file = { path, tree };
  if (found?.leftOut !== undefined && given("require", tree).length + given("module", tree).length > 0)
    throw new NotAModule(undefined, `${path} is not to be changed: it is ${found.leftOut}`);
  const [error] = tree.errors;
  if (error !== undefined)
    throw new NotAModule(tree.node(error), "the parser could not read this file", "file.syntax-error");
  return file;
}

const STATEMENTS = ["import_statement", "export_statement"];

function isModule({ tree }: CodeFile): boolean {
  return tree.root.parts.some((part) => part.is(STATEMENTS));
}

/** A file with `import` in a package of CommonJS is for a tool that turns it into something else. */
function refuseMixture({ path, tree }: CodeFile, { type }: Manifest): [] {
  const [loaded] = given("require", tree);
  if (loaded) throw new NotAModule(loaded, "the file uses `require` beside `import`");
  if (type !== "module" && !path.endsWith(".mjs"))
    throw new NotAModule(
      tree.root.parts.find((part) => part.is(STATEMENTS)),
      "a tool turns this module into something else",
    );
  return [];
}

/** TypeScript, and files that stay CommonJS. */
function refuseOther({ path, tree }: CodeFile, where: Whereabouts): void {
  if (!path.endsWith(".cjs"))
    throw new NotAModule(undefined, `${path} is TypeScript, whose compiler writes one kind of module`);
  for (const [, from] of tree.text.matchAll(/\brequire\(\s*["'`](\.[^"'`]*)["'`]/g)) {
    const base = normalized(folderOf(path) + from!);
    if (base !== undefined && [base, `${base}.js`, `${base}/index.js`].some(where.isOwn))
      throw new NotAModule(
        undefined,
        `${path} stays CommonJS, and loads a file of the package with \`require\``,
      );
  }
}

/** Modules that are there already, and what they import of the files that become modules. */
function refuseImports({ path, tree }: CodeFile, where: Whereabouts, forms: Forms): void {
  for (const node of tree.root.descendants()) {
    const source = node.is(STATEMENTS)
      ? node.child("source")
      : node.is("call_expression") && node.child("function")?.is("import")
        ? node.child("arguments")?.firstPart
        : undefined;
    if (!source?.is("string")) continue;
    const name = source.text.slice(1, -1);
    const target = name.startsWith(".") ? normalized(folderOf(path) + name) : undefined;
    if (target === undefined || !where.isOwn(target)) continue;
    const form = formIn(forms, target);
    if (!form) continue;
    const [clause] = node.parts;
    const isDefault = node.is("import_statement") && clause?.firstPart?.is("identifier") === true;
    const isBare = node.is("import_statement") && clause?.same(source) === true;
    const names = [...node.descendants()].filter((one) => one.is(["import_specifier", "export_specifier"]));
    const isAlike =
      form.is === "named"
        ? !isDefault && names.length > 0 && names.every((one) => form.names.has(one.child("name")!.text))
        : isDefault && names.length === 0;
    if (!isBare && !isAlike) throw new NotAModule(node, `${target} exports in another way as a module`);
  }
}

function formIn(forms: Forms, path: string): Form | undefined {
  return forms.has(path) ? forms.of(path) : undefined;
}
