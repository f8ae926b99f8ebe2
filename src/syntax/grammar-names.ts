import { grammarOf } from "./grammars.js";
import type { Swallowed } from "./walk/lift.js";
import type { Language } from "./language.js";

/** What a grammar calls its kinds and fields, by the grammar's numbers. */
export interface GrammarNames {
  readonly kinds: readonly string[];
  readonly named: readonly boolean[];
  readonly fields: readonly (string | null)[];
  /** Kinds that count as another one; undefined when the language has none. */
  readonly sameKind: ReadonlyMap<number, number> | undefined;
  /** Kinds that vanish when they have one child; undefined when the language has none. */
  readonly chains: readonly boolean[] | undefined;
  /** Kinds of names in which a token vanishes; undefined when the language has none. */
  readonly wordNames: readonly boolean[] | undefined;
  /** Kinds to which the grammar counts white space behind them; undefined when the language has none. */
  readonly withLineEnd: readonly boolean[] | undefined;
  /** Kinds that are comments or nothing but layout, and those that are when they are blank. */
  readonly layout: readonly ("always" | "when blank" | undefined)[];
  /** What is taken into a pattern although it stands behind it; undefined when the language has nothing of it. */
  readonly swallowed: Swallowed | undefined;
  /** Kinds that are an error when nothing is in them; undefined when the language has none. */
  readonly neverEmpty: readonly boolean[] | undefined;
}

const known = new Map<string, GrammarNames>();

/** The names of a language's grammar, which must be loaded. */
export function namesOf(language: Language): GrammarNames {
  let names = known.get(language.grammar);
  if (!names) known.set(language.grammar, (names = read(language)));
  return names;
}

/** The grammar's name for one of its numbers of a kind. */
export function kindNamed(language: Language, id: number): string {
  return namesOf(language).kinds[id] ?? "ERROR";
}

/** The grammar's numbers of named kinds; it may have several of one name. */
export function kindIdsOf(language: Language, kinds: readonly string[]): number[] {
  const { kinds: all, named } = namesOf(language);
  return all.flatMap((name, id) => (named[id] && kinds.includes(name) ? [id] : []));
}

/** The ids of words and signs that a grammar writes as they stand, such as `var`. */
export function tokenIdsOf(language: Language, tokens: readonly string[]): number[] {
  const { kinds: all, named } = namesOf(language);
  return all.flatMap((name, id) => (!named[id] && tokens.includes(name) ? [id] : []));
}

function read(language: Language): GrammarNames {
  const { grammar } = grammarOf(language);
  const kinds: string[] = [];
  const named: boolean[] = [];
  for (let id = 0; id < grammar.nodeTypeCount; id++) {
    const name = grammar.nodeTypeForId(id) ?? "";
    const isNamed = grammar.nodeTypeIsNamed(id);
    kinds.push(name);
    named.push(isNamed);
  }
  const sameKind = new Map<number, number>();
  kinds.forEach((name, id) => {
    const meant = named[id] ? language.sameKinds[name] : undefined;
    if (meant !== undefined)
      sameKind.set(
        id,
        kinds.findIndex((kind, i) => kind === meant && named[i]),
      );
  });
  const flags = (wanted: readonly string[]): boolean[] | undefined =>
    wanted.length > 0 ? kinds.map((name, id) => named[id]! && wanted.includes(name)) : undefined;
  return {
    kinds,
    named,
    fields: grammar.fields,
    sameKind: sameKind.size > 0 ? sameKind : undefined,
    chains: flags(language.chains),
    wordNames: flags(language.wordNames),
    withLineEnd: flags(language.withLineEnd),
    layout: kinds.map((name) => {
      if (language.comments.includes(name) || language.layout.includes(name)) return "always";
      return language.layoutWhenBlank.includes(name) ? "when blank" : undefined;
    }),
    neverEmpty: flags(language.neverEmpty),
    swallowed: language.swallowed && swallowedBy(language.swallowed, kinds, named, grammar.fields),
  };
}

function swallowedBy(
  { test, pattern, binary, operators }: NonNullable<Language["swallowed"]>,
  kinds: readonly string[],
  named: readonly boolean[],
  fields: readonly (string | null)[],
): Swallowed {
  const kind = (name: string, isNamed: boolean): number =>
    kinds.findIndex((one, id) => one === name && named[id] === isNamed);
  return {
    test: kind(test, true),
    pattern: kind(pattern, true),
    binary: kind(binary, true),
    left: fields.indexOf("left"),
    operators: new Map(
      Object.entries(operators).map(([name, tighter]) => [
        kind(name, false),
        tighter.map((one) => kind(one, false)),
      ]),
    ),
  };
}
