import { exitsOf, referencesOf, runsLater, type SyntaxNode } from "../../../core.js";
import {
  cellOf,
  changedInPlace,
  expressionsIn,
  isBranch,
  isShownAtFirst,
  shownCells,
  sourcesOf,
  type Cell,
  type Shown,
} from "./cells.js";
import { EVENT_MEMBERS } from "./events.js";
import { NoState } from "./no-state.js";
import { effectOf, effectStatements, markupOf } from "./react.js";
import {
  declarationAt,
  partsOf,
  type EffectParts,
  type Helper,
  type Listener,
  type Local,
  type LookedUp,
} from "./reader.js";
import { isFollowedBy, isWrite, unitAround, unitsOf, type Unit } from "./units.js";
import { isSteady } from "./values.js";

/** What becomes of a component whose effects work on the document. */
export interface Plan {
  readonly component: SyntaxNode;
  readonly markup: SyntaxNode;
  readonly parts: readonly EffectParts[];
  readonly units: readonly Unit[];
  /** Cells that become state, in the order in which the file has them. */
  readonly states: readonly Cell[];
  /** What of an element follows from state; its cell is needed no longer. */
  readonly derived: readonly Cell[];
  /** Branches of which nothing is left. */
  readonly emptied: readonly SyntaxNode[];
  /** Constants that move out of an effect with the code that needs them. */
  readonly constants: readonly Local[];
  /** Elements that code still needs. */
  readonly kept: readonly LookedUp[];
  /** Values that the new code reads as they are, and the old code as they were at first. */
  readonly fresher: readonly SyntaxNode[];
}

/** Works out what becomes of a component. Throws a NoState where something is not understood. */
export function planOf(component: SyntaxNode): Plan {
  const statements = effectStatements(component);
  const markup = markupOf(component);
  if (!markup) throw new NoState(component, "the component does not give its markup in one place");
  const body = component.child("body")!;
  const [early] = exitsOf(body.parts.slice(0, -1));
  if (early) throw new NoState(early, "the component does not always give this markup");
  const parts = statements.map((one) => partsOf(effectOf(one), component));
  if (parts.every(({ lookedUp }) => lookedUp.length === 0))
    throw new NoState(statements[0]!, "no element of this component is looked up");
  const units = parts.flatMap(unitsOf);
  parts.forEach(checkEnd);
  parts.forEach(checkListeners);
  parts.forEach(checkOtherUses);
  checkCalls(units);
  const locals = parts.flatMap((one) => one.locals);
  const isWritten = ({ to, name }: Local): boolean =>
    referencesOf(to).some(({ node, does }) => does !== "read" && !node.same(name));
  const variables = locals.filter(isWritten).map(cellOf);
  const shown = shownCells(parts);
  const fixed = locals.filter((one) => !isWritten(one));
  const derived = shown.filter((one) => isDerived(one, variables, fixed, parts, units));
  const own = shown.filter((one) => !derived.includes(one));
  const sources = derived.flatMap((one) => sourcesIn(one.shown!, variables, fixed, parts) ?? []);
  const isMoved = (node: SyntaxNode): boolean => unitAround(node, units).isMoved;
  const needed = variables.filter(
    (cell) => sources.includes(cell) || [...cell.reads, ...cell.writes.map(({ at }) => at)].some(isMoved),
  );
  for (const cell of needed) {
    const changed = changedInPlace(cell);
    if (changed) throw new NoState(changed, `\`${cell.wish}\` is changed in place`);
  }
  const emptied = emptiedBy(derived);
  const isGone = (node: SyntaxNode): boolean =>
    emptied.some((one) => one.holds(node)) ||
    derived.some(({ writes }) => writes.some(({ at }) => at.holds(node)));
  const states = [...needed, ...own]
    .filter(({ writes }) => writes.length > 0)
    .map((cell) => ({ ...cell, reads: cell.reads.filter((node) => !isGone(node)) }));
  const constants = constantsFor(fixed, derived, units);
  checkReach(parts, units, [...states.flatMap(({ local }) => local ?? []), ...constants]);
  const kept = parts.flatMap(({ lookedUp }) =>
    lookedUp.filter(({ uses }) => uses.some((use) => use.is === "other")),
  );
  const isDone = states.length + derived.length > 0 || parts.some(({ listeners }) => listeners.length > 0);
  if (!isDone)
    throw new NoState(statements[0]!, "what the effect does with its elements cannot be said by state");
  return {
    component,
    markup,
    parts,
    units,
    states,
    derived,
    emptied,
    constants,
    kept,
    fresher: fresherIn(parts, units, component),
  };
}

/** Is a constant the same each time that it is made? */
const isMovable = ({ first }: Local): boolean =>
  first !== undefined &&
  isSteady(first) &&
  [...first.descendants()].every((node) => !node.is(["array", "object", "regex"]));

