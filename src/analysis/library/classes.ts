import type { Language, SyntaxNode, SyntaxTree } from "../../syntax/index.js";
import type { Answer } from "../answer.js";
import { surroundingsOf } from "../project.js";
import { typeOf, type KnownType } from "../types/known.js";
import { isLibraryType, isOfLibrary, type LibraryClass } from "../types/library.js";
import type { Library, LibraryClasses, Trait } from "./facts.js";
import { tableOf } from "./table.js";

/** What is asked of a class beside its trait. */
export interface AskedClass {
  /** What it is, for a sentence: "map". */
  readonly what: string;
  /** The methods that old or new code calls. */
  readonly methods?: readonly string[];
}

/** Is an expression an object of a class of the library with this trait, with the library's own version of the methods? */
export function isOfTrait(expression: SyntaxNode, trait: Trait, asked: AskedClass): Answer {
  return isOfLibrary(expression, libraryClass(expression.tree, trait, asked, typeOf(expression)?.name));
}

/** The same for a type. */
export function isTypeOfTrait(type: KnownType, trait: Trait, at: SyntaxNode, asked: AskedClass): Answer {
  return isLibraryType(type, libraryClass(at.tree, trait, asked, type.name), at);
}

/** Has a class of the library that goes by this name a trait? The name alone says it. */
export function isNamedLike(name: string, trait: Trait, { tree }: { readonly tree: SyntaxTree }): boolean {
  return rowsNamed(name, tree).some(({ are }) => are.includes(trait));
}

/** What the tables say of a class by its name. */
export function rowsNamed(name: string, tree: SyntaxTree): readonly LibraryClasses[] {
  return classesOf(tree).filter(({ classes }) => classes.includes(name));
}

/** The names of the classes with a trait, as files may mention them. */
export function namesWithTrait(trait: Trait, language: Language, own?: Library): readonly string[] {
  return tableOf(language, own).classes.flatMap(({ are, classes }) => (are.includes(trait) ? classes : []));
}

const classesOf = (tree: SyntaxTree): readonly LibraryClasses[] =>
  tableOf(tree.language, surroundingsOf(tree).library).classes;

function libraryClass(
  tree: SyntaxTree,
  trait: Trait,
  { what, methods = [] }: AskedClass,
  name: string | undefined,
): LibraryClass {
  const named = name === undefined ? [] : rowsNamed(name, tree).filter(({ are }) => are.includes(trait));
  const modules = named.flatMap((row) => row.in ?? []);
  const isEverywhere = modules.length < named.length;
  const module = new RegExp(`^(${modules.join("|").replace(/\./g, "\\.")})$`);
  return {
    names: namesWithTrait(trait, tree.language, surroundingsOf(tree).library),
    module: isEverywhere || modules.length === 0 ? undefined : module,
    methods,
    what,
  };
}
