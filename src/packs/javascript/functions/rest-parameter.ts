import {
  builtin,
  condition,
  copy,
  fresh,
  holes,
  no,
  ofKind,
  referencesAt,
  referencesOf,
  removal,
  rule,
  trialsIn,
  yes,
} from "../../../core.js";
import type { Answer, Edit, Match, Segment, SyntaxNode } from "../../../core.js";
import { ownNodes } from "../classes/method.js";

/** Functions that have `arguments` of their own. */
const WITH_ARGUMENTS = [
  "function_declaration",
  "function_expression",
  "generator_function_declaration",
  "generator_function",
  "method_definition",
];
const { fn } = holes({ fn: { kind: "statement", node: WITH_ARGUMENTS } });
const rest = fresh("args", { or: ["rest", "more"] });

/** An expression that copies the arguments of a function into an array. */
interface Copied {
  readonly value: SyntaxNode;
  /** The statement that does nothing but give the array a name. */
  readonly statement: SyntaxNode | undefined;
  readonly name: SyntaxNode | undefined;
  /** The type that the statement says, in TypeScript. */
  readonly type: SyntaxNode | undefined;
  readonly mention: SyntaxNode;
  /** How many of the first arguments are left out. */
  readonly from: number;
}

/** The array that an expression makes of all arguments, or of those from a place on. */
function copyOf(value: SyntaxNode): { mention: SyntaxNode; from: number } | undefined {
  const code = value.text.replace(/\s+/g, "");
  const from =
    /^(?:Array\.prototype|\[\])\.slice\.call\(arguments(?:,(\d+))?\)$/.exec(code) ??
    /^(?:Array\.prototype|\[\])\.slice\.apply\(arguments(?:,\[(\d+)\])?\)$/.exec(code) ??
    /^(?:Array\.from\(arguments\)|\[\.\.\.arguments\])(?:\.slice\((\d+)\))?$/.exec(code);
  const mention = [...value.descendants()].find((node) => node.text === "arguments");
  return from && mention ? { mention, from: Number(from[1] ?? 0) } : undefined;
}

function copiedIn(node: SyntaxNode): Copied | undefined {
  const body = node.child("body");
  const own = [...node.mentions("arguments")].find((mention) => isOwn(mention, node));
  if (!body || !own) return undefined;
  for (const value of own.ancestors()) {
    if (!body.holds(value)) return undefined;
    const found = value.is(["call_expression", "array"]) ? copyOf(value) : undefined;
    if (!found?.mention.same(own)) continue;
    // `Array.from(arguments).slice(1)`: the longest that is a copy.
    const read = value.parent?.is("member_expression") ? value.parent.parent : undefined;
    const longer = read?.is("call_expression") ? copyOf(read) : undefined;
    const whole = longer ? read! : value;
    const declarator = whole.parent?.is("variable_declarator") ? whole.parent : undefined;
    const statement = declarator?.parent;
    const name = declarator?.child("name");
    const isAlone = statement?.parts.length === 1 && statement.parent?.same(body) && name?.is("identifier");
    const names = isAlone ? { statement, name, type: declarator!.child("type") } : {};
    return {
      value: whole,
      statement: undefined,
      name: undefined,
      type: undefined,
      ...names,
      ...found,
      ...longer,
    };
  }
  return undefined;
}

/** Is it the function itself whose arguments are meant? */
function isOwn(mention: SyntaxNode, node: SyntaxNode): boolean {
  const around = [...mention.ancestors()].find((above) => above.is(WITH_ARGUMENTS));
  return around?.same(node) ?? false;
}

const parametersOf = (node: SyntaxNode): SyntaxNode[] =>
  node.child("parameters")!.parts.filter((part) => !part.is("comment"));

