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

/** Index pairs of a longest common subsequence of two token lists. */
export function common(a: readonly Token[], b: readonly Token[]): [number, number][] {
  const width = b.length + 1;
  const table = new Uint32Array((a.length + 1) * width);
  for (let i = a.length - 1; i >= 0; i--) {
    for (let j = b.length - 1; j >= 0; j--) {
      table[i * width + j] =
        a[i]!.text === b[j]!.text
          ? table[(i + 1) * width + j + 1]! + 1
          : Math.max(table[(i + 1) * width + j]!, table[i * width + j + 1]!);
    }
  }
  const pairs: [number, number][] = [];
  for (let i = 0, j = 0; i < a.length && j < b.length;) {
    if (a[i]!.text === b[j]!.text) pairs.push([i++, j++]);
    else if (table[(i + 1) * width + j]! >= table[i * width + j + 1]!) i++;
    else j++;
  }
  return pairs;
}
