import { isUtf8 } from "node:buffer";

const GENERATED =
  /@generated\b|\bdo not edit\b|\bcode generated\b|\bauto-?generated\b|\bgenerated (by|from|file)\b/i;
const HEAD = 600;
const LONGEST_LINE = 5000;

/** Why a file is not to be touched: `skip` for files that are left out on purpose, `bad` for broken ones. */
export type Verdict = { readonly skip: string } | { readonly bad: string } | undefined;

/** Looks at bytes without decoding more than the first of them. */
export function inspect(bytes: Buffer): Verdict {
  if (bytes.subarray(0, 8000).includes(0)) return { skip: "binary" };
  if (!isUtf8(bytes)) return { bad: "not valid UTF-8; save it as UTF-8 to have it read" };
  if (GENERATED.test(leadingComment(bytes.subarray(0, HEAD).toString("utf8")))) return { skip: "generated" };
  if (hasEndlessLine(bytes)) return { skip: "minified" };
  return undefined;
}

/** The text of a file that `inspect` has nothing against, its byte-order mark kept. */
export function decode(bytes: Uint8Array): string {
  return new TextDecoder("utf-8", { ignoreBOM: true }).decode(bytes);
}

/** The comment lines at the top, where generators leave their mark. */
function leadingComment(head: string): string {
  const lines = head.split("\n").slice(0, 10);
  return lines.filter((line) => /^\s*(\/\/|#|\/?\*|"""|<!--|--)/.test(line)).join("\n");
}

/** Looks back for a line end from as far as a line may reach, which takes few steps. */
function hasEndlessLine(bytes: Buffer): boolean {
  for (let at = 0; bytes.length - at > LONGEST_LINE;) {
    const last = bytes.lastIndexOf(10, at + LONGEST_LINE);
    if (last < at) return true;
    at = last + 1;
  }
  return false;
}