/** Can the array be the last parameter? */
function canBeParameter(match: Match): Answer {
  const code = "form.fits";
  const node = match.the(fn);
  const { from, value } = copiedIn(node)!;
  const parameters = parametersOf(node);
  const last = parameters.at(-1);
  if (from !== parameters.length)
    return no(
      code,
      `${from} of the arguments are left out, and the function names ${parameters.length}`,
      value,
    );
  if (last && /^\.\.\./.test(last.text)) return no(code, `\`${last.text}\` takes the rest already`, last);
  const again = parameters.find((part, i) => parameters.slice(0, i).some(({ text }) => text === part.text));
  if (again) return no(code, `two parameters are called \`${again.text}\``, again);
  const first = node.child("body")!.firstPart;
  if (first?.is("expression_statement") && /^["']use strict["'];?$/.test(first.text))
    return no(code, 'a function that says "use strict" itself may have plain parameters only', first);
  if (
    node.is("method_definition") &&
    /^(get|set)\b/.test(node.text) &&
    node.child("name")!.start > node.start
  )
    return no(code, "an accessor has no such parameter", node);
  return yes(code, "the array can be the last parameter", value);
}

/** Are the arguments used for nothing else? */
function isOnlyUse(match: Match): Answer {
  const code = "name.other-uses";
  const node = match.the(fn);
  const { mention } = copiedIn(node)!;
  for (const inner of ownNodes(node)) {
    if (inner.is("identifier") && inner.text === "arguments" && !inner.same(mention))
      return no(code, "`arguments` is used for something else as well", inner);
    if (inner.is("call_expression") && inner.child("function")?.text === "eval")
      return no(code, "code that is only known when it runs may use `arguments`", inner);
  }
  return yes(code, "`arguments` is used for nothing else", mention);
}

const REPEATED = ["for_statement", "for_in_statement", "while_statement", "do_statement", "arrow_function"];

/** An array that is made again and again is another one each time. */
function isMadeOnce(match: Match): Answer {
  const code = "effect.evaluated";
  const { value } = copiedIn(match.the(fn))!;
  const again = [...value.ancestors()]
    .filter((above) => match.the(fn).child("body")!.holds(above))
    .find((above) => above.is(REPEATED));
  return again
    ? no(code, "the array may be made more than once, each time anew", again)
    : yes(code, "the array is made once at most", value);
}

/** Is the name the array's alone, and used only behind the statement? */
function isFirst(match: Match): Answer {
  const code = "flow.order";
  const { name, statement } = copiedIn(match.the(fn))!;
  if (!name || !statement) return isMadeOnce(match);
  const to = referencesAt(name).find((one) => one.to)?.to;
  if (!to || to.at.length !== 1) return no(code, `\`${name.text}\` is declared more than once`, name);
  const early = referencesOf(to).find((one) => !one.node.same(name) && one.node.start < statement.start);
  return early
    ? no(code, `\`${name.text}\` is used ahead of the statement that makes it`, early.node)
    : yes(code, `\`${name.text}\` is used behind the statement only`, name);
}

function withRest(match: Match): Segment[] {
  const node = match.the(fn);
  const { value, statement, name, type } = copiedIn(node)!;
  const own = name?.text ?? match.named(rest);
  const list = node.child("parameters")!;
  const last = parametersOf(node).at(-1);
  const isTyped = node.tree.language.id !== "javascript";
  const taken = `...${own}${type?.text ?? (isTyped ? ": any[]" : "")}`;
  const put: Edit = last
    ? { start: last.end, end: last.end, text: `, ${taken}` }
    : { start: list.end - 1, end: list.end - 1, text: list.text.length > 2 ? ` ${taken}` : taken };
  const made = statement ? removal(statement) : { start: value.start, end: value.end, text: own };
  return [copy(node.start, node.end, [put, made])];
}

const js = trialsIn("javascript");
const ts = trialsIn("typescript");

export const restParameter = rule({
  id: "javascript/rest-parameter",
  kind: "idiom",
  title: "Name the rest of the arguments as a parameter",
  why: "Callers and editors see that a function takes any number of arguments, and the array needs no copying.",
  was: ofKind(fn, { when: (node) => copiedIn(node) !== undefined }),
  mentions: ["arguments"],
  target: "2015",
  given: [
    builtin("Array"),
    condition("the array can be the last parameter", canBeParameter),
    condition("`arguments` is used for nothing else", isOnlyUse),
    condition("the array is used behind the statement only", isFirst),
  ],
  becomes: withRest,
  trials: [
    js.rewrites(
      `
      function print() {
        var all = Array.prototype.slice.call(arguments);
        // each on a line
        all.forEach(log);
      }
      `,
      `
      function print(...all) {
        // each on a line
        all.forEach(log);
      }
      `,
    ),
    js.rewrites(
      "const o = { print(first) { log(first); const more = [].slice.call(arguments, 1); return () => more; } };",
      "const o = { print(first, ...more) { log(first); return () => more; } };",
    ),
    js.rewrites(
      "f(function* (a, b) { let rest = Array.from(arguments).slice(2); yield* rest; });",
      "f(function* (a, b, ...rest) { yield* rest; });",
    ),
    js.rewrites(
      "function f(/* jars */) { g([...arguments]); }",
      "function f(/* jars */ ...args) { g(args); }",
    ),
    js.rewrites("function f() { const xs = [...arguments]; g(xs); }", "function f(...xs) { g(xs); }"),
    ts.rewrites(
      "function f(a: number) { const xs: string[] = Array.prototype.slice.call(arguments, 1); g(xs); }",
      "function f(a: number, ...xs: string[]) { g(xs); }",
    ),
    ts.rewrites(
      "function f() { const xs = Array.from(arguments); g(xs); }",
      "function f(...xs: any[]) { g(xs); }",
    ),
    // The named arguments are in the array too.
    js.rewrites(
      "function f(a) { g(a, Array.prototype.slice.call(arguments, 1)); }",
      "function f(a, ...args) { g(a, args); }",
    ),
    js.rewrites(
      "function f() { const n = 1, args = 2; g(n, args, Array.from(arguments).slice(0)); }",
      "function f(...rest) { const n = 1, args = 2; g(n, args, rest); }",
    ),
    js.holds("function f() { each(() => g([...arguments])); }", "more than once"),
    js.holds("function f() { for (const x of xs) g([...arguments]); }", "more than once"),
    js.holds("function f(a) { var xs = [].slice.call(arguments); g(a, xs); }", "0 of the arguments"),
    js.holds("function f(a) { var xs = [].slice.call(arguments, 2); g(a, xs); }", "2 of the arguments"),
    js.holds(
      "function f() { var xs = [].slice.call(arguments); g(xs, arguments.length); }",
      "something else",
    ),
    js.holds(
      "function f() { var xs = [].slice.call(arguments); g(xs, () => arguments[0]); }",
      "something else",
    ),
    js.holds("function f() { 'use strict'; var xs = [].slice.call(arguments); g(xs); }", "plain parameters"),
    js.holds("function f() { g(xs); var xs = [].slice.call(arguments); h(xs); }", "ahead of the statement"),
    js.holds("function f(xs) { var xs = [].slice.call(arguments, 1); h(xs); }", "more than once"),
    js.holds("function f(a, a) { var xs = [].slice.call(arguments, 2); h(xs); }", "two parameters"),
    js.holds("class A { set a(v) { const xs = [].slice.call(arguments, 1); h(xs); } }", "accessor"),
    js.rewrites(
      "function f() { var xs = [].slice.call(arguments); g(function () { return arguments[0]; }, xs); }",
      "function f(...xs) { g(function () { return arguments[0]; }, xs); }",
    ),
    js.ignores("var xs = [].slice.call(arguments);"),
    js.ignores("function f(other) { var xs = [].slice.call(other); g(xs); }"),
    js.ignores("const f = () => { const xs = [...arguments]; g(xs); };"),
    trialsIn("javascript", "5").ignores("function f() { var xs = [].slice.call(arguments); g(xs); }"),
  ],
});
