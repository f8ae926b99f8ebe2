import type { Arm, SyntaxNode, SyntaxTree } from "../../core.js";

/** The comments of one value of a `switch`. */
export interface Remarks {
  /** Those that stand on lines of their own. */
  readonly above: readonly SyntaxNode[];
  /** The one behind the value. */
  readonly beside: SyntaxNode | undefined;
  /** Those between its constants. */
  readonly between: readonly SyntaxNode[];
}

/** Does a comment begin its line? */
export const isOnOwnLine = ({ tree, start }: SyntaxNode): boolean => tree.firstOnLine(start) === start;

/** The comments of a value: from the line behind the value before it to the end of its own last line. */
export function remarksOf(
  { labels, gives, statement, ways }: Arm,
  whole: SyntaxNode,
  comments: readonly SyntaxNode[],
): Remarks {
  const { tree } = whole;
  const [first, last] = [labels[0], labels.at(-1)];
  const earlier = ways[0]?.previousPart?.lastPart;
  const from = ways.length === 0 ? whole.end : earlier ? lineEndAfter(tree, earlier.end) : whole.start;
  const to = ways.length === 0 ? statement.start : lineEndAfter(tree, ways.at(-1)!.lastPart!.end);
  const own = comments.filter(
    ({ start, end }) => from <= start && end <= to && (end <= gives.start || statement.end <= start),
  );
  const between = own.filter(({ start, end }) => first && last && first.start < start && end < last.start);
  const others = own.filter((one) => !between.includes(one));
  const beside = ways.length === 0 ? undefined : others.findLast((one) => !isOnOwnLine(one));
  return { above: others.filter((one) => one !== beside), beside, between };
}

function lineEndAfter({ text }: SyntaxTree, offset: number): number {
  const at = text.indexOf("\n", offset);
  return at < 0 ? text.length : at;
}
