import { jumpOf, oncePerNode, type SyntaxNode } from "../../syntax/index.js";
import { no, unknown, yes, type Answer } from "../answer.js";
import { changesOf, referencesOf, type Declaration, type Reference } from "../names/declarations.js";
import { shortened } from "../shown.js";
import { isMember, isSeenElsewhere, usesOf } from "../names/every-use.js";
import { buildFlow } from "./build.js";
import type { FlowGraph, Moment } from "./graph.js";
import { keptBlockAround } from "./kept-block.js";
import { changedUnseen, isChange } from "./left-alone.js";
import { isPassedByValue } from "../names/passed.js";
import { throwsNothing } from "./throws.js";

const graphOf = oncePerNode(buildFlow);

/** The flow of the function around a node, or of the file's own code; worked out once. */
export function flowAround(node: SyntaxNode): FlowGraph {
  const { functions, classes } = node.tree.language;
  let owner = node.tree.root;
  for (let at: SyntaxNode | undefined = node; at; at = at.parent) {
    if (at.is(functions) || (at.is(classes) && !at.same(node))) {
      owner = at;
      break;
    }
  }
  return graphOf(owner);
}

/** Can code that is not in this file get at the variable itself? */
function isOpen(declaration: Declaration): boolean {
  return isMember(declaration) || (declaration.as !== "parameter" && isSeenElsewhere(declaration));
}

/** An answer that only holds if all ways through the function are known. */
function ifComplete(graph: FlowGraph, answer: Answer): Answer {
  if (!graph.gap || answer.is === "no") return answer;
  return unknown(
    "flow.not-followed",
    `\`${shortened(graph.gap.text)}\` jumps to a place that is not followed`,
    graph.gap,
  );
}

/** A name or code through which the value of a variable may be read without naming it. */
function readUnseen(declaration: Declaration): Answer | undefined {
  const { name, scope, at } = declaration;
  const { argumentLists, binding, calls, flow } = scope.tree.language;
  const reference = at.find((one) => binding.isReference(one));
  if (reference)
    return unknown(
      "flow.used-later",
      `\`${name}\` is a reference, and what it refers to can be read elsewhere`,
      reference,
    );
  // What a mere call is given by reference is read before it is over.
  const isLent = (node: SyntaxNode): boolean => {
    const call = node.closest(argumentLists)?.parent;
    return call?.is(calls) === true && !call.is(flow.missing.creations);
  };
  const other = changesOf(declaration).find(
    ({ does, node }) => does === "address" || (does === "passed" && !isPassedByValue(node) && !isLent(node)),
  );
  if (other) return unknown("flow.used-later", `\`${name}\` can be read through a reference`, other.node);
  const [doubt] = usesOf(declaration).doubts;
  return doubt && unknown(doubt.evidence.code, doubt.evidence.says, doubt.evidence);
}

/** Where a declaration is written in functions inside the one it belongs to; anything that is called may run them. */
function writesElsewhere(declaration: Declaration, place: SyntaxNode): Reference | undefined {
  const graph = flowAround(declaration.scope);
  return changesOf(declaration).find(
    ({ does, node }) =>
      isChange(does) &&
      (graph.writesAt(node).length === 0 || keptBlockAround(node, place) !== undefined) &&
      !isDeclaring(declaration, node) &&
      !(does === "passed" && isPassedByValue(node)),
  );
}

function isDeclaring(declaration: Declaration, node: SyntaxNode): boolean {
  return declaration.at.some((at) => at.same(node));
}

