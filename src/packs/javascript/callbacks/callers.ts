import { textAt, type Edit, type SyntaxNode } from "../../../core.js";
import { byError, codeOf, FUNCTIONS, parametersOf, useOfParameter, withoutReturn } from "./settled.js";
import { startWithComments } from "../comments.js";
import { NoSteps } from "./steps.js";

/** The edit of a call of a function that gives a promise from now on. Throws a NoSteps for a use that is not understood. */
export function callerEdit(node: SyntaxNode, parameters: number): Edit {
  const { parent, field } = node;
  if (
    parent?.is("arguments") &&
    /(^|\.)promisify$/.test(parent.parent!.child("function")!.text) &&
    parent.parts.length === 1
  )
    return { start: parent.parent!.start, end: parent.parent!.end, text: node.text };
  if (!parent?.is("call_expression") || field !== "function")
    throw new NoSteps(node, `\`${node.text}\` is used in another way than being called`);
  const list = parent.child("arguments")!;
  const callback = list.lastPart;
  if (!callback || list.parts.length !== parameters)
    throw new NoSteps(parent, `\`${node.text}\` is called without its callback, or with other arguments`);
  if (list.parts.some((part) => part.is("spread_element")))
    throw new NoSteps(list, "the arguments are not listed");
  const before = callback.previousPart;
  return { start: before?.end ?? callback.start, end: parent.end, text: `)${chain(callback)}` };
}

/** What follows the call: the callback, for a value and for an error apart. */
function chain(callback: SyntaxNode): string {
  if (callback.is(["identifier", "member_expression"]))
    return `.then((value) => ${callback.text}(null, value), ${callback.text})`;
  if (!callback.is(FUNCTIONS) || callback.has("async"))
    throw new NoSteps(callback, "the callback is worked out where the function is called");
  const [error, value, ...more] = parametersOf(callback);
  if (!error?.is("identifier") || more.length > 0)
    throw new NoSteps(callback, "the callback does not get an error and one value");
  const own = callback.is("arrow_function")
    ? undefined
    : [...callback.descendants()].find((node) => node.is("this") || node.text === "arguments");
  if (own) throw new NoSteps(own, `\`${own.text}\` is that of the callback`);
  const ways = byError(codeOf(callback), error.text);
  if (!ways?.apart)
    throw new NoSteps(callback, `what the callback does for an error and for a value stands together`);
  const again = useOfParameter(error, ways.done);
  if (again) throw new NoSteps(again, `\`${error.text}\` is used although there is no error`);
  const done = part(value?.text ?? "", ways.done, callback);
  const [only, ...others] = ways.failed;
  // An error that nobody waited for is one that nobody waits for still.
  const isThrown = only?.is("throw_statement") && others.length === 0 && only.firstPart?.text === error.text;
  return isThrown ? `.then(${done})` : `.then(${done}, ${part(error.text, ways.failed, callback)})`;
}

/** One way of the callback as a function of its own. */
function part(parameter: string, way: readonly SyntaxNode[], callback: SyntaxNode): string {
  const { tree } = callback;
  const { code } = withoutReturn(way);
  const indent = tree.indentAt(callback.start);
  const unit = tree.indentAt(codeOf(callback)[0]!.start).slice(indent.length) || "  ";
  const [first, last] = [code[0], code.at(-1)];
  if (!first || !last) return `(${parameter}) => {}`;
  const inner = `${indent}${unit}`;
  const text = textAt(tree, { start: startWithComments(first), end: last.end }, inner);
  return `(${parameter}) => {\n${inner}${text}\n${indent}}`;
}
