import { annotationOf, mentionsOf, referencesAt, valueOf } from "../analysis/index.js";
import { jumpOf, oncePerNode, type Language, type SyntaxNode } from "../syntax/index.js";
import { assignedBy, type Frame } from "./frame.js";
import { putBy } from "./keyed.js";
import { bare, callOf } from "./presence-test.js";
import { sieved, walkAt, walkKinds, type Sifted } from "./walk.js";
import { isUsedOnlyIn } from "./used-once.js";
import { expressionOf, isStatement, neighbour } from "./ways.js";

/** What a loop may gather: a list, a set or a map that it fills, or a number that it adds to. */
export type Gathers = "list" | "set" | "map" | "total";

/** What is empty at first, and to which a loop behind adds one value for each item, or for some. */
export interface Collecting extends Sifted {
  readonly gathers: Gathers;
  /** The statement that makes it, what it is given to, and the empty list, set or map in it, or the zero. */
  readonly first: SyntaxNode;
  readonly list: SyntaxNode;
  readonly empty: SyntaxNode;
  /** Statements between it and the loop, which have nothing to do with it. */
  readonly between: readonly SyntaxNode[];
  /** The value that is added, and for a map the key that it is put at. */
  readonly value: SyntaxNode;
  readonly key: SyntaxNode | undefined;
}

/** The kinds of nodes at which such a loop may be. */
export function collectingKinds(language: Language): readonly string[] {
  return language.flow.collecting.containers.length > 0 ? walkKinds(language) : [];
}

/** What a loop collects; undefined where it does something else, or more. */
export const collectingAt = oncePerNode<Collecting | undefined>(readCollecting);

function readCollecting(node: SyntaxNode): Collecting | undefined {
  const walk = walkAt(node);
  const given = walk && isStatement(walk.loop) ? sieved(walk, addedBy) : undefined;
  if (!walk || !given) return undefined;
  const { body: _, ...walked } = walk;
  const { to, ...added } = given.done;
  // What is put into a map by what it holds is counted or added up, and not gathered.
  const isCounted = [added.key, added.value].some((part) => part && mentionsOf(part, to.text).length > 0);
  if (added.gathers === "map" && isCounted) return undefined;
  const made = madeAhead(walk.loop, to);
  if (!made || !isEmptyFor(made.empty, added)) return undefined;
  const { gathers, value, key } = added;
  return { gathers, value, key, ...made, ...walked, sieves: given.sieves };
}

/** What a loop makes ahead of it. */
interface Made {
  readonly first: SyntaxNode;
  readonly list: SyntaxNode;
  readonly empty: SyntaxNode;
  readonly between: readonly SyntaxNode[];
}

const MOST_BETWEEN = 6;

/** The statement ahead of a loop that gives something its first value, with nothing about it in between. */
export function madeAhead(loop: SyntaxNode, name: SyntaxNode): Made | undefined {
  const between: SyntaxNode[] = [];
  for (let at = neighbour(loop, "before"); at && between.length < MOST_BETWEEN;) {
    const given = assignedBy(at);
    if (given && isSame(given.target, name))
      return { first: at, list: given.target, empty: given.value, between };
    if (jumpOf(at) !== undefined || mentionsOf(at, name.text).length > 0) return undefined;
    between.unshift(at);
    at = neighbour(at, "before");
  }
  return undefined;
}

/** The statement ahead of a loop that declares a variable without a value, where that is a missing one. */
export function unsetAhead(
  loop: SyntaxNode,
  name: SyntaxNode,
): { readonly statement: SyntaxNode; readonly behind: SyntaxNode } | undefined {
  const at = neighbour(loop, "before");
  if (!at?.is(at.tree.language.flow.missing.unset) || at.parts.length !== 1) return undefined;
  const declarator = at.firstPart!;
  const [to] = referencesAt(name).flatMap((one) => one.to ?? []);
  const [declared, ...more] = to?.at ?? [];
  const isIt = declared?.parent?.same(declarator) === true && more.length === 0;
  // A mark beside the name and its type says more: `let found!: Jar`.
  const isPlain = declarator.children.every((child) => child.named);
  return isPlain &&
    isIt &&
    valueOf(declarator) === undefined &&
    declarator.tree.language.flow.assignments[declarator.kind]
    ? { statement: at, behind: declarator.lastPart! }
    : undefined;
}

/** The statement that is given what the loop makes, behind those that stand between the two. */
export function frameOf({ first, empty, between }: Made, loop: SyntaxNode): Frame {
  const [second] = between;
  const frame = { statement: first, value: empty };
  return second ? { ...frame, ahead: { start: second.start, end: loop.start } } : frame;
}

