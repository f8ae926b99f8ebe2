import {
  languageOfFile,
  parse,
  type Language,
  type LinkedFile,
  type SyntaxNode,
  type SyntaxTree,
} from "../../syntax/index.js";
import { unknown, type Answer } from "../answer.js";
import { typeNameOf } from "./annotation.js";
import { nameInFile, referencesAt, type Declaration, type Reference } from "./declarations.js";
import { isMember } from "./every-use.js";
import { receiverOf, useOf } from "./use.js";

/** A file of a project in which a word stands. */
export interface NamingFile {
  /** Relative to the project's root. */
  readonly path: string;
  readonly text: string;
  /** Why the file is not to be changed: it is generated, for one. */
  readonly leftOut?: string | undefined;
}

/** The sources of a project, as far as they are asked for. */
export interface SourceFiles {
  /** The files in which a word stands, in the order of their paths. */
  naming(word: string): Iterable<NamingFile>;
}

/** A use of something that another file declares. */
export interface ForeignUse {
  readonly file: LinkedFile;
  readonly node: SyntaxNode;
  readonly does: Reference["does"];
  /** The name stands in an import, which brings it into the file. */
  readonly imports: boolean;
}

export interface ForeignUses {
  readonly uses: readonly ForeignUse[];
  /** Unknown answers, with the file's path in the sentence. */
  readonly doubts: readonly Answer[];
  /** Gives back the trees of the other files; their nodes cannot be asked for anything afterwards. */
  release(): void;
}

/**
 * The uses of a declaration in other files than its own: through imports, by the namespace or package that files
 * share, by the header that declares it. Where the source does not tell, there is a doubt with the place.
 */
