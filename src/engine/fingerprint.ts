import { sha256 } from "@noble/hashes/sha2.js";
import { bytesToHex, utf8ToBytes } from "@noble/hashes/utils.js";
import type { SyntaxTree } from "../syntax/index.js";
import type { Draft } from "./draft-change.js";

/** SHA-256 of a text's UTF-8 bytes, in hexadecimal. */
export function hashText(text: string): string {
  return bytesToHex(sha256(utf8ToBytes(text)));
}

/**
 * For each draft an id made of its rules, its file, the code it stands in and its place among equals. Lines
 * may shift and other code change without touching it.
 */
export function fingerprints(path: string, tree: SyntaxTree, drafts: readonly Draft[]): string[] {
  const seen = new Map<string, number>();
  return drafts.map((draft) => {
    const start = Math.min(...draft.edits.map((edit) => edit.start), draft.start);
    const end = Math.max(...draft.edits.map((edit) => edit.end));
    const code = tree.text.slice(start, end).replace(/\s+/g, " ");
    const key = JSON.stringify([draft.rules, path, code]);
    const count = seen.get(key) ?? 0;
    seen.set(key, count + 1);
    return hashText(`${key}#${count}`).slice(0, 10);
  });
}
