/** A piece of code that is compared as one; offsets are those of the text it was cut from. */
export interface Token {
  readonly text: string;
  readonly start: number;
  readonly end: number;
}

/** Strings, words, single brackets and separators, and runs of operator characters. */
const TOKEN =
  /"(?:[^"\\\n]|\\.)*"|'(?:[^'\\\n]|\\.)*'|[\p{L}\p{N}_$]+|[()[\]{},;:]|[^\s\p{L}\p{N}_$()[\]{},;:]+/gu;

/** Cuts code into tokens, near enough for comparing old with new in any language. */
export function tokensOf(code: string): Token[] {
  return [...code.matchAll(TOKEN)].map((m) => ({ text: m[0], start: m.index, end: m.index + m[0].length }));
}

/**
 * Index pairs of the tokens that two lists have in common at their start and at their end. What lies between
 * is replaced as a whole: a token that happens to occur on both sides there has nothing to do with the other.
 */
export function commonEnds(a: readonly Token[], b: readonly Token[]): [number, number][] {
  const most = Math.min(a.length, b.length);
  let start = 0;
  while (start < most && a[start]!.text === b[start]!.text) start++;
  let end = 0;
  while (end < most - start && a[a.length - 1 - end]!.text === b[b.length - 1 - end]!.text) end++;
  const pairs: [number, number][] = [];
  for (let i = 0; i < start; i++) pairs.push([i, i]);
  for (let i = end; i > 0; i--) pairs.push([a.length - i, b.length - i]);
  return pairs;
}
