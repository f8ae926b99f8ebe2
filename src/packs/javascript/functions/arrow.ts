import {
  calledFromLibrary,
  condition,
  copy,
  holes,
  isBuiltin,
  ofKind,
  rule,
  shortened,
  text,
  trialsIn,
  unknown,
  yes,
} from "../../../core.js";
import type { Answer, Edit, Match, Segment, SyntaxNode } from "../../../core.js";
import { ownNodes } from "../classes/method.js";

const { fn } = holes({ fn: { kind: "expression", node: "function_expression" } });

/** `function () { … }.bind(this)`, where the function is all that is bound. */
function boundCall(node: SyntaxNode): SyntaxNode | undefined {
  const holder = node.parent?.is("parenthesized_expression") ? node.parent : node;
  const read = holder.parent;
  const call =
    read?.is("member_expression") && read.child("property")?.text === "bind" ? read.parent : undefined;
  const [self, ...more] = call?.child("arguments")?.parts ?? [];
  return call?.is("call_expression") && self?.is("this") && more.length === 0 ? call : undefined;
}

/** Does the function have anything of its own that an arrow lacks? `this` counts where it is not bound. */
export function hasOwn(node: SyntaxNode, isBound: boolean): boolean {
  for (const inner of ownNodes(node)) {
    if (inner.is("this") && !isBound) return true;
    if (inner.is("identifier") && inner.text === "arguments") return true;
    if (inner.is(["super", "meta_property"])) return true;
    // Code that is only known when it runs may ask for all of these.
    if (inner.is("call_expression") && inner.child("function")?.text === "eval") return true;
  }
  return false;
}

const argumentOf = (node: SyntaxNode): SyntaxNode | undefined =>
  node.parent?.is("arguments") && node.parent.parent?.is("call_expression") ? node.parent.parent : undefined;

function fits(node: SyntaxNode): boolean {
  const call = boundCall(node);
  if (!call && !argumentOf(node)) return false;
  if (node.child("name") || node.child("type_parameters") || hasOwn(node, call !== undefined)) return false;
  if (/\bthis\s*:/.test(node.child("parameters")?.text ?? "")) return false;
  const first = node.child("body")?.firstPart;
  return !(first?.is("expression_statement") && /^["']use strict["'];?$/.test(first.text));
}

/** An arrow cannot be called with `new`, and has no prototype. */
export function isOnlyCalled(node: SyntaxNode): Answer {
  if (boundCall(node))
    return yes("value.result", "a function that is bound keeps its object, as an arrow does", node);
  const call = argumentOf(node)!;
  const callee = call.child("function")!;
  if (
    calledFromLibrary(call)?.runs === true ||
    (RUNNERS.includes(callee.text) && isBuiltin(callee.text, callee).is === "yes")
  )
    return yes("value.result", `\`${shortened(callee.text)}\` only calls the function`, callee);
  return unknown(
    "value.result",
    `\`${shortened(callee.text)}\` could ask for more than to call the function: its prototype, or its text`,
    callee,
  );
}

/** Functions of the language's surroundings that do nothing but call what they are given. */
const RUNNERS = ["setTimeout", "setInterval", "setImmediate", "queueMicrotask", "requestAnimationFrame"];

/** The edits that make a function an arrow, its body as it is. */
export function arrowEdits(node: SyntaxNode): Edit[] {
  const [list, body] = [node.child("parameters")!, node.child("body")!];
  const end = node.child("return_type")?.end ?? list.end;
  return [
    { start: node.start, end: list.start, text: node.has("async") ? "async " : "" },
    { start: end, end: body.start, text: " => " },
  ];
}

function arrow(match: Match): Segment[] {
  const node = match.the(fn);
  const { tree } = node;
  const [list, body] = [node.child("parameters")!, node.child("body")!];
  const type = node.child("return_type");
  const word = node.has("async") ? "async " : "";
  const head = [text(word), copy(list.start, type?.end ?? list.end), text(" => ")];
  const only =
    body.parts.length === 1 && body.firstPart!.is("return_statement") ? body.firstPart!.firstPart : undefined;
  const hasComment = tree.commentsIn(body.start, body.end).length > 0;
  if (!only || hasComment || only.is("sequence_expression")) return [...head, copy(body.start, body.end)];
  const whole = copy(only.start, only.end);
  return only.text.startsWith("{") ? [...head, text("("), whole, text(")")] : [...head, whole];
}

const js = trialsIn("javascript");
const ts = trialsIn("typescript");

export const arrowFunction = rule({
  id: "javascript/arrow",
  kind: "idiom",
  title: "Use an arrow for a function that is handed on",
  why: "What is only called needs no `this` of its own, and the word and the braces hide what it does.",
  was: ofKind(fn, { when: fits, inPlaceOf: boundCall }),
  mentions: ["function"],
  given: [condition("it is only called", (match) => isOnlyCalled(match.the(fn)))],
  becomes: arrow,
  trials: [
    js.rewrites(
      "const jars = [1];\njars.map(function (jar) { return jar + 1; });",
      "const jars = [1];\njars.map((jar) => jar + 1);",
    ),
    js.rewrites("jars.map(function (jar) { return jar.age; });", "jars.map((jar) => jar.age);", "likely"),
    js.rewrites(
      "jars.map(function (jar) { return { age: jar.age }; });",
      "jars.map((jar) => ({ age: jar.age }));",
      "likely",
    ),
    js.rewrites("setTimeout(function () { f(); g(); }, 10);", "setTimeout(() => { f(); g(); }, 10);"),
    js.rewrites("p.then(async function (x) { return await x; });", "p.then(async (x) => await x);", "likely"),
    js.rewrites(
      "jars.map(function (jar) {\n  // each\n  return jar;\n});",
      "jars.map((jar) => {\n  // each\n  return jar;\n});",
      "likely",
    ),
    js.rewrites("on('x', function (e) { f(e); });", "on('x', (e) => { f(e); });", "likely"),
    js.rewrites("on('x', function (e) { this.f(e); }.bind(this));", "on('x', (e) => { this.f(e); });"),
    js.rewrites("this.f = (function (e) { return this.g(e); }).bind(this);", "this.f = (e) => this.g(e);"),
    js.rewrites(
      "jars.map(function (jar) { return function () { return this; }; });",
      "jars.map((jar) => function () { return this; });",
      "likely",
    ),
    ts.rewrites(
      "jars.map(function (jar: Jar): number { return jar.age; });",
      "jars.map((jar: Jar): number => jar.age);",
      "likely",
    ),
    // An arrow is no operand by itself.
    js.rewrites("f(!(function (e) { return e; }).bind(this));", "f(!((e) => e));"),
    js.rewrites("x = function (e) { return this.f(e); }.bind(this) || g;", "x = ((e) => this.f(e)) || g;"),
    js.rewrites("(function (e) { f(this, e); }).bind(this)(1);", "((e) => { f(this, e); })(1);"),
    js.ignores("jars.map(function (jar) { return this.f(jar); }, this);"),
    js.ignores("jars.map(function () { return arguments[0]; });"),
    js.ignores("jars.map(function each(jar) { return jar; });"),
    js.ignores("jars.map(function* (jar) { yield jar; });"),
    js.ignores("f(function () { return new.target; });"),
    js.ignores("const f = function () { return 1; };"),
    js.ignores("new Hive(function () { return 1; });"),
    js.ignores("on('x', function (e) { this.f(e); }.bind(other));"),
    js.ignores("f(function () { eval(s); });"),
    trialsIn("javascript", "5").ignores("jars.map(function (jar) { return jar.age; });"),
  ],
});
