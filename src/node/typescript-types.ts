import { existsSync } from "node:fs";
import { createRequire } from "node:module";
import { dirname, join, relative, resolve, sep } from "node:path";
import type ts from "typescript";
import type { AskedFile, ResolvedTo, TypeFacts, TypeSource } from "../analysis/index.js";

/**
 * The TypeScript compiler's own checker over a project with a `tsconfig.json`: the project's copy of the compiler if
 * it has one, else the one that comes with Uvran. Nothing is loaded before the first question.
 */
export class TypeScriptTypes implements TypeSource {
  readonly #root: string;
  readonly #config: string;
  #loaded: Loaded | undefined;

  private constructor(root: string, config: string) {
    this.#root = root;
    this.#config = config;
  }

  /** For the project at a root; undefined where it has no `tsconfig.json`. */
  static of(root: string): TypeScriptTypes | undefined {
    const config = join(root, "tsconfig.json");
    return existsSync(config) ? new TypeScriptTypes(root, config) : undefined;
  }

  typeAt(file: AskedFile, start: number, end: number): TypeFacts | undefined {
    const { compiler, checker, knowsMissing } = this.#load();
    const node = this.#nodeAt(file, start, end);
    if (!node) return undefined;
    const type = checker.getTypeAtLocation(node);
    return { ...factsOf(compiler, checker, type), knowsMissing };
  }

  declarationAt(file: AskedFile, start: number, end: number): ResolvedTo | undefined {
    const { compiler, checker } = this.#load();
    const node = this.#nodeAt(file, start, end);
    if (!node) return undefined;
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

  #nodeAt({ path, text }: AskedFile, start: number, end: number): ts.Node | undefined {
    const { compiler, program } = this.#load();
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

  #load(): Loaded {
    if (this.#loaded) return this.#loaded;
    const compiler = compilerFor(this.#root);
    const { config } = compiler.readConfigFile(this.#config, (path) => compiler.sys.readFile(path));
    const parsed = compiler.parseJsonConfigFileContent(config ?? {}, compiler.sys, dirname(this.#config));
    const options = { ...parsed.options, noEmit: true };
    const program = compiler.createProgram(parsed.fileNames, options);
    // Without the second option the compiler takes it that every item asked for is there.
    const isStrict = options.strictNullChecks ?? options.strict ?? false;
    const knowsMissing = isStrict && options.noUncheckedIndexedAccess === true;
    this.#loaded = { compiler, program, checker: program.getTypeChecker(), knowsMissing };
    return this.#loaded;
  }
}

interface Loaded {
  readonly compiler: typeof ts;
  readonly program: ts.Program;
  readonly checker: ts.TypeChecker;
  readonly knowsMissing: boolean;
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
