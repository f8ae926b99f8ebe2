/** A word made of the last part of a path: `./lib/honey-jar.js` gives `honeyJar`. */
export function nameOfPath(path: string): string {
  const last = path
    .replace(/\/(index(\.\w+)?)?$/, "")
    .replace(/\.(c|m)?jsx?$/, "")
    .split("/")
    .at(-1)!;
  const words = last.split(/[^\p{L}\p{N}]+/u).filter((word) => word !== "");
  const name = words.map((word, i) => (i === 0 ? word : word[0]!.toUpperCase() + word.slice(1))).join("");
  return /^\p{L}/u.test(name) ? name[0]!.toLowerCase() + name.slice(1) : `module${name}`;
}

const RESERVED = new Set(
  (
    "await break case catch class const continue debugger default delete do else enum export extends false finally for " +
    "function if implements import in instanceof interface let new null package private protected public return static " +
    "super switch this throw true try typeof var void while with yield arguments eval"
  ).split(" "),
);

/** May a module have a name for a variable? */
export function isPlainName(name: string): boolean {
  return /^[\p{L}_$][\p{L}\p{N}_$]*$/u.test(name) && !RESERVED.has(name);
}
