import { refuseLostTarget } from "./assignable.js";
import {
  CannotRewrite,
  misread,
  nameFor,
  copy,
  Excerpt,
  fitsAsStatements,
  fitsInPlace,
  fitsInStatement,
  reindent,
  render,
  segmentText,
  settle,
  text,
  type Edit,
  type Segment,
} from "../rewrite/index.js";
import type { Snippet } from "../pattern/index.js";
import { isRead } from "../readings/index.js";
import type { Match, Rule } from "../rules/index.js";
import { parse, treesEqual, type Import, type SyntaxNode, type SyntaxTree } from "../syntax/index.js";

/** What a match becomes: edits against its text, and what they need from elsewhere. Throws CannotRewrite. */
export function rewritten(rule: Rule, match: Match): { edits: Edit[]; needs: Import[] } {
  const wanted = typeof rule.needs === "function" ? rule.needs(match) : (rule.needs ?? []);
  const needs = wanted.flatMap((one) => byOwnName(one.wanted, match));
  if (rule.becomes === undefined) return { edits: [], needs };
  const becomes = typeof rule.becomes === "function" ? rule.becomes(match) : rule.becomes;
  const made = rewriteTo(becomes, match);
  return { edits: made.edits, needs: [...made.needs, ...needs, ...match.needed] };
}

/** The import of what new code calls by its own name; none where the file knows it already. Throws CannotRewrite where that means something else. */
function byOwnName(wanted: Import, { tree, names, found: { start, end } }: Match): Import[] {
  const own = wanted.local ?? wanted.name;
  if (own === undefined) return [wanted];
  const { text, needs } = nameFor(tree, wanted, names, start, end);
  if (text !== own)
    throw new CannotRewrite("edit.import", `\`${own}\` already means something else in this file`);
  return needs ? [needs] : [];
}

/** Puts other code in the place of a match. Throws CannotRewrite. */
export function rewriteTo(
  becomes: Snippet | readonly Segment[],
  match: Match,
): { edits: Edit[]; needs: Import[] } {
  const { tree, found } = match;
  refuseSharedLines(match);
  const rendered = isSegments(becomes)
    ? { segments: becomes, needs: [] }
    : render(becomes, { match: found, names: match.names, ...depth(match) });
  const { needs } = rendered;
  let segments: readonly Segment[] = rendered.segments;
  const frame = isRead(found) ? found.frame : undefined;
  const around = isRead(found) ? found.around : undefined;
  if (around) segments = [...around.before, ...segments, ...around.after];
  if (frame) {
    const { statement, value } = frame;
    const isFirst = tree.firstOnLine(found.start) === found.start;
    if (frame.from !== undefined && !isFirst && tree.text.slice(found.start, frame.from).includes("\n"))
      throw new CannotRewrite("edit.no-room", "the statement shares its line with another one");
    const before = copy(frame.from ?? statement.start, frame.isUnset ? value.end : value.start);
    if (frame.isUnset) segments = [text(" = "), ...segments];
    const after = copy(value.end, statement.end);
    const ahead = frame.ahead ? [copy(frame.ahead.start, frame.ahead.end)] : [];
    const moved = (one: Segment): Segment => withLines(tree, one, found.start);
    segments = [
      ...ahead,
      moved(before),
      ...(frame.isUnset ? segments : inPlaceOf(value, segments)),
      moved(after),
    ];
  } else if (!found.isStatements) segments = inPlaceOf(match.node, segments);
  if (found.isStatements) refuseSeveralForOne(match, segments);
  const edits = [
    ...settle(tree, found.start, found.end, segments, found.isStatements),
    ...needlessParentheses(match, segments),
  ];
  if (hasLooseComments(match, segments)) refuseMisplacedComments(match, segments, edits);
  return { edits, needs };
}

/** Where the new code of a match stands, if not where the match begins. */
function depth({ found }: Match): { at?: number } {
  return isRead(found) && found.around ? { at: found.around.at } : {};
}

/** A copied piece with its lines where they belong, now that its statement stands as deep as the code at an offset. */
function withLines(tree: SyntaxTree, piece: Segment, at: number): Segment {
  if ("text" in piece || !tree.text.slice(piece.start, piece.end).includes("\n")) return piece;
  const { statementLists } = tree.language;
  let statement = tree.nodeAt(piece.start);
  while (statement.parent && !statement.parent.is(statementLists)) statement = statement.parent;
  const lines = reindent(tree, piece.start, piece.end, tree.indentAt(statement.start), tree.indentAt(at));
  const edits = [...(piece.edits ?? []), ...lines].sort((a, b) => a.start - b.start);
  return { ...piece, edits };
}

/** An expression with what it needs around it to be read right in the place of another. */
function inPlaceOf(node: SyntaxNode, segments: readonly Segment[]): Segment[] {
  const { tree } = node;
  const code = segments.map((segment) => segmentText(tree, segment)).join("");
  refuseLostTarget(node, code);
  // A word of the language, or its absence, makes another construct of what is around it, which is checked as a whole.
  if (!node.named || code === "") return [...segments];
  const room = glueSpace(node, code);
  const bare = `${room.before}${code}${room.after}`;
  const isBare = fitsInPlace(node, bare) || fitsAsStatements(node, bare);
  if (!isBare && !fitsInPlace(node, `(${code})`)) {
    throw misread(node, code);
  }
  const [open, close] = isBare ? [room.before, room.after] : ["(", ")"];
  return [...(open === "" ? [] : [text(open)]), ...segments, ...(close === "" ? [] : [text(close)])];
}

