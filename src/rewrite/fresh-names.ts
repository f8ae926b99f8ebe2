import type { Import, SyntaxNode, SyntaxTree } from "../syntax/index.js";

interface Given {
  readonly name: string;
  readonly start: number;
  readonly end: number;
}

/**
 * Hands out new names in one file. A name is free for a place when nothing in the outermost function around
 * it (in the whole file, outside functions) has it, the language does not define it, and no name was handed
 * out for an overlapping place.
 */
export class FreshNames {
  readonly #tree: SyntaxTree;
  readonly #given: Given[] = [];
  /** What other changes to this text bring in, by the names that it goes by. */
  readonly #brought = new Map<string, Import>();
  /** Imports that earlier changes of the file need and that it does not have yet. */
  readonly pending: readonly Import[];

  constructor(tree: SyntaxTree, pending: readonly Import[] = []) {
    this.#tree = tree;
    this.pending = pending;
  }

  /** Is this the name of something else that a change brings in? */
  isBrought(local: string, wanted: Import): boolean {
    const others = [this.#brought.get(local), ...this.pending.filter((one) => one.local === local)];
    return others.some(
      (other) => other !== undefined && (other.module !== wanted.module || other.name !== wanted.name),
    );
  }

  /** The name by which another change brings this in. */
  broughtAs({ module, name, form }: Import): string | undefined {
    for (const [local, one] of this.#brought)
      if (one.module === module && one.name === name && one.form === form) return local;
    return undefined;
  }

  /** Says that a change brings something in by a name. */
  bring(local: string, wanted: Import): void {
    if (!this.#brought.has(local)) this.#brought.set(local, wanted);
  }

  /** The first wish that is free from `start` to `end`, else the last one with a number. */
  choose(wishes: readonly string[], start: number, end: number): string {
    const used = this.#usedAround(start, end);
    const taken = (name: string): boolean =>
      used.has(name) ||
      this.#tree.language.builtins.includes(name) ||
      this.#given.some((g) => g.name === name && g.start < end && start < g.end);
    let name = wishes.find((wish) => !taken(wish));
    const last = wishes.at(-1) ?? "value";
    for (let i = 2; name === undefined; i++) if (!taken(`${last}_${i}`)) name = `${last}_${i}`;
    this.#given.push({ name, start, end });
    return name;
  }

  #usedAround(start: number, end: number): Set<string> {
    const { functions } = this.#tree.language;
    let scope: SyntaxNode = this.#tree.root;
    for (const node of [...this.#tree.nodeAt(start, end).ancestors()]) if (node.is(functions)) scope = node;
    return new Set(scope.text.match(/[\p{L}\p{N}_$]+/gu));
  }
}

/** The singular of an English plural noun as code has them (`hives`, `self.boxes`), or undefined. */
export function singular(code: string): string | undefined {
  const word = /([A-Za-z][A-Za-z0-9_]*)$/.exec(code)?.[1];
  if (!word || word.length < 4) return undefined;
  if (/[^aeiou]ies$/.test(word)) return word.slice(0, -3) + "y";
  if (/(ss|sh|ch|x|zz)es$/.test(word)) return word.slice(0, -2);
  if (/[^su]s$/.test(word) && !/(sis|news)$/.test(word)) return word.slice(0, -1);
  return undefined;
}