export function usesElsewhere(declaration: Declaration, owner: LinkedFile, files: SourceFiles): ForeignUses {
  const { links } = owner.tree.language;
  const uses: ForeignUse[] = [];
  const doubts: Answer[] = [];
  const trees: SyntaxTree[] = [];
  const release = (): void => trees.splice(0).forEach((tree) => tree.dispose());
  if (!declaration.at.some((name) => links.exposes(name))) return { uses, doubts, release };
  const word = declaration.at[0]!.text.replace(/^[@$#]+/, "");
  for (const { path, text, leftOut } of files.naming(word)) {
    if (path === owner.path) continue;
    const language = languageOfFile(path);
    if (language && !areKin(language, owner.tree.language)) continue;
    if (leftOut !== undefined || /\.(html?|ipynb)$/.test(path)) {
      doubts.push(unknown(`${path} names \`${word}\` and is ${leftOut ?? "not followed"}`));
      continue;
    }
    if (!language) continue;
    const file = { path, tree: parse(text, language) };
    trees.push(file.tree);
    const doubt = (why: string, node: SyntaxNode): void => {
      doubts.push(unknown(`${path}:${node.line}: ${why}`));
    };
    if (file.tree.errors.length > 0) {
      doubt("the parser could not read this file", file.tree.node(file.tree.errors[0]!));
      continue;
    }
    collect(declaration, owner, file, uses, doubt);
  }
  return { uses, doubts, release };
}

/** Can files of these languages use each other? */
export function areKin(a: Language, b: Language): boolean {
  return a.speaks.some((id) => b.speaks.includes(id)) || a.speaks.includes(b.id) || b.speaks.includes(a.id);
}

function collect(
  declaration: Declaration,
  owner: LinkedFile,
  file: LinkedFile,
  uses: ForeignUse[],
  doubt: (why: string, node: SyntaxNode) => void,
): void {
  const { tree } = file;
  const { links, imports, strings } = tree.language;
  const { name } = declaration;
  const own = nameInFile(name, tree);
  const add = (node: SyntaxNode, does: Reference["does"], isImport = false): void => {
    if (!uses.some((use) => use.node.same(node))) uses.push({ file, node, does, imports: isImport });
  };
  const followed: SyntaxNode[] = [];
  const throughModule = (local: string | undefined): void => {
    for (const { node, does, member } of own.references) {
      if (member && isMemberOfModule(node, local)) add(node, does);
    }
  };
  for (const { node, named } of own.references) {
    if (named && declaration.as === "parameter") doubt(`\`${name}\` may be passed by its name`, node);
  }
  if (declaration.as === "parameter") return;
  const isTop = !isMember(declaration) || declaration.scope.same(declaration.scope.tree.root);
  for (const statement of isTop ? imports.read(tree) : []) {
    for (const item of statement.imports) {
      const inner = item.name === undefined ? undefined : links.submodule(item.module, item.name);
      if (inner !== undefined && links.imports(inner, file.path, owner.path) === "yes")
        throughModule(item.local);
    }
    const verdict = links.imports(statement.module, file.path, owner.path);
    if (verdict === "no") continue;
    followed.push(statement.node);
    for (const item of statement.imports) {
      if (item.name === name) {
        const token = [...item.node.descendants()].find((node) => node.isLeaf && node.text === name);
        if (!token) continue;
        if (verdict === "unknown") {
          doubt(`\`${statement.module}\` may be ${owner.path}`, token);
          continue;
        }
        add(token, "read", true);
        if ((item.local ?? name) !== name) continue;
        const here = own.declarations.find(({ at }) => at.some((one) => one.same(token)));
        for (const { node, does, to } of own.references)
          if (to === here && here) add(node, does, node.same(token));
      } else if (item.name === "*" && item.local === undefined) {
        for (const { node, does, to, unknown: why } of own.references) {
          if (!to && why === undefined) add(node, does);
        }
      } else if (item.name === undefined || item.name === "*") {
        throughModule(item.local);
      }
    }
  }
  for (const node of tree.root.descendants()) {
    if (!node.is(strings) || followed.some((statement) => statement.holds(node))) continue;
    const module = node.text.replace(/^["'`]|["'`]$/g, "");
    if (links.imports(module, file.path, owner.path) === "yes") {
      doubt(`${owner.path} is brought in here in a way that is not followed`, node);
    }
  }
  const shared = links.shares(file, owner);
  const isOfClass = declaration.as === "field" || declaration.as === "method";
  if (isOfClass && shared !== "yes" && links.keepsClasses(owner.path)) return;
  for (const { node, does, to, member, named, unknown: why } of own.references) {
    if (to || named || uses.some((use) => use.node.same(node))) continue;
    const className = declaration.scope.child("name")?.text ?? declaration.scope.parent?.child("name")?.text;
    if (member) {
      const receiver = receiverOf(node, useObject(node));
      if (!isMember(declaration) && !mayBeModule(receiver)) continue;
      const isOwn = receiver && className !== undefined && classOf(receiver) === className;
      if ((receiver?.text === className || isOwn) && shared === "yes") add(node, does);
      else doubt(`\`${receiver?.text.split("\n")[0] ?? "…"}.${name}\` may be the same member`, node);
    } else if (shared === "yes" && className !== undefined && ownerAround(node) === className) {
      add(node, does);
    } else if (shared === "unknown" || (why !== undefined && shared === "yes")) {
      doubt(why ?? `\`${name}\` may be the one of ${owner.path}`, node);
    } else if (shared === "yes" && isTop) add(node, does);
  }
}

/** The name of the class whose function is defined around a node, where it is not defined in the class itself. */
function ownerAround(node: SyntaxNode): string | undefined {
  const { binding } = node.tree.language;
  for (const above of node.ancestors()) {
    const name = binding.ownerNamed(above);
    if (name !== undefined) return name;
  }
  return undefined;
}

/** The name of the class that an object is of: the one around, or the one it is declared to be of. */
function classOf(receiver: SyntaxNode): string | undefined {
  if (receiver.is("this")) return ownerAround(receiver);
  if (!receiver.isLeaf || !receiver.tree.language.binding.typesAreKept) return undefined;
  const to = referencesAt(receiver).find((reference) => !reference.member)?.to;
  const isLocal = to?.at.length === 1 && (to.as === "local" || to.as === "parameter");
  return isLocal ? typeNameOf(to.at[0]!) : undefined;
}

/** Is a member read here of something imported, so perhaps of a module? */
function mayBeModule(receiver: SyntaxNode | undefined): boolean {
  if (!receiver) return false;
  const first = [...receiver.descendants()].find((node) => node.isLeaf && node.named);
  return first !== undefined && referencesAt(first).some(({ to }) => to?.as === "import");
}

function useObject(node: SyntaxNode): { does: "read"; memberOf?: string } {
  const use = useOf(node);
  return typeof use === "string"
    ? { does: "read" }
    : { does: "read", ...(use.memberOf === undefined ? {} : { memberOf: use.memberOf }) };
}

/** Is the member read from a module that is called this in the file, as in `tools.smoke`? */
function isMemberOfModule(node: SyntaxNode, local: string | undefined): boolean {
  const receiver = receiverOf(node, useObject(node));
  return local !== undefined && receiver?.text === local;
}
