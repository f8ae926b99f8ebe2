import {
  calledFromLibrary,
  condition,
  isSeenElsewhere,
  isSideEffectFree,
  isUsedAfter,
  jumpOf,
  mentionsOf,
  no,
  referencesAt,
  referencesOf,
  shapeOf,
  shortened,
  unknown,
  weakest,
  yes,
} from "../../core.js";
import type { Answer, Condition, Match, SyntaxNode } from "../../core.js";

/** What a loop gives its value to, and what stands in it beside that. */
interface Growing {
  readonly list: SyntaxNode;
  readonly loop: SyntaxNode;
  readonly parts: readonly SyntaxNode[];
}

/** What stands in the loop beside the list: what is walked, what is added, what is asked. */
export function partsOf({ collecting }: Match): SyntaxNode[] {
  const { items, item, key, value, sieves } = collecting;
  return [items, ...(key ? [key] : []), value, ...sieves.map(({ test }) => test), ...(item ? [item] : [])];
}

const growing = (match: Match): Growing => ({
  list: match.collecting.list,
  loop: match.collecting.loop,
  parts: partsOf(match),
});

/** The variable that is set where one of the items passes a test; nothing where the function returns that. */
const flagging = ({ flagged: { name, loop, items, sieves } }: Match): Growing | undefined =>
  name && { list: name, loop, parts: [items, ...sieves.map(({ test }) => test)] };

/** The variable that is set to the first item that passes a test; nothing where the function returns that. */
const seeking = ({ sought: { name, loop, items, value, sieves } }: Match): Growing | undefined =>
  name && { list: name, loop, parts: [items, value, ...sieves.map(({ test }) => test)] };

/** Nobody looks at the variable that a loop sets to what it finds, while it has not found it. */
export const isNotSeenSeeking = (): Condition[] => isNotSeen("the variable", seeking);

/** Nobody looks at the list while it grows: neither the loop, nor what it calls, nor who goes on where it throws. */
export const isNotSeenGrowing = (): Condition[] => isNotSeen("the list", growing);

/** Nobody looks at the variable that a loop sets where one of the items passes a test, while it is not set for good. */
export const isNotSeenFlagging = (): Condition[] => isNotSeen("the variable", flagging);

/**
 * Where the loop goes on behind the first item that passes, those behind it are no longer asked. A language may have its own
 * answer to whether a test does nothing else.
 */
export function needNotAskAll(doesNothing: (test: SyntaxNode) => Answer = isSideEffectFree): Condition {
  return condition("the remaining items need not be asked", (match) => mayStop(match, doesNothing), {
    when: ({ flagged: { stops } }) => !stops,
  });
}

function mayStop({ flagged: { sieves } }: Match, doesNothing: (test: SyntaxNode) => Answer): Answer {
  const tests = sieves.map(({ test }) => ({ test, free: doesNothing(test).is }));
  const doing = tests.find(({ free }) => free === "no") ?? tests.find(({ free }) => free === "unknown");
  if (!doing) return yes("effect.evaluated", "the tests do nothing else");
  const says = `\`${shortened(doing.test.text)}\` is no longer evaluated for all items`;
  return (doing.free === "no" ? no : unknown)("effect.evaluated", says, doing.test);
}

function isNotSeen(what: string, of: (match: Match) => Growing | undefined): Condition[] {
  const when = { when: (match: Match): boolean => of(match) !== undefined };
  return [
    condition(`${what} is not read while the loop runs`, (match) => isNotRead(of(match)!), when),
    condition(
      `${what} is not read half done where something throws`,
      (match) => isNotSeenHalf(of(match)!),
      when,
    ),
  ];
}

function isNotRead({ list, loop, parts }: Growing): Answer {
  const read = parts.flatMap((part) => mentionsOf(part, list.text))[0];
  if (read) return no("flow.order", `\`${list.text}\` is read while the loop runs`, read);
  const to = referencesAt(list).find((one) => one.to)?.to;
  // A function that is made later cannot have been called yet, unless all of this is run again.
  const isRepeated = [...loop.ancestors()].some((above) =>
    ["loop", "each"].includes(shapeOf(above)?.is ?? ""),
  );
  const isEarly = (node: SyntaxNode): boolean => (isRepeated || node.start < loop.start) && !loop.holds(node);
  const seen = to ? referencesOf(to).find((one) => one.captured && isEarly(one.node)) : undefined;
  const isOpen = !to || seen !== undefined || isSeenElsewhere(to);
  return isOpen
    ? unknown("flow.order", `what is called meanwhile could read \`${list.text}\``, seen?.node ?? loop)
    : yes("flow.order", `\`${list.text}\` is not read while the loop runs`);
}

/** Where something throws halfway, a handler that reads it finds what it held before, and so does what is run after it. */
function isNotSeenHalf({ list, loop }: Growing): Answer {
  const answers = [...loop.ancestors()].map((above) => seenPast(above, loop, list));
  return weakest([yes("flow.throws", "nothing reads it half done"), ...answers]);
}

/** Is the list read by what is run when something in a `try` throws? */
function seenPast(above: SyntaxNode, loop: SyntaxNode, list: SyntaxNode): Answer {
  const fine = yes("flow.throws", "nothing reads it half done");
  const shape = shapeOf(above);
  if (shape?.is !== "try") return fine;
  const lastly = shape.lastly === undefined ? [] : [shape.lastly];
  // What throws in a handler is caught by none of its neighbours.
  const caught = above.parts.filter((part) => part.is(shape.handlers));
  const handlers = caught.some((part) => part.holds(loop)) ? [] : caught;
  const read = [...handlers, ...above.parts.filter((part) => part.is(lastly) && !part.holds(loop))].flatMap(
    (part) => mentionsOf(part, list.text),
  )[0];
  if (read) return no("flow.throws", `where the loop throws, \`${list.text}\` is read here`, read);
  const goesOn = handlers.find((handler) => !leaves(handler));
  const maySwallow = shape.swallows === true && !isManagedBy(above);
  if (!goesOn && !maySwallow) return fine;
  const to = referencesAt(list).find((one) => one.to)?.to;
  const used = to && isUsedAfter(to, above);
  if (used?.is === "no") return fine;
  const says = `where the loop throws, \`${list.text}\` is read after this`;
  return used?.is === "yes" && goesOn
    ? no("flow.throws", says, goesOn)
    : unknown("flow.throws", says, goesOn ?? above);
}

/** Does a handler end with a jump out of the function? */
function leaves(handler: SyntaxNode): boolean {
  const { statementLists, flow } = handler.tree.language;
  const last = handler.parts.at(-1);
  if (last?.is([...statementLists, ...flow.wrappers])) return leaves(last);
  return last !== undefined && ["return", "throw"].includes(jumpOf(last) ?? "");
}

/** Is all that a block manages known from the library, so that it swallows nothing? */
function isManagedBy(block: SyntaxNode): boolean {
  const { calls } = block.tree.language;
  const body = block.child("body");
  const managed = block.parts.filter((part) => !part.same(body));
  const called = managed.flatMap((part) => [...part.descendants()]).filter((node) => node.is(calls));
  const outer = called.filter((node) => !called.some((other) => !other.same(node) && other.holds(node)));
  return outer.length > 0 && outer.every((call) => calledFromLibrary(call)?.acquires === true);
}
