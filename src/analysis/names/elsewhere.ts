import {
  languageOfFile,
  ordinaryLinks,
  withoutEnding,
  type LinkedFile,
  type ListedImport,
  type SyntaxNode,
} from "../../syntax/index.js";
import { unknown, type Answer } from "../answer.js";
import { typeNameOf } from "./annotation.js";
import { nameInFile, referencesAt, type Declaration, type Reference } from "./declarations.js";
import { isMember, publicNames } from "./every-use.js";
import { importsIn } from "./imports.js";
import { areKin } from "./kin.js";
import type { NamingFile, SourceFiles } from "./source-files.js";
import { treeOfOther } from "../other-trees.js";
import { surroundingsOf } from "../project.js";
import { receiverOf, useOf } from "./use.js";

/** A use of something that another file declares. */
export interface ForeignUse {
  readonly file: LinkedFile;
  readonly node: SyntaxNode;
  readonly does: Reference["does"];
  /** The name stands in an import or in what hands it on, which brings it from file to file. */
  readonly imports: boolean;
  /** It stands under another name here than where it is declared. */
  readonly renamed: boolean;
}

export interface ForeignUses {
  readonly uses: readonly ForeignUse[];
  /** Unknown answers, with the file's path in the sentence. */
  readonly doubts: readonly Answer[];
}

/** Which public names of a declaration to follow: its own only, or also those that an `export` gives it. */
export interface Following {
  readonly exported?: boolean;
}

/**
 * The uses of a declaration in other files than its own: through imports and files that hand it on, by the namespace
 * or package that files share, by the header that declares it. Where the source does not tell, there is a doubt with
 * the place.
 */
export function usesElsewhere(
  declaration: Declaration,
  owner: LinkedFile,
  files: SourceFiles,
  { exported = true }: Following = {},
): ForeignUses {
  return new Search(declaration, owner, files).run(exported);
}

/** A name under which other files can get at something, in one file. */
interface Exposure {
  readonly path: string;
  readonly name: string;
  /** Is it a module object that holds the thing under the declaration's name? */
  readonly isModule: boolean;
}

class Search {
  readonly #declaration: Declaration;
  readonly #owner: LinkedFile;
  readonly #files: SourceFiles;
  readonly #uses: ForeignUse[] = [];
  readonly #doubts: Answer[] = [];
  /** By path; undefined for files that cannot be read. */
  readonly #read = new Map<string, LinkedFile | undefined>();
  readonly #waiting: Exposure[] = [];
  readonly #seen = new Set<string>();
  /** Files in which the names that they share were looked at. */
  readonly #shared = new Set<string>();

  constructor(declaration: Declaration, owner: LinkedFile, files: SourceFiles) {
    this.#declaration = declaration;
    this.#owner = owner;
    this.#files = files;
  }

