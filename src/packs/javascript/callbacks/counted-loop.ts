import type { SyntaxNode } from "../../../core.js";
import { withoutParentheses } from "../../family/parentheses.js";
import { calledBy, codeOf, expressionOf, FUNCTIONS, parametersOf, withoutReturn } from "./settled.js";

/** A loop that begins a work for each item, and counts how many of them have ended. */
export interface CountedLoop {
  readonly statement: SyntaxNode;
  readonly list: SyntaxNode;
  /** What each work is given, as it is written. */
  readonly parameters: string;
  /** The function that is run for each item, or the loop. */
  readonly each: SyntaxNode;
  readonly code: readonly SyntaxNode[];
  readonly counter: string;
  /** The declarator of the counter, in the block of the loop. */
  readonly declared: SyntaxNode;
}

/** The end of a work: it is counted, and the callback is called when it was the last. */
export interface CountedEnd {
  /** What is done ahead of that. */
  readonly rest: readonly SyntaxNode[];
  readonly counter: string;
  /** Does it count down to 0, or up to the length of the list? */
  readonly counts: "down" | "up";
  /** What it counts up to. */
  readonly upTo: string | undefined;
  readonly call: SyntaxNode;
  /** The names that count. */
  readonly uses: number;
}

/** A variable that is made one more or one less: `left--`, `left -= 1`, `left = left - 1`. */
function countIn(node: SyntaxNode | undefined): { name: string; counts: "down" | "up" } | undefined {
  const code = node?.text.replace(/\s+/g, "") ?? "";
  const found =
    /^(?:(--|\+\+)([\w$]+)|([\w$]+)(--|\+\+)|([\w$]+)([-+])=1|([\w$]+)=\7([-+])1)$/.exec(code) ?? undefined;
  if (!found) return undefined;
  const name = found[2] ?? found[3] ?? found[5] ?? found[7]!;
  const sign = found[1] ?? found[4] ?? found[6] ?? found[8]!;
  return { name, counts: sign.startsWith("-") ? "down" : "up" };
}

/** What a test for the end compares: `left === 0`, `!left`, `count === list.length`. */
function testOf(node: SyntaxNode): { counted: SyntaxNode; upTo: string | undefined } | undefined {
  if (node.is("unary_expression") && node.child("operator")?.text === "!")
    return { counted: withoutParentheses(node.child("argument")!), upTo: undefined };
  if (!node.is("binary_expression")) return undefined;
  const [left, operator, right] = [
    withoutParentheses(node.child("left")!),
    node.child("operator")!.text,
    withoutParentheses(node.child("right")!),
  ];
  if (/^===?$/.test(operator) && right.text === "0") return { counted: left, upTo: undefined };
  if (/^(<=|<)$/.test(operator) && right.text === (operator === "<" ? "1" : "0"))
    return { counted: left, upTo: undefined };
  if (/^(===?|>=)$/.test(operator)) return { counted: left, upTo: right.text };
  return undefined;
}

/** The end of a work that is counted, as the last statements of a block; undefined where it ends in another way. */
export function countedEnd(statements: readonly SyntaxNode[], done: string): CountedEnd | undefined {
  const { code } = withoutReturn(statements);
  const last = code.at(-1);
  if (!last?.is("if_statement") || last.child("alternative")) return undefined;
  const then = last.child("consequence")!;
  const inner = withoutReturn(then.is("statement_block") ? then.parts : [then]).code;
  const test = testOf(withoutParentheses(last.child("condition")!));
  if (inner.length !== 1 || calledBy(inner[0])?.name !== done || !test) return undefined;
  const call = expressionOf(inner[0]!)!;
  const isPostfix = test.counted.is("update_expression") && /(--|\+\+)$/.test(test.counted.text);
  const inTest = isPostfix ? undefined : countIn(test.counted);
  const before = inTest ? undefined : code.at(-2);
  const ahead = before && countIn(expressionOf(before));
  const counted = inTest ?? (ahead?.name === test.counted.text ? ahead : undefined);
  if (!counted || (counted.counts === "up") !== (test.upTo !== undefined)) return undefined;
  return {
    rest: code.slice(0, inTest ? -1 : -2),
    counter: counted.name,
    counts: counted.counts,
    upTo: test.upTo,
    call,
    uses: inTest ? 1 : last.mentions(counted.name).length + before!.mentions(counted.name).length,
  };
}

/** The ends that are counted in some code, wherever they stand. */
function endsIn(code: SyntaxNode, done: string): CountedEnd[] {
  return [...code.descendants()].flatMap((node) =>
    node.is("statement_block") ? (countedEnd(node.parts, done) ?? []) : [],
  );
}

/** What is walked, and by what: `list.forEach((item) => { … })`, `for (const item of list) { … }`. */
function walkAt(
  statement: SyntaxNode,
): Pick<CountedLoop, "list" | "parameters" | "each" | "code"> | undefined {
  if (statement.is("for_in_statement") && statement.has("of")) {
    const body = statement.child("body")!;
    const isOwn = statement.has("const") || statement.has("let");
    if (!isOwn || !body.is("statement_block")) return undefined;
    const [left, list] = [statement.child("left")!, statement.child("right")!];
    return { list, parameters: left.text, each: statement, code: body.parts };
  }
  const call = statement.is("expression_statement") ? expressionOf(statement) : undefined;
  const read = call?.is("call_expression") ? call.child("function") : undefined;
  const [each, ...more] = call?.child("arguments")?.parts ?? [];
  if (read?.child("property")?.text !== "forEach" || !each?.is(FUNCTIONS) || more.length > 0)
    return undefined;
  if (each.has("async") || !each.child("body")!.is("statement_block")) return undefined;
  const parameters = parametersOf(each)
    .map(({ text }) => text)
    .join(", ");
  return { list: read.child("object")!, parameters, each, code: codeOf(each) };
}

/** The loop that a block ends with, with the counter that is declared ahead of it. */
export function countedLoop(statements: readonly SyntaxNode[], done: string): CountedLoop | undefined {
  const { code } = withoutReturn(statements);
  const statement = code.at(-1);
  const walk = statement && walkAt(statement);
  if (!walk || statement.mentions(done).length === 0) return undefined;
  const [end, ...others] = endsIn(statement, done);
  if (!end || others.length > 0) return undefined;
  const declared = code
    .slice(0, -1)
    .filter((one) => one.is(["variable_declaration", "lexical_declaration"]))
    .flatMap((one) => one.parts)
    .find((one) => one.child("name")?.text === end.counter);
  const first = declared?.child("value")?.text;
  const length = `${walk.list.text}.length`;
  const isRight = end.counts === "down" ? first === length : first === "0" && end.upTo === length;
  if (!declared || !isRight || !walk.list.is(["identifier", "member_expression"])) return undefined;
  const around = declared.closest(["statement_block", "program"])!;
  // Nothing else counts.
  if (around.mentions(end.counter).length !== end.uses + 1) return undefined;
  return { statement, ...walk, counter: end.counter, declared };
}
