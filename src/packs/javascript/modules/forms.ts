import { referencesAt, referencesOf } from "../../../core.js";
import type { SyntaxNode } from "../../../core.js";
import { type CodeFile, inner, isPlainName } from "./code-file.js";
import { type Exported, exportedBy, mainTestsIn, namesOf, type Named } from "./exported.js";
import { isChanged } from "./changed.js";
import { NotAModule } from "./not-a-module.js";
import { type Loading, loadingsIn, type Whereabouts } from "./requires.js";

/** A file of a package that is to become a module, and what it loads and exports. */
export interface Reading extends CodeFile {
  readonly loadings: readonly Loading[];
  readonly exported: Exported;
  readonly mainTests: readonly SyntaxNode[];
}

/** Reads a file. Throws a NotAModule where it cannot be a module as it stands. */
export function readingOf(file: CodeFile, where: Whereabouts): Reading {
  const mainTests = mainTestsIn(file);
  return { ...file, loadings: loadingsIn(file, where), exported: exportedBy(file), mainTests };
}

/**
 * How a module exports what the file exported: each member by its name, the whole value as the default, all that another
 * file exports, or nothing.
 */
export type Form =
  | { readonly is: "named"; readonly names: ReadonlySet<string>; readonly list?: readonly Named[] }
  | { readonly is: "default" | "nothing" };

/** Members that every object has, and what a module gives as an object has not. */
const OF_OBJECTS =
  "constructor hasOwnProperty isPrototypeOf propertyIsEnumerable toLocaleString toString valueOf __proto__".split(
    " ",
  );

/** The members that a pattern takes, each with the variable that it goes to; undefined for one that does more than that. */
export function simplePattern(pattern: SyntaxNode): { key: string; local: SyntaxNode }[] | undefined {
  if (!pattern.is("object_pattern")) return undefined;
  const found = pattern.parts.map((part) => {
    if (part.is("shorthand_property_identifier_pattern")) return { key: part.text, local: part };
    const [key, local] = [part.child("key"), part.child("value")];
    if (!part.is("pair_pattern") || !key?.is("property_identifier") || !local?.is("identifier"))
      return undefined;
    return { key: key.text, local };
  });
  return found.some((one) => one === undefined) ? undefined : found.flatMap((one) => one ?? []);
}

/** Does a variable keep what its declaration gives it? An import does. */
export function isKept(local: SyntaxNode): boolean {
  const to = referencesAt(local).find((one) => !one.member)?.to;
  if (!to || to.at.length !== 1 || !isPlainName(to.name)) return false;
  return referencesOf(to).every(({ does, node }) => node.same(local) || does === "read");
}

/** Where the exports of a file are used as one object, or in a way in which a module cannot be. */
export interface AsObject {
  readonly node: SyntaxNode;
  /** Nothing but the members of an object can do this. */
  readonly isImpossible: boolean;
}

/** The first use of what is loaded that is more than reading one of these names. */
export function usedAsObject(
  { call, how, declarator, member }: Loading,
  names: ReadonlySet<string>,
): AsObject | undefined {
  const among = (name: string, node: SyntaxNode): AsObject | undefined =>
    names.has(name) ? undefined : { node, isImpossible: true };
  const asMember = (node: SyntaxNode): AsObject | undefined => {
    const { parent } = node;
    if (!parent?.is("member_expression") || !parent.child("object")?.same(node))
      return { node, isImpossible: false };
    const name = parent.child("property")!.text;
    if (isChanged(parent) || OF_OBJECTS.includes(name)) return { node: parent, isImpossible: true };
    return undefined;
  };
  if (how === "bare") return undefined;
  if (member) return among(member.text, member);
  const around = declarator ?? (call.field === "value" ? call.parent : undefined);
  const target = around?.is("variable_declarator") ? around.child("name") : undefined;
  if (!target || (how === "inline" && !target.is("identifier"))) return asMember(call);
  const pattern = simplePattern(target);
  if (pattern) return pattern.map(({ key, local }) => among(key, local)).find((one) => one !== undefined);
  if (!target.is("identifier")) return { node: target, isImpossible: false };
  if (!isKept(target)) return { node: target, isImpossible: false };
  const to = referencesAt(target).find((one) => !one.member)!.to!;
  const uses = referencesOf(to).filter(({ node }) => !node.same(target));
  return uses.map(({ node }) => asMember(node)).find((one) => one !== undefined);
}

