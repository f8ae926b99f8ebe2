import type { SyntaxNode } from "../../syntax/index.js";
import { referencesAt, type Declaration } from "../names/declarations.js";
import type { Outcome } from "./graph.js";
import { isMissing } from "./missing.js";

/** What a moment says about the value of a variable. */
export type Said = "present" | "missing" | "anything" | undefined;

/** Is this expression the variable itself? */
export function refersTo(name: SyntaxNode, to: Declaration): boolean {
  const { leaves } = name.tree.language.binding;
  let at = name;
  // `$x` is a node with the name in it.
  while (!at.isLeaf && at.parts.length === 1 && leaves[at.kind] === undefined) at = at.firstPart!;
  return (
    leaves[at.kind] !== undefined &&
    referencesAt(at).some((reference) => !reference.member && reference.to === to)
  );
}

const OTHER: Readonly<Record<"present" | "missing", Said>> = { present: "missing", missing: "present" };

/** What the outcome of a test says about a variable. */
export function saidByTest({ test, was }: Outcome, to: Declaration): Said {
  if (was === "present" || was === "missing") return refersTo(test, to) ? was : undefined;
  const { language } = test.tree;
  const { missing } = language.flow;
  const isTrue = was === "true";
  const target = assignedIn(test);
  if (missing.truthIsPresence && refersTo(target ?? test, to)) return isTrue ? "present" : undefined;
  const sides = test.parts.filter((part) => !part.is(language.operators));
  const [left, right] = sides;
  if (left && right && sides.length === 2) {
    const operator = test.tree.text.slice(left.end, right.start).trim().replace(/\s+/g, " ").toLowerCase();
    const other = isMissing(right) ? left : isMissing(left) ? right : undefined;
    if (other && refersTo(assignedIn(other) ?? other, to)) {
      if (missing.equal.includes(operator)) return isTrue ? "missing" : "present";
      if (missing.unequal.includes(operator)) return isTrue ? "present" : "missing";
    }
    if (refersTo(left, to) && (missing.typeTests.includes(operator) || test.is(missing.patterns.tests))) {
      return saidByTypeTest(test, right, isTrue);
    }
  }
  return saidByCall(test, to, isTrue);
}

function saidByTypeTest(test: SyntaxNode, pattern: SyntaxNode, isTrue: boolean): Said {
  const { negated, constants, open } = pattern.tree.language.flow.missing.patterns;
  const isNegated = pattern.is(negated);
  const inner = isNegated ? pattern.firstPart : pattern;
  const constant = inner?.is(constants) ? inner.firstPart : inner;
  if (constant && isMissing(constant)) return isTrue === isNegated ? "present" : "missing";
  if (isNegated || inner?.is(open)) return undefined;
  return isTrue ? "present" : undefined;
}

/** The question that a call or a member read asks of a variable alone: `nil?` of `x.nil?`, `isset` of `isset($x)`. */
export function questionOf(test: SyntaxNode, to: Declaration): string | undefined {
  const { memberReads, calls } = test.tree.language;
  if (test.is(memberReads) && !test.is(calls)) {
    const object = test.firstPart;
    return object && refersTo(object, to) ? test.lastPart?.text : undefined;
  }
  const { word, subject } = askedOf(test);
  if (subject && refersTo(subject, to)) return word;
  // `file.isOpen()`, where the grammar has no node for what is called.
  const object = test.is(calls) ? test.child("object") : undefined;
  if (object && refersTo(object, to)) return test.child("name")?.text;
  const [callee] = test.is(calls) ? test.parts : [];
  return callee?.is(memberReads) === true ? questionOf(callee, to) : undefined;
}

/** The question that a call asks, and of what: `x.nil?`, `isset($x)`. */
function askedOf(test: SyntaxNode): {
  word: string;
  subject: SyntaxNode | undefined;
  list: SyntaxNode | undefined;
} {
  const { language } = test.tree;
  if (!test.is(language.calls)) return { word: "", subject: undefined, list: undefined };
  const list = test.parts.find((part) => part.is(language.argumentLists));
  const callee = test.text.slice(0, (list?.start ?? test.end) - test.start).trim();
  const receiver = test.child("receiver");
  return receiver
    ? { word: test.child("method")?.text ?? "", subject: receiver, list }
    : { word: callee, subject: list?.firstPart, list };
}

/** `isset($x)`, `Objects.isNull(x)`, `x.nil?`. */
function saidByCall(test: SyntaxNode, to: Declaration, isTrue: boolean): Said {
  const { missing } = test.tree.language.flow;
  const { word, subject, list } = askedOf(test);
  if (!subject || !refersTo(subject, to)) return undefined;
  // `isinstance(x, (str, type(None)))` is true for None as well.
  if (list?.parts.some((part) => !part.same(subject) && isMissingNamed(part))) return undefined;
  if (missing.present.includes(word)) return isTrue ? "present" : undefined;
  if (missing.missing.includes(word)) return isTrue ? undefined : OTHER["missing"];
  return undefined;
}

/** Does code speak of what is missing, such as its type? */
function isMissingNamed(part: SyntaxNode): boolean {
  return [...part.descendants()].some((node) => node.isLeaf && isMissing(node));
}

/** The variable that a test assigns: `if (hive = find())`. */
function assignedIn(test: SyntaxNode): SyntaxNode | undefined {
  const { flow, parenthesized } = test.tree.language;
  const inner = test.is(parenthesized) && test.parts.length === 1 ? test.firstPart! : test;
  const table = flow.assignments[inner.kind];
  return table && inner.child(table.target);
}
