import { headAt } from "../pattern/index.js";
import type { NodeId, SyntaxTree } from "../syntax/index.js";
import type { Entry } from "./entry.js";

const NONE: readonly Entry[] = [];

interface Shelf {
  /** Patterns that may begin in several ways. */
  readonly open: Entry[];
  readonly byHead: Map<string, Entry[]>;
  /** All of them, for nodes whose beginning says nothing. */
  readonly all: Entry[];
  /** For each head its patterns together with the open ones, in order. */
  readonly merged: Map<string, readonly Entry[]>;
}

/** Finds the patterns that can match at a node: by its kind, then by the leaf that it begins with. */
export class Dispatch {
  readonly #shelves = new Map<number, Shelf>();
  /** For each kind of node whether any pattern begins with it. */
  readonly #kinds = new Uint8Array(0x10000);

  /** Entries must be added in the order in which they are to be tried. */
  add(entry: Entry): void {
    for (const kind of entry.finds.rootKinds) this.#addAt(kind, entry);
  }

  #addAt(rootKind: number, entry: Entry): void {
    let shelf = this.#shelves.get(rootKind);
    if (!shelf) {
      shelf = { open: [], byHead: new Map(), all: [], merged: new Map() };
      this.#shelves.set(rootKind, shelf);
    }
    this.#kinds[rootKind] = 1;
    shelf.all.push(entry);
    const { head } = entry.finds;
    if (head === undefined) shelf.open.push(entry);
    else shelf.byHead.set(head, [...(shelf.byHead.get(head) ?? []), entry]);
  }

  has(kindId: number): boolean {
    return this.#kinds[kindId] === 1;
  }

  get isEmpty(): boolean {
    return this.#shelves.size === 0;
  }

  at(tree: SyntaxTree, n: NodeId): readonly Entry[] {
    const shelf = this.#shelves.get(tree.kindIds[n]!);
    if (!shelf) return NONE;
    if (shelf.byHead.size === 0) return shelf.open;
    const head = headAt(tree, n);
    if (head === undefined) return shelf.all;
    const own = shelf.byHead.get(head);
    if (!own) return shelf.open;
    if (shelf.open.length === 0) return own;
    let merged = shelf.merged.get(head);
    if (!merged) {
      merged = shelf.all.filter((entry) => own.includes(entry) || shelf.open.includes(entry));
      shelf.merged.set(head, merged);
    }
    return merged;
  }
}
