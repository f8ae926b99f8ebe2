import type { ClassFacts } from "./class-facts.js";
import type { VersionFacts } from "./version-facts.js";
import type { CodeFacts } from "./code-facts.js";
import type { FlowFacts } from "./flow-facts.js";
import type { LinkFacts } from "./link-facts.js";
import type { ImportFacts } from "./import-facts.js";
import type { MeaningFacts } from "./meaning-facts.js";
import type { NameFacts } from "./name-facts.js";

/** The names of the languages Uvran reads. TSX is a dialect of TypeScript with a grammar of its own. */
export type LanguageId =
  "javascript" | "typescript" | "tsx" | "python" | "java" | "cpp" | "csharp" | "php" | "ruby" | "powershell";

/**
 * Everything the rest of Uvran knows about one language. Matching, rewriting and analysis are written once
 * over these facts; a new language is a new value of this type.
 */
export interface Language extends CodeFacts, MeaningFacts {
  readonly imports: ImportFacts;
  /** How files refer to each other. */
  readonly links: LinkFacts;
  /** How control moves. */
  readonly flow: FlowFacts;
  /** How classes are declared. */
  readonly classFacts: ClassFacts;
  /** In which version what came in. */
  readonly versions: VersionFacts;
  /** How names bind. */
  readonly binding: NameFacts;
  readonly id: LanguageId;
  readonly title: string;
  /** File name of the grammar without its extension. */
  readonly grammar: string;
  /** File name endings, with the dot. */
  readonly extensions: readonly string[];
  /** Whole names of files that are written in it and have no ending (`Rakefile`). */
  readonly fileNames?: readonly string[];
  /** The programs that run its files, as the first line of a script names them, without a version (`python`). */
  readonly interpreters?: readonly string[];
  /** What Markdown and notebooks call it, in lower case. */
  readonly fences: readonly string[];
  /** Patterns written in these languages are understood in files of this one. */
  readonly speaks: readonly LanguageId[];
}

const known: Language[] = [];

/** Adds a language to those that files and snippets are read in. */
export function registerLanguage(language: Language): void {
  known.push(language);
}

/** All languages, in the order in which they were registered. */
export function allLanguages(): readonly Language[] {
  return known;
}

/** The language with this name; throws a RangeError for a name that is not one. */
export function languageOf(id: LanguageId): Language {
  const found = known.find((language) => language.id === id);
  if (!found) throw new RangeError(`"${id}" is not a language Uvran reads`);
  return found;
}

/**
 * The language of a file: by its name, or, for one without an ending, by the interpreter that its first line names
 * (`#!/usr/bin/env python3`). Undefined when no language claims it.
 */
export function languageOfFile(path: string, text = ""): Language | undefined {
  const name = path.slice(path.lastIndexOf("/") + 1);
  const byName = known.find(
    ({ extensions, fileNames }) =>
      extensions.some((ending) => name.endsWith(ending)) || fileNames?.includes(name) === true,
  );
  if (byName || !mayBeScript(path)) return byName;
  const interpreter = interpreterIn(text)?.name;
  return known.find(({ interpreters }) => interpreters?.some((one) => one === interpreter));
}

/** Can a file of this name be a script that only its first line tells the language of: `hives`, `hives3.11`, `hives.cgi`? */
export function mayBeScript(path: string): boolean {
  const name = path.slice(path.lastIndexOf("/") + 1);
  return !/\.[a-z_]\w*$/i.test(name) || name.endsWith(".cgi");
}

/** The interpreter that a script names in its first line, without its folder, and its version where one is named. */
function interpreterIn(text: string): { readonly name: string; readonly version: string } | undefined {
  const [, line] = /^\uFEFF?#!([^\r\n]*)/.exec(text) ?? [];
  const [first, ...more] = line?.trim().split(/\s+/) ?? [];
  if (first === undefined) return undefined;
  const nameOf = (word: string): string => word.slice(word.lastIndexOf("/") + 1);
  // `env -S NAME=value python3 -u` sets variables and has options of its own.
  const program = nameOf(first) === "env" ? more.find((word) => !/^-|=/.test(word)) : first;
  const [, name, version] = /^(.*?)([\d.]*)$/.exec(nameOf(program ?? ""))!;
  return { name: name!, version: version! };
}

/** The version of its language that a script's first line asks for (`#!/usr/bin/python3.11`); undefined where it names none. */
export function versionInFirstLine(text: string, { interpreters, versions }: Language): string | undefined {
  const { name, version } = interpreterIn(text) ?? {};
  if (version === undefined || !interpreters?.includes(name!)) return undefined;
  return version.includes(".") ? version : versions.lastOf?.[version];
}
