import type { SyntaxNode } from "./node.js";
import { oncePerTree } from "./once-per-tree.js";
import type { SyntaxTree } from "./tree.js";

/** How an import differs from the plain one: for types only, of static members, of functions, … */
export type ImportForm = "type" | "static" | "function" | "const" | "relative" | "namespace";

/** Something that a file brings in from elsewhere, or is to bring in. */
export interface Import {
  /** As the language writes it: `node:fs`, `java.util`, `<memory>`, `App\Hives`. */
  readonly module: string;
  /** The member of the module; `default` and `*` as in ES modules; left out for the module itself. */
  readonly name?: string | undefined;
  /** What the file calls it; undefined where it has no name there. */
  readonly local?: string | undefined;
  readonly form?: ImportForm | undefined;
}

/** One of the names that an import statement lists. */
export interface ListedImport extends Import {
  /** What must go to take this name out. */
  readonly node: SyntaxNode;
  /** Its own name, where that is read of the module: `x` in `const y = require("m").x`. */
  readonly member?: SyntaxNode;
}

/** A statement at the top of a file that imports something. */
export interface ImportStatement {
  readonly node: SyntaxNode;
  readonly module: string;
  readonly form?: ImportForm | undefined;
  readonly imports: readonly ListedImport[];
  /** Can another name of the same module be added behind the last one? */
  readonly takesMore: boolean;
  /** Written in the language's other way, as with `require` in JavaScript. */
  readonly isOther?: boolean;
}

/** How a file writes its imports, as far as a new one must do the same. */
export interface ImportStyle {
  readonly quote: string;
  /** `;` or nothing. */
  readonly end: string;
  /** Between a brace and a name. */
  readonly pad: string;
  /** All existing imports are written in the language's other way. */
  readonly isOther: boolean;
}

/** What holds for imports that bring in all of a module without naming anything. */
export interface WholeImports {
  /** May several modules that are brought in have the same name, of which one is meant? */
  readonly hide: boolean;
  /** What declares a module in a file of the project. */
  declares?(module: string): RegExp;
  /** The modules that the code of a file stands in, whose names it sees without bringing them in. */
  standsIn?(tree: SyntaxTree): readonly string[];
  /** What brings a module of somebody else into all files of a project. */
  readonly forAllFiles?: { readonly word: string; readonly form: RegExp };
  /** What defines something else of the name in a file of the project: a function, a member that is seen without a receiver. */
  defines?(name: string): RegExp;
}

/** How a language brings in what is defined elsewhere. */
export interface ImportFacts {
  /** The statements of a file that import, in order: those at its top, among which a new one is put. */
  read(tree: SyntaxTree): ImportStatement[];
  /**
   * All that brings names into a file, wherever it stands: in functions too, and several in one statement. What
   * `node` is here cannot be taken out by itself.
   */
  everywhere(tree: SyntaxTree): ImportStatement[];
  /** Is a chain of names, of which no declaration is in sight, a full name that needs no import (`java.util.List`)? */
  isFullName(code: string): boolean;
  /** A statement that brings in names of one module, all of one form. */
  write(imports: readonly Import[], style: ImportStyle): string;
  /** One name as it stands in a list. */
  item(wanted: Import): string;
  /** A statement that must stay before all imports. */
  isHeader(statement: SyntaxNode): boolean;
  /** Names that code needs without naming them: a compiler puts them in. */
  neededUnnamed?(tree: SyntaxTree): readonly string[];
  /** The node whose children the imports are. */
  body(tree: SyntaxTree): SyntaxNode;
  /** Does a file without imports write in the language's other way? */
  usesOther(tree: SyntaxTree): boolean;
  /** Is this seen in the file without being imported? */
  isVisible(wanted: Import, tree: SyntaxTree): boolean;
  /** How code gets at a member of a module that is imported whole under this name; undefined if it cannot. */
  member(local: string, name: string): string | undefined;
  /** A name for the member that needs no import; undefined if there is none. */
  inFull(wanted: Import): string | undefined;
  /** Does a module come with the language, so that its names are known? */
  isOfPlatform?(module: string): boolean;
  /** Undefined where imports name what they bring in, or names are asked for in another way. */
  readonly wholeImports?: WholeImports;
  /** Functions that give a module while the program runs. */
  readonly loaders?: readonly string[];
  /** Does importing `*` bring in every member of a module? */
  readonly starHasAll: boolean;
  /** Can a member be given another name when it is imported? */
  readonly canRename: boolean;
  /**
   * Do imports do nothing but bring in names for a file of this name itself, so that they can go when it does not
   * use them?
   */
  mayGo(path: string): boolean;
}

/** Nodes directly below the root, or below the lists that only hold them. */
export function topLevel(tree: SyntaxTree): SyntaxNode[] {
  return tree.root.parts.flatMap((node) => (node.is("statement_list") ? node.parts : [node]));
}

/** The import statements at the top of a file, in order. */
export const importStatements = oncePerTree((tree): readonly ImportStatement[] => {
  const isConditional = ({ node }: ImportStatement): boolean =>
    tree.masks.some(({ whole }) => whole.start < node.start && node.end < whole.end);
  return tree.language.imports.read(tree).filter((one) => !isConditional(one));
});

/** For a language whose imports name modules only. */
export const modulesOnly = {
  everywhere(tree) {
    return this.read(tree);
  },
  isFullName: () => false,
  item: ({ module }) => module,
  isHeader: () => false,
  body: (tree) => tree.root,
  usesOther: () => false,
  isVisible: () => false,
  member: () => undefined,
  inFull: () => undefined,
  starHasAll: true,
  canRename: false,
  mayGo: () => false,
} satisfies Partial<ImportFacts> & ThisType<ImportFacts>;