  run(exported: boolean): ForeignUses {
    const { at, as } = this.#declaration;
    const { links } = this.#owner.tree.language;
    const [first] = at;
    if (at.some((name) => links.exposes(name))) {
      const word = first!.text.replace(/^[@$#]+/, "");
      this.#expose(this.#owner.path, this.#declaration.name);
      for (const file of this.#files.naming(word)) {
        const linked = this.#linked(file, word);
        if (linked) this.#sharedUses(linked);
      }
    }
    if (exported && as !== "parameter")
      for (const name of publicNames(this.#declaration)) this.#expose(this.#owner.path, name);
    for (let next = this.#waiting.pop(); next; next = this.#waiting.pop()) this.#follow(next);
    for (const { node, why } of this.#open) if (!this.#isAdded(node)) this.#doubt(why, node);
    return { uses: this.#uses, doubts: this.#doubts };
  }

  #expose(path: string, name: string, isModule = false): void {
    const key = `${path} ${name} ${isModule}`;
    if (this.#seen.has(key)) return;
    this.#seen.add(key);
    this.#waiting.push({ path, name, isModule });
  }

  /** A file with its tree; undefined, with a doubt where it counts, for one that is not followed. */
  #linked({ path, text, leftOut }: NamingFile, word: string): LinkedFile | undefined {
    if (path === this.#owner.path) return undefined;
    if (this.#read.has(path)) return this.#read.get(path);
    this.#read.set(path, undefined);
    const language = languageOfFile(path, text);
    if (language && !areKin(language, this.#owner.tree.language)) return undefined;
    if (leftOut !== undefined || /\.(html?|ipynb)$/.test(path)) {
      this.#doubts.push(
        unknown("name.other-uses", `${path} names \`${word}\` and is ${leftOut ?? "not followed"}`),
      );
      return undefined;
    }
    const tree = treeOfOther(path, text, surroundingsOf(this.#owner.tree));
    if (!tree) return undefined;
    const file = { path, tree };
    const [error] = file.tree.errors;
    if (error !== undefined) {
      this.#doubt("the parser could not read this file", file.tree.node(error));
      return undefined;
    }
    this.#read.set(path, file);
    return file;
  }

  #doubt(why: string, node: SyntaxNode): void {
    this.#doubts.push(unknown("name.other-uses", why, node));
  }

  #add(file: LinkedFile, node: SyntaxNode, does: Reference["does"], imports = false): void {
    if (this.#uses.some((use) => use.node.same(node))) return;
    const { bare } = file.tree.language.binding;
    const renamed = bare(node) !== this.#declaration.name;
    this.#uses.push({ file, node, does, imports, renamed });
  }

  #isAdded(node: SyntaxNode): boolean {
    return this.#uses.some((use) => use.node.same(node));
  }

  /** The files that may take something from one file under one name. */
  *#takers({ path, name }: Exposure): Generator<LinkedFile> {
    const isNamed = name !== "default";
    const words = new Map<string, RegExp>();
    if (isNamed) words.set(name.replace(/^[@$#]+/, ""), /(?:)/);
    // What hands on everything, or takes the default, need not have the name in it, but that of the file.
    if (this.#owner.tree.language.links.handsOn !== ordinaryLinks.handsOn) {
      const form = isNamed ? /\bexport\s*\*/ : /\bimport\b|\brequire\b|\bexport\b/;
      const [last, folder] = withoutEnding(path).split("/").reverse();
      for (const part of last === "index" ? [last, folder] : [last]) {
        const word = /[\p{L}\p{N}_]+$/u.exec(part ?? "")?.[0];
        if (word !== undefined && !words.has(word)) words.set(word, form);
      }
      if (last === "index") words.set("from", /["']\.{1,2}\/?["']/);
    }
    for (const [word, form] of words) {
      for (const file of this.#files.naming(word)) {
        const linked = form.test(file.text) ? this.#linked(file, word) : undefined;
        if (linked && linked.path !== path) yield linked;
      }
    }
  }

  #follow(exposure: Exposure): void {
    if (this.#declaration.as === "parameter") return;
    const { links } = this.#owner.tree.language;
    for (const file of new Set(this.#takers(exposure))) {
      this.#imported(file, exposure);
      for (const one of file.tree.language.links.handsOn(file.tree)) {
        if (links.imports(one.module, file.path, exposure.path) !== "yes") continue;
        if (one.name === "*" && one.as !== undefined) {
          if (!exposure.isModule && exposure.name !== "default") this.#expose(file.path, one.as, true);
        } else if (one.name === "*") {
          if (exposure.name !== "default") this.#expose(file.path, exposure.name, exposure.isModule);
        } else if (one.name === exposure.name) {
          if (one.at && !exposure.isModule) this.#add(file, one.at, "read", true);
          this.#expose(file.path, one.as!, exposure.isModule);
        }
      }
    }
  }

  /** What a file imports from an exposure, and what it does with it. */
  #imported(file: LinkedFile, exposure: Exposure): void {
    const { tree } = file;
    const { links, strings } = tree.language;
    const isTop =
      !isMember(this.#declaration) || this.#declaration.scope.same(this.#declaration.scope.tree.root);
    const followed: SyntaxNode[] = [];
    for (const statement of isTop ? importsIn(tree) : []) {
      for (const item of statement.imports) {
        const inner = item.name === undefined ? undefined : links.submodule(item.module, item.name);
        if (inner !== undefined && links.imports(inner, file.path, exposure.path) === "yes")
          this.#throughModule(file, item.local, exposure);
      }
      const verdict = links.imports(statement.module, file.path, exposure.path);
      if (verdict === "no") continue;
      followed.push(statement.node);
      for (const item of statement.imports) this.#item(file, item, exposure, verdict === "unknown");
    }
    if (!isTop) return;
    for (const n of tree.ofKinds(strings)) {
      const node = tree.node(n);
      if (followed.some((statement) => statement.holds(node))) continue;
      const module = node.text.replace(/^["'`]|["'`]$/g, "");
      if (links.imports(module, file.path, exposure.path) !== "yes" || isSourceOfExport(node)) continue;
      const member = memberOfImport(node);
      if (!member) this.#doubt(`${exposure.path} is brought in here in a way that is not followed`, node);
      else if (member.text === exposure.name && !exposure.isModule) this.#add(file, member, "read");
    }
  }

  #item(file: LinkedFile, item: ListedImport, exposure: Exposure, isUnsure: boolean): void {
    const { tree, path } = file;
    const { links } = tree.language;
    const isIt = item.name === exposure.name || (item.name === "default" && exposure.name === "default");
    if (isIt) {
      const token = [...item.node.descendants()].find((node) => node.isLeaf && node.text === exposure.name);
      if (isUnsure) {
        this.#doubt(`\`${item.module}\` may be ${exposure.path}`, token ?? item.node);
        return;
      }
      if (exposure.isModule) return this.#throughModule(file, item.local, exposure);
      if (token) this.#add(file, token, "read", true);
      const local = item.local ?? exposure.name;
      const names = nameInFile(local, tree);
      const here = names.declarations.find(({ at }) => at.some((one) => item.node.holds(one)));
      for (const { node, does, to } of names.references) {
        if (!here || to !== here) continue;
        this.#add(file, node, does, item.node.holds(node));
        const handedOn = links.exposedBy(node);
        if (handedOn !== undefined) this.#expose(path, handedOn);
      }
      if (here && links.importsAreSeen && here.scope.same(tree.root)) this.#expose(path, local);
    } else if (item.name === "*" && item.local === undefined) {
      for (const { node, does, to, unknown: why } of nameInFile(exposure.name, tree).references) {
        if (!to && why === undefined && !exposure.isModule) this.#add(file, node, does);
      }
      if (links.importsAreSeen) this.#expose(path, exposure.name, exposure.isModule);
    } else if (item.name === undefined || item.name === "*") {
      this.#throughModule(file, item.local, exposure);
    }
  }

  /** Members read of a module that is called this in a file. */
  #throughModule(file: LinkedFile, local: string | undefined, { name, isModule }: Exposure): void {
    if (local === undefined) return;
    // `b.tools.smoke`, where `tools` is a module that `b` hands on.
    const wanted = isModule ? this.#declaration.name : name;
    for (const { node, does, member } of nameInFile(wanted, file.tree).references) {
      const receiver = member ? receiverOf(node, useObject(node)) : undefined;
      const fits = receiver?.text === local || (isModule && receiver?.text === `${local}.${name}`);
      if (fits) this.#add(file, node, does);
    }
  }

  /** Uses of names that files share without importing them, and members of objects. */
  #sharedUses(file: LinkedFile): void {
    const declaration = this.#declaration;
    const { tree } = file;
    const { links } = tree.language;
    if (this.#shared.has(file.path)) return;
    this.#shared.add(file.path);
    const own = nameInFile(declaration.name, tree);
    for (const { node, named } of own.references) {
      if (named && declaration.as === "parameter")
        this.#doubt(`\`${declaration.name}\` may be passed by its name`, node);
    }
    if (declaration.as === "parameter") return;
    const isTop = !isMember(declaration) || declaration.scope.same(declaration.scope.tree.root);
    const shared = links.shares(file, this.#owner);
    const isOfClass = declaration.as === "field" || declaration.as === "method";
    if (isOfClass && shared !== "yes" && links.keepsClasses(this.#owner.path)) return;
    const { name } = declaration;
    const className = declaration.scope.child("name")?.text ?? declaration.scope.parent?.child("name")?.text;
    for (const { node, does, to, member, named, unknown: why } of own.references) {
      if (to || named || this.#isAdded(node)) continue;
      if (member) {
        const receiver = receiverOf(node, useObject(node));
        if (!isMember(declaration) && !mayBeModule(receiver)) continue;
        const isOwn = receiver && className !== undefined && classOf(receiver) === className;
        if ((receiver?.text === className || isOwn) && shared === "yes") this.#add(file, node, does);
        else this.#later(node, `\`${receiver?.text.split("\n")[0] ?? "…"}.${name}\` may be the same member`);
      } else if (shared === "yes" && className !== undefined && ownerAround(node) === className) {
        this.#add(file, node, does);
      } else if (shared === "unknown" || (why !== undefined && shared === "yes")) {
        this.#later(node, why ?? `\`${name}\` may be the one of ${this.#owner.path}`);
      } else if (shared === "yes" && isTop) this.#add(file, node, does);
    }
  }

  /** A doubt about a place, unless following imports shows what it is. */
  #later(node: SyntaxNode, why: string): void {
    this.#open.push({ node, why });
  }
  readonly #open: { node: SyntaxNode; why: string }[] = [];
}

/** Is a string the source of something that a file hands on, which is followed? */
function isSourceOfExport(node: SyntaxNode): boolean {
  return node.field === "source" && node.parent?.is("export_statement") === true;
}

/** The member that is read of a module on the spot: `(await import("./a")).x`, `typeof import("./a").x`. */
function memberOfImport(source: SyntaxNode): SyntaxNode | undefined {
  const call = source.parent?.parent;
  if (!call?.is("call_expression") || !/^(import|require)$/.test(call.child("function")?.text ?? ""))
    return undefined;
  let at = call;
  while (at.parent?.is(["await_expression", "parenthesized_expression"])) at = at.parent;
  const isPromise = call.child("function")!.text === "import" && !isTypeQuery(call) && at.same(call);
  if (isPromise) return undefined;
  const access = at.parent;
  return access?.is("member_expression") && access.child("object")?.same(at)
    ? access.child("property")
    : undefined;
}

/** Does the call stand in `typeof import("./a")`, which asks for the type of the module itself? */
function isTypeQuery(call: SyntaxNode): boolean {
  return [...call.ancestors()].some((above) => above.is("type_query"));
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
