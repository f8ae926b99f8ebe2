import { exitsOf, referencesOf, runsLater, type SyntaxNode } from "../../../core.js";
import type { Cell } from "./cells.js";
import { NoState } from "./no-state.js";
import { declarationAt, type EffectParts, type Helper, type Listener } from "./reader.js";

/** A function whose code moves out of the effect, or the effect itself with what stays in it. */
export interface Unit {
  readonly fn: SyntaxNode;
  readonly parts: EffectParts;
  readonly helper: Helper | undefined;
  readonly isMoved: boolean;
  /** Is it called for events of which many may come before the component is shown again? */
  readonly isFlood: boolean;
}

/** The functions of an effect that listeners run, directly or through others, and the effect. */
export function unitsOf(parts: EffectParts): Unit[] {
  const { effect, listeners, helpers } = parts;
  const own = (fn: SyntaxNode, about: Partial<Unit>): Unit => ({
    fn,
    parts,
    helper: undefined,
    isMoved: true,
    isFlood: false,
    ...about,
  });
  const units = listeners.flatMap((one) =>
    helperOf(one, helpers) || !one.handler.child("body") ? [] : [own(one.handler, { isFlood: one.isFlood })],
  );
  const flooded = (helper: Helper): boolean =>
    listeners.some((one) => one.isFlood && helperOf(one, helpers) === helper) ||
    units.some((unit) => unit.isFlood && callsOf(helper).some((call) => unit.fn.holds(call)));
  const moved = new Set(listeners.flatMap((one) => helperOf(one, helpers) ?? []));
  const isUsed = (helper: Helper): boolean =>
    [...units.map(({ fn }) => fn), ...[...moved].map(({ fn }) => fn)].some((fn) =>
      referencesOf(helper.to).some(({ node }) => fn.holds(node)),
    );
  for (let size = -1; size !== moved.size;) {
    size = moved.size;
    for (const helper of helpers) if (isUsed(helper)) moved.add(helper);
  }
  for (const helper of helpers)
    units.push(own(helper.fn, { helper, isMoved: moved.has(helper), isFlood: flooded(helper) }));
  return [...units, own(effect.fn, { isMoved: false })];
}

/** The function of the effect that a listener names. */
export function helperOf({ handler }: Listener, helpers: readonly Helper[]): Helper | undefined {
  const to = handler.is("identifier") ? declarationAt(handler) : undefined;
  return helpers.find((one) => one.to === to);
}

/** The calls of a function of the effect. */
export const callsOf = ({ to }: Helper): SyntaxNode[] =>
  referencesOf(to).flatMap(({ node }) =>
    node.field === "function" && node.parent?.is("call_expression") ? [node.parent] : [],
  );

/** The unit in which code stands. */
export const unitAround = (node: SyntaxNode, units: readonly Unit[]): Unit =>
  units.filter(({ fn }) => fn.holds(node)).sort((a, b) => b.fn.start - a.fn.start)[0]!;

/** The statement that an expression is all of. */
export const statementOf = (at: SyntaxNode): SyntaxNode | undefined =>
  at.parent?.is("expression_statement") ? at.parent : undefined;

/** Is a cell written in each run of a function that comes to its end? */
function isWrittenBy(cell: Cell, { fn }: Helper, helpers: readonly Helper[], depth = 3): boolean {
  const body = fn.child("body")!;
  if (!body.is("statement_block")) return cell.writes.some(({ at }) => at.same(body));
  const index = body.parts.findIndex((one) => isWrite(one, cell, helpers, depth - 1));
  return index >= 0 && exitsOf(body.parts.slice(0, index)).length === 0;
}

/** Does a statement write the cell, whatever happens? */
export function isWrite(statement: SyntaxNode, cell: Cell, helpers: readonly Helper[], depth = 3): boolean {
  const value = cell.shown?.value;
  if (value && "yes" in value && value.statement.same(statement)) return true;
  const expression = statement.is("expression_statement") ? statement.firstPart : undefined;
  if (!expression) return false;
  if (cell.writes.some(({ at }) => at.same(expression))) return true;
  const helper = helpers.find((one) => callsOf(one).some((call) => call.same(expression)));
  return helper !== undefined && depth > 0 && isWrittenBy(cell, helper, helpers, depth);
}

