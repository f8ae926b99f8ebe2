import { languageOf, type Language } from "../../syntax/index.js";
import type { Library, LibraryCalls, LibraryClasses, LibraryLanguage, LibraryValues } from "./facts.js";
import { TABLES } from "./tables/index.js";

/** One function or method of a row. */
export interface LibraryCall {
  readonly row: LibraryCalls;
  readonly name: string;
  /** The class that it belongs to: of its objects where it is a method of those, else of itself. */
  readonly owner: string | undefined;
  readonly ofObjects: boolean;
}

/** What is known of the libraries of one language. */
export interface LibraryTable {
  /** By the bare names, in lower case where the language does not tell cases apart. */
  readonly calls: ReadonlyMap<string, readonly LibraryCall[]>;
  /** The names of which some function never throws. */
  readonly neverThrowing: ReadonlySet<string>;
  readonly classes: readonly LibraryClasses[];
  /** By their bare names. */
  readonly values: ReadonlyMap<string, LibraryValues>;
}

/** The table that a language shares: TypeScript that of JavaScript. */
export function tableLanguage({ id }: Language): LibraryLanguage {
  return id === "typescript" || id === "tsx" ? "javascript" : id;
}

const shipped = new Map<LibraryLanguage, LibraryTable>();
const extended = new WeakMap<Library, Map<LibraryLanguage, LibraryTable>>();

/** What is known of a language's libraries, with what a project adds to it. */
export function tableOf(language: Language, own?: Library): LibraryTable {
  const id = tableLanguage(language);
  let tables = own ? extended.get(own) : shipped;
  if (!tables) extended.set(own!, (tables = new Map()));
  let table = tables.get(id);
  if (!table) tables.set(id, (table = made(id, own)));
  return table;
}

function made(id: LibraryLanguage, own: Library | undefined): LibraryTable {
  const isOf = (row: { readonly language: LibraryLanguage }): boolean => row.language === id;
  const calls = new Map<string, LibraryCall[]>();
  // What the project says comes first.
  for (const row of [...(own?.calls ?? []).filter(isOf), ...TABLES[id].CALLS])
    for (const text of row.calls) {
      const call = parsed(row, text);
      const key = keyOf(call.name, languageOf(id));
      const others = calls.get(key);
      if (others) others.push(call);
      else calls.set(key, [call]);
    }
  const values = [...(own?.values ?? []).filter(isOf), ...(TABLES[id].VALUES ?? [])];
  const isQuiet = ({ row }: LibraryCall): boolean => row.neverThrows === true;
  return {
    calls,
    neverThrowing: new Set([...calls].flatMap(([name, all]) => (all.some(isQuiet) ? [name] : []))),
    values: new Map(values.flatMap((row) => row.values.map((name) => [name, row] as const))),
    classes: [...(own?.classes ?? []).filter(isOf), ...TABLES[id].CLASSES],
  };
}

/** The name under which a function is looked up. */
export function keyOf(name: string, { ignoresCase }: Language): string {
  return ignoresCase === "nowhere" ? name : name.toLowerCase();
}

function parsed(row: LibraryCalls, text: string): LibraryCall {
  const [, owner, sign, name] = /^(?:(.+?)(#|::|\.))?([^#.:]+)$/.exec(text) ?? [];
  return { row, name: name ?? text, owner, ofObjects: sign === "#" };
}

/** What ships for a language. */
export function shippedLibrary(language: LibraryLanguage): Required<Library> {
  const { CALLS, CLASSES, VALUES = [] } = TABLES[language];
  return { calls: CALLS, classes: CLASSES, values: VALUES };
}
