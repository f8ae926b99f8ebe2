import { condition, holes, isSideEffectFree, javascript, rule, sameCode, trialsIn } from "../../../core.js";
import { isMissing, unknown, yes } from "../../../core.js";
import type { Answer, Match, SyntaxNode } from "../../../core.js";
import { isKnownAs } from "../kinds.js";

const { called, self, list } = holes({ called: "expression", self: "expression", list: "expression" });

/** The object that a call is made on by writing it ahead of the function. */
function objectOf(match: Match): SyntaxNode | undefined {
  const node = match.the(called);
  return node.is(["member_expression", "subscript_expression"]) ? node.child("object") : undefined;
}

/** Does the function get the same object either way? */
function getsSame(match: Match): Answer {
  const [node, given] = [match.the(called), match.the(self)];
  const object = objectOf(match);
  if (object) return isSideEffectFree(object);
  const isQuiet = given.is("undefined") || given.text === "undefined" || given.text === "void 0";
  if (isQuiet) return yes("value.result", "the function gets no object either way", given);
  return unknown("value.result", `\`${node.text}\` could tell null from no object at all`, given);
}

/** Is the list one that can be spread? `apply` also takes none at all, and whatever has a length. */
function isList(match: Match): Answer {
  const node = match.the(list);
  if (node.text === "arguments") return yes("value.kind", "`arguments` can be spread", node);
  if (isKnownAs(match, node, "Array")) return yes("value.kind", `\`${node.text}\` is an array`, node);
  return unknown(
    "value.kind",
    `\`${node.text}\` could be missing, or something that only has a length`,
    node,
  );
}

/** `Math.max.apply(Math, list)` calls on the object; `f.apply(null, list)` on none. */
function isCalledAlike(match: Match): boolean {
  const [node, given] = [match.the(called), match.the(self)];
  const object = objectOf(match);
  if (node.is(["super", "function_expression", "arrow_function", "import"])) return false;
  if (object && sameCode(object, given)) return !object.is("super");
  if (object) return object.text === "Math" && (isMissing(given) || given.text === "Math");
  return isMissing(given) && node.is("identifier");
}

const js = trialsIn("javascript");
const ts = trialsIn("typescript");

export const spreadArguments = rule({
  id: "javascript/spread-arguments",
  kind: "idiom",
  title: "Use spread to call with a list of arguments",
  why: "`apply` writes the object twice, and hides which function is called.",
  was: javascript`${called}.apply(${self}, ${list})`,
  where: [isCalledAlike],
  given: [
    condition("the function gets the same object", getsSame),
    condition("the arguments are a list that can be spread", isList),
  ],
  becomes: javascript`${called}(...${list})`,
  trials: [
    js.rewrites("const xs = []; Math.max.apply(null, xs);", "const xs = []; Math.max(...xs);"),
    js.rewrites("const xs = []; Math.max.apply(Math, xs);", "const xs = []; Math.max(...xs);"),
    js.rewrites(
      "const xs = [];\nlet y = {}; y.push.apply(y, xs);",
      "const xs = [];\nlet y = {}; y.push(...xs);",
    ),
    js.rewrites("function f() { g.apply(undefined, arguments); }", "function f() { g(...arguments); }"),
    js.rewrites("function f() { g.apply(null, arguments); }", "function f() { g(...arguments); }", "likely"),
    js.rewrites("y.push.apply(y, xs);", "y.push(...xs);", "likely"),
    js.rewrites("this.emit.apply(this, [name].concat(xs));", "this.emit(...[name].concat(xs));"),
    ts.rewrites(
      "const f = (xs?: number[]) => Math.max.apply(null, xs);",
      "const f = (xs?: number[]) => Math.max(...xs);",
      "likely",
    ),
    ts.rewrites(
      "const f = (xs: number[]) => Math.max.apply(null, xs);",
      "const f = (xs: number[]) => Math.max(...xs);",
    ),
    js.holds("next().push.apply(next(), xs);", "calls something"),
    js.ignores("g.apply(this, arguments);"),
    js.ignores("y.push.apply(z, xs);"),
    js.ignores("super.f.apply(this, arguments);"),
    js.ignores("Base.prototype.f.apply(this, arguments);"),
    js.ignores("g.apply(null);"),
    js.ignores("y.push.call(y, xs);"),
  ],
});
