import { fromMarkdown } from "mdast-util-from-markdown";
import { allLanguages } from "../syntax/index.js";
import type { Region } from "./region.js";

type Root = ReturnType<typeof fromMarkdown>;
type Node = Root | Root["children"][number];
type Code = Extract<Node, { type: "code" }>;

/** The fenced blocks of a Markdown file that name a language Uvran reads. */
export function fencesInMarkdown(text: string): Region[] {
  const regions: Region[] = [];
  const visit = (node: Node): void => {
    if (node.type === "code") {
      const region = regionOf(text, node);
      if (region) regions.push(region);
    } else if ("children" in node) node.children.forEach((child) => visit(child as Node));
  };
  visit(fromMarkdown(text));
  return regions;
}

function regionOf(text: string, { lang, value, position }: Code): Region | undefined {
  const wanted = lang?.toLowerCase().replace(/[{},:].*$/, "");
  const language = allLanguages().find(({ fences }) => wanted !== undefined && fences.includes(wanted));
  if (!language || !position || value === "") return undefined;
  const firstLine = position.start.line + 1;
  const lines = value.split(/\r?\n/);
  // What a list or a quotation puts before each line belongs to the file, not to the code.
  let at = 0;
  for (let i = 1; i < firstLine; i++) at = text.indexOf("\n", at) + 1;
  const rows = lines.map((line) => {
    const lineEnd = text.indexOf("\n", at);
    const next = lineEnd < 0 ? text.length : lineEnd + 1;
    const full = text.slice(at, next).replace(/\r?\n$/, "");
    const row = {
      start: at + full.length - line.length,
      prefix: full.slice(0, full.length - line.length),
      next,
    };
    at = next;
    return { ...row, line, end: text.slice(row.start + line.length, next) };
  });
  if (rows.some(({ start, line }) => !text.startsWith(line, start))) return undefined;
  const inner = rows.map(({ line, end }, i) => line + (i < rows.length - 1 ? end : "")).join("");
  const outer = (offset: number): number => {
    let from = 0;
    for (const { start, line, end } of rows) {
      if (offset <= from + line.length + end.length - 1 || end === "") return start + (offset - from);
      from += line.length + end.length;
    }
    const last = rows.at(-1)!;
    return last.start + last.line.length;
  };
  const last = rows.at(-1)!;
  return {
    language,
    text: inner,
    start: rows[0]!.start,
    end: last.start + last.line.length,
    isWhole: false,
    line: (line) => firstLine - 1 + line,
    outward: ({ start, end, text: put }) => {
      const from = outer(start);
      const prefix = rows.findLast((row) => row.start <= from)?.prefix ?? "";
      return { start: from, end: outer(end), text: put.replace(/\n/g, `\n${prefix}`) };
    },
  };
}
