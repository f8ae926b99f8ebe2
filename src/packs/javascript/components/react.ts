import { originOf, type SyntaxNode } from "../../../core.js";
import { NoState } from "./no-state.js";

/** An effect that runs once, when the component is in the document. */
export interface Effect {
  readonly statement: SyntaxNode;
  readonly fn: SyntaxNode;
  readonly body: SyntaxNode;
}

const FUNCTIONS = ["arrow_function", "function_expression"];
const HOOK = /^(React\.)?use(Layout)?Effect$/;
const LOOK_UP = /\bdocument\s*\.\s*(getElementById|querySelector)\b/;

/** The statements of a component that are effects in which elements are looked up. */
export function effectStatements(component: SyntaxNode): SyntaxNode[] {
  const body = component.child("body");
  if (!body?.is("statement_block")) return [];
  return body.parts.filter((statement) => {
    const call = statement.is("expression_statement") ? statement.firstPart : undefined;
    const callee = call?.is("call_expression") ? call.child("function") : undefined;
    return callee !== undefined && HOOK.test(callee.text) && LOOK_UP.test(call!.text);
  });
}

/** The statement that gives the component's markup. */
export function markupOf(component: SyntaxNode): SyntaxNode | undefined {
  const last = component.child("body")?.lastPart;
  const value = last?.is("return_statement") ? last.firstPart : undefined;
  const shown = value?.is("parenthesized_expression") ? value.firstPart : value;
  return shown?.is(["jsx_element", "jsx_self_closing_element"]) ? last : undefined;
}

/** An effect by its parts. Throws a NoState for one that runs more than once. */
export function effectOf(statement: SyntaxNode): Effect {
  const call = statement.firstPart!;
  const callee = call.child("function")!;
  const [fn, list, more] = call.child("arguments")!.parts;
  if (originOf(callee)?.module !== "react")
    throw new NoState(callee, `where \`${callee.text}\` comes from is not known`);
  if (!fn?.is(FUNCTIONS) || fn.has("async") || more)
    throw new NoState(call, "what the effect does is not written here");
  const body = fn.child("body")!;
  if (!body.is("statement_block")) throw new NoState(body, "the effect is a single expression");
  if (!list) throw new NoState(call, "the effect runs after each rendering, and begins again each time");
  if (!list.is("array")) throw new NoState(list, "when the effect runs is not written here");
  const [first] = list.parts;
  if (first) throw new NoState(first, `the effect begins again when \`${first.text}\` changes`);
  return { statement, fn, body };
}
