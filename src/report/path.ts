const ESCAPES: Readonly<Record<string, string>> = {
  "\u0007": "\\a",
  "\b": "\\b",
  "\t": "\\t",
  "\n": "\\n",
  "\v": "\\v",
  "\f": "\\f",
  "\r": "\\r",
  '"': '\\"',
  "\\": "\\\\",
};

/** A path as it can be shown and as git writes it: in quotes, with escapes, where it has more than printable characters. */
export function shownPath(path: string): string {
  const odd = /[\u0000-\u001f\u007f-\u009f"\\]/g;
  if (!odd.test(path)) return path;
  const escaped = path.replace(odd, (char) => ESCAPES[char] ?? octal(char));
  return `"${escaped}"`;
}

/** The UTF-8 bytes of a character, each in three octal digits. */
function octal(char: string): string {
  return [...new TextEncoder().encode(char)].map((byte) => `\\${byte.toString(8).padStart(3, "0")}`).join("");
}

/** Where something was learnt, behind a sentence about a line of a file: nothing where it is that line. */
export function placeBehind(
  said: { readonly line?: number | undefined; readonly path?: string | undefined },
  own: number,
): string {
  const { line, path } = said;
  if (line === undefined) return "";
  if (path !== undefined) return ` (${shownPath(path)}:${line})`;
  return line === own ? "" : ` (line ${line})`;
}
