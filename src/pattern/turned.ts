import { partsOfBranch, shapeOf, type SyntaxNode, type SyntaxTree } from "../syntax/index.js";

/** Code with the places of its parts. */
export interface Placed {
  readonly code: string;
  readonly ranges: readonly Range[];
}

interface Range {
  readonly start: number;
  readonly end: number;
}

/** Comparisons that say the opposite of each other; of `<` and `>=` neither may hold. */
const OPPOSITES: readonly (readonly [string, string])[] = [
  ["==", "!="],
  ["===", "!=="],
  ["is", "is not"],
  ["in", "not in"],
  ["-eq", "-ne"],
];
const OPPOSITE: ReadonlyMap<string, string> = new Map(
  OPPOSITES.flatMap(([one, other]) => [
    [one, other],
    [other, one],
  ]),
);

/**
 * The same code with its first branch turned round: the ways swapped, and the test saying the opposite. Undefined where no
 * branch has two ways of the same form. `shift` is where the code stands in the text of its tree.
 */
export function turnedRound(tree: SyntaxTree, shift: number, { code, ranges }: Placed): Placed | undefined {
  const found = firstBranch(tree, shift, shift + code.length);
  if (!found) return undefined;
  const { test, then, otherwise } = found;
  const pieces = [
    { from: test, text: opposite(test, tree) },
    { from: then, to: otherwise },
    { from: otherwise, to: then },
  ];
  let out = "";
  let at = shift;
  /** Where each piece of the old text stands in the new one. */
  const moved: { readonly from: Range; readonly by: number }[] = [];
  const keep = (from: number, to: number): void => {
    moved.push({ from: { start: from, end: to }, by: out.length - from });
    out += tree.text.slice(from, to);
  };
  for (const { from, to, text } of pieces.sort((a, b) => a.from.start - b.from.start)) {
    keep(at, from.start);
    if (to) keep(to.start, to.end);
    else if (text) {
      out += text.before;
      for (const { start, end, put } of text.kept) {
        keep(start, end);
        out += put;
      }
      out += text.after;
    }
    at = from.end;
  }
  keep(at, shift + code.length);
  const places = ranges.map(({ start, end }) => {
    const piece = moved.find(({ from }) => from.start <= start + shift && end + shift <= from.end);
    return piece && { start: start + shift + piece.by, end: end + shift + piece.by };
  });
  return places.every((place) => place !== undefined) ? { code: out, ranges: places } : undefined;
}

interface Branch {
  readonly test: SyntaxNode;
  readonly then: SyntaxNode;
  readonly otherwise: SyntaxNode;
}

function firstBranch(tree: SyntaxTree, start: number, end: number): Branch | undefined {
  for (let n = 0; n < tree.size; n++) {
    const node = tree.node(n);
    if (node.start < start || node.end > end) continue;
    const shape = shapeOf(node);
    if (shape?.is !== "branch") continue;
    const [[then, ...more], [test], [last, ...rest]] = partsOfBranch(node, shape);
    const otherwise = last && inWrapper(last);
    if (!then || !test || !otherwise || more.length + rest.length > 0 || then.kind !== otherwise.kind)
      return undefined;
    return { test: inBrackets(test), then, otherwise };
  }
  return undefined;
}

/** What stands behind `else`. */
function inWrapper(node: SyntaxNode): SyntaxNode {
  const { wrappers } = node.tree.language.flow;
  const [only] = node.parts;
  return node.is(wrappers) && only && node.parts.length === 1 && !node.is("statement_block")
    ? inWrapper(only)
    : node;
}

function inBrackets(node: SyntaxNode): SyntaxNode {
  const { parenthesized } = node.tree.language;
  const [only] = node.parts;
  return node.is([parenthesized, "condition_clause"]) && only && node.parts.length === 1
    ? inBrackets(only)
    : node;
}

interface Opposite {
  readonly before: string;
  readonly kept: readonly { readonly start: number; readonly end: number; readonly put: string }[];
  readonly after: string;
}

/** A test that says the opposite, as pieces of the old one with text in between. */
function opposite(test: SyntaxNode, { language, text }: SyntaxTree): Opposite {
  const [left, right] = test.parts.filter((part) => !part.is(language.operators));
  const operator = left && right ? text.slice(left.end, right.start).trim() : "";
  const other = OPPOSITE.get(operator.toLowerCase());
  if (left && right && other !== undefined && test.is(language.binary))
    return {
      before: "",
      kept: [
        { start: left.start, end: left.end, put: ` ${other} ` },
        { start: right.start, end: right.end, put: "" },
      ],
      after: "",
    };
  const inner = shapeOf(test)?.is === "negation" ? test.lastPart : undefined;
  if (inner) return { before: "", kept: [{ start: inner.start, end: inner.end, put: "" }], after: "" };
  return {
    before: `${language.flow.negation}(`,
    kept: [{ start: test.start, end: test.end, put: "" }],
    after: ")",
  };
}
