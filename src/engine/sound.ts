import { shortened } from "../analysis/index.js";
import { countLeading, readsAlone, type Mask, type SyntaxNode, type SyntaxTree } from "../syntax/index.js";
import type { Unread } from "./change.js";

/** Part of a file; offsets in UTF-16 code units. */
export interface Span {
  readonly start: number;
  readonly end: number;
}

/** What of a file can be relied on that the parser could not read as it stands. */
export interface Sound {
  /** Does a match lie in code that was read as the language means it? */
  allows(match: Span): boolean;
  /** How many functions can be relied on. */
  readonly functions: number;
  /** Those that cannot, each with why. */
  readonly unread: readonly Unread[];
}

/**
 * What can be relied on: undefined where all can. Where there are errors, the functions that have none in them, and none
 * when they are parsed alone; none of them in a language whose grammar reads all that the language allows, since there an
 * error is the code's own. Where something was hidden from the parser, functions and other code that hold nothing of it.
 */
export function soundParts(tree: SyntaxTree, path: string): Sound | undefined {
  if (tree.errors.length === 0 && tree.masks.length === 0) return undefined;
  const { functions, grammarIsPartial } = tree.language;
  const unread: Unread[] = [];
  const sound: Span[] = [];
  const all: Span[] = [];
  for (let n = 0; n < tree.size; n++) {
    const node = tree.node(n);
    if (!node.is(functions)) continue;
    all.push(node);
    n = tree.after[n]! - 1;
    const why = whyUnread(node, grammarIsPartial);
    if (why === undefined) sound.push({ start: node.start, end: node.end });
    else unread.push({ path, line: node.line, code: headOf(node), why });
  }
  const hasErrors = tree.errors.length > 0;
  const allows = (match: Span): boolean => {
    const around = holding(all, match);
    if (around) return holding(sound, match) !== undefined;
    return !hasErrors && !hidesPart(tree.nodeAt(match.start, match.end), match);
  };
  return { allows, functions: sound.length, unread };
}

function whyUnread(node: SyntaxNode, grammarIsPartial: boolean): string | undefined {
  const { tree } = node;
  const [mask] = hiddenIn(node);
  if (mask) return `${mask.what} could not be read where it stands`;
  if (tree.errors.length === 0) return undefined;
  const i = countLeading(tree.errors.length, (k) => tree.errors[k]! < node.id);
  const error = tree.errors[i];
  if (error !== undefined && error < tree.after[node.id]!)
    return `line ${tree.lineAt(tree.starts[error]!)} could not be read`;
  return grammarIsPartial && readsAlone(node) ? undefined : "it could not be read alone";
}

/** What is hidden in a function; marks in its head leave its body as it is. */
function hiddenIn(node: SyntaxNode): Mask[] {
  const body = node.child("body");
  return node.tree
    .masksIn(node.start, node.end)
    .filter(({ isMark, end }) => !(isMark && body !== undefined && end <= body.start));
}

/** Is something hidden in a match outside of all functions, in its statement, or in a class around it? */
function hidesPart(node: SyntaxNode, match: Span): boolean {
  const { tree } = node;
  const { statementLists, memberLists, classes } = tree.language;
  if (tree.masksIn(match.start, match.end).length > 0) return true;
  let isInStatement = true;
  for (const above of [node, ...node.ancestors()]) {
    if (above.parent === undefined) return false;
    if (above.is(statementLists) || above.is(memberLists)) isInStatement = false;
    if ((isInStatement || above.is(classes)) && tree.masksIn(above.start, above.end).length > 0) return true;
  }
  return false;
}

function headOf(node: SyntaxNode): string {
  const body = node.child("body");
  return shortened(node.tree.text.slice(node.start, body?.start ?? node.end).trim());
}

/** The span of several, in order and apart, that holds another. */
function holding(spans: readonly Span[], { start, end }: Span): Span | undefined {
  const last = spans[countLeading(spans.length, (i) => spans[i]!.start <= start) - 1];
  return last && end <= last.end ? last : undefined;
}
