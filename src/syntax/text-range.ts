/** A place in a text: line and column are counted from 1, columns in UTF-16 code units. */
export interface TextPlace {
  readonly line: number;
  readonly column: number;
}

/** From the first character to behind the last. */
export interface TextRange {
  readonly start: TextPlace;
  readonly end: TextPlace;
}

/** Offset of a place in a text. */
export function offsetOf(text: string, { line, column }: TextPlace): number {
  let at = 0;
  for (let i = 1; i < line; i++) at = text.indexOf("\n", at) + 1;
  return at + column - 1;
}

/** The place of an offset in a text. */
export function placeOfOffset(text: string, offset: number): TextPlace {
  let line = 1;
  let start = 0;
  for (let next = text.indexOf("\n"); next >= 0 && next < offset; next = text.indexOf("\n", next + 1)) {
    line++;
    start = next + 1;
  }
  return { line, column: offset - start + 1 };
}
