import type { Tree } from "web-tree-sitter";
import type { Language } from "./language.js";
import { grammarOf } from "./grammars.js";
import { conditionals, mostBranches } from "./masks/conditionals.js";
import { masked } from "./masks/masked.js";
import type { Mask } from "./masks/mask.js";
import { KeptTrees, type TextEdit } from "./kept-trees.js";
import { SyntaxNode } from "./node.js";
import { SyntaxTree } from "./tree.js";

/** Parses a piece of source text. A byte-order mark at the start is kept in `text` and hidden from the parser. */
export function parse(text: string, language: Language): SyntaxTree {
  return read(text, language, []);
}

/**
 * Parses the text of a whole file. Where the parser cannot read it, what stands in its way, such as directives of a
 * preprocessor, is hidden from it, as the tree's `masks` tell.
 */
export function parseFile(text: string, language: Language): SyntaxTree {
  const plain = read(text, language, [], "kept");
  if (plain.errors.length === 0 || language.obstacles.length === 0 || text.length > MOST_TEXT) return plain;
  return masked(plain, (masks) => read(text, language, masks), readsAlone);
}

/**
 * The tree of the text that edits made of a whole file. Only what they touch is read anew; where there is an error in old
 * or new, all of it. `edits` are in the order of their places and do not overlap.
 */
export function reparse(tree: SyntaxTree, edits: readonly TextEdit[], text: string): SyntaxTree {
  const { language, masks } = tree;
  const isPlain = tree.errors.length === 0 && masks.length === 0;
  if (isPlain) {
    const seen = seenText(tree.text, []);
    // Read again where it is no longer kept, so that what was read in between changes nothing.
    if (!kept.has(tree)) kept.keep(tree, parserTree(seen, language));
    const known = kept.edited(tree, seen, edits);
    try {
      const again = read(text, language, [], known);
      if (again.errors.length === 0) return again;
    } finally {
      known.delete();
    }
  }
  return parseFile(text, language);
}

const kept = new KeptTrees<SyntaxTree>();

/** Longer files are not read again and again to find out what stands in the parser's way. */
const MOST_TEXT = 2_000_000;

/** The trees of a file of which something is hidden, each with other branches of its conditionals in sight. */
export function otherBranches({ text, language, masks }: SyntaxTree): SyntaxTree[] {
  if (!masks.some(({ whole, start, end }) => whole.start < start || end < whole.end)) return [];
  const hidden = new Set(masks.map(({ whole }) => `${whole.start} ${whole.end}`));
  const alone = masks.filter(({ whole, start, end }) => whole.start === start && whole.end === end);
  const trees: SyntaxTree[] = [];
  for (let later = 1; later < Math.min(MOST_BRANCHES, mostBranches(text)); later++) {
    const others = conditionals(text, later).filter(({ start, end }) => hidden.has(`${start} ${end}`));
    const all = [...alone, ...others.flatMap((one) => one.masks)];
    trees.push(
      read(
        text,
        language,
        all.sort((a, b) => a.start - b.start || b.end - a.end),
      ),
    );
  }
  return trees;
}

const MOST_BRANCHES = 6;

/** Reads a text, with the help of the tree that it came of if there is one. The parser's tree is given back or kept. */
function read(text: string, language: Language, masks: readonly Mask[], from?: Tree | "kept"): SyntaxTree {
  const tree = parserTree(seenText(text, masks), language, from === "kept" ? undefined : from);
  let isKept = false;
  try {
    const result = new SyntaxTree(text, language, tree, masks);
    isKept = from === "kept" && result.errors.length === 0;
    if (isKept) kept.keep(result, tree);
    return result;
  } finally {
    if (!isKept) tree.delete();
  }
}

function parserTree(seen: string, language: Language, known?: Tree): Tree {
  const tree = grammarOf(language).parser.parse(seen, known);
  if (!tree) throw new Error(`The parser gave no tree for ${language.title}.`);
  return tree;
}

/** What the parser gets to see: blanks where something is hidden, with all line ends where they were. */
function seenText(text: string, masks: readonly Mask[]): string {
  const whole = text.startsWith("\uFEFF") ? "\n" + text.slice(1) : text;
  let seen = "";
  let at = 0;
  for (const { start, end } of masks) {
    if (end <= at) continue;
    const from = Math.max(at, start);
    seen += whole.slice(at, from) + whole.slice(from, end).replace(/[^\r\n]/g, " ");
    at = end;
  }
  return seen + whole.slice(at);
}

/** The number of error nodes in the text of a file. */
export function countErrors(text: string, language: Language): number {
  return parseFile(text, language).errors.length;
}

/** Is a function or the like free of errors when it is read without what is around it? */
export function readsAlone({ tree: { language }, text }: SyntaxNode): boolean {
  return language.contexts
    .filter(({ name }) => name === "file" || name === "member" || name === "statement")
    .some(({ before, after }) => parse(before + text + after, language).errors.length === 0);
}
