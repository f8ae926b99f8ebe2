import { plainText } from "./markup.js";
import type { SyntaxNode } from "../../../core.js";

/** Something of an element that the document shows: its text, an attribute, a class, a property of its style. */
export interface Aspect {
  readonly is: "text" | "attribute" | "classes" | "class" | "style";
  /** The attribute, class or property; empty where there is only one. */
  readonly name: string;
  /** Is it there or not, rather than a text? */
  readonly isSwitch: boolean;
}

/** What code does with an element. */
export type ElementUse =
  | {
      readonly is: "listens" | "stops";
      readonly event: string;
      readonly handler: SyntaxNode;
      readonly element: SyntaxNode;
      readonly at: SyntaxNode;
    }
  | { readonly is: "sets"; readonly aspect: Aspect; readonly value: Value; readonly at: SyntaxNode }
  | { readonly is: "reads"; readonly aspect: Aspect; readonly at: SyntaxNode }
  | { readonly is: "tested"; readonly at: SyntaxNode }
  | { readonly is: "other"; readonly at: SyntaxNode };

/** What an aspect is set to: an expression, on or off, or the contrary of what it was. */
export type Value = SyntaxNode | boolean | "contrary";

const text: Aspect = { is: "text", name: "", isSwitch: false };
const attribute = (name: string): Aspect => ({ is: "attribute", name, isSwitch: false });
const toggled = (name: string): Aspect => ({ is: "attribute", name, isSwitch: true });

/** Properties of an element, and what they set in its markup. */
const PROPERTIES: Readonly<Record<string, Aspect>> = {
  textContent: text,
  innerText: text,
  className: { is: "classes", name: "", isSwitch: false },
  disabled: toggled("disabled"),
  hidden: toggled("hidden"),
  title: attribute("title"),
  href: attribute("href"),
  src: attribute("src"),
  alt: attribute("alt"),
  placeholder: attribute("placeholder"),
};

/** Attributes that are set by a call and stand in the markup under the same name. */
const BY_CALL = /^(aria-[a-z]+|data-[a-z-]+|title|href|src|alt|role|placeholder)$/;
const SWITCHED = /^(disabled|hidden)$/;

/** The expression without what says of which type it is, or that it is there. */
export function bare(node: SyntaxNode): SyntaxNode {
  const inside = node.is([
    "as_expression",
    "non_null_expression",
    "parenthesized_expression",
    "satisfies_expression",
  ])
    ? node.firstPart
    : undefined;
  return inside ? bare(inside) : node;
}

function outer(node: SyntaxNode): SyntaxNode {
  const { parent } = node;
  return parent?.is(["as_expression", "non_null_expression", "parenthesized_expression"])
    ? outer(parent)
    : node;
}

/** What is done with an element where this expression stands for it. */
export function useOfElement(node: SyntaxNode): ElementUse {
  const whole = outer(node);
  const member = whole.parent;
  const other: ElementUse = { is: "other", at: node };
  if (isTested(whole)) return { is: "tested", at: whole };
  if (!member?.is("member_expression") || whole.field !== "object") return other;
  const name = member.child("property")!.text;
  const { parent, field } = member;
  if (parent?.is("call_expression") && field === "function") return useOfCall(name, parent, node) ?? other;
  const listened = /^on([a-z]+)$/.exec(name)?.[1];
  const isTarget = parent?.is("assignment_expression") === true && field === "left";
  if (listened !== undefined && isTarget) {
    const handler = parent.child("right")!;
    const is = handler.is("null") ? "stops" : "listens";
    return { is, event: listened, handler, element: node, at: parent };
  }
  if (name === "classList" || name === "style") return useOfPart(name, member) ?? other;
  const aspect = PROPERTIES[name];
  return aspect ? (useOfAspect(aspect, member) ?? other) : other;
}

