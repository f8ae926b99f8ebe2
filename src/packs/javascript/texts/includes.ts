import { condition, holes, isMissing, javascript, rule, trialsIn, unknown, yes } from "../../../core.js";
import type { Answer, Match } from "../../../core.js";
import { isKnownAs, calledOn, kindOf } from "../kinds.js";

const { list, item } = holes({ list: "expression", item: "expression" });

/** Old code that asks whether something is there, and old code that asks whether it is not. */
const THERE = [
  javascript`${list}.indexOf(${item}) !== -1`,
  javascript`${list}.indexOf(${item}) != -1`,
  javascript`${list}.indexOf(${item}) > -1`,
  javascript`${list}.indexOf(${item}) >= 0`,
  javascript`-1 < ${list}.indexOf(${item})`,
  javascript`0 <= ${list}.indexOf(${item})`,
  javascript`!!~${list}.indexOf(${item})`,
];
const GONE = [
  javascript`${list}.indexOf(${item}) === -1`,
  javascript`${list}.indexOf(${item}) == -1`,
  javascript`${list}.indexOf(${item}) < 0`,
  javascript`${list}.indexOf(${item}) <= -1`,
  javascript`0 > ${list}.indexOf(${item})`,
  javascript`!~${list}.indexOf(${item})`,
];
/** The same, where only truth counts. */
const TRUE = [javascript`~${list}.indexOf(${item})`];

const isGone = ({ alternative }: Match): boolean =>
  alternative >= THERE.length && alternative < THERE.length + GONE.length;

/** Is only the truth of an expression asked for? */
function isTest(match: Match): boolean {
  const { node } = match;
  const { parent } = node;
  if (parent?.is("unary_expression")) return parent.text.startsWith("!") && !parent.text.startsWith("!~");
  const above = parent?.is("parenthesized_expression") ? parent.parent : parent;
  if (above?.is(["if_statement", "while_statement", "ternary_expression"]))
    return above.child("condition")?.holds(node) ?? false;
  return false;
}

/** `indexOf` finds no `NaN` and no hole of an array, and `includes` does; a string cannot be asked for a pattern. */
function findsTheSame(match: Match): Answer {
  const node = match.the(item);
  const of = kindOf(match, match.the(list));
  if (of?.owner === "string" && !of.byUse)
    return node.is("template_string") || isKnownAs(match, node, "string")
      ? yes("value.result", `\`${node.text}\` is a string`, node)
      : unknown(
          "value.result",
          `\`${node.text}\` could be a regular expression, which \`includes\` refuses`,
          node,
        );
  if (node.is(["string", "template_string", "number", "true", "false", "null"]))
    return yes("value.result", `\`${node.text}\` is not \`NaN\``, node);
  if (isKnownAs(match, node, "string")) return yes("value.result", `\`${node.text}\` is a string`, node);
  return isMissing(node)
    ? unknown("value.result", "`includes` finds undefined where an array has a hole", node)
    : unknown("value.result", `\`${node.text}\` could be \`NaN\`, which \`indexOf\` never finds`, node);
}

const js = trialsIn("javascript");
const ts = trialsIn("typescript");

export const includes = rule({
  id: "javascript/includes",
  kind: "idiom",
  title: "Use includes to ask whether something is there",
  why: "A comparison with -1 hides the question, and is easily written the wrong way round.",
  was: [...THERE, ...GONE, ...TRUE],
  where: [(match) => match.alternative < THERE.length + GONE.length || isTest(match)],
  given: [...calledOn(list, ["string", "Array"]), condition("both find the same", findsTheSame)],
  becomes: (match) =>
    isGone(match)
      ? javascript.expression`!${list}.includes(${item})`
      : javascript.expression`${list}.includes(${item})`,
  trials: [
    js.rewrites('const is = ["a", "b"].indexOf("a") !== -1;', 'const is = ["a", "b"].includes("a");'),
    js.rewrites(
      'const names = []; if (names.indexOf("a") > -1) f();',
      'const names = []; if (names.includes("a")) f();',
    ),
    js.rewrites('const n = "abc"; f(n.indexOf("a") >= 0);', 'const n = "abc"; f(n.includes("a"));'),
    js.rewrites('const n = "abc"; f(-1 !== n.indexOf("a"));', 'const n = "abc"; f(n.includes("a"));'),
    js.rewrites('const n = "abc"; f(-1 < n.indexOf("a"));', 'const n = "abc"; f(n.includes("a"));'),
    js.rewrites('const n = "abc"; f(n.indexOf("a") === -1);', 'const n = "abc"; f(!n.includes("a"));'),
    js.rewrites('const n = "abc"; f(n.indexOf("a") < 0 && b);', 'const n = "abc"; f(!n.includes("a") && b);'),
    js.rewrites('const n = "abc"; if (~n.indexOf("a")) f();', 'const n = "abc"; if (n.includes("a")) f();'),
    js.rewrites('const n = "abc"; if (!~n.indexOf("a")) f();', 'const n = "abc"; if (!n.includes("a")) f();'),
    js.rewrites('const n = "abc"; f(!!~n.indexOf("a"));', 'const n = "abc"; f(n.includes("a"));'),
    js.rewrites("const xs = []; f(xs.indexOf(x) !== -1);", "const xs = []; f(xs.includes(x));", "likely"),
    js.rewrites(
      "const n = String(x); f(n.indexOf(x) !== -1);",
      "const n = String(x); f(n.includes(x));",
      "likely",
    ),
    js.rewrites('f(x.indexOf("a") !== -1);', 'f(x.includes("a"));', "possible"),
    ts.rewrites(
      "const f = (xs: string[], x: string) => xs.indexOf(x) !== -1;",
      "const f = (xs: string[], x: string) => xs.includes(x);",
    ),
    ts.rewrites(
      "const f = (xs: number[], x: number) => xs.indexOf(x) !== -1;",
      "const f = (xs: number[], x: number) => xs.includes(x);",
      "likely",
    ),
    ts.rewrites(
      "const f = (name: string | undefined) => name!.indexOf('a') >= 0;",
      "const f = (name: string | undefined) => name!.includes('a');",
    ),
    // What stands in for the method in old browsers must not call it.
    js.holds(
      "Array.prototype.includes = function (x) { return this.indexOf(x) >= 0; };",
      "`includes` would call itself",
    ),
    js.holds(
      "Array.prototype.includes = function (x) { return [1].some(() => this.indexOf(x) >= 0); };",
      "`includes` would call itself",
    ),
    js.holds("class Shelf { indexOf() {} }\nconst s = new Shelf(); f(s.indexOf(1) !== -1);", "which is not"),
    js.ignores('f(~n.indexOf("a"));'),
    js.ignores('f(n.indexOf("a") > 0);'),
    js.ignores('f(n.indexOf("a") === 0);'),
    js.ignores('f(n.indexOf("a", 1) !== -1);'),
    js.ignores('f(n.lastIndexOf("a") !== -1);'),
    trialsIn("javascript", "2015").ignores('f("abc".indexOf("a") !== -1);'),
  ],
});
