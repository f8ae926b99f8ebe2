import {
  exitsOf,
  isSeenElsewhere,
  isSideEffectFree,
  shortened,
  runsLater,
  unknown,
  functionAround,
  nameInFile,
  no,
  referencesAt,
  type Answer,
  type Declaration,
} from "../analysis/index.js";
import { jumpOf, partsOf, shapeOf, type FlowShape, type Language, type SyntaxNode } from "../syntax/index.js";
import { comparison, isName, lengthOf, nameOf, positionsIn, stepped, type Counted } from "./counting.js";
import { assignedBy } from "./frame.js";
import { bare, callOf, itemRead } from "./presence-test.js";
import { neighbour, statementsOf } from "./ways.js";

/** Code that is run for each position of something, however the positions are counted. */
export interface Loop {
  /** The loop, or the clause of an expression that loops. */
  readonly node: SyntaxNode;
  /** All that belongs to it: from the statement in which the position begins, or the whole expression. */
  readonly nodes: readonly SyntaxNode[];
  /**
   * `counted`: the code itself counts, in a header of three parts or with statements of its own. `callback`: a method of the
   * list runs a function for each. `iterator`: the code has an iterator of its own.
   */
  readonly form: "each" | "counted" | "clause" | "callback" | "iterator";
  /** The name of the position or of the iterator, where it is first given. */
  readonly index: SyntaxNode;
  /** What is walked. */
  readonly items: SyntaxNode;
  /** The position that the first item goes by. */
  readonly from: 0 | 1;
  /** Is the last item walked first? */
  readonly isBackwards?: true;
  /** Is `items` a pointer to what is walked? */
  readonly isPointer?: true;
  /** The call that gives the iterator, where the code has one. */
  readonly made?: SyntaxNode;
  /** What stands for the name and for the positions, from the first letter of the loop. */
  readonly header: { readonly start: number; readonly end: number };
  /** The expression that gives all positions, where one does. */
  readonly positions?: SyntaxNode;
  /** The statements that give the position its first value, and its next. */
  readonly counting: readonly SyntaxNode[];
  readonly body: readonly SyntaxNode[];
  /** Reads of the item at the position, and what else the position is used for, within the loop. */
  readonly lookUps: readonly SyntaxNode[];
  readonly others: readonly SyntaxNode[];
  /** The first statement of the body, where it only gives the item a name. */
  readonly own: { readonly name: SyntaxNode; readonly statement: SyntaxNode } | undefined;
  /** Mentions of the position in the function around, outside of the loop. */
  readonly outside: readonly SyntaxNode[];
  readonly spelling: readonly Answer[];
}

/** The kinds of nodes at which a loop over positions may begin. */
export function loopKinds({ flow }: Language): readonly string[] {
  const kinds = Object.entries(flow.shapes).flatMap(([kind, shape]) =>
    typeof shape === "object" && (shape.is === "loop" || shape.is === "each") ? [kind] : [],
  );
  return [...kinds, ...flow.counting.clauses];
}

/** The loop over positions at a node; undefined where it is none. */
export function loopAt(node: SyntaxNode): Loop | undefined {
  if (node.is(node.tree.language.flow.counting.clauses)) return ofClause(node);
  const shape = shapeOf(node);
  if (shape?.is === "each") return shape.walksKeys?.(node) ? undefined : ofEach(node, shape);
  return shape?.is === "loop" ? ofCounter(node, shape) : undefined;
}

/** The kinds of nodes at which a loop over keys may begin. */
export function keyLoopKinds({ flow, calls }: Language): readonly string[] {
  const { keyLists, walksKeys, walkers, clauses } = flow.counting;
  if (keyLists.length === 0 && !walksKeys) return [];
  const kinds = Object.entries(flow.shapes).flatMap(([kind, shape]) =>
    typeof shape === "object" && shape.is === "each" ? [kind] : [],
  );
  return [...kinds, ...clauses, ...(walkers.length > 0 ? calls : [])];
}

/** The loop over the keys of something at a node; its `items` are what has the keys. Undefined where it is none. */
export function keyLoopAt(node: SyntaxNode): Loop | undefined {
  const { clauses, walkers } = node.tree.language.flow.counting;
  if (node.is(clauses)) return ofClause(node, keysIn);
  const shape = shapeOf(node);
  if (shape?.is === "each") return shape.walksKeys?.(node) ? undefined : ofEach(node, shape, keysIn);
  return node.is(node.tree.language.calls) && walkers.length > 0 ? ofCallback(node) : undefined;
}

