import { isMissing } from "../analysis/index.js";
import {
  jumpOf,
  partsOf,
  saidOf,
  shapeOf,
  type FlowShape,
  type Language,
  type SyntaxNode,
} from "../syntax/index.js";
import { bare, type Asks, type PresenceTest } from "./presence-test.js";
import { statementsOf } from "./ways.js";

/** A `switch` with one way for what is missing, and one for all else. */
export interface Cases {
  readonly test: PresenceTest;
  readonly there: readonly SyntaxNode[];
  readonly gone: readonly SyntaxNode[];
}

export type Switch = Extract<FlowShape, { is: "choice" }>;

/** The kinds of nodes that choose by a value. */
export function switchKinds({ flow }: Language): string[] {
  return Object.entries(flow.shapes).flatMap(([kind, shape]) =>
    typeof shape === "object" && isSwitch(shape) ? [kind] : [],
  );
}

/** Does it choose by the values that its ways name? */
export function isSwitch(shape: FlowShape): shape is Switch {
  return shape.is === "choice" && shape.labels !== undefined;
}

/** `switch (x) { case null: y = d; break; default: y = x; }`, `x switch { null => d, _ => x }`. */
export function casesAt(node: SyntaxNode): Cases | undefined {
  const shape = shapeOf(node);
  if (!shape || !isSwitch(shape) || shape.isLoose) return undefined;
  const value = typeof shape.value === "number" ? node.parts[shape.value] : partsOf(node, shape.value)[0];
  const ways = waysOf(node, shape);
  if (!value || ways.length < 2) return undefined;
  const fallsThrough = saidOf(shape.fallsThrough, node);
  const literals: SyntaxNode[] = [];
  let [gone, there]: (readonly SyntaxNode[] | undefined)[] = [];
  let open = false;
  for (const way of ways) {
    const labels = partsOf(way, shape.labels!);
    const done = way.parts.filter((part) => !labels.some((label) => label.same(part)));
    // What has no statements goes on with the next way, and a way that does not end would.
    const isLast = way.same(ways.at(-1));
    const statements = withoutBreak(done.flatMap(statementsOf), shape);
    if (fallsThrough && !isLast && done.length > 0 && !leaves(done)) return undefined;
    const isElse = labels.every((label) => /^(default|_)?:?$/.test(label.text)) && shape.isDefault(way);
    const missing = isElse ? [] : labels.flatMap((label) => missingLiteral(label) ?? []);
    if (!isElse && (missing.length === 0 || missing.length !== labels.length)) return undefined;
    if (isElse && open) return undefined;
    literals.push(...missing);
    open = done.length === 0 && fallsThrough;
    if (open) continue;
    if (isElse ? there : gone) return undefined;
    if (isElse) there = statements;
    else gone = statements;
  }
  const asks = asksOf(literals);
  // The last label without statements gives nothing.
  if (open || !there || !gone || !asks) return undefined;
  const subject = bare(value);
  const common = { words: [], allowsUndeclared: false, times: 1 } as const;
  return { test: { ...common, test: node, subject, isThere: true, asks, by: "identity" }, there, gone };
}

/** The ways of a `switch`, and not those of one inside. */
function waysOf(node: SyntaxNode, { ways }: Switch): SyntaxNode[] {
  const own = node.parts.filter((part) => part.is(ways));
  return own.length > 0 ? own : (node.child("body")?.parts ?? []).filter((part) => part.is(ways));
}

function leaves(statements: readonly SyntaxNode[]): boolean {
  const last = statements.flatMap(statementsOf).at(-1);
  return last !== undefined && jumpOf(last) !== undefined;
}

function withoutBreak(statements: readonly SyntaxNode[], { breaks }: Switch): readonly SyntaxNode[] {
  const last = statements.at(-1);
  // One with a label leaves more than the `switch`.
  const isBreak = breaks === true && last?.parts.length === 0 && jumpOf(last) === "break";
  return isBreak ? statements.slice(0, -1) : statements;
}

/** The one literal that a label names. */
function missingLiteral(label: SyntaxNode): SyntaxNode | undefined {
  let at = label;
  while (at.parts.length === 1) at = at.firstPart!;
  const isAlone = label.text.replace(/^case\s+/, "").replace(/\s*:$/, "") === at.text;
  return isAlone && isMissing(at) ? at : undefined;
}

function asksOf(literals: readonly SyntaxNode[]): Asks | undefined {
  const [first] = literals;
  if (!first) return undefined;
  const { second } = first.tree.language.flow.missing;
  if (second.length === 0) return "missing";
  const isSecond = literals.map(({ text }) => second.includes(text));
  return isSecond.every(Boolean) ? "undefined" : isSecond.some(Boolean) ? "missing" : "null";
}
