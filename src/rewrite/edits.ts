/** Replaces the text from `start` to `end` (UTF-16 code units, `end` not included) by `text`. */
export interface Edit {
  readonly start: number;
  readonly end: number;
  readonly text: string;
}

/** In order of place; insertions at one place keep their order. */
export function sorted(edits: readonly Edit[]): Edit[] {
  return [...edits].sort((a, b) => a.start - b.start || a.end - b.end);
}

/** The text with all edits made. Throws a RangeError when two of them overlap. */
export function applyEdits(text: string, edits: readonly Edit[]): string {
  let result = "";
  let at = 0;
  for (const edit of sorted(edits)) {
    if (edit.start < at || edit.end > text.length) {
      throw new RangeError(`edits overlap or leave the text at offset ${edit.start}`);
    }
    result += text.slice(at, edit.start) + edit.text;
    at = edit.end;
  }
  return result + text.slice(at);
}

/**
 * Can both sets of edits not be made? Touching counts as a clash, since the outcome would depend on the order; only
 * what is merely taken out can stand side by side.
 */
export function clash(a: readonly Edit[], b: readonly Edit[]): boolean {
  return a.some((x) => b.some((y) => x.start <= y.end && y.start <= x.end && !areNeighbours(x, y)));
}

function areNeighbours(x: Edit, y: Edit): boolean {
  const onlyTake = [x, y].every(({ start, end, text }) => text === "" && start < end);
  return onlyTake && (x.end === y.start || y.end === x.start);
}

/**
 * Does one set of edits make or break lines on which the other has edits too? New lines get their indentation
 * from the old text, so they cannot be made where that is being changed.
 */
export function clashOnLines(text: string, a: readonly Edit[], b: readonly Edit[]): boolean {
  return breaksInto(text, a, b) || breaksInto(text, b, a);
}

function breaksInto(text: string, edits: readonly Edit[], others: readonly Edit[]): boolean {
  return edits.some((edit) => {
    if (!edit.text.includes("\n") && !text.slice(edit.start, edit.end).includes("\n")) return false;
    const start = edit.start === 0 ? 0 : text.lastIndexOf("\n", edit.start - 1) + 1;
    const next = text.indexOf("\n", Math.max(edit.start, edit.end - 1));
    const end = next < 0 ? text.length : next;
    return others.some((other) => other.start < end && start <= other.end && start <= other.start);
  });
}

/** Drops what an edit leaves as it was at its two ends; undefined when nothing is left to do. */
export function trimmed(text: string, edit: Edit): Edit | undefined {
  let { start, end, text: put } = edit;
  while (start < end && put.length > 0 && text[start] === put[0]) {
    start++;
    put = put.slice(1);
  }
  while (end > start && put.length > 0 && text[end - 1] === put.at(-1)) {
    end--;
    put = put.slice(0, -1);
  }
  return start === end && put === "" ? undefined : { start, end, text: put };
}

/** Text that a composed edit keeps from the original, by offset, or puts in. */
type Piece = { readonly from: number; readonly to: number } | { readonly text: string };

/**
 * One set of edits to `original` that does what `first` and then `second` do. `second` is in offsets of the
 * text after `first`.
 */
export function compose(original: string, first: readonly Edit[], second: readonly Edit[]): Edit[] {
  const earlier = sorted(first);
  const later = sorted(second);
  const result: Edit[] = [];
  // Edits of both sets that touch each other form a cluster. `shift` leads from original offsets to those
  // of the text in the middle.
  let shift = 0;
  let i = 0;
  let j = 0;
  while (i < earlier.length || j < later.length) {
    const start = Math.min((earlier[i]?.start ?? Infinity) + shift, later[j]?.start ?? Infinity);
    let end = start;
    let shiftAfter = shift;
    const firsts: Edit[] = [];
    const seconds: Edit[] = [];
    for (;;) {
      const a = earlier[i];
      const b = later[j];
      if (a && a.start + shiftAfter <= end) {
        firsts.push(a);
        end = Math.max(end, a.start + shiftAfter + a.text.length);
        shiftAfter += a.text.length - (a.end - a.start);
        i++;
      } else if (b && b.start <= end) {
        seconds.push(b);
        end = Math.max(end, b.end);
        j++;
      } else break;
    }
    const middle = piecesAfter(start - shift, end - shiftAfter, firsts);
    result.push(...editsOf(original, start - shift, end - shiftAfter, edited(middle, start, seconds)));
    shift = shiftAfter;
  }
  return result;
}

/** The original text from `start` to `end` with edits made, in pieces. */
function piecesAfter(start: number, end: number, edits: readonly Edit[]): Piece[] {
  const pieces: Piece[] = [];
  let at = start;
  for (const edit of edits) {
    if (edit.start > at) pieces.push({ from: at, to: edit.start });
    if (edit.text !== "") pieces.push({ text: edit.text });
    at = edit.end;
  }
  if (end > at) pieces.push({ from: at, to: end });
  return pieces;
}

/** Pieces that start at `position`, with edits made to them. */
function edited(pieces: readonly Piece[], position: number, edits: readonly Edit[]): Piece[] {
  const result: Piece[] = [];
  const queue = [...pieces];
  const take = (until: number, keep: boolean): void => {
    while (position < until && queue.length > 0) {
      const piece = queue[0]!;
      const length = "text" in piece ? piece.text.length : piece.to - piece.from;
      const used = Math.min(length, until - position);
      if (keep) result.push(slice(piece, 0, used));
      if (used < length) queue[0] = slice(piece, used, length);
      else queue.shift();
      position += used;
    }
  };
  for (const edit of edits) {
    take(edit.start, true);
    take(edit.end, false);
    if (edit.text !== "") result.push({ text: edit.text });
  }
  take(Infinity, true);
  return result;
}

function slice(piece: Piece, from: number, to: number): Piece {
  return "text" in piece
    ? { text: piece.text.slice(from, to) }
    : { from: piece.from + from, to: piece.from + to };
}

function editsOf(original: string, start: number, end: number, pieces: readonly Piece[]): Edit[] {
  const result: Edit[] = [];
  let at = start;
  let put = "";
  const push = (until: number): void => {
    const edit = trimmed(original, { start: at, end: until, text: put });
    if (edit) result.push(edit);
  };
  for (const piece of pieces) {
    if ("text" in piece) {
      put += piece.text;
    } else {
      push(piece.from);
      at = piece.to;
      put = "";
    }
  }
  push(end);
  return result;
}
