import { jumpOf, partsOf, shapeOf, type Language, type SyntaxNode } from "../syntax/index.js";
import { partOf } from "./loops.js";
import { callOf } from "./presence-test.js";
import { statementsOf, waysOf } from "./ways.js";

/** A loop over the items of something: a statement, or a method that runs a block for each. */
export interface Walk {
  readonly loop: SyntaxNode;
  /** What is walked. */
  readonly items: SyntaxNode;
  /** What the loop calls an item: a name, a pattern, or the parameters of a block; undefined where it has no name. */
  readonly item: SyntaxNode | undefined;
  readonly body: readonly SyntaxNode[];
  /** The function that a method runs for each item: a jump that leaves it goes on with the next one. */
  readonly fn?: SyntaxNode;
}

/** A test that an item must pass, or must fail. */
export interface Sieve {
  readonly test: SyntaxNode;
  readonly isTrue: boolean;
}

/** A loop over items that does something with those that pass its tests. */
export interface Sifted extends Omit<Walk, "body"> {
  /** What must hold for an item, in the order in which it is asked. */
  readonly sieves: readonly Sieve[];
}

/** The kinds of nodes that may be such a loop. */
export function walkKinds({ flow, calls }: Language): readonly string[] {
  const kinds = Object.entries(flow.shapes).flatMap(([kind, shape]) =>
    typeof shape === "object" && shape.is === "each" && shape.over !== "none" ? [kind] : [],
  );
  return flow.collecting.walkers.length > 0 ? [...kinds, ...calls] : kinds;
}

/** The parts of a loop over items; undefined for what is none, or does more than to walk them. */
export function walkAt(loop: SyntaxNode): Walk | undefined {
  const { asyncMarks, calls, flow } = loop.tree.language;
  const shape = shapeOf(loop);
  if (shape?.is === "each") {
    const isMore = shape.otherwise !== undefined && partsOf(loop, shape.otherwise).length > 0;
    const isAsync = loop.children.some((child) => asyncMarks.includes(child.text));
    const over = partOf(loop, shape.over);
    const items = over?.is("in") ? over.firstPart : over;
    const item = shape.target === undefined ? undefined : partOf(loop, shape.target);
    const body = partsOf(loop, shape.body).flatMap(statementsOf);
    const isOfItems = shape.walksKeys?.(loop) !== true;
    // `for (const jar of jar)` reads a name that has no value yet.
    const isEarly = [...(item?.descendants() ?? [])].some(
      (name) => name.isLeaf && (items?.mentions(name.text).length ?? 0) > 0,
    );
    return items && isOfItems && !isEarly && !isMore && !isAsync ? { loop, items, item, body } : undefined;
  }
  const named = loop.child("method") ?? loop.child("function")?.lastPart;
  if (!named || !flow.collecting.walkers.includes(named.text) || !loop.is(calls)) return undefined;
  const call = callOf(loop);
  if (!call?.receiver) return undefined;
  const block = loop.child("block");
  if (!block) return walkByFunction(loop, call.receiver, call.args);
  if (call.args.length > 0) return undefined;
  const body = block.child("body");
  const statements = body ? statementsOf(body) : [];
  return { loop, items: call.receiver, item: block.child("parameters"), body: statements };
}

/** A walk by a method that is handed a function of the item. */
function walkByFunction(
  call: SyntaxNode,
  items: SyntaxNode,
  [fn, ...more]: readonly SyntaxNode[],
): Walk | undefined {
  const { asyncMarks, expressionStatement, functions } = call.tree.language;
  const body = fn?.is(functions) ? fn.child("body") : undefined;
  const first = fn?.child("parameter") ?? fn?.child("parameters")?.firstPart;
  if (!fn || !body || !first || more.length > 0) return undefined;
  const isOther = fn.children.some((child) => asyncMarks.includes(child.text) || child.text === "*");
  // A function that is no arrow has an object of its own.
  const hasOwn =
    !fn.has("=>") && [...fn.descendants()].some(({ text }) => text === "this" || text === "arguments");
  if (isOther || hasOwn) return undefined;
  const loop = call.parent?.is(expressionStatement) ? call.parent : call;
  return { loop, items, item: first.child("pattern") ?? first, body: statementsOf(body), fn };
}

/** What is done with the items that pass all tests. */
export interface Sieved<T> {
  readonly done: T;
  readonly sieves: readonly Sieve[];
}

/**
 * What statements do with an item: with each, or with those that pass tests, in an `if` or ahead of a guard that goes on with
 * the next one. Undefined where something else is done as well, or what is done is not what is looked for.
 */
export function sieved<T>(
  { body, fn }: Pick<Walk, "body" | "fn">,
  doneBy: (statements: readonly SyntaxNode[]) => T | undefined,
  sieves: readonly Sieve[] = [],
): Sieved<T> | undefined {
  const [one, ...rest] = body;
  if (!one) return undefined;
  const ways = waysOf(one);
  if (!ways) {
    const done = doneBy(body);
    return done === undefined ? undefined : { done, sieves };
  }
  const skip = fn ? "return" : "continue";
  const isTrue = !isSkipped(ways.yes, skip);
  const [goesOn, other] = isTrue ? [ways.yes, ways.no] : [ways.no, ways.yes];
  if (!isSkipped(other, skip)) return undefined;
  const asked = [...sieves, { test: ways.test, isTrue }];
  const on = (statements: readonly SyntaxNode[]): Pick<Walk, "body" | "fn"> => ({
    body: statements,
    ...(fn ? { fn } : {}),
  });
  // A guard leaves the rest to what stands behind it.
  if (goesOn.length > 0) return rest.length === 0 ? sieved(on(goesOn), doneBy, asked) : undefined;
  return other.length > 0 ? sieved(on(rest), doneBy, asked) : undefined;
}

/** Does nothing happen with an item this way, but that the next one is turned to? */
function isSkipped(way: readonly SyntaxNode[], skip: "continue" | "return"): boolean {
  const [only, ...more] = way;
  return !only || (more.length === 0 && jumpOf(only) === skip && only.parts.length === 0);
}