/** Is a variable given another value on any way from one place to another? */
export function isWrittenBetween(declaration: Declaration, from: SyntaxNode, to: SyntaxNode): Answer {
  const { name } = declaration;
  const graph = flowAround(from);
  const start = startOf(graph, from);
  const ends = graph.at(to);
  if (start.length === 0 || ends.length === 0)
    return unknown("flow.not-followed", `\`${shortened(to.text)}\` is not reached from here`, to);
  let between: Set<Moment> | undefined;
  let leading: Set<Moment> | undefined;
  const isBetween = (moment: Moment): boolean =>
    (between ??= graph.after(start)).has(moment) && (leading ??= graph.before(ends)).has(moment);
  const changes = changesOf(declaration);
  for (const { does, node } of changes) {
    if (!isChange(does)) continue;
    const moments = graph.writesAt(node).length > 0 ? graph.writesAt(node) : graph.at(node);
    if (!moments.some(isBetween)) continue;
    if (does === "passed" && isPassedByValue(node)) continue;
    if (does === "passed")
      return unknown("flow.written", `\`${name}\` is passed on and may be changed there`, node);
    return does === "address"
      ? unknown("flow.written", `\`${name}\` can be changed through a reference`, node)
      : yes("flow.written", `\`${name}\` is written here`, node);
  }
  if (isOpen(declaration) || !graph.owner.holds(declaration.scope.tree.node(declaration.at[0]!.id)))
    return unknown(
      "flow.written",
      `\`${name}\` can be written from outside this function`,
      declaration.at[0],
    );
  const elsewhere = writesElsewhere(declaration, from);
  if (elsewhere) return unknown("flow.written", `\`${name}\` is written in another function`, elsewhere.node);
  const unseen = changedUnseen(declaration);
  if (unseen) return unseen;
  return ifComplete(graph, no("flow.written", `\`${name}\` is not written in between`));
}

/**
 * The moments at which evaluating a node is over; for code that never ends by itself, those in it; for a function, its
 * beginning.
 */
export function startOf(graph: FlowGraph, node: SyntaxNode): readonly Moment[] {
  if (graph.owner.same(node)) return [graph.entry];
  const done = graph.at(node);
  return done.length > 0 ? done : graph.within(node);
}

/** Has a variable been given a value on every way to a place? */
export function isCertainlyAssigned(declaration: Declaration, at: SyntaxNode): Answer {
  const { name } = declaration;
  if (declaration.as === "parameter")
    return yes("flow.assigned", `\`${name}\` is a parameter`, declaration.at[0]);
  const graph = flowAround(at);
  const writes = new Set(
    changesOf(declaration).flatMap(({ does, node }) =>
      does === "write" || does === "update" ? graph.writesAt(node) : [],
    ),
  );
  if (writes.size === 0)
    return unknown("flow.assigned", `\`${name}\` is given no value in this function`, declaration.at[0]);
  const ends = graph.at(at);
  if (ends.length === 0)
    return unknown("flow.not-followed", `\`${shortened(at.text)}\` is not evaluated in this function`, at);
  const without = graph.after([graph.entry], (moment) => writes.has(moment));
  const open = ends.find((moment) => without.has(moment) && !writes.has(moment));
  if (open) return no("flow.assigned", `\`${name}\` has no value yet on some way to here`, at);
  return ifComplete(graph, yes("flow.assigned", `\`${name}\` has a value on every way to here`, at));
}

/** Does every way on from one place pass another, before the function is left? Exceptions count as ways. */
export function everyWayReaches(from: SyntaxNode, to: SyntaxNode): Answer {
  const graph = flowAround(from);
  const goals = new Set(graph.within(to));
  if (goals.size === 0)
    return unknown("flow.not-followed", `\`${shortened(to.text)}\` is not evaluated in this function`, to);
  const rest = graph.after(startOf(graph, from), (moment) => goals.has(moment));
  if (rest.has(graph.exit))
    return no("flow.every-path", `the function can be left before \`${shortened(to.text)}\``, to);
  if (rest.has(graph.failure)) {
    const thrower = [...rest].find((moment) => moment.thrown && moment.node)?.node;
    return no("flow.every-path", `an exception can get past \`${shortened(to.text)}\``, thrower ?? to);
  }
  return ifComplete(
    graph,
    yes("flow.every-path", `every way from here passes \`${shortened(to.text)}\``, to),
  );
}

