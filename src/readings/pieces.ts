import type { CapturePiece } from "../pattern/index.js";
import { copy, lineEnd, reindent, removal, text, type Edit, type Segment } from "../rewrite/index.js";
import type { SyntaxNode } from "../syntax/index.js";
import type { Held } from "./held.js";
import type { ReadingMatch } from "./reading.js";

/** What stays ahead of the scoped form and behind it. */
export function aroundOf(
  { gap, lead, guard, acquire, release, body }: Held,
  from: SyntaxNode,
  takesHandlers: boolean,
  hoisted: readonly string[],
): NonNullable<ReadingMatch["around"]> {
  const { tree } = from;
  const base = tree.indentAt(from.start);
  const next = text(lineEnd(tree.text) + base);
  const stays = (statements: readonly SyntaxNode[]): Segment[] => {
    const piece = pieceOf(statements, []);
    if (!piece) return [];
    const { start, end } = piece;
    return [copy(start, end, reindent(tree, start, end, tree.indentAt(start), base)), next];
  };
  const before = [...hoisted.flatMap((says) => [text(says), next]), ...stays(gap)];
  const isKept = guard !== undefined && (guard.handlers.length > 0 || guard.more.length > 0);
  if (!isKept || (!guard.acquires && guard.more.length === 0))
    return { before: [...before, ...stays(lead)], after: [], at: from.start };
  const gone = lastlyEdit(guard, release);
  const { node, list } = guard;
  if (takesHandlers && lead.length === 0 && guard.acquires)
    return {
      before,
      after: [{ start: list.end, end: node.end, edits: [gone], stays: true }],
      at: from.start,
    };
  const named = list.same(node) ? guard.statements : list.children.filter((child) => child.named);
  const end = Math.max(acquire.end, body.at(-1)?.end ?? 0, ...named.map((child) => child.end));
  // What is acquired ahead of the `try` is acquired in it now.
  const inner = guard.acquires ? acquire : (guard.statements[0] ?? guard.lastly);
  return {
    before: [...before, copy(node.start, inner.start)],
    after: [{ start: end, end: node.end, edits: [gone], stays: true }],
    at: inner.start,
  };
}

/** Takes the release out of the clause that is always run at last, or the clause where nothing else is in it. */
export function lastlyEdit(
  { lastly, more, node }: NonNullable<Held["guard"]>,
  release: Held["release"],
): Edit {
  if (more.length > 0) return removal(release.whole);
  const at = node.parts.findIndex((part) => part.same(lastly));
  return { start: node.parts[at - 1]!.end, end: lastly.end, text: "" };
}

/** Statements as one run of a hole, with those edits that stand in them; undefined for none. */
export function pieceOf(statements: readonly SyntaxNode[], edits: readonly Edit[]): CapturePiece | undefined {
  const [one, other] = [statements[0], statements.at(-1)];
  if (!one || !other) return undefined;
  const [start, end] = [one.start, other.end];
  return {
    nodes: statements.map(({ id }) => id),
    start,
    end,
    edits: edits.filter((edit) => start <= edit.end && edit.end <= end).sort((a, b) => a.start - b.start),
  };
}

/** Comments on lines of their own ahead of a `try` that goes. */
export function commentsAhead({ guard, acquire, ahead }: Held): CapturePiece | undefined {
  if (!guard || guard.acquires || guard.more.length > 0) return undefined;
  const { tree, start } = guard.node;
  const from = ahead.at(-1)?.end ?? acquire.end;
  const comments = tree
    .commentsIn(from, start)
    .filter((n) => tree.firstOnLine(tree.starts[n]!) === tree.starts[n]);
  const [first, last] = [comments[0], comments.at(-1)];
  return first === undefined
    ? undefined
    : { nodes: [], start: tree.starts[first]!, end: tree.ends[last!]!, edits: [] };
}