/** Branches that set nothing but what follows from state. */
function emptiedBy(derived: readonly Cell[]): SyntaxNode[] {
  const gone = derived.flatMap(({ writes }) => writes.map(({ at }) => at));
  const isGone = (statement: SyntaxNode): boolean =>
    statement.is("expression_statement") && gone.some((at) => at.same(statement.firstPart));
  return derived.flatMap(({ shown }) => {
    const value = shown!.value!;
    if (!isBranch(value)) return [];
    const ways = [value.statement.child("consequence")!, value.statement.child("alternative")!.firstPart!];
    const statements = ways.flatMap((way) => (way.is("statement_block") ? way.parts : [way]));
    return statements.every(isGone) ? [value.statement] : [];
  });
}

const movable = (fixed: readonly Local[], node: SyntaxNode): boolean => {
  const to = declarationAt(node);
  return fixed.some((one) => one.to === to && isMovable(one));
};

function sourcesIn(
  { value }: Shown,
  variables: readonly Cell[],
  fixed: readonly Local[],
  parts: readonly EffectParts[],
): Cell[] | undefined {
  const [first] = expressionsIn(value!);
  const around = parts.find(({ effect }) => effect.body.holds(first!));
  return sourcesOf(value!, variables, around!.effect.body, (node) => movable(fixed, node));
}

/** Does what is shown follow from variables, at first and each time that they change? */
function isDerived(
  cell: Cell,
  variables: readonly Cell[],
  fixed: readonly Local[],
  parts: readonly EffectParts[],
  units: readonly Unit[],
): boolean {
  const shown = cell.shown!;
  if (!shown.value) return false;
  const sources = sourcesIn(shown, variables, fixed, parts);
  if (!sources || sources.some((one) => changedInPlace(one))) return false;
  // What no state changes is not shown anew.
  const isSetLater = cell.writes.some(
    ({ at }) => unitAround(at, units).isMoved || runsLater(at, unitAround(at, units).fn.child("body")!),
  );
  if (isSetLater && sources.length === 0) return false;
  const isSetFirst = parts.some(({ statements, helpers }) =>
    statements.some((one) => isWrite(one, cell, helpers)),
  );
  if (!isSetFirst && !isShownAtFirst(shown, variables)) return false;
  const helpersAt = (node: SyntaxNode): readonly Helper[] => unitAround(node, units).parts.helpers;
  return sources.every(({ writes }) => writes.every(({ at }) => isFollowedBy(at, cell, helpersAt(at))));
}

/** The constants that moved code and shown values need. Throws a NoState for one that would be another value there. */
function constantsFor(fixed: readonly Local[], derived: readonly Cell[], units: readonly Unit[]): Local[] {
  const values = derived.flatMap(({ shown }) => expressionsIn(shown!.value!));
  const needed = new Set<Local>();
  const isNeeded = ({ to }: Local): boolean =>
    referencesOf(to).some(
      ({ node }) =>
        unitAround(node, units).isMoved ||
        values.some((value) => value.holds(node)) ||
        [...needed].some(({ first }) => first?.holds(node)),
    );
  for (let size = -1; size !== needed.size;) {
    size = needed.size;
    for (const one of fixed) if (isNeeded(one)) needed.add(one);
  }
  const unsteady = [...needed].find((one) => !isMovable(one));
  if (unsteady)
    throw new NoState(
      unsteady.name,
      `\`${unsteady.name.text}\` is made when the component is in the document, and listeners use it`,
    );
  return fixed.filter((one) => needed.has(one));
}

/** What reads of an element, or does with it, leave what it shows as it is. */
const HARMLESS =
  /^(value|checked|files|selectedIndex|selectedOptions|options|focus|blur|select|click|play|pause|load|getContext|getBoundingClientRect|scrollIntoView|scrollTo|contains|matches|closest|(offset|client|scroll)(Width|Height|Top|Left)|tagName|dataset|form|checkValidity|reportValidity|setSelectionRange|width|height|tabIndex|name|type)$/;

/** An element of which React shows something must not be changed behind its back. */
function checkOtherUses({ lookedUp }: EffectParts): void {
  for (const { element, uses } of lookedUp) {
    const isShown = lookedUp.some(
      (one) => one.element.id === element.id && one.uses.some(({ is }) => is === "sets"),
    );
    if (!isShown) continue;
    for (const use of uses) {
      if (use.is !== "other") continue;
      const { parent } = use.at;
      const around = parent?.is("non_null_expression") ? parent.parent : parent;
      const member = around?.is("member_expression") ? around.child("property")!.text : "";
      if (!HARMLESS.test(member))
        throw new NoState(use.at, `the element \`${element.id}\` may be changed in another way as well`);
    }
  }
}

