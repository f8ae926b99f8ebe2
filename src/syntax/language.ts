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

/** The language of a file by its name, or undefined when no language claims the ending. */
export function languageOfFile(path: string): Language | undefined {
  const name = path.slice(path.lastIndexOf("/") + 1);
  return known.find((language) => language.extensions.some((ending) => name.endsWith(ending)));
}
