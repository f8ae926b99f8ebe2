import type { Edit } from "./edits.js";

/** A piece of code that is compared as one; offsets are those of the text it was cut from. */
export interface Token {
  readonly text: string;
  readonly start: number;
  readonly end: number;
}

/** Strings, words, single brackets and separators, and runs of operator characters. */
const TOKEN =
  /"(?:[^"\\\n]|\\.)*"|'(?:[^'\\\n]|\\.)*'|[\p{L}\p{N}_$]+|[()[\]{},;:]|[^\s\p{L}\p{N}_$()[\]{},;:]+/gu;

/** Names such as `Get-Hive`, ahead of all else. */
const HYPHENATED = new RegExp(`\\p{L}[\\p{L}\\p{N}_]*(?:-[\\p{L}\\p{N}_]+)+|${TOKEN.source}`, "gu");

/** Cuts code into tokens, near enough for comparing old with new in any language. */
export function tokensOf(
  code: string,
  { hasHyphens = false }: { readonly hasHyphens?: boolean } = {},
): Token[] {
  return [...code.matchAll(hasHyphens ? HYPHENATED : TOKEN)].map((m) => ({
    text: m[0],
    start: m.index,
    end: m.index + m[0].length,
  }));
}

const OPERATOR = /^[^\p{L}\p{N}_$()[\]{},;:"'`]+$/u;

/**
 * Edits that put new operators where the old ones are and leave the white space to the file; undefined for
 * anything but as many operators as before.
 */
export function oneForOne(old: readonly Token[], now: readonly Token[]): Edit[] | undefined {
  if (old.length === 0 || old.length !== now.length) return undefined;
  if (![...old, ...now].every((token) => OPERATOR.test(token.text))) return undefined;
  return old.map(({ start, end }, i) => ({ start, end, text: now[i]!.text }));
}

const WORD = /^[\p{L}\p{N}_$]+$/u;

/** Is there one word on each side? The white space ahead of it belongs to the file. */
export function areWords(old: readonly Token[], now: readonly Token[]): boolean {
  return old.length === 1 && now.length === 1 && WORD.test(old[0]!.text) && WORD.test(now[0]!.text);
}

/**
 * Index pairs of the tokens that two lists have in common at their start and at their end. What lies between
 * is replaced as a whole (`endFirst` says which end is looked at first): a token that happens to occur on both sides there has nothing to do with the other.
 */
export function commonEnds(
  a: readonly Token[],
  b: readonly Token[],
  endFirst: boolean,
  anyCase = false,
): [number, number][] {
  const same = (x: Token, y: Token): boolean =>
    x.text === y.text || (anyCase && x.text.toLowerCase() === y.text.toLowerCase());
  const most = Math.min(a.length, b.length);
  let start = 0;
  let end = 0;
  const fromEnd = (): void => {
    while (end < most - start && same(a[a.length - 1 - end]!, b[b.length - 1 - end]!)) end++;
  };
  if (endFirst) fromEnd();
  while (start < most - end && same(a[start]!, b[start]!)) start++;
  fromEnd();
  const pairs: [number, number][] = [];
  for (let i = 0; i < start; i++) pairs.push([i, i]);
  for (let i = end; i > 0; i--) pairs.push([a.length - i, b.length - i]);
  return pairs;
}
