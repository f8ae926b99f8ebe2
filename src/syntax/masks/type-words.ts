import type { Obstacle } from "./mask.js";

/** How a type parameter varies: `<in out T>`. */
const VARIANCE =
  /(?<=[<,](?:\s|\/\/[^\n]*\n)*)(?:in\s+out|in|out)(?=\s+[\p{L}_$][\p{L}\p{N}_$]*\s*(?:[,>=]|extends\b))/gu;
/** `export type * from`. */
const ALL_TYPES = /(?<=^[ \t]*export\s+)type(?=\s*\*)/gm;
/** A field with accessors of its own, behind another modifier. */
const ACCESSOR =
  /(?<=\b(?:public|private|protected|static|override|readonly|abstract|declare)\s+)accessor(?=\s+[#\p{L}_$])/gu;
/** What a type of another file, named on the spot, is made for: `import("./a").B<C>`. */
const ARGUMENTS =
  /(?<=\bimport\(\s*["'][^"'\n]*["']\s*\)(?:\.[\p{L}\p{N}_$]+)+)<[^<>]*(?:<[^<>]*>[^<>]*)*>/gu;

const found = (text: string, form: RegExp, isMark: boolean): Obstacle[] =>
  [...text.matchAll(form)].map(({ 0: code, index: start }) => {
    const end = start + code.length;
    return { start, end, masks: [{ start, end, what: `\`${code}\``, isMark, whole: { start, end } }] };
  });

/** Newer words of TypeScript's types, which the parser cannot read; the code beside them means the same without. */
export function typeWords(text: string): Obstacle[] {
  const marks = [VARIANCE, ALL_TYPES, ACCESSOR].flatMap((form) => found(text, form, true));
  return [...marks, ...found(text, ARGUMENTS, false)].sort((a, b) => a.start - b.start);
}
