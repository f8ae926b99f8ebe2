import { dirname, join } from "node:path";
import fc from "fast-check";
import ts from "typescript";
import { MISSING, NULL, numberValue, textValue, type Value } from "./value.js";

const DEPTH = 4;

/** Input for the parameters of functions in TypeScript, as their types let it through. */
export class TypedInputs {
  readonly #programs = new Map<string, ts.Program>();

  constructor(readonly root: string) {}

  /**
   * For a function of a file, what each parameter may be given: none for those of type `any` and `unknown`. Undefined where
   * the function is not found, a sentence where a type has values that cannot be made here.
   */
  of(path: string, name: string): ReadonlyMap<string, fc.Arbitrary<Value>> | string | undefined {
    const file = join(this.root, path);
    const program = this.#programFor(file);
    const source = program.getSourceFile(file);
    const declared = source && functionNamed(source, name);
    if (!declared) return undefined;
    const checker = program.getTypeChecker();
    const isStrict =
      program.getCompilerOptions().strictNullChecks ?? program.getCompilerOptions().strict ?? false;
    const maker = new Maker(checker, isStrict);
    const result = new Map<string, fc.Arbitrary<Value>>();
    for (const parameter of declared.parameters) {
      let type = checker.getTypeAtLocation(parameter);
      if (parameter.dotDotDotToken) type = checker.getIndexTypeOfType(type, ts.IndexKind.Number) ?? type;
      if (type.flags & (ts.TypeFlags.Any | ts.TypeFlags.Unknown)) continue;
      const made = maker.of(type, DEPTH);
      if (typeof made === "string") return made;
      const isOptional = parameter.questionToken !== undefined || parameter.initializer !== undefined;
      result.set(parameter.name.getText(source), isOptional ? fc.oneof(made, fc.constant(MISSING)) : made);
    }
    return result;
  }

  #programFor(file: string): ts.Program {
    const config = ts.findConfigFile(dirname(file), ts.sys.fileExists);
    const inProject = config !== undefined && config.startsWith(this.root) ? config : undefined;
    const known = this.#programs.get(inProject ?? "");
    if (known?.getSourceFile(file)) return known;
    const read = inProject === undefined ? undefined : ts.readConfigFile(inProject, ts.sys.readFile);
    const parsed = read && ts.parseJsonConfigFileContent(read.config, ts.sys, dirname(inProject!));
    const program = ts.createProgram({
      rootNames: [...new Set([...(parsed?.fileNames ?? []), file])],
      options: { ...parsed?.options, noEmit: true },
    });
    this.#programs.set(inProject ?? "", program);
    return program;
  }
}

function functionNamed(source: ts.SourceFile, name: string): ts.SignatureDeclaration | undefined {
  for (const statement of source.statements) {
    if (ts.isFunctionDeclaration(statement) && statement.name?.text === name && statement.body)
      return statement;
    if (!ts.isVariableStatement(statement)) continue;
    for (const { name: declared, initializer } of statement.declarationList.declarations)
      if (
        declared.getText(source) === name &&
        initializer &&
        (ts.isArrowFunction(initializer) || ts.isFunctionExpression(initializer))
      )
        return initializer;
  }
  return undefined;
}

/** Makes values of types; a sentence for a type of which it cannot. */
class Maker {
  constructor(
    readonly checker: ts.TypeChecker,
    readonly isStrict: boolean,
  ) {}

  of(type: ts.Type, depth: number): fc.Arbitrary<Value> | string {
    const made = this.#plain(type, depth);
    if (typeof made === "string" || this.isStrict) return made;
    return fc.oneof({ weight: 5, arbitrary: made }, { weight: 1, arbitrary: fc.constantFrom(NULL, MISSING) });
  }