/** What all keys are of, by an expression that gives them: `Object.keys(x)`, `d.keys()`, in Python `d` itself. */
function keysIn(over: SyntaxNode): Counted | undefined {
  const { counting } = over.tree.language.flow;
  const call = callOf(bare(over));
  const found = (items: SyntaxNode): Counted => ({ items: bare(items), from: 0, spelling: [] });
  if (call && bare(over).is(over.tree.language.calls)) {
    const { whole, method, receiver, args } = call;
    if (args.length === 1 && counting.keyLists.includes(whole)) return found(args[0]!);
    return receiver && args.length === 0 && counting.keyLists.includes(`${method}()`)
      ? found(receiver)
      : undefined;
  }
  return counting.walksKeys ? found(over) : undefined;
}

/** `Object.keys(x).forEach((key) => …)`. */
function ofCallback(node: SyntaxNode): Loop | undefined {
  const { functions, flow } = node.tree.language;
  const call = callOf(node);
  const [run, ...more] = call?.args ?? [];
  if (!call?.receiver || !run?.is(functions) || more.length > 0) return undefined;
  if (!flow.counting.walkers.includes(call.method)) return undefined;
  const counted = keysIn(call.receiver);
  const list = run.child("parameters");
  const alone = run.child("parameter");
  const [index, ...others] = alone ? [alone] : (list?.parts ?? []);
  const name = index && (isName(index) ? index : index.child("pattern"));
  const code = run.child("body");
  if (!counted || !name || !code || others.length > 0 || !isName(name)) return undefined;
  return loopOf({
    ...counted,
    node,
    nodes: [node],
    form: "callback",
    index: name,
    header: { start: (list ?? alone)!.start, end: (list ?? alone)!.end },
    positions: call.receiver,
    counting: [],
    body: statementsOf(code),
  });
}

/** `for i in range(len(xs))`. */
function ofEach(
  node: SyntaxNode,
  shape: Extract<FlowShape, { is: "each" }>,
  countedIn: (over: SyntaxNode) => Counted | undefined = positionsIn,
): Loop | undefined {
  const { asyncMarks } = node.tree.language;
  if (node.children.some((child) => asyncMarks.includes(child.text))) return undefined;
  if (shape.otherwise !== undefined && partsOf(node, shape.otherwise).length > 0) return undefined;
  const over = partOf(node, shape.over);
  const index = shape.target === undefined ? undefined : partOf(node, shape.target);
  const counted = over && countedIn(over);
  if (!index || !counted || !isName(index)) return undefined;
  return loopOf({
    ...counted,
    node,
    nodes: [node],
    form: "each",
    index,
    header: { start: node.start, end: over.end },
    positions: over,
    counting: [],
    body: partsOf(node, shape.body).flatMap(statementsOf),
  });
}

/** `xs[i] for i in range(len(xs))`, in brackets. */
function ofClause(
  node: SyntaxNode,
  countedIn: (over: SyntaxNode) => Counted | undefined = positionsIn,
): Loop | undefined {
  const { asyncMarks } = node.tree.language;
  const [index, over] = node.parts;
  const whole = node.parent;
  if (!whole || !index || !over || !isName(index)) return undefined;
  if (node.children.some((child) => asyncMarks.includes(child.text))) return undefined;
  const counted = countedIn(over);
  return (
    counted &&
    loopOf({
      ...counted,
      node,
      nodes: [whole],
      form: "clause",
      index,
      header: { start: node.start, end: over.end },
      positions: over,
      counting: [],
      body: whole.parts.filter((part) => !part.same(node)),
    })
  );
}

