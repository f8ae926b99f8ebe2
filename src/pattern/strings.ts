import type { Hole } from "./hole.js";

/** A string literal cut at its quotes. Offsets of the body are relative to the literal. */
export interface StringParts {
  /** Prefix and opening quote. */
  readonly open: string;
  readonly body: string;
  readonly close: string;
}

const QUOTED = /^([A-Za-z@$&%]*)("""|'''|"|'|`)([\s\S]*)\2$/;

/** Cuts a string literal into quotes and body; undefined for forms without plain quotes, such as heredocs. */
export function splitString(literal: string): StringParts | undefined {
  const match = QUOTED.exec(literal);
  if (!match) return undefined;
  const [, prefix = "", quote = "", body = ""] = match;
  return { open: prefix + quote, body, close: quote };
}

/** Nothing in it needs an escape or stands for something else, whatever the quotes. */
const PLAIN = /^[^"'`\\\n\r$#{}@%]*$/;

/** Where each hole of a text pattern lies; offsets relative to the text. */
export type TextCaptures = readonly { readonly hole: Hole; readonly start: number; readonly end: number }[];

/**
 * Fits texts and holes in turn to a literal or a leaf, texts at both ends. Each hole takes as little as it can.
 * Quotes may differ where nothing in the string depends on them.
 */
export function fitText(pieces: readonly (string | Hole)[], text: string): TextCaptures | undefined {
  const direct = fitExactly(pieces, text);
  if (direct) return direct;
  const wanted = requoted(pieces, text);
  return wanted && fitExactly(wanted, text);
}

/** The same pieces in the quotes of the literal. */
function requoted(pieces: readonly (string | Hole)[], text: string): (string | Hole)[] | undefined {
  const literal = splitString(text);
  const first = pieces[0];
  const last = pieces.at(-1);
  if (!literal || typeof first !== "string" || typeof last !== "string" || pieces.length < 3)
    return undefined;
  if (!/^["']$/.test(literal.open) || !/^["']/.test(first) || !last.endsWith(first[0]!)) return undefined;
  const texts = pieces
    .filter((piece) => typeof piece === "string")
    .join("")
    .slice(1, -1);
  if (!PLAIN.test(literal.body) || !PLAIN.test(texts)) return undefined;
  return [literal.open + first.slice(1), ...pieces.slice(1, -1), last.slice(0, -1) + literal.close];
}

/** Each text is looked for where it occurs first; only the last must stand at the end. */
function fitExactly(pieces: readonly (string | Hole)[], text: string): TextCaptures | undefined {
  const captures: { hole: Hole; start: number; end: number }[] = [];
  const first = pieces[0] as string;
  if (!text.startsWith(first)) return undefined;
  let at = first.length;
  for (let i = 1; i < pieces.length; i += 2) {
    const next = pieces[i + 1] as string;
    const end = i + 2 === pieces.length ? lastPlace(next, text, at) : text.indexOf(next, at);
    if (end < at) return undefined;
    captures.push({ hole: pieces[i] as Hole, start: at, end });
    at = end + next.length;
  }
  return captures;
}

function lastPlace(end: string, text: string, at: number): number {
  return text.endsWith(end) && text.length - end.length >= at ? text.length - end.length : -1;
}
