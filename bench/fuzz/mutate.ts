import { parse, type Language, type SyntaxNode, type SyntaxTree } from "uvran/core";
import type { Random } from "./random.js";

/** Code for a place in a syntax tree: what stands there in other code of the language. */
export class Donors {
  readonly #byPlace = new Map<string, string[]>();

  constructor(language: Language, texts: readonly string[]) {
    for (const text of texts) {
      for (const node of parse(text, language).root.descendants()) {
        const place = placeOf(node);
        if (place === undefined || node.end - node.start > 300) continue;
        const known = this.#byPlace.get(place);
        if (known) known.push(node.text);
        else this.#byPlace.set(place, [node.text]);
      }
    }
  }

  for(node: SyntaxNode, random: Random): string | undefined {
    const texts = this.#byPlace.get(placeOf(node) ?? "");
    return texts && random.of(texts);
  }
}

/** What the grammar says of where a node stands: the kind that it is a part of, and which part. */
function placeOf(node: SyntaxNode): string | undefined {
  const { parent, field } = node;
  if (!parent) return undefined;
  const which = field ?? (node.named ? "" : "token");
  return node.named ? `${parent.kind}/${which}` : `${parent.kind}/${which}/${/^\w+$/.test(node.text)}`;
}

type Mutation = (tree: SyntaxTree, random: Random, donors: Donors) => string | undefined;

export const spliced = ({ text }: SyntaxTree, start: number, end: number, code: string): string =>
  text.slice(0, start) + code + text.slice(end);

/** A node at random that the test lets through; a few are tried. */
export function pick(
  tree: SyntaxTree,
  random: Random,
  fits: (node: SyntaxNode) => boolean,
): SyntaxNode | undefined {
  for (let i = 0; i < 20; i++) {
    const node = tree.node(random.below(tree.size));
    if (node.parent && fits(node)) return node;
  }
  return undefined;
}

export const isStatement = (node: SyntaxNode): boolean =>
  node.named && node.parent!.is(node.tree.language.statementLists);
const isName = (node: SyntaxNode): boolean =>
  node.isLeaf && node.named && /^[\p{L}_$][\w$]*$/u.test(node.text);

const replaced: Mutation = (tree, random, donors) => {
  const node = pick(tree, random, (one) => one.named);
  const code = node && donors.for(node, random);
  return code === undefined ? undefined : spliced(tree, node!.start, node!.end, code);
};

const otherToken: Mutation = (tree, random, donors) => {
  const node = pick(tree, random, (one) => one.isLeaf && !one.named);
  const code = node && donors.for(node, random);
  return code === undefined ? undefined : spliced(tree, node!.start, node!.end, code);
};

/** One name becomes another name of the file: shadowing, aliasing, the same thing twice. */
const otherName: Mutation = (tree, random) => {
  const node = pick(tree, random, isName);
  const other = pick(tree, random, (one) => isName(one) && one.kind === node?.kind);
  return node && other && spliced(tree, node.start, node.end, other.text);
};

const deleted: Mutation = (tree, random) => {
  const node = pick(tree, random, isStatement);
  return node && spliced(tree, node.start, node.end, "");
};

const doubled: Mutation = (tree, random) => {
  const node = pick(tree, random, isStatement);
  if (!node) return undefined;
  return spliced(tree, node.end, node.end, `\n${tree.indentAt(node.start)}${node.text}`);
};

const swapped: Mutation = (tree, random) => {
  const node = pick(tree, random, (one) => one.named && one.nextPart !== undefined);
  const next = node?.nextPart;
  if (!node || !next) return undefined;
  return spliced(tree, node.start, next.end, next.text + tree.text.slice(node.end, next.start) + node.text);
};

/** A statement of other code goes ahead of one. */
const inserted: Mutation = (tree, random, donors) => {
  const node = pick(tree, random, isStatement);
  const code = node && donors.for(node, random);
  if (code === undefined) return undefined;
  const indent = tree.indentAt(node!.start);
  return spliced(tree, node!.start, node!.start, `${code.replace(/\n\s*/g, `\n${indent}`)}\n${indent}`);
};

/** A name or a call goes into parentheses, a call, a member read. */
const wrapped: Mutation = (tree, random) => {
  const node = pick(tree, random, (one) => one.named && !isStatement(one) && one.end - one.start < 80);
  if (!node) return undefined;
  const { text } = node;
  const form = random.of([
    `(${text})`,
    `g(${text})`,
    `${text}.size`,
    `!${text}`,
    `(${text} || ${text})`,
    `-${text}`,
  ]);
  return spliced(tree, node.start, node.end, form);
};

const COMMENTS: Readonly<Record<string, readonly string[]>> = {
  python: ["# why\n", "  # noqa\n"],
  ruby: ["# why\n"],
  powershell: ["<# why #>", "# why\n"],
};

/** Space, a line break or a comment at the border of tokens. */
const laidOut: Mutation = (tree, random) => {
  const node = pick(tree, random, (one) => one.isLeaf);
  if (!node) return undefined;
  const comments = COMMENTS[tree.language.id] ?? ["/* why */", "// why\n"];
  return spliced(tree, node.start, node.start, random.of([" ", "\n", "\t", ...comments, ...comments]));
};

/** Characters that take two code units, or two columns, or join. */
const otherAlphabet: Mutation = (tree, random) => {
  const node = pick(tree, random, (one) => /string|comment|identifier|name/.test(one.kind) && one.isLeaf);
  if (!node || node.end - node.start < 1) return undefined;
  const inside = random.of(isName(node) ? ["é", "ß", "名"] : ["é", "\u{1D11E}", "e\u0301", "\u{1F41D}"]);
  const at = node.start + 1 + random.below(node.end - node.start);
  return spliced(tree, Math.min(at, node.end), Math.min(at, node.end), inside);
};

const whole: Mutation = ({ text }, random) =>
  random.of([
    () => text.replace(/\r?\n/g, "\r\n"),
    () => text.replace(/^( {4}| {2})+/gm, (indent) => "\t".repeat(Math.ceil(indent.length / 4))),
    () => text.replace(/\n+$/, ""),
    () => `\uFEFF${text.replace(/^\uFEFF/, "")}`,
  ])();

/** A piece that is not there any more, whatever it was. */
const torn: Mutation = ({ text }, random) => {
  const start = random.below(text.length + 1);
  return text.slice(0, start) + text.slice(start + random.below(30));
};

const MUTATIONS: readonly Mutation[] = [
  ...[replaced, replaced, replaced, otherToken, otherName, otherName, deleted, doubled, swapped],
  ...[inserted, inserted, wrapped, laidOut, laidOut, otherAlphabet, whole],
];

/** Code made of other code by one to four steps; rarely one that tears it. */
export function mutated(text: string, language: Language, random: Random, donors: Donors): string {
  let code = text;
  for (let steps = 1 + random.below(4); steps > 0; steps--) {
    const mutation = random.below(60) === 0 ? torn : random.of(MUTATIONS);
    code = mutation(parse(code, language), random, donors) ?? code;
  }
  return code;
}