/** `for (int i = 0; i < xs.length; i++)`, or `i = 0`, `while i < len(xs)`, `i += 1`. */
function ofCounter(node: SyntaxNode, shape: Extract<FlowShape, { is: "loop" }>): Loop | undefined {
  if (shape.bodyFirst !== undefined || shape.negated === true || shape.test === undefined) return undefined;
  if (shape.otherwise !== undefined && partsOf(node, shape.otherwise).length > 0) return undefined;
  const [test] = partsOf(node, shape.test);
  const compared = test && comparison(bare(test));
  if (!test || !compared || !isName(compared.index)) return undefined;
  const { text } = compared.index;
  const statements = partsOf(node, shape.body).flatMap(statementsOf);
  const updates = shape.update === undefined ? [] : partsOf(node, shape.update);
  const first = shape.first === undefined ? [] : partsOf(node, shape.first);
  const inHeader = updates.length > 0;
  const step = inHeader ? updates[0] : statements.at(-1);
  if (!step || updates.length > 1 || stepped(step) !== text) return undefined;
  const begins = inHeader
    ? first.flatMap((part) => givenIn(part, text))
    : [beginningBefore(node, text) ?? []].flat();
  const [begin] = begins;
  if (!begin || begins.length > 1) return undefined;
  const from = begin.value.text === "0" ? 0 : begin.value.text === "1" ? 1 : undefined;
  if (from === undefined || compared.inclusive !== (from === 1)) return undefined;
  const length = lengthOf(compared.length);
  if (!length) return undefined;
  const beside = inHeader
    ? first.flatMap((part) => besideCounting(part, { index: text, length: compared.length, loop: node }))
    : [];
  const list = inHeader ? [node] : node.parent!.parts;
  const at = inHeader ? 0 : list.findIndex((part) => part.same(begin.statement));
  const nodes = inHeader ? [node] : list.slice(at, list.findIndex((part) => part.same(node)) + 1);
  const body = inHeader ? statements : statements.slice(0, -1);
  const found = loopOf({
    ...length,
    from,
    node,
    nodes,
    form: "counted",
    index: begin.target,
    header: { start: node.start, end: inHeader ? headerEnd(node, shape) : test.end },
    counting: inHeader ? [] : [begin.statement, step],
    body,
  });
  if (inHeader) return { ...found, spelling: [...found.spelling, ...beside] };
  return { ...found, spelling: [...found.spelling, ...countsOnly(found)] };
}

/** The end of a header of three parts, with its brackets. */
export function headerEnd(node: SyntaxNode, { body }: Extract<FlowShape, { is: "loop" }>): number {
  const [first] = partsOf(node, body);
  const before = node.tree.text.slice(node.start, first?.start ?? node.end);
  return node.start + before.trimEnd().length;
}

/** Where the code counts by statements of its own, no round may miss the step, and nothing else may see the position. */
function countsOnly({ body, outside, others, index }: Loop): readonly Answer[] {
  const skips = exitsOf(body).find((exit) => jumpOf(exit) === "continue");
  const [seen] = outside;
  const later = others.find((at) =>
    body.some((statement) => statement.holds(at) && runsLater(at, statement)),
  );
  const to = referencesAt(nameOf(index)).find(({ member }) => !member)?.to;
  return [
    ...(later
      ? [no("resource.used-after", `\`${index.text}\` is seen by a function that may run later`, later)]
      : []),
    ...(to && to.as !== "parameter" && isSeenElsewhere(to)
      ? [unknown("resource.used-after", `\`${index.text}\` can be seen by other files`, index)]
      : []),
    ...(skips ? [no("flow.order", `\`${skips.text}\` would go on with the next item now`, skips)] : []),
    ...(seen
      ? [
          no(
            "resource.used-after",
            `\`${index.text}\` is used outside of the loop, and is not counted any more`,
            seen,
          ),
        ]
      : []),
  ];
}

interface Beginning {
  readonly statement: SyntaxNode;
  readonly target: SyntaxNode;
  readonly value: SyntaxNode;
}

/** What a header gives a name at first. */
function givenIn(first: SyntaxNode, name: string): Beginning[] {
  const { assignments } = first.tree.language.flow;
  return [...first.descendants()].flatMap((node) => {
    const given = assignments[node.kind] ? assignedBy(node) : undefined;
    return given && given.target.text === name ? [{ ...given, statement: first }] : [];
  });
}

/** What the first part of a header does besides beginning to count and naming the length: all of it goes with the header. */
function besideCounting(part: SyntaxNode, header: CountingHeader): Answer[] {
  const { assignments } = part.tree.language.flow;
  const given = assignments[part.kind] ? assignedBy(part) : undefined;
  if (!given) {
    if (part.field === "type") return [];
    const gives = [...part.descendants()].some((node) => assignments[node.kind] && assignedBy(node));
    return gives ? part.parts.flatMap((one) => besideCounting(one, header)) : dropped(part);
  }
  const { target, value } = given;
  if (target.text === header.index) return [];
  const to = referencesAt(nameOf(target)).find(({ member }) => !member)?.to;
  const isDeclaredHere = to?.at.some((at) => part.holds(at)) ?? false;
  if (!isDeclaredHere && !isForHeader(to, header.loop))
    return [
      no(
        "resource.used-after",
        `\`${target.text}\` is given its value in the header, and is used elsewhere`,
        target,
      ),
    ];
  const seen =
    to && !isDeclaredHere && isSeenElsewhere(to)
      ? [unknown("resource.used-after", `\`${target.text}\` can be seen by other files`, target)]
      : [];
  return target.text === bare(header.length).text ? seen : [...seen, ...dropped(value)];
}

