import {
  compile,
  Hole,
  languageOf,
  loadGrammars,
  matchesIn,
  parse,
  Snippet,
  snippetCode,
  type ContextName,
  type HoleKind,
  type SyntaxNode,
  type SyntaxTree,
} from "uvran/core";
import { stepOf, touched } from "./here";
import type { Range, Step, Template } from "./protocol";

/** The kinds of holes, in the order in which they are tried for a part of a snippet. */
const KINDS: readonly HoleKind[] = [
  "expression",
  "name",
  "type",
  "statement",
  "operator",
  "text",
  "arguments",
  "parameters",
  "statements",
  "members",
  "modifiers",
];

/** A snippet as the parser reads it, with the way back to the rule file. */
interface Read {
  readonly tree: SyntaxTree;
  /** For each character of the code the offset in the rule file from which it comes; -1 for what was put around it. */
  readonly origins: readonly number[];
  /** For each character of a hole in the code, where the hole ends in the rule file. */
  readonly ends: ReadonlyMap<number, number>;
}

/** The way from the whole snippet down to a position in it; offsets of the rule file. */
export async function stepsInTemplate(template: Template, offset: number): Promise<Step[]> {
  const read = await readOf(template);
  if (!read) return [];
  const { tree, origins } = read;
  let at = origins.findIndex((origin) => origin >= offset);
  if (at < 0) at = origins.findLastIndex((origin) => origin >= 0) + 1;
  const node = tree.nodeAt(touched(tree.text, at));
  return [node, ...node.ancestors()].reverse().flatMap((one) => {
    const range = back(one, read);
    return range ? [{ ...stepOf(one), ...range }] : [];
  });
}

/** The nearest part around a hole that is more than the hole; undefined where that is the whole snippet. */
export async function wider(template: Template, { start, end }: Range): Promise<Range | undefined> {
  const steps = await stepsInTemplate(template, start);
  const around = steps.findLast(
    (step) => step.start <= start && step.end >= end && step.end - step.start > end - start,
  );
  return around && steps.indexOf(around) > 0 && !isWhole(template, around) ? around : undefined;
}

function isWhole({ items }: Template, { start, end }: Range): boolean {
  return items.every(
    (item) =>
      (item.start >= start && item.end <= end) || (item.is === "text" && blankOutside(item, start, end)),
  );
}

function blankOutside(item: Range & { readonly text: string }, start: number, end: number): boolean {
  const ahead = item.text.slice(0, Math.max(0, start - item.start));
  const behind = item.text.slice(Math.max(0, end - item.start));
  return /^[\s;]*$/.test(ahead) && /^[\s;]*$/.test(behind);
}

/** Of what kind a hole can be that stands for a part of a snippet; undefined where no hole can stand there. */
export async function kindFor(template: Template, { start, end }: Range): Promise<HoleKind | undefined> {
  const plain = snippetOf(template);
  if (!plain) return undefined;
  const language = languageOf(template.language);
  await loadGrammars([language]);
  const text = textBetween(template, start, end);
  if (text.trim() === "") return undefined;
  const read = await readOf(template);
  return KINDS.find((kind) => {
    const opened = snippetOf(template, { start, end, kind });
    if (!opened) return false;
    try {
      // The code as it is written must fit what is left open.
      return compile(opened, template.language).some(
        (pattern) => read && [...matchesIn([pattern], read.tree, read.tree.root.id)].length > 0,
      );
    } catch {
      return false;
    }
  });
}

function textBetween({ items }: Template, start: number, end: number): string {
  return items
    .map((item) =>
      item.is === "text"
        ? item.text.slice(Math.max(0, start - item.start), Math.max(0, end - item.start))
        : "x",
    )
    .join("");
}

/** A template as a snippet, with a part of it taken for a hole where that is said; undefined where more than holes stand in it. */
function snippetOf(
  { language, context, items }: Template,
  opened?: Range & { readonly kind: HoleKind },
): Snippet | undefined {
  const texts = [""];
  const parts: Hole[] = [];
  const holes = new Map<string, Hole>();
  const add = (hole: Hole): void => {
    parts.push(hole);
    texts.push("");
  };
  let isOpen = false;
  for (const item of items) {
    if (item.is === "other") return undefined;
    if (item.is === "hole") {
      if (opened && item.start >= opened.start && item.end <= opened.end) continue;
      let hole = holes.get(item.name);
      if (!hole) holes.set(item.name, (hole = new Hole(item.name, item.kind as HoleKind)));
      add(hole);
      continue;
    }
    const [from, to] = opened ? [opened.start - item.start, opened.end - item.start] : [Infinity, Infinity];
    texts[texts.length - 1] += item.text.slice(0, Math.max(0, from));
    if (opened && !isOpen && opened.start < item.end && opened.start >= item.start) {
      add(new Hole("opened", opened.kind));
      isOpen = true;
    }
    texts[texts.length - 1] += item.text.slice(Math.max(0, to));
  }
  if (opened && !isOpen) return undefined;
  return new Snippet(language, texts, parts, context as ContextName | undefined);
}

async function readOf(template: Template): Promise<Read | undefined> {
  const snippet = snippetOf(template);
  if (!snippet) return undefined;
  const language = languageOf(template.language);
  await loadGrammars([language]);
  try {
    const [pattern] = compile(snippet, template.language);
    if (!pattern) return undefined;
    const { before, after } = pattern.context;
    const inner = snippetCode(snippet, (i) => pattern.spelling[i]!);
    const code = before + inner + after;
    const aligned = align(template, snippet, pattern.spelling, inner, before.length);
    return aligned && { tree: parse(code, language), ...aligned };
  } catch {
    return undefined;
  }
}

const isBlank = (char: string | undefined): boolean => char !== undefined && /\s/.test(char);

/** Finds for each character of the spelt code where it stands in the rule file; white space may differ. */
function align(
  { items }: Template,
  { parts }: Snippet,
  spelling: readonly string[],
  code: string,
  shift: number,
): Omit<Read, "tree"> | undefined {
  const origins: number[] = Array<number>(shift).fill(-1);
  const ends = new Map<number, number>();
  let at = 0;
  let part = 0;
  const skip = (): void => {
    while (isBlank(code[at])) {
      origins[shift + at] = -1;
      at++;
    }
  };
  for (const item of items) {
    if (item.is === "hole") {
      skip();
      const spelt = spelling[part]!;
      const length = code.startsWith(spelt, at) ? spelt.length : spelt.length - 1;
      for (let i = 0; i < length; i++, at++) {
        origins[shift + at] = item.start;
        ends.set(shift + at, item.end);
      }
      part++;
    } else if (item.is === "text") {
      for (let i = 0; i < item.text.length; i++) {
        if (isBlank(item.text[i])) continue;
        skip();
        if (item.text[i] !== code[at]) return undefined;
        origins[shift + at] = item.start + i;
        at++;
      }
    }
  }
  return part === parts.length ? { origins, ends } : undefined;
}

/** The range of a node in the rule file; undefined for what was put around the snippet. */
function back({ start, end }: SyntaxNode, { origins, ends }: Read): Range | undefined {
  let first = start;
  while (first < end && (origins[first] ?? -1) < 0) first++;
  let last = end - 1;
  while (last >= first && (origins[last] ?? -1) < 0) last--;
  if (first > last) return undefined;
  return { start: origins[first]!, end: ends.get(last) ?? origins[last]! + 1 };
}
