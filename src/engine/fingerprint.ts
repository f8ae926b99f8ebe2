import { sha256 } from "@noble/hashes/sha2.js";
import { bytesToHex, utf8ToBytes } from "@noble/hashes/utils.js";
import { applyEdits, type Edit } from "../rewrite/index.js";
import type { SyntaxTree } from "../syntax/index.js";

/** Hexadecimal digits of an id: 64 bits, enough for the changes of a fleet of repositories. */
const DIGITS = 16;

/** SHA-256 of a text's UTF-8 bytes, in hexadecimal. */
export function hashText(text: string): string {
  return bytesToHex(sha256(utf8ToBytes(text)));
}

/** A place of which something is said. */
interface Place {
  readonly rules: readonly string[];
  /** Offsets of its code. */
  readonly start: number;
  readonly end: number;
  /** What becomes of it; nothing for what is only reported. */
  readonly edits: readonly Edit[];
}

/**
 * Ids for places of a file. They are made of the rules, the file, the functions and classes around, the code, and its
 * place among equals. Lines may shift and other code change without touching them; and since what an equal piece of code
 * becomes counts as equal too, they stay the same when that is applied or not.
 */
export class Fingerprints {
  readonly #seen = new Map<string, number>();

  constructor(
    readonly path: string,
    readonly tree: SyntaxTree,
    /** What keeps ids of different kinds apart. */
    readonly kind: string,
  ) {}

  of(place: Place): string {
    const { text } = this.tree;
    const start = place.edits.reduce((least, edit) => Math.min(least, edit.start), place.start);
    const end = place.edits.reduce((most, edit) => Math.max(most, edit.end), place.end);
    const code = text.slice(start, end);
    const { names, from } = this.#around(start, end);
    const moved = place.edits.map((edit) => ({ ...edit, start: edit.start - start, end: edit.end - start }));
    const forms = new Set([code, ...(moved.length > 0 ? [applyEdits(code, moved)] : [])]);
    let equals = 0;
    for (const form of forms) equals += countIn(text, form, from, start);
    const key = JSON.stringify([this.kind, place.rules, this.path, names, code.replace(/\s+/g, " "), equals]);
    const again = this.#seen.get(key) ?? 0;
    this.#seen.set(key, again + 1);
    return hashText(again === 0 ? key : `${key}#${again}`).slice(0, DIGITS);
  }

  /** The names of the functions and classes around a place, and where the innermost begins. */
  #around(start: number, end: number): { names: string[]; from: number } {
    const { functions, classes } = this.tree.language;
    const names: string[] = [];
    let from: number | undefined;
    const at = this.tree.nodeAt(start, end);
    for (const node of [at, ...at.ancestors()]) {
      if (!node.is(functions) && !node.is(classes)) continue;
      // The place may be the whole function.
      if (node.start >= start) continue;
      from ??= node.start;
      names.push(node.child("name")?.text ?? "");
    }
    return { names, from: from ?? 0 };
  }
}

/** How often a piece of code stands between two offsets. */
function countIn(text: string, code: string, from: number, to: number): number {
  if (code === "") return 0;
  let count = 0;
  for (let at = text.indexOf(code, from); at >= 0 && at < to; at = text.indexOf(code, at + code.length))
    count++;
  return count;
}