/** Can control leave a piece of code other than by its end: by a jump, or by an exception that nothing in it catches? */
export function canLeaveEarly(code: SyntaxNode): Answer {
  const graph = flowAround(code);
  const inside = new Set(graph.within(code));
  const ends = new Set(graph.at(code));
  if (inside.size === 0) return unknown("flow.not-followed", "this code is not followed", code);
  for (const node of code.descendants()) {
    if (!jumpOf(node)) continue;
    for (const moment of graph.at(node)) {
      const gone = moment.next.some((next) => !leadsBack(graph, next, inside, ends));
      if (inside.has(moment) && gone)
        return yes("flow.leaves-early", `\`${shortened(node.text)}\` leaves here`, node);
    }
  }
  return ifComplete(graph, no("flow.leaves-early", "control leaves only at the end", code));
}

/** Does a way come back into the code, or to its end, before it leaves for good? */
function leadsBack(graph: FlowGraph, from: Moment, inside: Set<Moment>, ends: Set<Moment>): boolean {
  if (inside.has(from) || ends.has(from)) return true;
  if (from.node || from.writes.length > 0 || from === graph.exit || from === graph.failure) return false;
  return from.next.some((next) => leadsBack(graph, next, inside, ends));
}

/** Can evaluating this throw an exception that nothing in it catches? */
export function canThrow(code: SyntaxNode): Answer {
  const graph = flowAround(code);
  const { flow, calls } = code.tree.language;
  const inside = new Set(graph.within(code));
  let doubt: SyntaxNode | undefined;
  for (const moment of inside) {
    const { node } = moment;
    if (!node || !moment.thrown || leadsBack(graph, moment.thrown, inside, new Set())) continue;
    if (node.is(flow.mayThrow) && !throwsNothing(node)) doubt ??= node;
  }
  for (const node of code.descendants()) {
    if (jumpOf(node) !== "throw") continue;
    const gone = (moment: Moment): boolean =>
      moment.next.some((next) => !leadsBack(graph, next, inside, new Set()));
    if (graph.at(node).some(gone)) return yes("flow.throws", `\`${shortened(node.text)}\` throws`, node);
  }
  if (doubt) {
    const what = doubt.is(calls) ? "may throw" : "may fail";
    return unknown("flow.throws", `\`${shortened(doubt.text)}\` ${what}`, doubt);
  }
  return no("flow.throws", "nothing here throws", code);
}

/** The moments of a node, else of the nearest code around it that has some: parts of a target are no moments of their own. */
function momentsAround(graph: FlowGraph, node: SyntaxNode): readonly Moment[] {
  const { functions, statementLists } = node.tree.language;
  for (let at: SyntaxNode | undefined = node; at && !at.same(graph.owner); at = at.parent) {
    if (at.is(functions) || at.is(statementLists)) return [];
    const moments = graph.at(at);
    if (moments.length > 0) return moments;
  }
  return [];
}

/** Is the value that a variable has behind a place read afterwards? */
export function isUsedAfter(declaration: Declaration, at: SyntaxNode): Answer {
  const { name } = declaration;
  const graph = flowAround(at);
  const own = referencesOf(declaration);
  const overwritten = new Set(
    own.filter(({ does }) => does === "write").flatMap(({ node }) => graph.writesAt(node)),
  );
  const later = graph.after(startOf(graph, at), (moment) => overwritten.has(moment));
  for (const { node, does } of own) {
    if (does === "write" || does === "declare") continue;
    const moments = momentsAround(graph, node);
    const isLater = moments.some((moment) => later.has(moment));
    if (at.holds(node) && !isLater) continue;
    if (isLater) return yes("flow.used-later", `\`${name}\` is read later`, node);
    if (moments.length === 0 || keptBlockAround(node, at))
      return unknown("flow.used-later", `\`${name}\` is read in a function that may run later`, node);
  }
  if (isOpen(declaration))
    return unknown(
      "flow.used-later",
      `\`${name}\` can be read from outside this function`,
      declaration.at[0],
    );
  const unseen = readUnseen(declaration);
  if (unseen) return unseen;
  return ifComplete(graph, no("flow.used-later", `\`${name}\` is not read later`));
}
