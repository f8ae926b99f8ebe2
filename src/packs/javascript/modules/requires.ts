import { folderOf, normalized, referencesAt } from "../../../core.js";
import type { SyntaxNode } from "../../../core.js";
import { type CodeFile, given, isAtLoad, runsAtLoad, topStatement, unwrapped } from "./code-file.js";
import { isChanged } from "./changed.js";
import { manifestIn } from "./manifest.js";
import { NotAModule } from "./not-a-module.js";

/** Modules that Node itself has. */
const BUILT_IN = new Set(
  (
    "assert async_hooks buffer child_process cluster console constants crypto dgram diagnostics_channel dns domain events fs " +
    "http http2 https inspector module net os path perf_hooks process punycode querystring readline repl stream " +
    "string_decoder timers tls tty url util v8 vm wasi worker_threads zlib"
  ).split(" "),
);

export const isBuiltInModule = (name: string): boolean =>
  name.startsWith("node:") || BUILT_IN.has(name.split("/")[0]!);

/** What is loaded: a file of the package, a module of Node, another package, or something that is no module. */
export type Loaded =
  | { readonly is: "own"; readonly path: string }
  | { readonly is: "built in" | "data" | "unknown" }
  /** `isKnown`: it is installed, and `import` and `require` give the same of it. */
  | { readonly is: "package"; readonly isKnown: boolean };

/** A call of `require`, and what its value is used for. */
export interface Loading {
  readonly call: SyntaxNode;
  /** What is loaded, as it is written there, and without its quotes. */
  readonly text: SyntaxNode;
  readonly name: string;
  readonly loaded: Loaded;
  /** The statement of the file around it. */
  readonly statement: SyntaxNode;
  /**
   * `stays`: it is loaded by a call as before. `bare`: nothing is done with the value. `bound`: a declaration at the top of the
   * file gives it names. `inline`: it stands in an expression that is always evaluated.
   */
  readonly how: "stays" | "bare" | "bound" | "inline";
  /** It is loaded when a function is called, and not while the file is. */
  readonly isLate: boolean;
  /** The declaration that names it, and the one member of it that is named, if it is one. */
  readonly declarator?: SyntaxNode;
  readonly member?: SyntaxNode;
}

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

/** The calls of `require` in a file. Throws a NotAModule for one that an import cannot take the place of. */
export function loadingsIn(file: CodeFile, where: Whereabouts): Loading[] {
  return given("require", file.tree).flatMap((name) => {
    const { parent } = name;
    if (parent?.is("member_expression") && parent.child("object")?.same(name)) {
      const member = parent.child("property")!.text;
      if (member === "main" || member === "resolve") return [];
      throw new NotAModule(parent, `\`require.${member}\` is not there in an ES module`);
    }
    if (parent?.is("unary_expression") && parent.has("typeof"))
      throw new NotAModule(parent, "the file asks what loads it");
    if (isChanged(name)) throw new NotAModule(name, "`require` is given another value");
    if (!parent?.is("call_expression") || !parent.child("function")?.same(name))
      throw new NotAModule(name, "`require` is used as a value");
    return [loading(parent, file, where)];
  });
}

/** Is `require` still needed for a use that is no call of it? */
export function resolvesPaths({ tree }: CodeFile): boolean {
  return given("require", tree).some(
    ({ parent }) => parent?.is("member_expression") && parent.child("property")?.text === "resolve",
  );
}

