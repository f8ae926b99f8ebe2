import { importStatements, type Import, type SyntaxNode, type SyntaxTree } from "../../syntax/index.js";
import type { FreshNames } from "../fresh-names.js";
import { mayHaveOwn } from "../own-names.js";
import { CannotRewrite } from "../settle.js";

/** How code is to call something from elsewhere, and the import that makes it so. */
export interface Named {
  readonly text: string;
  /** Undefined where the name needs none. */
  readonly needs: Import | undefined;
}

/** How something is to be called where there are several ways. */
export interface NamedOptions {
  /** Through the module rather than by a name of its own, where the file does both. */
  readonly through?: boolean;
}

/**
 * What a file calls something: by the alias that it has there, through a module it imports whole, or by its
 * own name where that is free; else by a new alias or in full. Throws CannotRewrite where none of these is
 * possible.
 */
export function nameFor(
  tree: SyntaxTree,
  wanted: Import,
  names: FreshNames,
  start: number,
  end: number,
  { through = false }: NamedOptions = {},
): Named {
  const facts = tree.language.imports;
  const same = importStatements(tree)
    .flatMap(({ imports, isOther }) => imports.map((item) => ({ ...item, isOther })))
    .filter(({ module, form }) => module === wanted.module && (form === wanted.form || form !== "type"));
  const own = same.find(({ name }) => name === wanted.name);
  if (own?.local !== undefined) return { text: own.local, needs: { ...wanted, local: own.local } };
  const whole = same.find(({ name, local }) => name === undefined && local !== undefined);
  const isListed = same.some(({ name }) => name !== undefined && name !== "*" && name !== "default");
  if (whole?.local !== undefined && wanted.name !== undefined && (through || !isListed)) {
    // A module that is called by `require` stands for what it exports by default, too.
    const isItself = wanted.name === "default" && whole.isOther === true;
    const text = isItself ? whole.local : facts.member(whole.local, wanted.name);
    if (text !== undefined) return { text, needs: plain(whole) };
  }
  const wish = wanted.local ?? wanted.name ?? wanted.module;
  const [awaited, ...others] = names.pending.filter((other) => isSame(other, wanted));
  // What is imported without another name goes by its own.
  const local = [awaited, ...others].find((other) => other?.local !== undefined)?.local ?? wish;
  if (awaited) return { text: local, needs: { ...awaited, local } };
  const given = names.broughtAs(wanted);
  if (given !== undefined) return { text: given, needs: { ...wanted, local: given } };
  const isAll = facts.starHasAll && same.some(({ name }) => name === "*");
  const isThere = isAll || facts.isVisible(wanted, tree);
  const hidden = isThere && isHidden(tree, wish, wanted);
  if (isThere && !hidden) return { text: wish, needs: undefined };
  // A full name is what it is, whatever else its first part is said of.
  if (wish.includes("::") || (!hidden && !names.isBrought(wish, wanted) && !isTaken(tree, wish))) {
    names.bring(wish, wanted);
    return { text: wish, needs: { ...wanted, local: wish } };
  }
  const full = facts.inFull(wanted);
  if (full !== undefined) return { text: full, needs: undefined };
  if (!facts.canRename)
    throw new CannotRewrite("edit.import", `\`${wish}\` already means something else in this file`);
  const alias = names.choose([`${wish}_2`], start, end);
  names.bring(alias, wanted);
  return { text: alias, needs: { ...wanted, local: alias } };
}

/** Does something else hide what an import of all members would bring in: an import by name, a declaration, a class beside? */
function isHidden(tree: SyntaxTree, wish: string, wanted: Import): boolean {
  const items = importStatements(tree).flatMap(({ imports }) => imports);
  return (
    items.some((item) => item.name !== "*" && item.local === wish && !isSame(item, wanted)) ||
    mayHaveOwn(tree, wish, wanted)
  );
}

function isSame(a: Import, b: Import): boolean {
  return a.module === b.module && a.name === b.name && a.form === b.form;
}

function plain({ module, name, local, form }: Import): Import {
  return { module, name, local, form };
}

/** Does the file have a name like this already, for something that it does not import under it? */
function isTaken(tree: SyntaxTree, wish: string): boolean {
  const word = /^[\p{L}_$][\p{L}\p{N}_$]*/u.exec(wish)?.[0] ?? wish;
  const { names, memberReads, binding } = tree.language;
  // Where members are never written bare, one of this name takes nothing.
  const isMember = (node: SyntaxNode): boolean =>
    !binding.bareMembers && (node.parent?.is(memberReads) ?? false) && !node.parent?.firstPart?.same(node);
  for (let n = 0; n < tree.size; n++) {
    if (names.includes(tree.kind(n)) && tree.isLeaf(n) && tree.textOf(n) === word && !isMember(tree.node(n)))
      return true;
  }
  return false;
}