/** The same name, of the same variable: that of a block's parameter is another one. */
function isSame(one: SyntaxNode, other: SyntaxNode): boolean {
  const [a, b] = [one, other].map((name) => referencesAt(name).find(({ to }) => to)?.to);
  return one.text === other.text && one.kind === other.kind && (!a || !b || a === b);
}

function isEmptyFor(empty: SyntaxNode, { gathers, method }: Pick<Added, "gathers" | "method">): boolean {
  if (gathers === "total") return empty.text === "0";
  const { containers } = empty.tree.language.flow.collecting;
  const made = containers.find((one) => one.is === gathers);
  const isOf = method === undefined || !made || [...made.adds, ...made.addOperators].includes(method);
  return isOf && made?.empty.test(empty.text) === true;
}

interface Added {
  readonly gathers: Gathers;
  readonly to: SyntaxNode;
  readonly value: SyntaxNode;
  readonly key: SyntaxNode | undefined;
  /** The method or operator that adds it to a list or a set. */
  readonly method: string | undefined;
}

/** What the one statement adds, and to what. */
function addedBy([only, ...more]: readonly SyntaxNode[]): Added | undefined {
  const [next, ...others] = more;
  if (only && next) return others.length === 0 ? addedByName(only, next) : undefined;
  return only && (addedToContainer(expressionOf(only)) ?? putInto(only) ?? addedUp(only));
}

const NUMBER = /^(?:s?byte|u?short|u?int|u?long|char|float|double|decimal|number)$/;

/** `name = jar.name; names.push(name);`, with nothing else that uses the name. */
function addedByName(first: SyntaxNode, second: SyntaxNode): Added | undefined {
  const given = assignedBy(first);
  const added = given && addedToContainer(expressionOf(second));
  // A number may be converted to the type that is written.
  const written = given && annotationOf(given.target)?.text;
  if (written !== undefined && NUMBER.test(written)) return undefined;
  if (!given || !added || !given.target.isLeaf || !isSame(bare(added.value), given.target)) return undefined;
  return isUsedOnlyIn(given.target, [added.value]) ? { ...added, value: given.value } : undefined;
}

/** Parts of a call that hand on something else than one value. */
const NOT_ONE = /splat|spread|unpack|^pair$|block_argument|keyword_argument|generator_expression/;

/** The value that an expression adds to a list at its end, or to a set. */
function addedToContainer(code: SyntaxNode): Added | undefined {
  const { binary, calls, flow } = code.tree.language;
  const of = (name: string): Gathers | undefined =>
    flow.collecting.containers.find(({ adds, addOperators }) => [...adds, ...addOperators].includes(name))
      ?.is;
  if (code.is(binary)) {
    const [left, value] = [code.firstPart, code.lastPart];
    const method = code.child("operator")?.text ?? "";
    const gathers = of(method);
    return left && value && gathers ? { gathers, to: bare(left), value, key: undefined, method } : undefined;
  }
  const call = code.is(calls) ? callOf(code) : undefined;
  const [value, ...more] = call?.args ?? [];
  if (!call?.receiver || !value || more.length > 0 || code.child("block") || NOT_ONE.test(value.kind))
    return undefined;
  const gathers = of(call.method);
  return gathers && { gathers, to: bare(call.receiver), value, key: undefined, method: call.method };
}

/** The value that a statement puts into a map. */
function putInto(statement: SyntaxNode): Added | undefined {
  const put = putBy(statement);
  if (!put || put.adds || NOT_ONE.test(put.key.kind)) return undefined;
  return { gathers: "map", to: put.collection, value: put.value, key: put.key, method: undefined };
}

/** `total += x`, `total = total + x`. */
function addedUp(statement: SyntaxNode): Added | undefined {
  const { flow, augmented, binary } = statement.tree.language;
  const writing = expressionOf(statement);
  const table = flow.assignments[writing.kind];
  const [to, value] = [table && (writing.child(table.target) ?? writing.firstPart), writing.lastPart];
  if (!to || !value || to.same(value)) return undefined;
  const total = { gathers: "total", to, key: undefined, method: undefined } as const;
  const operator = writing.tree.text.slice(to.end, value.start).trim();
  if (writing.is(augmented)) return operator === "+=" ? { ...total, value } : undefined;
  const sum = bare(value);
  const [left, right] = [sum.firstPart, sum.lastPart];
  const isSum = sum.is(binary) && sum.child("operator")?.text === "+" && sum.parts.length >= 2;
  return operator === "=" && isSum && left && right && isSame(bare(left), to)
    ? { ...total, value: right }
    : undefined;
}
