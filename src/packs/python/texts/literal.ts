import type { SyntaxNode } from "../../../core.js";

/** One piece of a string literal, as it is written: `r"…"`, or a part of several side by side. */
export interface Piece {
  readonly node: SyntaxNode;
  /** The letters ahead of the quote. */
  readonly prefix: string;
  readonly quote: string;
  /** The source text between the quotes. */
  readonly content: string;
}

/** The pieces of a literal of text; undefined for bytes, for what holds values already, and for anything else. */
export function piecesOf(node: SyntaxNode): Piece[] | undefined {
  const parts = node.is("concatenated_string") ? node.parts : [node];
  const pieces = parts.map(pieceOf);
  return pieces.every((piece) => piece !== undefined) ? pieces : undefined;
}

function pieceOf(node: SyntaxNode): Piece | undefined {
  if (!node.is("string")) return undefined;
  const [, prefix = "", quote = ""] = /^([A-Za-z]*)("""|'''|"|')/.exec(node.text) ?? [];
  if (quote === "" || /[bft]/i.test(prefix)) return undefined;
  return { node, prefix, quote, content: node.text.slice(prefix.length + quote.length, -quote.length) };
}
