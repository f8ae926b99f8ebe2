import { applyEdits, Excerpt, sorted, type Edit } from "../rewrite/index.js";
import { noveltiesIn, parse, syntaxIn, type Novelty, type SyntaxTree } from "../syntax/index.js";
import type { Match } from "../rules/index.js";

/**
 * What the new code has that the old did not, and that came into the language or its library at some time. Where nothing
 * says the version, syntax that the file has already is none: the file could not be read without it.
 */
export function newlyNeeded(match: Match, edits: readonly Edit[]): readonly Novelty[] {
  const { tree, found } = match;
  if (edits.length === 0) return [];
  const inside = sorted(edits).filter(({ start, end }) => found.start <= start && end <= found.end);
  const moved = inside.map((edit) => ({
    ...edit,
    start: edit.start - found.start,
    end: edit.end - found.start,
  }));
  const code = applyEdits(tree.text.slice(found.start, found.end), moved);
  const result = without(noveltiesOf(code, match), noveltiesIn(tree, found.start, found.end));
  if (inside.length < edits.length) result.push(...addedTo(tree, edits));
  const { around } = match;
  const { language, text } = tree;
  const isSaid = around.targets?.targetOf({ path: around.path, text, language }) !== undefined;
  return isSaid ? result : result.filter((one) => !isInUse(tree, one));
}

/** What stands in a piece of code, read in the first surroundings in which it is free of errors. */
function noveltiesOf(code: string, { tree: { language, text }, found }: Match): Novelty[] {
  const own = found.pattern?.context;
  const others = language.contexts.filter((one) => one !== own);
  for (const { before, after } of own ? [own, ...others] : others) {
    const tree = parse(before + code + after, language);
    if (tree.errors.length === 0) return noveltiesIn(tree, before.length, before.length + code.length);
  }
  // What makes sense nowhere but in its place is read there.
  const whole = text.slice(0, found.start) + code + text.slice(found.end);
  const tree = parse(whole, language);
  return noveltiesIn(tree, found.start, found.start + code.length);
}

/** What a file has after some edits, and had not before. */
function addedTo(tree: SyntaxTree, edits: readonly Edit[]): Novelty[] {
  const start = edits.reduce((least, edit) => Math.min(least, edit.start), Infinity);
  const end = edits.reduce((most, edit) => Math.max(most, edit.end), 0);
  const lines = Excerpt.around(tree, start, end);
  return without(noveltiesIn(lines.edited(edits)), noveltiesIn(lines.tree));
}

/** The first list without what stands in the second, each as often as it does. */
function without(all: readonly Novelty[], had: readonly Novelty[]): Novelty[] {
  const rest = had.map(({ what }) => what);
  return all.filter(({ what }) => {
    const at = rest.indexOf(what);
    if (at >= 0) rest.splice(at, 1);
    return at < 0;
  });
}

/** Is this syntax that a file has already? */
function isInUse(tree: SyntaxTree, { what, isSyntax }: Novelty): boolean {
  // Most files do not even have its token.
  const token = /^`(.+)`$/.exec(what)?.[1];
  if (!isSyntax || (token !== undefined && !tree.text.includes(token))) return false;
  return syntaxIn(tree).some((one) => one.what === what);
}
