import { findNodeAtLocation, parseTree, type Node } from "jsonc-parser";
import { allLanguages, inNotebook, isOfOtherLanguage, type Language } from "../syntax/index.js";
import { lineOf, type Region } from "./region.js";

/** The code cells of a Jupyter notebook. Outputs and everything else in the file are left as they are. */
export function cellsInNotebook(text: string): Region[] {
  const root = parseTree(text);
  const cells = root && findNodeAtLocation(root, ["cells"])?.children;
  const language = root && languageIn(root);
  if (!cells || !language) return [];
  return cells.flatMap((cell) => {
    if (findNodeAtLocation(cell, ["cell_type"])?.value !== "code") return [];
    const source = findNodeAtLocation(cell, ["source"]);
    const strings =
      source?.type === "array" ? (source.children ?? []) : source?.type === "string" ? [source] : [];
    if (strings.length === 0 || strings.some(({ type }) => type !== "string")) return [];
    const region = cellRegion(text, inNotebook(language), strings);
    return isOfOtherLanguage(region.text) ? [] : [region];
  });
}

function languageIn(root: Node): Language | undefined {
  const named =
    findNodeAtLocation(root, ["metadata", "kernelspec", "language"]) ??
    findNodeAtLocation(root, ["metadata", "language_info", "name"]);
  const name = named === undefined ? "python" : String(named.value).toLowerCase();
  return allLanguages().find(({ id, fences }) => id === name || fences.includes(name)) ?? undefined;
}

const ESCAPE = /\\(?:u[0-9a-fA-F]{4}|.)|[^]/g;

/** A cell's source: one string, or one for each line. */
function cellRegion(text: string, language: Language, strings: readonly Node[]): Region {
  let inner = "";
  // Outer offset of each inner character; at the start of a string that is behind its quote.
  const offsets: number[] = [];
  for (const { offset, length } of strings) {
    let at = offset + 1;
    for (const [raw] of text.slice(offset + 1, offset + length - 1).matchAll(ESCAPE)) {
      inner += JSON.parse(`"${raw}"`) as string;
      offsets.push(at);
      at += raw.length;
    }
  }
  const last = strings.at(-1)!;
  offsets.push(last.offset + last.length - 1);
  const [first, second] = strings;
  const apart = first && second ? text.slice(first.offset + first.length, second.offset) : undefined;
  // One string for each line: a new line starts a new string.
  const between = apart === undefined ? "\\n" : `\\n"${apart}"`;
  return {
    language,
    text: inner,
    start: offsets[0]!,
    end: offsets.at(-1)!,
    isWhole: false,
    line: (line) => {
      let at = 0;
      for (let i = 1; i < line; i++) at = inner.indexOf("\n", at) + 1;
      return lineOf(text, offsets[at] ?? offsets[0]!);
    },
    outward: ({ start, end, text: put }) => {
      const lines = put.split("\n").map((line) => JSON.stringify(line).slice(1, -1));
      return { start: offsets[start]!, end: offsets[end]!, text: lines.join(between) };
    },
  };
}
