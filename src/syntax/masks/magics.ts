import type { Language } from "../language.js";
import type { Obstacle } from "./mask.js";

/** Lines of a notebook's cell that speak to the notebook and not to the language. */
export function magics(text: string): Obstacle[] {
  return [...text.matchAll(/^[ \t]*([%!?][^\n]*|[\w.]+\?{1,2}[ \t]*$)/gm)].map(
    ({ 0: line, 1: code = "", index }) => {
      const start = index + line.length - code.length;
      const end = start + code.trimEnd().length;
      const what = `\`${code.trim()}\``;
      return { start, end, masks: [{ start, end, what, isMark: false, whole: { start, end } }] };
    },
  );
}

/** Is a cell written in another language than the notebook's, as its first line says? */
export function isOfOtherLanguage(text: string): boolean {
  const name = /^\s*%%(\w+)/.exec(text)?.[1];
  return name !== undefined && !["time", "timeit", "capture", "prun"].includes(name);
}

const dialects = new Map<Language, Language>();

/** A language as it is written in the cells of notebooks. */
export function inNotebook(language: Language): Language {
  if (language.cellObstacles.length === 0) return language;
  let dialect = dialects.get(language);
  if (!dialect) dialects.set(language, (dialect = { ...language, obstacles: language.cellObstacles }));
  return dialect;
}