function loading(call: SyntaxNode, { path }: CodeFile, where: Whereabouts): Loading {
  const [text, ...more] = call.child("arguments")?.parts ?? [];
  if (!text || more.length > 0) throw new NotAModule(call, "what is loaded is not understood");
  const statement = topStatement(call);
  if (!text.is("string") || text.text.includes("\\")) {
    if (mayBeOwn(text))
      throw new NotAModule(call, "which file of the package is loaded is worked out while the program runs");
    return { call, text, name: text.text, loaded: { is: "unknown" }, statement, isLate: false, how: "stays" };
  }
  const name = text.text.slice(1, -1);
  const loaded = meant(name, path, where, call);
  const base = { call, text, name, loaded, statement, isLate: false };
  if (loaded.is === "data") return { ...base, how: "stays" };
  if (!isAtLoad(call)) {
    if (loaded.is !== "own") return { ...base, how: "stays" };
    const isUsed = !unwrapped(call).parent?.is("expression_statement");
    const isTried = call.closest(["try_statement"]) !== undefined;
    if (runsAtLoad(call) || isTried || !isUsed)
      throw new NotAModule(call, "a file of the package is loaded only when it is needed");
    return { ...base, how: "inline", isLate: true };
  }
  const around = unwrapped(call).parent;
  if (around?.is("expression_statement")) {
    if (around.same(statement)) return { ...base, how: "bare" };
    if (loaded.is !== "own") return { ...base, how: "stays" };
    throw new NotAModule(call, "a file of the package is loaded for what it does, within a function");
  }
  const { parent } = call;
  const read = parent?.is("member_expression") && parent.child("object")?.same(call) ? parent : undefined;
  const member = read?.child("property");
  const value = read ?? call;
  const declarator = value.parent;
  const isDeclared = declarator?.is("variable_declarator") && declarator.child("value")?.same(value);
  if (declarator && isDeclared && declarator.parent?.same(statement))
    return { ...base, how: "bound", declarator, ...(member ? { member } : {}) };
  return { ...base, how: "inline" };
}

/** Does a path that is worked out begin at the file itself, or could it be one of those that a folder holds? */
function mayBeOwn(path: SyntaxNode): boolean {
  const seen = new Set<string>();
  const looksOwn = (node: SyntaxNode): boolean =>
    [node, ...node.descendants()].some((part) => {
      if (part.is("identifier") && ["__dirname", "__filename"].includes(part.text)) return true;
      if (part.is("string_fragment")) return /^\.\.?(\/|$)/.test(part.text);
      if (!part.is("identifier") || seen.has(part.text)) return false;
      seen.add(part.text);
      const to = referencesAt(part).find((one) => !one.member)?.to;
      const values = (to?.at ?? []).map((at) => at.closest(["variable_declarator"])?.child("value"));
      return values.some((value) => value !== undefined && looksOwn(value));
    });
  return (
    looksOwn(path) || path.tree.ofKinds(["string_fragment"]).some((id) => isLoosePath(path.tree.node(id)))
  );
}

/** Is this the path of a file beside this one, in a list of such paths perhaps? */
function isLoosePath(fragment: SyntaxNode): boolean {
  const call = fragment.parent?.parent?.parent;
  const isLoaded = call?.is("call_expression") && call.child("function")?.text === "require";
  return /^\.\.?\//.test(fragment.text) && !isLoaded;
}

function meant(name: string, from: string, where: Whereabouts, call: SyntaxNode): Loaded {
  if (!/^\.\.?(\/|$)/.test(name)) {
    if (name.startsWith("/")) throw new NotAModule(call, "a path from the root of the disk is loaded");
    if (name.startsWith("#")) throw new NotAModule(call, "what is loaded is said by the manifest");
    return isBuiltInModule(name) ? { is: "built in" } : packageNamed(name, from, where);
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
  const main = mainOf(where.manifest(`${inside}package.json`));
  const named = main === undefined ? undefined : normalized(inside + main);
  const names = named === undefined ? [] : [named, `${named}.js`, `${named}/index.js`];
  return [...names, `${inside}index.js`].find((path) => where.has(path));
}

/** The file that a manifest says is loaded in place of the folder. */
export function mainOf(manifest: string | undefined): string | undefined {
  if (manifest === undefined) return undefined;
  try {
    const { main } = JSON.parse(manifest) as { main?: unknown };
    return typeof main === "string" ? main : undefined;
  } catch {
    return undefined;
  }
}

/** A path as an import must name it, ending and all, where `require` found the file by less. */
export function asImported(name: string, from: string, path: string): string {
  const base = normalized(folderOf(from) + name) ?? "";
  const plain = name.replace(/\/+$/, "");
  if (base === path) return plain;
  const rest = path.slice(base.length);
  return rest.startsWith(".") || rest.startsWith("/") ? plain + rest : `${plain}/${rest}`;
}
