import { importsIn, surroundingsOf, treeOfOther, typeOf } from "../../../../core.js";
import type { SyntaxNode, SyntaxTree } from "../../../../core.js";
import { FULL_NAME, callsItOptional, holdsIt, namesIt } from "./library-optional.js";

const METHODS = ["method_declaration", "constructor_declaration"];

/** The members of a project that have to do with the type, in all of its files. */
export class Members {
  readonly #tree: SyntaxTree;
  readonly #methods = new Map<string, readonly SyntaxNode[]>();
  readonly #fields = new Map<string, readonly SyntaxNode[]>();
  #guessed: SyntaxNode | undefined;
  /** The names of members in whose declarations the type stands. */
  readonly names: ReadonlySet<string>;
  /** The files that name the type. */
  readonly naming: readonly SyntaxTree[];

  constructor(tree: SyntaxTree) {
    this.#tree = tree;
    this.naming = this.filesWith("Optional").filter(
      (one) => callsItOptional(one) || one.text.includes(FULL_NAME),
    );
    this.names = new Set(this.naming.flatMap((one) => [...membersWith(one)]));
  }

  /** The files of the project that the change may reach. */
  get reached(): readonly SyntaxTree[] {
    const found = new Map(this.naming.map((one) => [surroundingsOf(one).path, one]));
    for (const name of this.names)
      for (const one of this.filesWith(name)) {
        const { path } = surroundingsOf(one);
        if (!found.has(path)) found.set(path, one);
      }
    return [...found.values()];
  }

  /** A call that was taken for one of the project's by its name alone. */
  get guessed(): SyntaxNode | undefined {
    return this.#guessed;
  }

  /** The files in which a word stands. */
  filesWith(word: string): SyntaxTree[] {
    const around = surroundingsOf(this.#tree);
    const found = [...(around.files?.naming(word) ?? [])];
    const others = found.flatMap(({ path, text }) => {
      if (path === around.path) return [this.#tree];
      return path.endsWith(".java") ? (treeOfOther(path, text, around) ?? []) : [];
    });
    const isListed = found.some(({ path }) => path === around.path);
    return isListed || !this.#tree.text.includes(word) ? others : [this.#tree, ...others];
  }

  /** The methods, or the constructors of a class, that the project has by a name. */
  methodsNamed(name: string): readonly SyntaxNode[] {
    let found = this.#methods.get(name);
    if (!found) {
      const heads = this.#declaring(name);
      this.#methods.set(name, (found = heads.filter((node) => node.is(METHODS))));
    }
    return found;
  }

  /** The methods and constructors of the project that a call by a name may mean: by the number of its arguments, and its receiver. */
  meantBy(call: SyntaxNode, name: string): readonly SyntaxNode[] {
    const count = call.child("arguments")?.parts.length ?? 0;
    const all = this.methodsNamed(name).filter((method) => {
      const parameters = method.child("parameters")?.parts ?? [];
      return parameters.length === count || parameters.at(-1)?.is("spread_parameter") === true;
    });
    const nearer = all.filter(isOf(call, name));
    if (nearer.length > 0) return nearer;
    const object = call.is("method_invocation") ? call.child("object") : undefined;
    if (all.some((one) => givesIt(one)) && object && !object.is("this") && !typeOf(object))
      this.#guessed ??= call;
    return all;
  }

  /** The types of the fields, and of the components of records, that the project has by a name. */
  fieldsNamed(name: string): readonly SyntaxNode[] {
    let found = this.#fields.get(name);
    if (!found) {
      const owners = this.#declaring(name).map((node) =>
        node.is("variable_declarator") ? node.parent! : node,
      );
      const fields = owners.filter(
        (node) => node.is("field_declaration") || node.parent?.parent?.is("record_declaration") === true,
      );
      this.#fields.set(name, (found = fields.flatMap((node) => node.child("type") ?? [])));
    }
    return found;
  }

  #declaring(name: string): SyntaxNode[] {
    return this.filesWith(name).flatMap((tree) =>
      tree.root.mentions(name).flatMap((node) => (node.field === "name" && node.parent ? [node.parent] : [])),
    );
  }
}

/** Is a method one of the class that a call is made on, as far as the file says? */
function isOf(call: SyntaxNode, name: string): (method: SyntaxNode) => boolean {
  const object = call.is("method_invocation") ? call.child("object") : undefined;
  const { tree } = call;
  const owner =
    object === undefined || object.is("this")
      ? importsIn(tree).find(
          ({ form, imports }) => form === "static" && imports.some((one) => one.name === name),
        )?.module
      : (typeOf(object)?.name ?? (/^[A-Z]\w*$/.test(object.text) ? object.text : undefined));
  const simple = owner?.split(".").at(-1);
  return (method) =>
    simple === undefined
      ? object === undefined && method.tree === tree
      : method.closest(CLASSES)?.child("name")?.text === simple;
}

const CLASSES = ["class_declaration", "interface_declaration", "enum_declaration", "record_declaration"];

/** The names of a file's members in whose declarations the type stands. */
function* membersWith({ root }: SyntaxTree): Iterable<string> {
  for (const node of root.descendants()) {
    if (node.is(METHODS)) {
      if (headOf(node).some(holdsIt)) yield node.child("name")!.text;
    } else if (node.is("field_declaration") && holdsIt(node.child("type")!)) {
      for (const part of node.parts) if (part.is("variable_declarator")) yield part.child("name")!.text;
    } else if (node.is("record_declaration")) {
      for (const part of node.child("parameters")?.parts ?? [])
        if (part.child("type") && holdsIt(part.child("type")!)) yield part.child("name")!.text;
    }
  }
}

/** The types in the head of a method. */
function headOf(method: SyntaxNode): SyntaxNode[] {
  const type = method.child("type");
  return [...(type ? [type] : []), ...parameterTypes(method)];
}

/** The types of a method's parameters; that of each of them for a variable number. */
export function parameterTypes(method: SyntaxNode): SyntaxNode[] {
  return (method.child("parameters")?.parts ?? []).flatMap((part) => {
    const type = part.is("spread_parameter")
      ? part.parts.find((one) => !one.is(["modifiers", "variable_declarator"]))
      : part.child("type");
    return type ? [type] : [];
  });
}

/** Does a method give the type itself? */
export const givesIt = (method: SyntaxNode): boolean => {
  const type = method.child("type");
  return type !== undefined && namesIt(type);
};