/** The form in which each file exports, and where a module in that form is used as an object. */
export class Forms {
  readonly #readings: ReadonlyMap<string, Reading>;
  readonly #loaded = new Map<string, { file: Reading; loading: Loading }[]>();
  readonly #known = new Map<string, Form>();

  constructor(readings: readonly Reading[]) {
    this.#readings = new Map(readings.map((one) => [one.path, one]));
    for (const file of readings)
      for (const loading of file.loadings) {
        const { loaded } = loading;
        if (loaded.is !== "own") continue;
        const list = this.#loaded.get(loaded.path) ?? [];
        list.push({ file, loading });
        this.#loaded.set(loaded.path, list);
      }
  }

  has(path: string): boolean {
    return this.#readings.has(path);
  }

  of(path: string): Form {
    const known = this.#known.get(path);
    if (known) return known;
    // A file that passes on what it is itself passed on.
    this.#known.set(path, { is: "default" });
    const form = this.#formOf(this.#readings.get(path)!);
    this.#known.set(path, form);
    return form;
  }

  /** Uses of a file's exports as an object, by the files that load it. */
  asObjects(path: string, names: ReadonlySet<string>): { file: Reading; use: AsObject }[] {
    return (this.#loaded.get(path) ?? []).flatMap(({ file, loading }) => {
      const use = usedAsObject(loading, names);
      return use ? [{ file, use }] : [];
    });
  }

  #formOf({ path, exported, loadings }: Reading): Form {
    const { whole, puts, reads, object } = exported;
    if (object && puts.length === 0) return { is: "default" };
    if (!whole) {
      if (puts.length === 0) return { is: "nothing" };
      const names = new Set(puts.map(({ name }) => name));
      const isObject = object !== undefined && this.asObjects(path, names).length > 0;
      return isObject ? { is: "default" } : { is: "named", names };
    }
    const passed = loadings.find(({ call }) => call.same(inner(whole.value)));
    if (passed?.loaded.is === "own" && puts.length === 0 && reads.length === 0 && !whole.declared) {
      const form = this.of(passed.loaded.path);
      return form.is === "named" ? { is: "named", names: form.names } : { is: "default" };
    }
    const list = puts.length === 0 && !whole.declared ? namesOf(whole, loadings) : undefined;
    if (!list) return { is: "default" };
    const names = new Set(list.map(({ name }) => name));
    if (reads.some(({ name }) => name === undefined || !names.has(name))) return { is: "default" };
    return this.asObjects(path, names).length > 0 ? { is: "default" } : { is: "named", names, list };
  }
}

/** Throws a NotAModule for what is loaded and cannot be imported in the form in which its file exports it. */
export function refuseUnlike(file: Reading, forms: Forms): SyntaxNode | undefined {
  let handedOn: SyntaxNode | undefined;
  for (const loading of file.loadings) {
    const { loaded, how, call, declarator } = loading;
    if (loaded.is !== "own" || how === "bare") continue;
    const form = forms.of(loaded.path);
    if (form.is === "nothing") {
      const name = declarator?.child("name");
      const to = name?.is("identifier") ? referencesAt(name).find((one) => !one.member)?.to : undefined;
      if (!to || referencesOf(to).length > 1) throw new NotAModule(call, `${loaded.path} exports nothing`);
    }
    if (form.is !== "named") continue;
    const use = usedAsObject(loading, form.names);
    if (use?.isImpossible)
      throw new NotAModule(use.node, `the names that ${loaded.path} exports cannot be used like this`);
    handedOn ??= use?.node;
  }
  return handedOn;
}
