import type { SyntaxNode } from "../../syntax/index.js";
import { literalOf } from "./literals.js";

/** How a value is used: which members are read of it, and what else is done with it. */
export interface Shape {
  readonly members: ReadonlyMap<string, Shape>;
  /** How its items are used, where it is walked. */
  readonly item?: Shape | undefined;
  /** Members that are called. */
  readonly called: ReadonlySet<string>;
  /** Is it called itself? */
  readonly isCalled: boolean;
  /** Is it walked, indexed or measured? */
  readonly isList: boolean;
  /** Are its members read by key, as in `lot["jar"]`? */
  readonly isTable: boolean;
}

export const NO_USE: Shape = {
  members: new Map(),
  called: new Set(),
  isCalled: false,
  isList: false,
  isTable: false,
};

interface Growing extends Shape {
  readonly members: Map<string, Growing>;
  item?: Growing | undefined;
  readonly called: Set<string>;
  isCalled: boolean;
  isList: boolean;
  isTable: boolean;
}

/** Of names for names for a value, how many are followed. */
const MOST_NAMES = 4;
const WALKED = /^(len|sorted|enumerate|zip|list|sum|max|min|set|tuple|any|all)$/;
const WALKERS = /^(map|filter|forEach|some|every|find|findIndex|flatMap|reduce|sort)$/;

/** What a pattern takes out of an object. */
export function patternShape(pattern: SyntaxNode, body: SyntaxNode | undefined): Shape {
  const shape = growing();
  takeApart(pattern, shape, body, 0);
  return shape;
}

/** What is done with a variable in a body, under this name and under those that it is given there. */
export function shapeOf(name: string, body: SyntaxNode): Shape {
  const shape = growing();
  follow(name, body, shape, 0);
  return shape;
}

function growing(): Growing {
  return { members: new Map(), called: new Set(), isCalled: false, isList: false, isTable: false };
}

function memberOf({ members }: Growing, name: string): Growing {
  const known = members.get(name) ?? growing();
  members.set(name, known);
  return known;
}

function itemOf(shape: Growing): Growing {
  shape.isList = true;
  return (shape.item ??= growing());
}

function follow(name: string, body: SyntaxNode, into: Growing, depth: number): void {
  if (depth > MOST_NAMES) return;
  for (const use of body.mentions(name)) {
    let at: SyntaxNode = use;
    let now = into;
    for (let next = read(at, now); next; next = read(at, now)) [at, now] = next;
    endsIn(at, now, body, depth);
  }
}

/** The member that is read of a value, with what is known of it; undefined where none is. */
function read(at: SyntaxNode, now: Growing): [SyntaxNode, Growing] | undefined {
  const { parent, field } = at;
  if (parent?.is(["member_expression", "attribute"]) && field === "object") {
    const member = (parent.child("property") ?? parent.child("attribute"))?.text ?? "";
    if (member === "length") now.isList = true;
    const isCalled = parent.parent?.is(["call_expression", "call"]) === true && parent.field === "function";
    return isCalled ? undefined : [parent, memberOf(now, member)];
  }
  if (parent?.is(["subscript_expression", "subscript"]) && (field === "object" || field === "value")) {
    const index = parent.child("index") ?? parent.child("subscript");
    const key = index && literalOf(index);
    if (key?.is !== "text") return [parent, itemOf(now)];
    now.isTable = true;
    return [parent, memberOf(now, key.of)];
  }
  return undefined;
}

/** What is done with a value in the end. */
function endsIn(at: SyntaxNode, now: Growing, body: SyntaxNode, depth: number): void {
  const { parent, field } = at;
  if (!parent) return;
  if (parent.is(["call_expression", "call"]) && field === "function") now.isCalled = true;
  if (parent.is(["member_expression", "attribute"]) && field === "object") {
    const member = (parent.child("property") ?? parent.child("attribute"))?.text ?? "";
    now.called.add(member);
    const first = parent.parent?.child("arguments")?.firstPart;
    const given = first?.child("parameter") ?? first?.child("parameters")?.parts[member === "reduce" ? 1 : 0];
    if (WALKERS.test(member) && first && given) takeApart(given, itemOf(now), first.child("body"), depth);
  }
  if (parent.is(["spread_element", "list_splat"])) now.isList = true;
  if (parent.is(["for_in_statement", "for_statement", "for_in_clause"]) && field === "right") {
    const left = parent.child("left");
    const inside = parent.is("for_in_clause") ? parent.parent : parent.child("body");
    if (left) takeApart(left, itemOf(now), inside, depth);
  }
  if (parent.is("argument_list") && WALKED.test(parent.parent?.child("function")?.text ?? ""))
    now.isList = true;
  const isGiven =
    (parent.is("variable_declarator") && field === "value") ||
    (parent.is(["assignment", "assignment_expression"]) && field === "right");
  const name = parent.child("name") ?? parent.child("left");
  if (isGiven && name) takeApart(name, now, body, depth);
}

/** A value is given a name, or taken apart into several. */
function takeApart(pattern: SyntaxNode, shape: Growing, body: SyntaxNode | undefined, depth: number): void {
  if (pattern.is(["identifier", "shorthand_property_identifier_pattern"])) {
    if (body) follow(pattern.text, body, shape, depth + 1);
    return;
  }
  if (!pattern.is("object_pattern")) return;
  for (const part of pattern.parts) {
    const key = part.child("key") ?? part.child("left") ?? part;
    takeApart(part.child("value") ?? key, memberOf(shape, key.text), body, depth + 1);
  }
}
