import { fill, type Hole } from "../pattern/index.js";
import type { Language, SyntaxNode } from "../syntax/index.js";
import { present, wordsOf, type AlsoAsks, type Item } from "./choice.js";
import { keyedAt, type Keyed } from "./keyed.js";
import { readingMatch, type Reading, type ReadingMatch } from "./reading.js";
import { branchKinds } from "./ways.js";

const ASKED: AlsoAsks = { or: ["key"] };

/**
 * An item that is looked up, tested, made and put where it is missing: `if (!map.containsKey(k)) map.put(k, v)`, with a local
 * that holds it, or with a statement that uses it at once.
 */
export function filledItem(item: Item, made: Hole): Reading {
  return new KeyedReading("fills", item, made);
}

/** An item that is counted up, or begins with what it is counted by: `if (k in d) d[k] += n; else d[k] = n`. */
export function countedItem(item: Item, step: Hole): Reading {
  return new KeyedReading("counts", item, step);
}

class KeyedReading implements Reading {
  constructor(
    readonly does: Keyed["does"],
    readonly item: Item,
    readonly value: Hole,
  ) {}

  kindsIn({ flow, calls, expressionStatement }: Language): readonly string[] {
    const writing =
      this.does === "fills" ? [] : [...calls, ...Object.keys(flow.assignments), expressionStatement];
    return [...new Set([...branchKinds(flow.shapes), ...writing])].filter((kind) => kind !== "");
  }

  wordsIn(language: Language): readonly string[] | undefined {
    return wordsOf(present(this.item, ASKED), language);
  }

  whyNot(node: SyntaxNode): string {
    const what = this.does === "fills" ? "put where it is missing" : "counted";
    return keyedAt(node).length > 0
      ? "an item is put here in another way"
      : `no item of a collection is ${what} here`;
  }

  readAt(node: SyntaxNode): ReadingMatch | undefined {
    for (const keyed of keyedAt(node)) {
      if (keyed.does !== this.does) continue;
      const { collection, key, value, nodes, frame, test, spelling } = keyed;
      let captures = fill(this.item.collection, collection);
      captures = captures && fill(this.item.key, key, captures);
      captures = captures && fill(this.value, value, captures);
      if (!captures) continue;
      const found = { nodes, captures, tests: [test], frame, isStatements: true, spelling };
      return { ...readingMatch(found), keyed };
    }
    return undefined;
  }
}