function useOfAspect(aspect: Aspect, member: SyntaxNode): ElementUse | undefined {
  const { parent, field } = member;
  if (parent?.is("assignment_expression") && field === "left")
    return { is: "sets", aspect, value: parent.child("right")!, at: parent };
  const isChanged = parent?.is(["augmented_assignment_expression", "update_expression"]) && field !== "right";
  return isChanged ? undefined : { is: "reads", aspect, at: member };
}

/** `classList.toggle("full", on)`, `style.display = "none"`. */
function useOfPart(part: string, member: SyntaxNode): ElementUse | undefined {
  const next = member.parent;
  if (!next?.is("member_expression")) return undefined;
  const name = next.child("property")!.text;
  if (part === "style") {
    const isTarget = next.parent?.is("assignment_expression") && next.field === "left";
    return isTarget ? useOfAspect({ is: "style", name, isSwitch: false }, next) : undefined;
  }
  const call = next.parent?.is("call_expression") && next.field === "function" ? next.parent : undefined;
  const [given, on, ...more] = call?.child("arguments")?.parts ?? [];
  const word = plainText(given);
  if (!call || word === undefined || !/^[\w-]+$/.test(word) || more.length > 0) return undefined;
  const aspect: Aspect = { is: "class", name: word, isSwitch: true };
  if (name === "contains" && !on) return { is: "reads", aspect, at: call };
  if (name === "toggle") return { is: "sets", aspect, value: on ?? "contrary", at: call };
  return (name === "add" || name === "remove") && !on
    ? { is: "sets", aspect, value: name === "add", at: call }
    : undefined;
}

function useOfCall(method: string, call: SyntaxNode, element: SyntaxNode): ElementUse | undefined {
  const [first, second, ...more] = call.child("arguments")?.parts ?? [];
  const name = plainText(first);
  if (name === undefined || more.length > 0) return undefined;
  if (method === "addEventListener" && second)
    return { is: "listens", event: name, handler: second, element, at: call };
  if (method === "removeEventListener" && second)
    return { is: "stops", event: name, handler: second, element, at: call };
  const isOff = method === "removeAttribute" && !second;
  if (SWITCHED.test(name) && (isOff || (method === "setAttribute" && second?.is("string"))))
    return { is: "sets", aspect: toggled(name), value: !isOff, at: call };
  return method === "setAttribute" && second && BY_CALL.test(name)
    ? { is: "sets", aspect: attribute(name), value: second, at: call }
    : undefined;
}

/** Is it only asked whether the element is there, to leave where it is not? */
function isTested(node: SyntaxNode): boolean {
  return testAround(node) !== undefined;
}

const MISSING = ["null", "undefined"];

/** The statement that leaves where an element is not there: `if (!label || !button) return;`. */
export function testAround(node: SyntaxNode): SyntaxNode | undefined {
  const { parent } = node;
  if (!parent) return undefined;
  if (parent.is("unary_expression") && parent.child("operator")?.text === "!") return leaving(parent);
  const isCompared = parent.is("binary_expression") && /^===?$/.test(parent.child("operator")?.text ?? "");
  const right = isCompared ? parent.child("right") : undefined;
  return right && !right.same(node) && (right.is(MISSING) || right.text === "undefined")
    ? leaving(parent)
    : undefined;
}

function leaving(test: SyntaxNode): SyntaxNode | undefined {
  const { parent } = test;
  if (!parent) return undefined;
  if (parent.is("parenthesized_expression") && !parent.parent?.is("if_statement")) return leaving(parent);
  if (parent.is("binary_expression"))
    return parent.child("operator")?.text === "||" ? leaving(parent) : undefined;
  const statement = parent.is("parenthesized_expression") ? parent.parent : undefined;
  if (!statement?.is("if_statement") || statement.child("alternative")) return undefined;
  const way = statement.child("consequence")!;
  const only = way.is("statement_block") ? (way.parts.length === 1 ? way.firstPart : undefined) : way;
  return only?.is("return_statement") && only.parts.length === 0 ? statement : undefined;
}
