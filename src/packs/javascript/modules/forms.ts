import { referencesAt, referencesOf } from "../../../core.js";
import type { SyntaxNode } from "../../../core.js";
import { type AsObject, usedAsObject } from "./as-object.js";
import { inner } from "./brackets.js";
import { namesOf, type Named } from "./named-list.js";
import { NotAModule } from "./not-a-module.js";
import type { Reading } from "./reading.js";
import type { Loading } from "./requires.js";

/**
 * How a module exports what the file exported: each member by its name, the whole value as the default, all that another
 * file exports, or nothing.
 */
export type Form =
  | { readonly is: "named"; readonly names: ReadonlySet<string>; readonly list?: readonly Named[] }
  | { readonly is: "default" | "nothing" };

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

/**
 * Where what a file loads is handed on as an object. Throws a NotAModule for what cannot be imported in the form in which its file
 * exports it.
 */
export function handedOnBy(file: Reading, forms: Forms): SyntaxNode | undefined {
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
