import {
  isUnchanged,
  no,
  operatorOf,
  referencesAt,
  shortened,
  valuesGiven,
  yes,
  type Answer,
} from "../analysis/index.js";
import type { SyntaxNode } from "../syntax/index.js";
import { bare, callOf } from "./presence-test.js";

/** What is walked by its positions. */
export interface Counted {
  readonly items: SyntaxNode;
  readonly from: 0 | 1;
  /** Does it begin with the last position? */
  readonly isBackwards?: true;
  readonly spelling: readonly Answer[];
}

/** What is walked, by an expression that gives all its positions: `range(len(xs))`, `reversed(range(len(xs)))`. */
export function positionsIn(over: SyntaxNode): Counted | undefined {
  const call = callOf(bare(over));
  const { ranges, turned } = over.tree.language.flow.counting;
  if (!call || call.receiver) return undefined;
  if (turned.includes(call.method)) {
    const [inner, ...others] = call.args;
    const counted = inner && others.length === 0 ? positionsIn(inner) : undefined;
    return counted && counted.from === 0 && !counted.isBackwards
      ? { ...counted, isBackwards: true }
      : undefined;
  }
  if (!ranges.includes(call.method)) return undefined;
  const [one, other, by, ...more] = call.args;
  if (!one || more.length > 0) return undefined;
  if (by?.text.replace(/\s/g, "") === "-1") return downwards(one, other);
  if (by && by.text !== "1") return undefined;
  if (!other) return counted(lengthOf(one), 0);
  if (one.text === "0") return counted(lengthOf(other), 0);
  const [sum, added] = bare(other).parts;
  const isNext = sum && added?.text === "1" && operatorOf(bare(other)) === "+";
  return one.text === "1" && isNext ? counted(lengthOf(sum), 1) : undefined;
}

/** `range(len(xs) - 1, -1, -1)`: from the last position down to the first. */
function downwards(one: SyntaxNode, other: SyntaxNode | undefined): Counted | undefined {
  const [length, less] = bare(one).parts;
  const isLast = length && less?.text === "1" && operatorOf(bare(one)) === "-";
  if (!isLast || other?.text.replace(/\s/g, "") !== "-1") return undefined;
  const found = counted(lengthOf(length), 0);
  return found && { ...found, isBackwards: true };
}

const counted = (length: Omit<Counted, "from"> | undefined, from: 0 | 1): Counted | undefined =>
  length && { ...length, from };

/** What an expression is the length of; a local that was given the length before reads as that. */
export function lengthOf(node: SyntaxNode): Omit<Counted, "from"> | undefined {
  const at = bare(node);
  const { counting } = node.tree.language.flow;
  const call = callOf(at);
  if (call) {
    const { args, receiver, method } = call;
    const isCall = at.is(node.tree.language.calls);
    if (!receiver)
      return counting.lengthFunctions.includes(method) && args.length === 1
        ? { items: bare(args[0]!), spelling: [] }
        : undefined;
    const isLength =
      counting.lengthMembers.includes(isCall ? `${method}()` : method) ||
      // In Ruby a call has no brackets.
      (isCall && args.length === 0 && counting.lengthMembers.includes(method));
    return isLength && args.length === 0 ? { items: bare(receiver), spelling: [] } : undefined;
  }
  if (!isName(at)) return undefined;
  const to = referencesAt(at.isLeaf ? at : at.firstPart!).find(({ member }) => !member)?.to;
  const [value, ...rest] = (to && valuesGiven(to)) ?? [];
  const held = value && rest.length === 0 && !isName(bare(value)) ? lengthOf(value) : undefined;
  return held && { items: held.items, spelling: [staysLong(held.items, value!, node)] };
}

/** Is a length still that of its collection where it is used? */
function staysLong(items: SyntaxNode, value: SyntaxNode, use: SyntaxNode): Answer {
  const list = value.closest(value.tree.language.statementLists);
  const at = list?.parts.findIndex((part) => part.holds(value)) ?? -1;
  const to = list?.parts.findIndex((part) => part.holds(use)) ?? -1;
  if (!list || at < 0 || to < at)
    return no("flow.written", `\`${shortened(value.text)}\` is asked for in another place`, value);
  return at === to
    ? yes("flow.written", "the length is asked for where the loop begins", value)
    : isUnchanged(items, list.parts.slice(at + 1, to));
}

/** `i < n`, `n > i`, `i != n`; `i <= n` counts the last one too. */
export function comparison(
  test: SyntaxNode,
): { readonly index: SyntaxNode; readonly length: SyntaxNode; readonly inclusive: boolean } | undefined {
  const operands = test.parts.filter((part) => !part.is(test.tree.language.operators));
  const [left, right, ...more] = operands;
  if (!test.is(test.tree.language.binary) || !left || !right || more.length > 0) return undefined;
  switch (operatorOf(test)) {
    case "<":
    case "!=":
    case "!==":
    case "-lt":
    case "-ne":
      return { index: bare(left), length: right, inclusive: false };
    case ">":
    case "-gt":
      return { index: bare(right), length: left, inclusive: false };
    case "<=":
    case "-le":
      return { index: bare(left), length: right, inclusive: true };
    default:
      return undefined;
  }
}

/** The name that a step adds one to. */
export function stepped(step: SyntaxNode): string | undefined {
  const code = step.text.replace(/[\s;()]/g, "");
  const [, prefix, added, again, summand] =
    /^(?:\+\+([$\w]+)|([$\w]+)(?:\+\+|\+=1)|([$\w]+)=([$\w]+)\+1)$/.exec(code) ?? [];
  return prefix ?? added ?? (again === summand ? again : undefined);
}

/** Is a node the name of a variable? */
export function isName(node: SyntaxNode): boolean {
  const leaf = nameOf(node);
  return leaf.isLeaf && leaf.tree.language.binding.leaves[leaf.kind] !== undefined && node.parts.length <= 1;
}

/** The leaf that names a variable: `hive` in `$hive`. */
export function nameOf(node: SyntaxNode): SyntaxNode {
  return node.isLeaf || node.parts.length !== 1 ? node : node.firstPart!;
}
