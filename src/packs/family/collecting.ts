import {
  calledFromLibrary,
  condition,
  isSeenElsewhere,
  isUsedAfter,
  jumpOf,
  no,
  referencesAt,
  referencesOf,
  shapeOf,
  unknown,
  weakest,
  yes,
} from "../../core.js";
import type { Answer, Condition, Match, SyntaxNode } from "../../core.js";

/** What stands in the loop beside the list: what is walked, what is added, what is asked. */
export function partsOf({ collecting: { items, item, value, sieves } }: Match): SyntaxNode[] {
  return [items, value, ...sieves.map(({ test }) => test), ...(item ? [item] : [])];
}

/** Nobody looks at the list while it grows: neither the loop, nor what it calls, nor who goes on where it throws. */
export function isNotSeenGrowing(): Condition[] {
  return [
    condition("the list is not read while it is filled", isNotRead),
    condition("the list is not read half filled where something throws", isNotSeenHalf),
  ];
}

function isNotRead(match: Match): Answer {
  const { list } = match.collecting;
  const read = partsOf(match).flatMap((part) => part.mentions(list.text))[0];
  if (read) return no("flow.order", `\`${list.text}\` is read while it is filled`, read);
  const to = referencesAt(list).find((one) => one.to)?.to;
  const { loop } = match.collecting;
  // A function that is made later cannot have been called yet, unless all of this is run again.
  const isRepeated = [...loop.ancestors()].some((above) =>
    ["loop", "each"].includes(shapeOf(above)?.is ?? ""),
  );
  const isEarly = (node: SyntaxNode): boolean => (isRepeated || node.start < loop.start) && !loop.holds(node);
  const seen = to ? referencesOf(to).find((one) => one.captured && isEarly(one.node)) : undefined;
  const isOpen = !to || seen !== undefined || isSeenElsewhere(to);
  return isOpen
    ? unknown("flow.order", `what is called meanwhile could read \`${list.text}\``, seen?.node ?? match.node)
    : yes("flow.order", `\`${list.text}\` is not read while it is filled`);
}

/** Where something throws halfway, a handler that reads the list finds what it held before, and so does what is run after it. */
function isNotSeenHalf({ collecting: { list, loop } }: Match): Answer {
  const answers = [...loop.ancestors()].map((above) => seenPast(above, loop, list));
  return weakest([yes("flow.throws", "nobody reads the list half filled"), ...answers]);
}

/** Is the list read by what is run when something in a `try` throws? */
function seenPast(above: SyntaxNode, loop: SyntaxNode, list: SyntaxNode): Answer {
  const fine = yes("flow.throws", "nobody reads the list half filled");
  const shape = shapeOf(above);
  if (shape?.is !== "try") return fine;
  const lastly = shape.lastly === undefined ? [] : [shape.lastly];
  // What throws in a handler is caught by none of its neighbours.
  const caught = above.parts.filter((part) => part.is(shape.handlers));
  const handlers = caught.some((part) => part.holds(loop)) ? [] : caught;
  const read = [...handlers, ...above.parts.filter((part) => part.is(lastly) && !part.holds(loop))].flatMap(
    (part) => part.mentions(list.text),
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
