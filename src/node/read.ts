import { decode, encodingOf, unknownEncoding } from "./encoding.js";

const GENERATED =
  /@generated\b|\bdo not edit\b|\bcode generated\b|\bauto-?generated\b|\bgenerated (by|from|file)\b/i;
const HEAD = 600;
const LONGEST_LINE = 5000;

/** Why a file is not to be touched: `skip` for files that are left out on purpose, `bad` for broken ones. */
export type Verdict = { readonly skip: string } | { readonly bad: string } | undefined;

/** Looks at the bytes of a file, and decodes as few of them as tell. */
export function inspect(bytes: Buffer): Verdict {
  const encoding = encodingOf(bytes);
  const isWide = encoding?.startsWith("utf-16") === true;
  if (!isWide && bytes.subarray(0, 8000).includes(0)) return { skip: "binary" };
  if (encoding === undefined) return { bad: unknownEncoding(bytes) };
  const head = isWide ? decode(bytes).slice(0, HEAD) : bytes.subarray(0, HEAD).toString("utf8");
  if (GENERATED.test(leadingComment(head))) return { skip: "generated" };
  if (!isWide && hasEndlessLine(bytes)) return { skip: "minified" };
  return undefined;
}

/** Does a word stand in the bytes of a file? Words are looked for as bytes, where the encoding lets them be found so. */
export function hasWord(bytes: Buffer): (word: string) => boolean {
  const encoding = encodingOf(bytes);
  if (encoding === "utf-8") return (word) => bytes.includes(word);
  if (encoding === "latin1") return (word) => bytes.includes(word, 0, "latin1");
  const text = decode(bytes);
  return (word) => text.includes(word);
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
