import type { SyntaxNode } from "../../syntax/index.js";
import { no, unknown, yes, type Answer } from "../answer.js";
import { changesOf, referencesAt, referencesOf, type Declaration } from "../names/declarations.js";
import { shortened } from "../shown.js";
import { calledFromLibrary } from "../library/called.js";
import { isPassedByValue } from "../names/passed.js";
import { isMember } from "../names/every-use.js";
import { assignmentOf, valueOf } from "./assignment.js";
import type { FlowGraph, Moment } from "./graph.js";
import { isMissing } from "./missing.js";
import { flowAround } from "./questions.js";
import { type Said, saidByTest, refersTo } from "./said.js";
import { outermostLoop } from "./loops.js";

/**
 * Can a variable be missing (null, nil, None, undefined) where it is read? No where every way to here passes a test
 * or an assignment after which it is there; yes where some way passes one after which it is not.
 */
export function canBeMissingHere(name: SyntaxNode): Answer {
  const to = referencesAt(name).find((reference) => !reference.member)?.to;
  if (!to || isMember(to))
    return unknown("flow.missing", `\`${shortened(name.text)}\` is not a local variable`, name);
  if (!saysAnythingBefore(to, name))
    return unknown("flow.missing", `nothing on some way to here says that \`${name.text}\` is there`, name);
  const graph = flowAround(name);
  if (!graph.owner.holds(to.at[0]!))
    return unknown("flow.missing", `\`${name.text}\` belongs to another function`, to.at[0]);
  const ends = graph.at(name);
  if (ends.length === 0) return unknown("flow.missing", `\`${name.text}\` is not evaluated here`, name);
  let earlier: Set<Moment> | undefined;
  const isPassedBefore = (node: SyntaxNode): boolean =>
    graph.at(node).some((moment) => (earlier ??= graph.before(ends)).has(moment));
  const elsewhere = changesOf(to).find(({ does, node }) =>
    does === "passed"
      ? isPassedBefore(node) && !isPassedByValue(node)
      : does === "address" || graph.writesAt(node).length === 0,
  );
  if (elsewhere) return unknown("flow.missing", `\`${name.text}\` can be changed elsewhere`, elsewhere.node);
  const { missing, isOpen, present: test } = stateBefore(ends, to, graph);
  if (missing) return yes("flow.missing", `\`${name.text}\` is missing on a way to here`, missing);
  if (isOpen || !test)
    return unknown("flow.missing", `nothing on some way to here says that \`${name.text}\` is there`, name);
  if (graph.gap)
    return unknown(
      "flow.not-followed",
      `\`${shortened(graph.gap.text)}\` jumps to a place that is not followed`,
      graph.gap,
    );
  return no("flow.missing", `\`${name.text}\` is there after \`${shortened(test.text)}\``, test);
}

/** Does a variable stand anywhere that may be passed on the way to one of its uses? Where not, its flow says nothing. */
function saysAnythingBefore(to: Declaration, name: SyntaxNode): boolean {
  const isParameter = to.as === "parameter";
  const uses = referencesOf(to);
  const first = uses.findIndex(({ does, node }) => !(isParameter && does === "declare") && !node.same(name));
  if (first < 0) return false;
  if (uses[first]!.node.start < name.start) return true;
  return outermostLoop(name, to.scope)?.holds(uses[first]!.node) === true;
}

/** What is known of a variable when a moment is over: what the ways to there say last. */
interface State {
  /** Some way says nothing. */
  readonly isOpen: boolean;
  /** What says last that it is missing, on some way; the last of the file. */
  readonly missing: SyntaxNode | undefined;
  /** The same for what says that it is there. */
  readonly present: SyntaxNode | undefined;
}

const NOTHING: State = { isOpen: false, missing: undefined, present: undefined };

const OPEN: State = { ...NOTHING, isOpen: true };

/** So many moments are looked at backwards before all of a function is worked out once. */
const MOST_STEPS = 200;

/** What is known of a variable when one of some moments begins: mostly what stands close before says it. */
function stateBefore(ends: readonly Moment[], to: Declaration, graph: FlowGraph): State {
  const near = nodesAround(to);
  const known = states.get(graph)?.get(to);
  const found: State[] = [];
  const seen = new Set<Moment>();
  const waiting = ends.flatMap((end) => graph.comingTo(end));
  for (let at = waiting.pop(); at && !known; at = waiting.pop()) {
    if (seen.has(at)) continue;
    if (seen.size > MOST_STEPS) break;
    seen.add(at);
    const said = saidAt(at, to, graph, near);
    if (said) found.push(said);
    else waiting.push(...graph.comingTo(at));
  }
  if (!known && seen.size <= MOST_STEPS) return merged(found);
  const state = known ?? statesOf(to, graph, near);
  return merged(ends.flatMap((end) => graph.comingTo(end)).map((before) => state.get(before) ?? NOTHING));
}

const states = new WeakMap<FlowGraph, Map<Declaration, ReadonlyMap<Moment, State>>>();

/** What is known of a variable after each moment of a function, worked out once for all of them by a forward data flow. */
function statesOf(to: Declaration, graph: FlowGraph, near: ReadonlySet<number>): ReadonlyMap<Moment, State> {
  let known = states.get(graph);
  if (!known) states.set(graph, (known = new Map()));
  let found = known.get(to);
  if (!found) known.set(to, (found = flowOf(to, graph, near)));
  return found;
}

