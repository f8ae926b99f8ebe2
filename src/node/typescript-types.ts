import { existsSync, statSync } from "node:fs";
import { createRequire } from "node:module";
import { dirname, join, relative, resolve, sep } from "node:path";
import type ts from "typescript";
import { no, unknown, yes } from "../analysis/index.js";
import type { Answer, AskedFile, ResolvedTo, TypeFacts, TypeSource } from "../analysis/index.js";

/**
 * The TypeScript compiler's own checker over the projects below a root: for each file the nearest `tsconfig.json` above
 * it counts. The compiler is the project's own copy if it has one, else the one that comes with Uvran. Nothing is loaded
 * before the first question about a file with such a config.
 */
export class TypeScriptTypes implements TypeSource {
  readonly #root: string;
  /** By folder: the config that holds for its files, if any. */
  readonly #configs = new Map<string, string | undefined>();
  /** By config, the one asked for last at the end. */
  readonly #loaded = new Map<string, Loaded>();
  readonly #read = new Set<string>();

  constructor(root: string) {
    this.#root = resolve(root);
  }

  /** All files that the compiler has read, configs too; the paths are absolute. */
  files(): string[] {
    return [...this.#read];
  }

  typeAt(file: AskedFile, start: number, end: number): TypeFacts | undefined {
    const loaded = this.#load(file.path);
    const node = loaded && this.#nodeAt(loaded, file, start, end);
    if (!node) return undefined;
    const { compiler, checker, isStrict, seesItems } = loaded;
    const type = checker.getTypeAtLocation(node);
    const knowsMissing = isStrict && (seesItems || !mayBeNoItem(compiler, checker, node));
    return { ...factsOf(compiler, checker, type), knowsMissing };
  }

  strictNulls(path: string): Answer {
    const config = this.#configFor(dirname(resolve(this.#root, path)));
    const loaded = this.#load(path);
    if (config === undefined || !loaded)
      return unknown(
        "type.strict-null",
        "no tsconfig.json says whether null and undefined are kept apart (`strictNullChecks`)",
      );
    const shown = relative(this.#root, config).split(sep).join("/");
    return loaded.isStrict
      ? yes("type.strict-null", `\`strictNullChecks\` is on in ${shown}`)
      : no("type.strict-null", `\`strictNullChecks\` is off in ${shown}, so anything may be null`);
  }

  declarationAt(file: AskedFile, start: number, end: number): ResolvedTo | undefined {
    const loaded = this.#load(file.path);
    const node = loaded && this.#nodeAt(loaded, file, start, end);
    if (!node) return undefined;
    const { compiler, checker } = loaded;
    const call = compiler.isCallExpression(node)
      ? checker.getResolvedSignature(node)?.declaration
      : undefined;
    let symbol = call ? undefined : checker.getSymbolAtLocation(node);
    if (symbol && symbol.flags & compiler.SymbolFlags.Alias) symbol = checker.getAliasedSymbol(symbol);
    const declaration: ts.Node | undefined = call ?? symbol?.declarations?.[0];
    if (!declaration) return undefined;
    const source = declaration.getSourceFile();
    const { line } = source.getLineAndCharacterOfPosition(declaration.getStart(source));
    const name = (call as ts.SignatureDeclaration | undefined)?.name?.getText() ?? symbol?.name ?? "";
    return { name, path: relative(this.#root, source.fileName).split(sep).join("/"), line: line + 1 };
  }

  #nodeAt(
    { compiler, program }: Loaded,
    { path, text }: AskedFile,
    start: number,
    end: number,
  ): ts.Node | undefined {
    const source = program.getSourceFile(resolve(this.#root, path));
    const shift = text.startsWith("\uFEFF") ? 1 : 0;
    if (!source || source.text !== text.slice(source.text.startsWith("\uFEFF") ? 0 : shift)) return undefined;
    const moved = source.text.length === text.length ? 0 : shift;
    let found: ts.Node | undefined;
    const visit = (node: ts.Node): void => {
      if (node.getStart(source) > start - moved || node.end < end - moved) return;
      if (node.getStart(source) === start - moved && node.end === end - moved) found = node;
      compiler.forEachChild(node, visit);
    };
    visit(source);
    return found;
  }

  #load(path: string): Loaded | undefined {
    const config = this.#configFor(dirname(resolve(this.#root, path)));
    if (config === undefined) return undefined;
    const loaded = this.#loaded.get(config) ?? load(config, this.#read);
    this.#loaded.delete(config);
    this.#loaded.set(config, loaded);
    for (const oldest of this.#loaded.keys()) {
      if (this.#loaded.size <= MOST_PROGRAMS) break;
      this.#loaded.delete(oldest);
    }
    return loaded;
  }

  /** The nearest config from a folder up to the root. */
  #configFor(folder: string): string | undefined {
    if (this.#configs.has(folder)) return this.#configs.get(folder);
    const own = join(folder, "tsconfig.json");
    const isTop = folder === this.#root || dirname(folder) === folder;
    const found = existsSync(own) ? own : isTop ? undefined : this.#configFor(dirname(folder));
    this.#configs.set(folder, found);
    return found;
  }
}

/** Programs that are kept; each takes tens of megabytes. Files are looked at folder by folder, so few are in use. */
const MOST_PROGRAMS = 3;

interface Loaded {
  readonly compiler: typeof ts;
  readonly program: ts.Program;
  readonly checker: ts.TypeChecker;
  /** Does it keep track of null and undefined? */
  readonly isStrict: boolean;
  /** Does it take it that an item asked for may not be there? */
  readonly seesItems: boolean;
}

/** Loads the program of a config; what is read for it is added to `files`. */
function load(file: string, files: Set<string>): Loaded {
  const compiler = compilerFor(dirname(file));
  const readFile = (path: string): string | undefined => {
    files.add(resolve(path));
    return compiler.sys.readFile(path);
  };
  const { config } = compiler.readConfigFile(file, readFile) as { config?: unknown };
  const parsed = compiler.parseJsonConfigFileContent(
    config ?? {},
    { ...compiler.sys, readFile },
    dirname(file),
  );
  const options = { ...parsed.options, noEmit: true };
  const program = compiler.createProgram(parsed.fileNames, options, sharingHost(compiler, options));
  for (const { fileName } of program.getSourceFiles()) files.add(resolve(fileName));
  const isStrict = options.strictNullChecks ?? options.strict ?? false;
  const seesItems = options.noUncheckedIndexedAccess === true;
  return { compiler, program, checker: program.getTypeChecker(), isStrict, seesItems };
}

/** Declaration files, which programs share as long as they stay as they are: by what they depend on, with their stamps. */
const shared = new Map<string, { readonly stamp: string; readonly file: ts.SourceFile | undefined }>();

/** A host whose programs share the files that none of them changes. */
function sharingHost(compiler: typeof ts, options: ts.CompilerOptions): ts.CompilerHost {
  const host = compiler.createCompilerHost(options, true);
  const read = host.getSourceFile.bind(host);
  host.getSourceFile = (path, asked, ...rest) => {
    if (!/\.d\.[cm]?ts$/.test(path)) return read(path, asked, ...rest);
    const how = typeof asked === "object" ? [asked.languageVersion, asked.impliedNodeFormat] : [asked];
    const key = JSON.stringify([
      compiler.version,
      path,
      how,
      options.module,
      options.moduleDetection,
      options.target,
    ]);
    const stat = statSync(path, { throwIfNoEntry: false });
    const stamp = `${stat?.mtimeMs} ${stat?.ctimeMs} ${stat?.size}`;
    const known = shared.get(key);
    if (known?.stamp === stamp) return known.file;
    const file = read(path, asked, ...rest);
    shared.set(key, { stamp, file });
    return file;
  };
  return host;
}

function compilerFor(root: string): typeof ts {
  for (const from of [join(root, "package.json"), import.meta.url]) {
    try {
      const compiler = createRequire(from)("typescript") as typeof ts;
      if (typeof compiler.createProgram === "function") return compiler;
    } catch {
      // The next place may have it; the last one is a dependency of this package.
    }
  }
  throw new Error("the TypeScript compiler is not installed");
}

/** Is this an item of a list or a table, as far as its own code says, which the compiler takes to be there? */
function mayBeNoItem(compiler: typeof ts, checker: ts.TypeChecker, node: ts.Node, depth = 0): boolean {
  if (depth > 4 || compiler.isElementAccessExpression(node)) return true;
  const again = (inner: ts.Node): boolean => mayBeNoItem(compiler, checker, inner, depth + 1);
  if (compiler.isPropertyAccessExpression(node)) {
    const declared = checker.getSymbolAtLocation(node.name)?.declarations?.[0];
    return !declared || compiler.isIndexSignatureDeclaration(declared);
  }
  if (compiler.isIdentifier(node)) {
    if (node.text === "undefined") return false;
    const declared = checker.getSymbolAtLocation(node)?.valueDeclaration;
    if (!declared) return true;
    if (compiler.isBindingElement(declared)) return true;
    return (
      compiler.isVariableDeclaration(declared) &&
      declared.initializer !== undefined &&
      again(declared.initializer)
    );
  }
  if (compiler.isParenthesizedExpression(node) || compiler.isNonNullExpression(node))
    return again(node.expression);
  if (compiler.isConditionalExpression(node)) return again(node.whenTrue) || again(node.whenFalse);
  return compiler.isBinaryExpression(node) && (again(node.left) || again(node.right));
}

function factsOf(
  compiler: typeof ts,
  checker: ts.TypeChecker,
  type: ts.Type,
): Omit<TypeFacts, "knowsMissing"> {
  const { TypeFlags } = compiler;
  const parts = type.isUnion() ? type.types : [type];
  const has = (flags: ts.TypeFlags): boolean => parts.some((part) => (part.flags & flags) !== 0);
  const falsy = new Set<string>();
  for (const part of parts) {
    if (part.isNumberLiteral() ? part.value === 0 : part.flags & TypeFlags.NumberLike) falsy.add("0");
    if (part.flags & TypeFlags.Number) falsy.add("NaN");
    if (part.isStringLiteral() ? part.value === "" : part.flags & TypeFlags.StringLike) falsy.add('""');
    if (part.flags & TypeFlags.BooleanLike && checker.typeToString(part) !== "true") falsy.add("false");
    if (part.flags & TypeFlags.BigIntLike && checker.typeToString(part) !== "1n") falsy.add("0n");
  }
  const open =
    TypeFlags.Any |
    TypeFlags.Unknown |
    TypeFlags.TypeParameter |
    TypeFlags.IndexedAccess |
    TypeFlags.Conditional;
  const isEmptyObject = parts.some(
    (part) =>
      part.flags & TypeFlags.Object &&
      part.getProperties().length === 0 &&
      part.getCallSignatures().length === 0 &&
      part.getConstructSignatures().length === 0,
  );
  return {
    text: checker.typeToString(type),
    canBeNull: has(TypeFlags.Null),
    canBeUndefined: has(TypeFlags.Undefined | TypeFlags.Void),
    falsy: [...falsy],
    // `{}` takes in strings and numbers too.
    isAny: has(open) || isEmptyObject,
    names: parts.flatMap((part) => namesOf(part, new Set())),
  };
}

function namesOf(type: ts.Type, seen: Set<ts.Type>): { name: string; module?: string }[] {
  if (seen.has(type)) return [];
  seen.add(type);
  const symbol = type.aliasSymbol ?? type.getSymbol();
  const path = symbol?.declarations?.[0]?.getSourceFile().fileName ?? "";
  const module = /.*\/node_modules\/((?:@[^/]+\/)?[^/]+)/.exec(path)?.[1]?.replace(/^@types\//, "");
  const own = symbol ? [{ name: symbol.name, ...(module === undefined ? {} : { module }) }] : [];
  const bases = type.isClassOrInterface() ? (type.getBaseTypes() ?? []) : [];
  return [...own, ...bases.flatMap((base) => namesOf(base, seen))];
}
