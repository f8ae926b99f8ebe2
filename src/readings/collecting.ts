import { jumpOf, oncePerNode, partsOf, shapeOf, type Language, type SyntaxNode } from "../syntax/index.js";
import { assignedBy } from "./frame.js";
import { partOf } from "./loops.js";
import { bare, callOf } from "./presence-test.js";
import { expressionOf, isStatement, neighbour, statementsOf, waysOf } from "./ways.js";

/** A test that an item must pass, or must fail. */
export interface Sieve {
  readonly test: SyntaxNode;
  readonly isTrue: boolean;
}

/** A list that is empty at first, and to which a loop right behind adds one value for each item, or for some. */
export interface Collecting {
  /** The statement that makes the list, what it gives it to, and the empty list in it. */
  readonly first: SyntaxNode;
  readonly list: SyntaxNode;
  readonly empty: SyntaxNode;
  readonly loop: SyntaxNode;
  /** What is walked. */
  readonly items: SyntaxNode;
  /** What the loop calls an item: a name, a pattern, or the parameters of a block; undefined where it has no name. */
  readonly item: SyntaxNode | undefined;
  /** The value that is added. */
  readonly value: SyntaxNode;
  /** What must hold for it to be added, in the order in which it is asked. */
  readonly sieves: readonly Sieve[];
}

/** The kinds of nodes at which such a loop may be. */
export function collectingKinds({ flow, calls }: Language): readonly string[] {
  const { empty, adds, addOperators, walkers } = flow.collecting;
  if (!empty || adds.length + addOperators.length === 0) return [];
  const kinds = Object.entries(flow.shapes).flatMap(([kind, shape]) =>
    typeof shape === "object" && shape.is === "each" && shape.over !== "none" ? [kind] : [],
  );
  return walkers.length > 0 ? [...kinds, ...calls] : kinds;
}

/** What a loop collects; undefined where it does something else, or more. */
export const collectingAt = oncePerNode<Collecting | undefined>(readCollecting);

function readCollecting(loop: SyntaxNode): Collecting | undefined {
  const walk = walkAt(loop);
  const first = walk && isStatement(loop) ? neighbour(loop, "before") : undefined;
  const given = first && assignedBy(first);
  const { empty } = loop.tree.language.flow.collecting;
  if (!walk || !given || !empty?.test(given.value.text)) return undefined;
  const list = given.target;
  const added = addedBy(walk.body, list, []);
  return added && { first, list, empty: given.value, loop, items: walk.items, item: walk.item, ...added };
}

interface Walk {
  readonly items: SyntaxNode;
  readonly item: SyntaxNode | undefined;
  readonly body: readonly SyntaxNode[];
}

/** The parts of a loop over items: of a statement, or of a method that runs a block for each. */
function walkAt(node: SyntaxNode): Walk | undefined {
  const { asyncMarks, calls, flow } = node.tree.language;
  const shape = shapeOf(node);
  if (shape?.is === "each") {
    const isMore = shape.otherwise !== undefined && partsOf(node, shape.otherwise).length > 0;
    const isAsync = node.children.some((child) => asyncMarks.includes(child.text));
    const over = partOf(node, shape.over);
    const items = over?.is("in") ? over.firstPart : over;
    const item = shape.target === undefined ? undefined : partOf(node, shape.target);
    const body = partsOf(node, shape.body).flatMap(statementsOf);
    return items && !isMore && !isAsync ? { items, item, body } : undefined;
  }
  const call = node.is(calls) ? callOf(node) : undefined;
  const block = node.child("block");
  if (!call?.receiver || !block || call.args.length > 0) return undefined;
  if (!flow.collecting.walkers.includes(call.method)) return undefined;
  const body = block.child("body");
  return { items: call.receiver, item: block.child("parameters"), body: body ? statementsOf(body) : [] };
}

type Added = Pick<Collecting, "value" | "sieves">;

/** What statements add to a list, if they do nothing else. */
function addedBy(
  statements: readonly SyntaxNode[],
  list: SyntaxNode,
  sieves: readonly Sieve[],
): Added | undefined {
  const [one, ...rest] = statements;
  if (!one) return undefined;
  const ways = waysOf(one);
  if (!ways) {
    const value = rest.length === 0 ? valueAdded(expressionOf(one), list) : undefined;
    return value && { value, sieves };
  }
  const isTrue = !isSkipped(ways.yes);
  const [goesOn, other] = isTrue ? [ways.yes, ways.no] : [ways.no, ways.yes];
  if (!isSkipped(other)) return undefined;
  const asked = [...sieves, { test: ways.test, isTrue }];
  // A guard leaves the rest to what stands behind it.
  if (goesOn.length > 0) return rest.length === 0 ? addedBy(goesOn, list, asked) : undefined;
  return other.length > 0 ? addedBy(rest, list, asked) : undefined;
}

/** Does nothing happen with an item this way, but that the next one is turned to? */
function isSkipped(way: readonly SyntaxNode[]): boolean {
  const [only, ...more] = way;
  return !only || (more.length === 0 && jumpOf(only) === "continue" && only.parts.length === 0);
}

/** Parts of a call that hand on something else than one value. */
const NOT_ONE = /splat|spread|unpack|^pair$|block_argument|keyword_argument|generator_expression/;

/** The value that an expression adds at the end of a list. */
function valueAdded(code: SyntaxNode, list: SyntaxNode): SyntaxNode | undefined {
  const { binary, flow } = code.tree.language;
  const { adds, addOperators } = flow.collecting;
  const isList = (node: SyntaxNode | undefined): boolean =>
    node !== undefined && bare(node).text === list.text && bare(node).kind === list.kind;
  if (code.is(binary)) {
    const [left, right] = [code.firstPart, code.lastPart];
    const operator = code.child("operator")?.text ?? "";
    return addOperators.includes(operator) && isList(left) ? right : undefined;
  }
  const call = code.is(code.tree.language.calls) ? callOf(code) : undefined;
  const [value, ...more] = call?.args ?? [];
  if (!call || !value || more.length > 0 || code.child("block") || NOT_ONE.test(value.kind)) return undefined;
  return adds.includes(call.method) && isList(call.receiver) ? value : undefined;
}
