import { importsIn, referencesAt } from "../analysis/index.js";
import { originAt, type Need } from "../pattern/index.js";
import type { Language, SyntaxNode, SyntaxTree } from "../syntax/index.js";
import { importsOf } from "./brought.js";
import type { NearMiss } from "./near.js";
import { readingMatch, type Reading, type ReadingMatch } from "./reading.js";

/**
 * Every use of something that comes from elsewhere, by whatever the file calls it: its own name, an alias, a member of a
 * module that is imported whole, a full name. Imports themselves are no uses; they follow from what is used.
 */
export function named(what: Need): Reading {
  return new NamedReading(what);
}

class NamedReading implements Reading {
  readonly #names = new WeakMap<SyntaxTree, ReadonlySet<string>>();

  constructor(readonly what: Need) {}

  kindsIn({ binding }: Language): readonly string[] {
    return Object.keys(binding.leaves);
  }

  wordsIn(): readonly string[] {
    return [this.what.word];
  }

  whyNot(node: SyntaxNode): string | undefined {
    return this.readAt(node) ? undefined : `\`${node.text}\` is not the name that the rule speaks of`;
  }

  readAt(leaf: SyntaxNode): ReadingMatch | undefined {
    const node = this.#usedAt(leaf);
    if (!node) return undefined;
    const ends = endsOf(node);
    // A name that stands at both ends of something is one use, which is found by its first end.
    if (ends && (ends.names.length < 2 || !ends.names[0]!.same(node))) return undefined;
    const { tree, id, start, end } = node;
    const captures = new Map([[this.what.hole, { tree, nodes: [id], start, end }]]);
    const nothingElse = { tests: [], frame: undefined, isStatements: false, spelling: [] };
    return readingMatch({ nodes: [ends?.whole ?? node], captures, ...nothingElse });
  }

  nearAt(leaf: SyntaxNode): NearMiss | undefined {
    return this.#handedOn(leaf)
      ? { at: leaf, says: `\`${leaf.text}\` is handed on to other files here` }
      : undefined;
  }

  /** The name or chain of members that stands for it, seen from its last name. */
  #usedAt(leaf: SyntaxNode): SyntaxNode | undefined {
    if (!leaf.isLeaf || !this.#namesIn(leaf.tree).has(leaf.text) || isInImport(leaf)) return undefined;
    const [reference] = referencesAt(leaf);
    if (!reference || reference.does === "declare" || reference.named) return undefined;
    const { wanted } = this.what;
    if (wanted.name === "default" && isModuleItself(leaf)) return undefined;
    let best: SyntaxNode | undefined;
    for (
      let node: SyntaxNode | undefined = leaf;
      node && node.end === leaf.end && isPath(node);
      node = node.parent
    )
      if ((node !== leaf || !reference.member) && this.#isIt(node)) best = node;
    if (best) return best;
    const mayBe = !reference.member && this.#mayComeUnnamed(leaf) && originAt(leaf, wanted) === "unknown";
    return mayBe ? leaf : undefined;
  }

  /** The names by which a file may call it: its own, and those that imports give it. */
  #namesIn(tree: SyntaxTree): ReadonlySet<string> {
    let names = this.#names.get(tree);
    if (!names) {
      const given = importsOf(tree, this.what).flatMap(({ item }) => item.local ?? []);
      const own = this.what.wanted.name === "default" ? [] : [this.what.word];
      this.#names.set(tree, (names = new Set([...own, ...given])));
    }
    return names;
  }

  /** Does it come from there, or is it the full name where names are not imported? */
  #isIt(node: SyntaxNode): boolean {
    const { wanted } = this.what;
    const comes = originAt(node, wanted);
    return comes === "yes" || (comes === "unknown" && /::/.test(node.text) && node.text === wanted.name);
  }

  /** May the name be brought in by an import that does not name it? */
  #mayComeUnnamed({ tree, text }: SyntaxNode): boolean {
    const { wanted, word } = this.what;
    if (text !== word) return false;
    // Where imports name nothing, any of the module may be meant.
    const namesNothing = !tree.language.imports.canRename;
    return importsIn(tree)
      .filter(({ module }) => module === wanted.module)
      .some(({ imports }) =>
        imports.some(({ name, local }) => local === undefined && (name === "*" || namesNothing)),
      );
  }

  /** Is it the name in `export { hive } from "combs"`? */
  #handedOn(leaf: SyntaxNode): boolean {
    const { module, name } = this.what.wanted;
    const { links } = leaf.tree.language;
    return (
      leaf.text === name &&
      (links.handsOn(leaf.tree).some((one) => one.module === module && one.at?.same(leaf)) ?? false)
    );
  }
}

/**
 * Where a name stands at both ends of something, as that of a tag does, so that one cannot change without the other: the whole,
 * and the name at its ends.
 */
export function endsOf(
  node: SyntaxNode,
): { readonly whole: SyntaxNode; readonly names: readonly SyntaxNode[] } | undefined {
  const { paired } = node.tree.language.binding;
  const whole = node.parent?.is(paired) ? node.parent.parent : undefined;
  if (!whole) return undefined;
  const names = whole.parts
    .filter((part) => part.is(paired))
    .flatMap((part) => part.parts.find(({ text }) => text === node.text) ?? []);
  return { whole, names };
}

/** Is a member read of what a call of the module gave, which is then no default export? */
function isModuleItself({ tree, text, parent, end }: SyntaxNode): boolean {
  if (!parent?.is(tree.language.memberReads) || parent.end === end) return false;
  return importsIn(tree).some(({ isOther, imports }) =>
    imports.some(({ name, local }) => isOther === true && name === undefined && local === text),
  );
}

function isInImport(leaf: SyntaxNode): boolean {
  return importsIn(leaf.tree).some(({ node }) => node.holds(leaf));
}

/** Is it a name, or names that are joined by dots and the like? */
function isPath(node: SyntaxNode): boolean {
  return /^[\p{L}\p{N}_$]+(\s*(\.|\\|::)\s*[\p{L}\p{N}_$]+)*$/u.test(node.text);
}
