import { applyEdits, textAt, type Edit, type SyntaxNode } from "../../../core.js";
import { shownAtFirst, type Branch, type Cell } from "./cells.js";
import { attributesOf } from "./markup.js";
import { NoState } from "./no-state.js";

/** A listener as an arrow function, without the type of its event. */
export function functionCode(fn: SyntaxNode, edits: readonly Edit[], indent: string): string | undefined {
  const { tree } = fn;
  const body = fn.child("body")!;
  const list = fn.child("parameters") ?? fn.child("parameter")!;
  const annotations = [...list.descendants()].filter((node) => node.is("type_annotation"));
  const isInner = (node: SyntaxNode): boolean =>
    annotations.some((other) => !other.same(node) && other.holds(node));
  const types = annotations.filter((node) => !isInner(node));
  const head = applyEdits(
    list.text,
    types.map(({ start, end }) => ({ start: start - list.start, end: end - list.start, text: "" })),
  );
  const words = fn.has("async") ? "async " : "";
  const code = textAt(
    tree,
    body,
    indent,
    edits.filter((one) => body.start <= one.start && one.end <= body.end),
  );
  if (body.is("statement_block") && code.replace(/\s/g, "") === "{}") return undefined;
  if (code === "{}") return undefined;
  const inside = body.is("statement_block") ? code.slice(1, -1).trim() : code;
  const isOne =
    /^[^\n;]*;?$/.test(inside) && !/^(if|for|while|const|let|var|return|throw|try|switch|\/)/.test(inside);
  return `${words}${head} => ${body.is("statement_block") && isOne ? inside.replace(/;$/, "") : code}`;
}

/** Has a clean-up nothing else to do than what is gone? */
export function isDoneWith(cleanup: SyntaxNode, gone: readonly SyntaxNode[]): boolean {
  const fn = cleanup.firstPart;
  const body = fn?.child("body");
  if (!body) return fn === undefined;
  const isGone = (node: SyntaxNode): boolean => gone.some((one) => one.same(node));
  return body.is("statement_block") ? body.parts.every(isGone) : isGone(body);
}

/** What the markup shows at first, as code. */
export function firstShown({ shown }: Cell): string {
  const { element, aspect } = shown!;
  const first = shownAtFirst(element, aspect);
  // An attribute that is not there.
  if (aspect.is === "attribute" && !attributesOf(element.tag).has(aspect.name) && !aspect.isSwitch) return "";
  if (first === undefined)
    throw new NoState(element.tag, `what the element \`${element.id}\` shows at first is not written out`);
  return typeof first === "object" ? first.text : JSON.stringify(first);
}

const INFERRED = /^(number|string|boolean)$/;

/** The type of state, where the first value does not say it. */
export function typeOf({ local }: Cell): string {
  const type = local!.type;
  const isSaid = type !== undefined && INFERRED.test(type) && local!.first !== undefined;
  if (type === undefined && (!local!.first || local!.first.is(["null", "array"])))
    throw new NoState(local!.name, `the type of \`${local!.name.text}\` is not written`);
  return type === undefined || isSaid ? "" : `<${type}>`;
}

/** A branch as one expression; what is only there or not follows from the test alone. */
export function branchCode({ test, yes, no }: Branch, codeOf: (node: SyntaxNode) => string): string {
  const code = codeOf(test);
  const isTight = test.is(["identifier", "member_expression", "call_expression", "parenthesized_expression"]);
  if (yes === true && no === false) return code;
  if (yes === false && no === true) return isTight ? `!${code}` : `!(${code})`;
  const way = (one: SyntaxNode | boolean): string => (typeof one === "boolean" ? String(one) : codeOf(one));
  return `${code} ? ${way(yes)} : ${way(no)}`;
}