/** What moves out of an effect happened only where the effect came to it. */
function checkEnd({ statements, cleanup, gone }: EffectParts): void {
  const [exit] = exitsOf(
    statements.filter((one) => !one.same(cleanup) && !gone.some((other) => other.same(one))),
  );
  if (exit) throw new NoState(exit, "the effect may end before all of it is done");
}

function checkListeners({ effect, listeners, helpers }: EffectParts): void {
  const known = new Set<string>();
  for (const one of listeners) {
    const key = `${one.element.id} ${one.prop}`;
    if (known.has(key)) throw new NoState(one.at, `the element has two listeners for \`${one.event}\``);
    known.add(key);
    const to = one.handler.is("identifier") ? declarationAt(one.handler) : undefined;
    const helper = helpers.find((known) => known.to === to);
    if (!helper && to?.at.some((at) => effect.body.holds(at)))
      throw new NoState(
        one.handler,
        `\`${one.handler.text}\` is made in the effect, and cannot move out of it`,
      );
    const fn = helper?.fn ?? one.handler;
    if (fn.child("body")) checkListener(one, fn);
    else if (!one.handler.is("identifier")) throw new NoState(one.handler, "what is called is worked out");
  }
}

/** What a listener does with its event must be the same with an event of React. */
function checkListener({ isProperty }: Listener, fn: SyntaxNode): void {
  const own = [...fn.descendants()].find((node) => node.is("this") || node.text === "arguments");
  if (own) throw new NoState(own, `\`${own.text}\` is that of the listener`);
  if (fn.has("*") || fn.is("generator_function")) throw new NoState(fn, "the listener is a generator");
  const body = fn.child("body")!;
  const given =
    isProperty && !fn.has("async") && body.is("statement_block")
      ? exitsOf(body.parts).find((node) => node.is("return_statement") && node.parts.length > 0)
      : undefined;
  if (given) throw new NoState(given, "what the listener gives decides whether the event goes on");
  const event = eventOf(fn);
  if (event && !event.is("identifier")) throw new NoState(event, "the event is taken apart");
  const to = event && declarationAt(event);
  for (const { node } of to ? referencesOf(to) : []) {
    if (node.same(event)) continue;
    const member =
      node.parent?.is("member_expression") && node.field === "object"
        ? node.parent.child("property")!.text
        : "";
    if (!EVENT_MEMBERS.has(member))
      throw new NoState(
        node,
        "the event is used for something that events of React do not have, or that is not known",
      );
  }
}

/** The parameter that gets the event. */
export function eventOf(fn: SyntaxNode): SyntaxNode | undefined {
  const first = fn.child("parameter") ?? fn.child("parameters")?.firstPart;
  return first?.child("pattern") ?? first;
}

/** Code that moves can name what moves with it, and elements; nothing else of the effect. */
function checkReach(parts: readonly EffectParts[], units: readonly Unit[], moved: readonly Local[]): void {
  const known = new Set([
    ...moved.map(({ to }) => to),
    ...parts.flatMap(({ helpers, lookedUp }) => [
      ...helpers.map(({ to }) => to),
      ...lookedUp.flatMap(({ name }) => (name ? declarationAt(name)! : [])),
    ]),
  ]);
  for (const { fn, parts: own, isMoved } of units) {
    if (!isMoved) continue;
    for (const node of fn.descendants()) {
      if (!node.is(["identifier", "shorthand_property_identifier"])) continue;
      const to = declarationAt(node);
      const isOfEffect = to?.at.some((at) => own.effect.body.holds(at) && !fn.holds(at));
      if (to && isOfEffect && !known.has(to))
        throw new NoState(node, `\`${node.text}\` is declared in the effect, and cannot move out of it`);
    }
  }
}

/** A function of the effect is only called, or listens. */
function checkCalls(units: readonly Unit[]): void {
  for (const { helper, parts, isMoved } of units) {
    if (!helper || !isMoved) continue;
    for (const { node } of referencesOf(helper.to)) {
      if (node.same(helper.name)) continue;
      const isCalled = node.parent?.is("call_expression") && node.field === "function";
      const isGone = [...parts.gone].some((one) => one.holds(node));
      if (!isCalled && !isGone)
        throw new NoState(node, `\`${helper.name.text}\` is kept by something else than a listener`);
    }
  }
}

/** Names of the component's own that moved code reads anew at each event. */
function fresherIn(
  parts: readonly EffectParts[],
  units: readonly Unit[],
  component: SyntaxNode,
): SyntaxNode[] {
  return parts.flatMap(({ effect }) =>
    [...effect.body.descendants()].filter((node) => {
      if (!node.is("identifier") || !unitAround(node, units).isMoved) return false;
      const to = declarationAt(node);
      return to?.at.some((at) => component.holds(at) && !effect.statement.holds(at)) === true;
    }),
  );
}