function flowOf(to: Declaration, graph: FlowGraph, near: ReadonlySet<number>): Map<Moment, State> {
  const result = new Map<Moment, State>();
  const said = graph.moments.map((moment) => saidAt(moment, to, graph, near));
  // Moments are numbered in the order of the code, so that few rounds are needed.
  for (let isSettled = false; !isSettled;) {
    isSettled = true;
    for (const [i, moment] of graph.moments.entries()) {
      const old = result.get(moment);
      if (old && said[i]) continue;
      const now = said[i] ?? merged(graph.comingTo(moment).map((before) => result.get(before) ?? NOTHING));
      if (old && isSame(old, now)) continue;
      result.set(moment, now);
      isSettled = false;
    }
  }
  return result;
}

const around = new WeakMap<Declaration, ReadonlySet<number>>();

/** The uses of a variable, and all that they stand in: no other code says anything of it. */
function nodesAround(to: Declaration): ReadonlySet<number> {
  const known = around.get(to);
  if (known) return known;
  const result = new Set<number>();
  around.set(to, result);
  for (const { node } of referencesOf(to))
    for (let at: SyntaxNode | undefined = node; at && !result.has(at.id); at = at.parent) result.add(at.id);
  return result;
}

/** What a moment says of a variable, of which `near` are the uses with all that they stand in. */
function saidAt(
  moment: Moment,
  to: Declaration,
  graph: FlowGraph,
  near: ReadonlySet<number>,
): State | undefined {
  const { node, outcome, writes } = moment;
  const speaks =
    (outcome !== undefined && near.has(outcome.test.id)) ||
    (node !== undefined && near.has(node.id)) ||
    writes.some((write) => near.has(write.id));
  if (speaks) return stateSaid(moment, to, graph);
  return moment === graph.entry ? OPEN : undefined;
}

function stateSaid(moment: Moment, to: Declaration, graph: FlowGraph): State | undefined {
  const { is, by } = saidBy(moment, to, graph);
  if (is === "present") return { ...NOTHING, present: by };
  if (is === "missing") return { ...NOTHING, missing: by ?? to.at[0] };
  return is === "anything" || moment === graph.entry ? OPEN : undefined;
}

function merged(all: readonly State[]): State {
  return all.reduce(
    (sum, one) => ({
      isOpen: sum.isOpen || one.isOpen,
      missing: later(sum.missing, one.missing),
      present: later(sum.present, one.present),
    }),
    NOTHING,
  );
}

function isSame(a: State, b: State): boolean {
  return a.isOpen === b.isOpen && a.missing?.id === b.missing?.id && a.present?.id === b.present?.id;
}

function later(a: SyntaxNode | undefined, b: SyntaxNode | undefined): SyntaxNode | undefined {
  return !a || (b && b.start > a.start) ? b : a;
}

function saidBy(moment: Moment, to: Declaration, graph: FlowGraph): { is: Said; by?: SyntaxNode } {
  if (moment.outcome) {
    const is = saidByTest(moment.outcome, to);
    return is === undefined ? { is } : { is, by: moment.outcome.test };
  }
  const write = moment.writes.find((name) => refersTo(name, to));
  if (write) return saidByWrite(write, graph);
  const { node } = moment;
  if (node && readsMemberOf(node, to)) return { is: "present", by: node };
  return { is: undefined };
}

function saidByWrite(name: SyntaxNode, graph: FlowGraph): { is: Said; by?: SyntaxNode } {
  const holder = assignmentOf(name);
  const value = holder && graph.owner.holds(holder) ? valueOf(holder) : undefined;
  if (!holder || !value || isTakenApart(name, holder)) return { is: "anything" };
  if (isMissing(value)) return { is: "missing", by: holder };
  return isCreation(value) || givesSomething(value) ? { is: "present", by: holder } : { is: "anything" };
}

/** Is the name one of several that a value is taken apart into? */
function isTakenApart(name: SyntaxNode, holder: SyntaxNode): boolean {
  for (const above of name.ancestors()) {
    if (above.same(holder)) return false;
    if (above.is(above.tree.language.takesApart)) return true;
  }
  return false;
}

/** A call of the library that always gives something. */
export function givesSomething(value: SyntaxNode): boolean {
  const { parenthesized } = value.tree.language;
  if (value.is(parenthesized) && value.firstPart) return givesSomething(value.firstPart);
  const row = calledFromLibrary(value);
  return row?.gives !== undefined && row.orMissing !== true && row.orFalse !== true;
}

export function isCreation(value: SyntaxNode): boolean {
  const { flow, parenthesized, types } = value.tree.language;
  if (value.is(parenthesized) && value.firstPart) return isCreation(value.firstPart);
  // `Hive.new` is a call like any other in Ruby.
  const makes = value.child("method")?.text === types.maker && value.child("receiver") !== undefined;
  return makes || value.is(flow.missing.creations);
}

/** `hive.weight` has been read, so `hive` was there. */
function readsMemberOf(node: SyntaxNode, to: Declaration): boolean {
  const { language } = node.tree;
  const { missing, chainBreaks } = language.flow;
  if (!missing.readsThrow || !node.is(language.memberReads)) return false;
  if (node.children.some((child) => chainBreaks.includes(child.kind))) return false;
  const object = node.firstPart;
  // Python's None has members such as `__class__` too.
  const member = node.lastPart?.text ?? "";
  return object !== undefined && !/^__\w+__$/.test(member) && refersTo(object, to);
}