/** Is another cell written after this place each time, before the function ends? */
export function isFollowedBy(at: SyntaxNode, cell: Cell, helpers: readonly Helper[]): boolean {
  let statement: SyntaxNode | undefined = at;
  while (statement) {
    const { parent }: SyntaxNode = statement;
    if (!parent || parent.is(parent.tree.language.functions)) return false;
    if (parent.is("statement_block")) {
      const rest = parent.parts.filter((one) => one.start >= statement!.end);
      const index = rest.findIndex((one) => isWrite(one, cell, helpers));
      if (index >= 0) return exitsOf(rest.slice(0, index)).length === 0;
      if (exitsOf(rest).length > 0) return false;
    }
    statement = parent;
  }
  return false;
}

/** One thing that a unit does to a cell. */
interface Step {
  readonly at: SyntaxNode;
  readonly does: "read" | "write";
  /** The function that is called for it. */
  readonly by?: Helper;
}

/**
 * The steps of a unit that matter: reads, other than those from which the cell gets its own next value, and writes; also
 * those of the functions that it calls.
 */
export function stepsOf(unit: Unit, cell: Cell, units: readonly Unit[], asked: readonly Unit[] = []): Step[] {
  if (asked.includes(unit)) return [];
  const isHere = (node: SyntaxNode): boolean => unitAround(node, units) === unit;
  const steps: Step[] = cell.writes.filter(({ at }) => isHere(at)).map(({ at }) => ({ at, does: "write" }));
  for (const node of cell.reads)
    if (isHere(node) && !isOwnRead(node, cell)) steps.push({ at: node, does: "read" });
  for (const other of units) {
    if (!other.helper || other === unit) continue;
    const calls = callsOf(other.helper).filter(isHere);
    if (calls.length === 0) continue;
    const does = new Set(stepsOf(other, cell, units, [...asked, unit]).map((one) => one.does));
    for (const call of calls) for (const one of does) steps.push({ at: call, does: one, by: other.helper });
  }
  return steps.sort((a, b) => a.at.start - b.at.start);
}

/** Is the cell read to give it its own next value? */
export const isOwnRead = (node: SyntaxNode, cell: Cell): boolean =>
  cell.writes.some(({ at, value }) => at.holds(node) && typeof value === "object" && value.holds(node));

const LOOPS = ["for_statement", "for_in_statement", "while_statement", "do_statement"];

/**
 * How a unit can read a cell: as it was when the component was rendered, or, behind its only write, by the name of what
 * was written. Throws a NoState where neither is what the old code read.
 */
export function readsOf(unit: Unit, cell: Cell, units: readonly Unit[]): "no" | "rendered" | "written" {
  const steps = stepsOf(unit, cell, units);
  const reads = steps.filter(({ does }) => does === "read");
  const [first] = reads;
  if (!first) return "no";
  const name = cell.wish;
  const fail = (at: SyntaxNode, why: string): never => {
    throw new NoState(at, why);
  };
  const body = unit.fn.child("body")!;
  const later = reads.find(({ at }) => runsLater(at, body));
  if (later) return fail(later.at, `\`${name}\` is read later, when it can have another value than now`);
  if (unit.isFlood)
    return fail(first.at, `\`${name}\` is read for events of which many can come before it is shown`);
  const writes = steps.filter(({ does }) => does === "write");
  const pause = [...body.descendants()].find((node) => node.is(["await_expression", "yield_expression"]));
  const behind = pause && reads.find(({ at }) => at.start > pause.start);
  if (behind) return fail(behind.at, `\`${name}\` is read after a pause, when it can have another value`);
  const looped = reads.find(({ at }) => {
    const loop = at.closest(LOOPS);
    return loop && body.holds(loop) && writes.some((write) => loop.holds(write.at));
  });
  if (looped) return fail(looped.at, `\`${name}\` is read and written in a loop`);
  const [write, ...more] = writes;
  if (!write || reads.every(({ at }) => at.start < write.at.start)) return "rendered";
  const isPlain =
    more.length === 0 &&
    !write.by &&
    unit.isMoved &&
    statementOf(write.at)?.parent?.same(body) &&
    reads.every((one) => !one.by && !write.at.holds(one.at));
  return isPlain ? "written" : fail(reads.at(-1)!.at, `\`${name}\` is read after it was changed`);
}
