import type { SyntaxNode } from "./node.js";
import type { SyntaxTree } from "./tree.js";

/** A file, as other files see it. Paths are relative to the project's root, with forward slashes. */
export interface LinkedFile {
  readonly path: string;
  readonly tree: SyntaxTree;
}

/** Something that a file hands on from another file without using it: `export { a as b } from "./c"`. */
export interface HandedOn {
  readonly module: string;
  /** What it is called in that module; `*` for all that the module exports. */
  readonly name: string;
  /** What it is called from here on; undefined where `*` keeps all names. */
  readonly as: string | undefined;
  /** The name as it stands in the statement; undefined where it does not. */
  readonly at: SyntaxNode | undefined;
}

/** How the code of one file refers to that of another. */
export interface LinkFacts {
  /**
   * Does an import of this module, in a file at `from`, mean the file at `path`? Unknown where only the last part of
   * the name fits, since where packages lie may be configured.
   */
  imports(module: string, from: string, path: string): "yes" | "no" | "unknown";
  /** The module that a name brought in from a module may be itself; undefined where modules hold no modules. */
  submodule(module: string, name: string): string | undefined;
  /** Does a bare name that one file does not declare mean what another declares at its top? */
  shares(user: LinkedFile, owner: LinkedFile): "yes" | "no" | "unknown";
  /** Are the classes that a file declares unknown to files that do not bring it in? */
  keepsClasses(path: string): boolean;
  /** Do other files use what is declared here by this very name? */
  exposes(name: SyntaxNode): boolean;
  /** The name under which a use of something makes it public, as `export { hive as default }` does. */
  exposedBy(use: SyntaxNode): string | undefined;
  /** What a file hands on from other files. */
  handsOn(tree: SyntaxTree): readonly HandedOn[];
  /** Can other files take what a file has imported from that file? */
  readonly importsAreSeen: boolean;
  /** Is the file named after what is declared here, so that it would have to be renamed too? */
  namesFile(name: SyntaxNode, path: string): boolean;
}

export const ordinaryLinks = {
  imports: () => "no" as const,
  submodule: () => undefined,
  shares: () => "no" as const,
  keepsClasses: () => false,
  exposes: () => true,
  exposedBy: () => undefined,
  handsOn: () => [],
  importsAreSeen: false,
  namesFile: () => false,
} satisfies LinkFacts;

/** The folder of a path, with a slash at its end; empty at the root. */
export function folderOf(path: string): string {
  return path.slice(0, path.lastIndexOf("/") + 1);
}

/** A path without `.` and `..`; undefined where it climbs out of the root. */
export function normalized(path: string): string | undefined {
  const parts: string[] = [];
  for (const part of path.split("/")) {
    if (part === "" || part === ".") continue;
    if (part !== "..") parts.push(part);
    else if (parts.pop() === undefined) return undefined;
  }
  return parts.join("/");
}

/** A path without its last ending. */
export function withoutEnding(path: string): string {
  return path.replace(/\.[^./]+$/, "");
}