  #plain(type: ts.Type, depth: number): fc.Arbitrary<Value> | string {
    const { flags } = type;
    const is = (flag: ts.TypeFlags): boolean => (flags & flag) !== 0;
    if (is(ts.TypeFlags.Any | ts.TypeFlags.Unknown))
      return fc.constantFrom(NULL, MISSING, numberValue(0), textValue(""), textValue("a"), numberValue(7));
    if (type.isStringLiteral()) return fc.constant(textValue(type.value));
    if (type.isNumberLiteral()) return fc.constant(numberValue(type.value));
    if (is(ts.TypeFlags.BooleanLiteral))
      return fc.constant({ is: "boolean", of: this.checker.typeToString(type) === "true" });
    if (is(ts.TypeFlags.Undefined | ts.TypeFlags.Void)) return fc.constant(MISSING);
    if (is(ts.TypeFlags.Null)) return fc.constant(NULL);
    if (type.isUnion()) return this.#union(type, depth);
    if (is(ts.TypeFlags.String))
      return fc.oneof(fc.constantFrom("", "a", "hive", " "), fc.string({ maxLength: 6 })).map(textValue);
    if (is(ts.TypeFlags.Number))
      return fc
        .oneof(fc.constantFrom(0, 1, -1, 0.5, NaN), fc.integer({ min: -20, max: 200 }))
        .map(numberValue);
    if (is(ts.TypeFlags.Boolean)) return fc.boolean().map((of): Value => ({ is: "boolean", of }));
    if (type.isIntersection() || is(ts.TypeFlags.Object)) return this.#object(type, depth);
    return `a value of type \`${this.checker.typeToString(type)}\` cannot be made`;
  }

  #union(type: ts.UnionType, depth: number): fc.Arbitrary<Value> | string {
    const made = type.types.map((one) => this.#plain(one, depth));
    const known = made.filter((one) => typeof one !== "string");
    // Too deep to be made whole: what is left of it is enough.
    if (known.length === 0 || (known.length < made.length && depth > 0))
      return made.find((one) => typeof one === "string")!;
    return fc.oneof(...known);
  }

  #object(type: ts.Type, depth: number): fc.Arbitrary<Value> | string {
    const { checker } = this;
    const name = type.symbol?.name ?? "";
    const shown = checker.typeToString(type);
    if (checker.isArrayType(type)) {
      const item = checker.getTypeArguments(type as ts.TypeReference)[0];
      const made = depth > 0 && item ? this.of(item, depth - 1) : undefined;
      if (made === undefined) return fc.constant<Value>({ is: "list", of: [] });
      return typeof made === "string"
        ? made
        : fc.array(made, { maxLength: 4 }).map((of): Value => ({ is: "list", of }));
    }
    if (checker.isTupleType(type)) {
      const items = checker.getTypeArguments(type as ts.TypeReference).map((one) => this.of(one, depth - 1));
      const failed = items.find((one) => typeof one === "string");
      return failed ?? fc.tuple(...(items as fc.Arbitrary<Value>[])).map((of): Value => ({ is: "list", of }));
    }
    if (name === "Date")
      return fc.integer({ min: 0, max: 2_000_000_000 }).map((of): Value => ({ is: "date", of: of * 1000 }));
    const [signature] = type.getCallSignatures();
    if (signature) {
      const made = this.of(signature.getReturnType(), Math.max(0, depth - 1));
      return typeof made === "string" ? made : made.map((of): Value => ({ is: "callback", of }));
    }
    const isClass = type.symbol !== undefined && (type.symbol.flags & ts.SymbolFlags.Class) !== 0;
    const isOfLibrary =
      type.symbol?.declarations?.some((one) => one.getSourceFile().hasNoDefaultLib) === true;
    if (isClass || isOfLibrary) return `an object of \`${shown}\` cannot be made`;
    if (depth <= 0) return `a value of type \`${shown}\` is too deep to be made`;
    return this.#record(type, depth);
  }

  #record(type: ts.Type, depth: number): fc.Arbitrary<Value> | string {
    const model: Record<string, fc.Arbitrary<Value>> = {};
    const required: string[] = [];
    for (const property of type.getProperties()) {
      const at = property.valueDeclaration ?? property.declarations?.[0];
      const isOptional = (property.flags & ts.SymbolFlags.Optional) !== 0;
      const own = at
        ? this.checker.getTypeOfSymbolAtLocation(property, at)
        : this.checker.getTypeOfSymbol(property);
      const made = this.of(own, depth - 1);
      if (typeof made === "string") {
        if (isOptional) continue;
        return made;
      }
      model[property.name] = made;
      if (!isOptional) required.push(property.name);
    }
    const index = type.getStringIndexType();
    const item = index && this.of(index, depth - 1);
    if (typeof item === "string") return item;
    const fixed = fc.record(model, { requiredKeys: required }).map((made) => Object.entries(made));
    if (!item) return fixed.map((of): Value => ({ is: "thing", of }));
    return fc
      .tuple(fixed, fc.dictionary(fc.constantFrom("a", "b", "hive"), item, { maxKeys: 3 }))
      .map(([own, more]): Value => ({ is: "thing", of: [...own, ...Object.entries(more)] }));
  }
}
