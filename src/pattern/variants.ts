import { Hole, Maybe, Need, Snippet, type Part } from "./hole.js";
import { SnippetError } from "./snippet-error.js";

const MOST_VARIANTS = 64;

/**
 * The snippets that a snippet with optional parts stands for, the fullest first: each `maybe` with and without
 * its piece, each hole for modifiers with and without. Throws a SnippetError when that makes too many.
 */
export function variantsOf(snippet: Snippet): Snippet[] {
  const optional = snippet.parts.findIndex((part) => isOptional(part));
  if (optional < 0) return [snippet];
  // A hole for modifiers stays as it is; what a `maybe` brings may have optional parts of its own.
  const isHole = !(snippet.parts[optional] instanceof Maybe);
  const fuller = isHole ? variantsAfter(snippet, optional) : variantsOf(inlined(snippet, optional));
  const all = [...fuller, ...variantsOf(without(snippet, optional))];
  if (all.length > MOST_VARIANTS) throw new SnippetError("a snippet has too many optional parts");
  return all;
}

/** Variants in the parts after `index`, which itself stays. */
function variantsAfter(snippet: Snippet, index: number): Snippet[] {
  const { language, texts, parts, context, isExact } = snippet;
  const rest = new Snippet(language, texts.slice(index + 1), parts.slice(index + 1), context, isExact);
  return variantsOf(rest).map(
    (variant) =>
      new Snippet(
        language,
        [...texts.slice(0, index + 1), ...variant.texts],
        [...parts.slice(0, index + 1), ...variant.parts],
        context,
        isExact,
      ),
  );
}

const known = new WeakMap<Snippet, Map<string, Snippet>>();

/** The snippet for holes of which `has` says whether they stand for anything: no optional part is left open. */
export function resolved(snippet: Snippet, has: (hole: Hole) => boolean): Snippet {
  let bySet = known.get(snippet);
  if (!bySet) known.set(snippet, (bySet = new Map()));
  const key = holesOf(snippet).map(has).join();
  let result = bySet.get(key);
  if (!result) bySet.set(key, (result = resolve(snippet, has)));
  return result;
}

function resolve(snippet: Snippet, has: (hole: Hole) => boolean): Snippet {
  const index = snippet.parts.findIndex((part) => part instanceof Maybe || isMissing(part, has));
  const part = snippet.parts[index];
  if (part === undefined) return snippet;
  const fits = part instanceof Maybe && holesOf(part.snippet).every(has);
  return resolve(fits ? inlined(snippet, index) : without(snippet, index), has);
}

const plain = new WeakMap<Snippet, Snippet>();

/** The snippet with holes of the same kinds that may stand for anything. */
export function withoutLimits(snippet: Snippet): Snippet {
  let result = plain.get(snippet);
  if (!result) {
    const { language, texts, parts, context, isExact } = snippet;
    const wide = new Map(
      parts.map((part): [Part, Part] => {
        if (part instanceof Need) return [part, new Hole(part.hole.name, "name")];
        return [part, part instanceof Hole ? new Hole(part.name, part.kind) : part];
      }),
    );
    result = new Snippet(
      language,
      texts,
      parts.map((part) => wide.get(part)!),
      context,
      isExact,
    );
    plain.set(snippet, result);
  }
  return result;
}

/** All holes of a snippet, those in optional parts too. */
export function holesOf(snippet: Snippet): Hole[] {
  return snippet.parts.flatMap((part) => {
    if (part instanceof Hole) return [part];
    return part instanceof Maybe ? holesOf(part.snippet) : [];
  });
}

function isOptional(part: Part): boolean {
  return part instanceof Maybe || (part instanceof Hole && part.kind === "modifiers");
}

function isMissing(part: Part, has: (hole: Hole) => boolean): boolean {
  return part instanceof Hole && part.kind === "modifiers" && !has(part);
}

function inlined(snippet: Snippet, index: number): Snippet {
  const part = snippet.parts[index];
  if (!(part instanceof Maybe)) return snippet;
  const { language, texts, parts, context, isExact } = snippet;
  const inner = part.snippet;
  const joined = [...inner.texts];
  joined[0] = texts[index]! + joined[0]!;
  joined[joined.length - 1] += texts[index + 1]!;
  return new Snippet(
    language,
    [...texts.slice(0, index), ...joined, ...texts.slice(index + 2)],
    [...parts.slice(0, index), ...inner.parts, ...parts.slice(index + 1)],
    context,
    isExact,
  );
}

function without(snippet: Snippet, index: number): Snippet {
  const { language, texts, parts, context, isExact } = snippet;
  const before = texts[index]!;
  const after = texts[index + 1]!;
  const atStart = before === "" || /\s$/.test(before);
  return new Snippet(
    language,
    [
      ...texts.slice(0, index),
      before + (atStart ? after.replace(/^[ \t]+/, "") : after),
      ...texts.slice(index + 2),
    ],
    [...parts.slice(0, index), ...parts.slice(index + 1)],
    context,
    isExact,
  );
}
