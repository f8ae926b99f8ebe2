import type { Nodes, PhrasingContent } from "mdast";
import { fromMarkdown } from "mdast-util-from-markdown";
import type { Kind } from "../levels.js";

/** What a product's notes say of one change, as far as it can be read off them. */
export interface Noted {
  /** The line of the notes, counted from 1. */
  readonly line: number;
  readonly note: string;
  readonly since: string | undefined;
  readonly kind: Kind | undefined;
  readonly old: string | undefined;
  readonly now: string | undefined;
  readonly link: string | undefined;
  readonly before: string | undefined;
  readonly after: string | undefined;
}

/** What notes are about, and what they say. */
export interface Notes {
  /** What stands before the version in the first heading. */
  readonly product: string | undefined;
  readonly changes: readonly Noted[];
}

const VERSION = /(?:^|\s|\bv)(\d+(?:\.\d+)+|\d+)(?=$|[\s:)(,–-])/;

/**
 * Reads the changes off a product's notes in Markdown or reStructuredText: an entry for each item of a list, under the version
 * and the kind that the headings above it name, with the code blocks that belong to it. What is not said stays undefined.
 */
export function changesInNotes(text: string, isRestructured: boolean): Notes {
  const tree = fromMarkdown(isRestructured ? asMarkdown(text) : text);
  const changes: Noted[] = [];
  let product: string | undefined;
  let since: string | undefined;
  let kind: Kind | undefined;
  let side: "before" | "after" | undefined;
  const add = (node: Nodes, content: readonly Nodes[], blocks: readonly Nodes[]): void => {
    const said = wordsOf(content);
    if (said === "") return;
    const codes = content.flatMap(codesIn);
    const [old, now] = oldAndNew(content, codes);
    const pair = pairOf(blocks);
    changes.push({
      line: node.position?.start.line ?? 1,
      note: said,
      since,
      kind: kind ?? kindIn(said),
      old,
      now,
      link: content.flatMap(linksIn)[0],
      before: pair.before,
      after: pair.after,
    });
  };
  tree.children.forEach((node) => {
    if (node.type === "heading") {
      const title = wordsOf(node.children);
      const version = VERSION.exec(title);
      if (version) {
        since = version[1];
        kind = undefined;
        product ??= title.slice(0, version.index).trim() || undefined;
      }
      kind = kindIn(title) ?? (version ? undefined : kind);
      side = undefined;
    } else if (node.type === "list") {
      for (const item of node.children) {
        const [first] = item.children;
        const blocks = item.children.filter(({ type }) => type === "code" || type === "paragraph");
        add(item, first?.type === "paragraph" ? first.children : [], blocks);
      }
    } else if (node.type === "paragraph") {
      side = sideIn(wordsOf(node.children));
    } else if (node.type === "code" && changes.length > 0) {
      const last = changes.at(-1)!;
      const pair =
        node.lang === "diff" ? ofDiff(node.value) : { [side ?? sideIn(node.meta ?? "") ?? ""]: node.value };
      changes[changes.length - 1] = {
        ...last,
        before: last.before ?? pair["before"],
        after: last.after ?? pair["after"],
      };
    }
  });
  return { product, changes };
}

function kindIn(text: string): Kind | undefined {
  if (/\b(remov|breaking|incompatib|no longer|renamed|moved)/i.test(text)) return "breaks";
  return /\bdeprecat/i.test(text) ? "deprecated" : undefined;
}

function sideIn(text: string): "before" | "after" | undefined {
  if (/\b(before|old|previously|was)\b/i.test(text)) return "before";
  return /\b(after|new|now|instead)\b/i.test(text) ? "after" : undefined;
}

function pairOf(blocks: readonly Nodes[]): { before?: string; after?: string } {
  let found: { before?: string; after?: string } = {};
  let side: "before" | "after" | undefined;
  for (const block of blocks) {
    if (block.type === "paragraph") side = sideIn(wordsOf(block.children)) ?? side;
    else if (block.type === "code")
      found = {
        ...(block.lang === "diff" ? ofDiff(block.value) : side ? { [side]: block.value } : {}),
        ...found,
      };
  }
  return found;
}

/** The two sides of a difference. */
function ofDiff(code: string): { before?: string; after?: string } {
  const lines = code.split("\n").filter((line) => !/^(---|\+\+\+|@@)/.test(line));
  const of = (mark: string): string =>
    lines
      .filter((line) => line.startsWith(mark) || line.startsWith(" "))
      .map((line) => line.slice(1))
      .join("\n");
  return { before: of("-"), after: of("+") };
}

/** Two pieces of code in a sentence, in the order old, new; only where the words between them say which is which. */
function oldAndNew(
  content: readonly Nodes[],
  codes: readonly string[],
): [old: string | undefined, now: string | undefined] {
  const [first, second] = codes;
  if (first === undefined || second === undefined) return [first, undefined];
  const shape = wordsOf(content, "\u0000").split("\u0000");
  const between = shape[1] ?? "";
  if (/\b(instead of|in place of|replaces)\b/i.test(between)) return [second, first];
  const isTurn =
    /\b(renamed|moved|is|are|becomes?|replaced|called|use)\b|→|->|=>/i.test(between) &&
    !/\b(and|or|in)\s*$/i.test(between);
  return isTurn ? [first, second] : [first, undefined];
}

/** The words of a piece of notes; `code` stands for each piece of code where it is given. */
function wordsOf(nodes: readonly Nodes[], code?: string): string {
  const texts = nodes.map((node): string => {
    if (node.type === "inlineCode") return code ?? `\`${node.value}\``;
    if (node.type === "text") return node.value;
    return "children" in node ? wordsOf(node.children as readonly PhrasingContent[], code) : "";
  });
  return texts.join("").replace(/\s+/g, " ").trim();
}

function codesIn(node: Nodes): string[] {
  if (node.type === "inlineCode") return [node.value];
  return "children" in node ? node.children.flatMap(codesIn) : [];
}

function linksIn(node: Nodes): string[] {
  if (node.type === "link") return [node.url];
  return "children" in node ? node.children.flatMap(linksIn) : [];
}

const UNDERLINE = /^([=\-~^"'#*+`.])\1{2,}\s*$/;

/** reStructuredText line by line in the place of Markdown, as far as notes need it: headings, items, code. */
function asMarkdown(text: string): string {
  const lines = text.split(/\r?\n/);
  let isCode = false;
  return lines
    .map((line, i) => {
      if (isCode) {
        if (line.trim() === "" || /^\s/.test(line)) return line.replace(/^\s{1,3}(?=\S)/, "    ");
        isCode = false;
      }
      if (/^\.\.\s+code(-block)?::/.test(line.trimStart())) {
        isCode = true;
        return "";
      }
      if (UNDERLINE.test(line)) return "";
      if (UNDERLINE.test(lines[i + 1] ?? "") && line.trim() !== "") return `## ${line.trim()}`;
      return line
        .replace(/``(.+?)``/g, "`$1`")
        .replace(/:\w+:`~?([^`<]+?)(?:\s*<[^>]*>)?`/g, "`$1`")
        .replace(/`([^`<]+?)\s*<(https?:[^>]+)>`_+/g, "[$1]($2)");
    })
    .join("\n");
}
