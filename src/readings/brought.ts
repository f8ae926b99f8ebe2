import { importsIn } from "../analysis/index.js";
import type { Need } from "../pattern/index.js";
import type { ImportStatement, Language, ListedImport, SyntaxNode, SyntaxTree } from "../syntax/index.js";
import { importStatements } from "../syntax/index.js";
import { readingMatch, type Reading, type ReadingMatch } from "./reading.js";

/** An import that brings in something: the statement as a whole, of which `broughtAt` gives the part. */
export function brought(what: Need): Reading {
  return new BroughtReading(what);
}

/** An import statement, and the part of it that brings in something. */
export interface Brought {
  readonly statement: ImportStatement;
  readonly item: ListedImport;
}

/** All imports of a file that bring in what is wanted. */
export function importsOf(tree: SyntaxTree, { wanted }: Need): Brought[] {
  return importsIn(tree)
    .map(wholeOf)
    .flatMap((statement) =>
      statement.imports
        .filter(({ module, name }) => module === wanted.module && isSameName(name, wanted.name, statement))
        .map((item) => ({ statement, item })),
    );
}

/** The statement that an import is all of, where it stands at the top of the file. */
function wholeOf(statement: ImportStatement): ImportStatement {
  const { node, imports } = statement;
  const whole = importStatements(node.tree).find((one) => one.node.holds(node));
  return whole?.imports.length === imports.length ? whole : statement;
}

/** The import that brings in what is wanted, seen from its name there. */
export function broughtAt(leaf: SyntaxNode, what: Need): Brought | undefined {
  return importsOf(leaf.tree, what).find(
    ({ statement, item }) => statement.node.holds(leaf) && item.node.holds(leaf),
  );
}

/** Where a module is called, it stands for what it exports by default. */
function isSameName(
  name: string | undefined,
  wanted: string | undefined,
  { isOther }: ImportStatement,
): boolean {
  return name === wanted || (wanted === "default" && name === undefined && isOther === true);
}

class BroughtReading implements Reading {
  constructor(readonly what: Need) {}

  kindsIn({ binding }: Language): readonly string[] {
    return Object.keys(binding.leaves);
  }

  wordsIn(): readonly string[] {
    return [this.what.word];
  }

  whyNot(node: SyntaxNode): string {
    return `\`${node.text}\` is not the import that the rule speaks of`;
  }

  readAt(leaf: SyntaxNode): ReadingMatch | undefined {
    const isDefault = this.what.wanted.name === "default";
    if (!leaf.isLeaf || (!isDefault && leaf.text !== this.what.ownName)) return undefined;
    const found = broughtAt(leaf, this.what);
    if (!found) return undefined;
    const { statement, item } = found;
    // Each import is found once: from the last of its names that is the own one, by default from the first.
    const names = [...item.node.descendants()].filter(({ isLeaf, named }) => isLeaf && named);
    const seenFrom = isDefault ? names[0] : names.findLast(({ text }) => text === leaf.text);
    if (!seenFrom?.same(leaf)) return undefined;
    const { tree, id, start, end } = leaf;
    return readingMatch({
      nodes: [statement.node],
      captures: new Map([[this.what.hole, { tree, nodes: [id], start, end }]]),
      tests: [],
      frame: undefined,
      isStatements: !(statement.isOther ?? false),
      spelling: [],
    });
  }
}