/** What speaks against an expression not being evaluated any more. A name that is only declared is not evaluated. */
function dropped(code: SyntaxNode): Answer[] {
  const names = [...code.descendants()].filter((node) => node.isLeaf && node.named);
  const isDeclared = (leaf: SyntaxNode): boolean =>
    referencesAt(leaf).some(({ to }) => to?.at.some((at) => at.same(leaf)));
  if (names.every(isDeclared)) return [];
  const quiet = isSideEffectFree(code);
  if (quiet.is !== "no") return quiet.is === "unknown" ? [quiet] : [];
  const says = `\`${shortened(code.text)}\` runs ahead of the loop, and would not run any more`;
  return [no("effect.side-effect", says, code)];
}

interface CountingHeader {
  readonly index: string;
  readonly length: SyntaxNode;
  readonly loop: SyntaxNode;
}

/** Is a variable used in the header of a loop and nowhere else? */
function isForHeader(to: Declaration | undefined, loop: SyntaxNode): boolean {
  if (!to) return false;
  const body = shapeOf(loop) as Extract<FlowShape, { is: "loop" }>;
  const inBody = partsOf(loop, body.body);
  const isInHeader = (at: SyntaxNode): boolean => loop.holds(at) && !inBody.some((one) => one.holds(at));
  return nameInFile(to.name, loop.tree).references.every(
    (one) => one.to !== to || isInHeader(one.node) || to.at.some((at) => at.same(one.node)),
  );
}

/** The statement ahead of a loop that gives a name its first value, if nothing in between mentions it. */
function beginningBefore(loop: SyntaxNode, name: string): Beginning | undefined {
  const bareName = name.replace(/^\$/, "");
  for (let at = neighbour(loop, "before"); at; at = neighbour(at, "before")) {
    const given = assignedBy(at);
    if (given?.target.text === name) return { ...given, statement: at };
    if (at.mentions(name).length + at.mentions(bareName).length > 0) return undefined;
  }
  return undefined;
}

type Unread = Omit<Loop, "lookUps" | "others" | "own" | "outside">;

function loopOf(loop: Unread): Loop {
  const { node, index, items, body, nodes, counting } = loop;
  const mentions = (within: SyntaxNode): SyntaxNode[] => within.mentions(nameOf(index).text);
  const isCounting = (at: SyntaxNode): boolean => counting.some((one) => one.holds(at));
  const all = body.flatMap(mentions).filter((at) => !isCounting(at));
  const read = all.map((at) => lookUpAround(at, loop));
  const around = functionAround(node) ?? node.tree.root;
  const isWithin = (at: SyntaxNode): boolean => nodes.some((one) => one.holds(at));
  return {
    ...loop,
    lookUps: read.flatMap((one) => one ?? []),
    others: all.filter((_, i) => read[i] === undefined),
    own: ownName(
      body[0],
      read.flatMap((one) => one ?? []),
      items,
    ),
    outside: mentions(around).filter((at) => !isWithin(at)),
  };
}

/** The read of the item at the position that a mention of it stands in; undefined where it is used otherwise. */
function lookUpAround(mention: SyntaxNode, { index, items, from }: Unread): SyntaxNode | undefined {
  for (const above of mention.ancestors()) {
    const read = itemRead(above);
    if (!read) continue;
    if (!read.key.holds(mention)) return undefined;
    const key = read.key.text.replace(/\s/g, "");
    const isIt = key === (from === 1 ? `${index.text}-1` : index.text);
    if (!isIt || read.collection.text !== items.text) return undefined;
    const { asserted } = above.tree.language.types.values ?? {};
    // `jars[i]!` says no more than that the item is there.
    return above.parent?.is(asserted ?? "") ? above.parent : above;
  }
  return undefined;
}

/** A first statement that does nothing but name the item. */
export function ownName(
  first: SyntaxNode | undefined,
  lookUps: readonly SyntaxNode[],
  items: SyntaxNode,
): Loop["own"] {
  const given = first && assignedBy(first);
  const isItem = given && lookUps.some((read) => read.same(bare(given.value)));
  if (!given || !isItem || !isName(given.target) || given.target.text === items.text) return undefined;
  return { name: given.target, statement: first };
}

/** A part of a loop, by its field or kind, or by its place. */
export function partOf(node: SyntaxNode, part: string | number): SyntaxNode | undefined {
  return typeof part === "number" ? node.parts[part] : partsOf(node, part)[0];
}