/** Parentheses around the old code, an operand, that it needed and the new code does not. */
function needlessParentheses({ tree, node, found }: Match, segments: readonly Segment[]): Edit[] {
  const { parenthesized, binary } = tree.language;
  const { parent } = node;
  const outer = parent?.parent;
  if (found.isStatements || !parent?.is(parenthesized) || !outer) return [];
  // Elsewhere they belong to a statement, or end a chain of optional reads.
  if (!outer.is(binary) && !/unary|not_operator/.test(outer.kind)) return [];
  const isAlone = parent.text.slice(1, -1).trim() === node.text && parent.text.startsWith("(");
  if (!isAlone || /[\p{L}\p{N}_$]/u.test(tree.text[parent.start - 1] ?? "")) return [];
  const code = segments.map((segment) => segmentText(tree, segment)).join("");
  const isBroken = tree.language.lineBreaksMatter && /\n/.test(parent.text);
  if (isBroken || fitsInStatement(parent, node.text) || !fitsInPlace(parent, code)) return [];
  return [
    { start: parent.start, end: node.start, text: "" },
    { start: node.end, end: parent.end, text: "" },
  ];
}

/** Spaces that keep words apart which the old code let stand side by side, as in `return!done`. */
function glueSpace({ tree, start, end }: SyntaxNode, code: string): { before: string; after: string } {
  const isWord = (char: string | undefined): boolean => char !== undefined && /[\p{L}\p{N}_$]/u.test(char);
  const before = isWord(tree.text[start - 1]) && isWord(code[0]) ? " " : "";
  const after = isWord(code.at(-1)) && isWord(tree.text[end]) ? " " : "";
  return { before, after };
}

/** Does a comment stand in the matched code, but in nothing that the new code takes over as it is? */
function hasLooseComments({ tree, found }: Match, segments: readonly Segment[]): boolean {
  const copies = segments.flatMap((segment) => ("text" in segment ? [] : [segment]));
  return tree
    .commentsIn(found.start, found.end)
    .some((n) => !copies.some((c) => c.start <= tree.starts[n]! && tree.ends[n]! < c.end));
}

/** A comment left in place may end a line that must not end there. Without comments the code must be the same. */
function refuseMisplacedComments(
  { tree, found }: Match,
  segments: readonly Segment[],
  edits: readonly Edit[],
): void {
  const text = segments.map((segment) => segmentText(tree, segment)).join("");
  const { start, end } = found;
  const from = Math.min(start, ...edits.map((edit) => edit.start));
  const lines = Excerpt.around(tree, from, Math.max(end, ...edits.map((edit) => edit.end)));
  const meant = lines.edited([{ start, end, text }]);
  const made = lines.edited(edits);
  const same = made.errors.length <= lines.tree.errors.length && treesEqual(meant, 0, made, 0);
  if (!same) throw new CannotRewrite("edit.comment", "a comment in the old code has no place in the new");
}

function isSegments(becomes: Snippet | readonly Segment[]): becomes is readonly Segment[] {
  return Array.isArray(becomes);
}

/** Under a bare condition stands one statement; of two in its place the second would always run. */
function refuseSeveralForOne({ tree, node }: Match, segments: readonly Segment[]): void {
  const { statementLists, memberLists } = tree.language;
  const { parent } = node;
  if (!parent || parent.is(statementLists) || parent.is(memberLists)) return;
  const code = segments.map((segment) => segmentText(tree, segment)).join("");
  const context = tree.language.contexts.find(({ name }) => name === "statement");
  if (!context) return;
  const alone = parse(context.before + code + context.after, tree.language);
  const first = alone.nodeAt(context.before.length + code.length - code.trimStart().length);
  let at = first;
  while (at.parent && !at.parent.is(statementLists)) at = at.parent;
  const end = context.before.length + code.trimEnd().length;
  const isOne = at.end >= end;
  if (!isOne)
    throw new CannotRewrite(
      "edit.no-room",
      "several statements would stand where there was one without braces",
    );
}

/** Statements are only moved about where they have their lines to themselves. */
function refuseSharedLines(match: Match): void {
  const { tree, found } = match;
  if (!found.isStatements) return;
  const { statementSeparator, lineBreaksMatter } = tree.language;
  if (!lineBreaksMatter) return;
  // One expression for one piece of code on a line moves nothing.
  if (isRead(found) && found.nodes.length === 1 && !tree.text.slice(found.start, found.end).includes("\n"))
    return;
  const after = /^[ \t]*(\S?)/.exec(tree.text.slice(found.end))?.[1];
  if (tree.firstOnLine(found.start) !== found.start || after === statementSeparator) {
    throw new CannotRewrite("edit.no-room", "the statement shares its line with another one");
  }
}
