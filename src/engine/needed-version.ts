import { applyEdits, sorted, type Edit } from "../rewrite/index.js";
import { noveltiesIn, parse, type Novelty, type SyntaxTree } from "../syntax/index.js";
import type { Match } from "../rules/index.js";

/**
 * What the new code has that the old did not, and that came into the language or its library at some time. Syntax that
 * the file has elsewhere already is none: the file could not be read without it.
 */
export function newlyNeeded(match: Match, edits: readonly Edit[]): readonly Novelty[] {
  const { tree, found } = match;
  if (edits.length === 0) return [];
  const inside = sorted(edits).filter(({ start, end }) => found.start <= start && end <= found.end);
  const code = applyEdits(tree.text.slice(0, found.end), inside).slice(found.start);
  const old = tree.text.slice(found.start, found.end);
  const had = noveltiesOf(old, match);
  const result: Novelty[] = [];
  for (const one of noveltiesOf(code, match)) {
    const at = had.findIndex(({ what }) => what === one.what);
    if (at >= 0) had.splice(at, 1);
    else result.push(one);
  }
  const outside = edits.filter((edit) => !inside.includes(edit));
  return [...result, ...outside.flatMap(({ text }) => noveltiesOf(text, match))].filter(
    (one) => !isInUse(tree, one),
  );
}

/** What stands in a piece of code, read in the first surroundings in which it is free of errors. */
function noveltiesOf(code: string, { tree: { language }, found }: Match): Novelty[] {
  const { context } = found.pattern;
  const contexts = [context, ...language.contexts.filter((one) => one !== context)];
  for (const { before, after } of contexts) {
    const tree = parse(before + code + after, language);
    const isSound = tree.errors.length === 0;
    const result = isSound ? noveltiesIn(tree, before.length, before.length + code.length) : [];
    tree.dispose();
    if (isSound) return result;
  }
  return [];
}

const inUse = new WeakMap<SyntaxTree, ReadonlySet<string>>();

/** Is this syntax that a file has already? */
function isInUse(tree: SyntaxTree, { what, isSyntax }: Novelty): boolean {
  if (!isSyntax) return false;
  let all = inUse.get(tree);
  if (!all)
    inUse.set(tree, (all = new Set(noveltiesIn(tree).flatMap((one) => (one.isSyntax ? [one.what] : [])))));
  return all.has(what);
}
