import { condition, isBuiltin, isMissing, no, rule, trialsIn, typeOf, unknown, yes } from "../../../core.js";
import type { Answer, Match } from "../../../core.js";
import { kindOf } from "../kinds.js";
import { isThere } from "../there.js";
import { fn, list, ROWS, value, type Row } from "./rows.js";

const rowOf = (match: Match): Row => ROWS[match.alternative]!;

/** The library takes a missing list for an empty one, and an object for the list of its values. */
function isTolerated(match: Match): Answer {
  const { tolerates, name } = rowOf(match);
  if (tolerates === "nothing") return yes("value.kind", "both take any value");
  const node = match.the(list);
  if (tolerates === "lists") {
    const known = kindOf(match, node);
    if (known && known.owner !== "Array")
      return no("type.is", `${known.why}, which is not an array`, known.at);
    if (!known || known.byUse)
      return unknown(
        "value.kind",
        `\`${node.text}\` could be missing or an object, which \`${name}\` takes as well`,
        node,
      );
  }
  const there = isThere(match, node);
  if (there.is === "yes") return there;
  const says = `${there.evidence.says}, for which \`${name}\` gives what it gives for an empty list`;
  return unknown("value.null", says, there.evidence);
}

/** A text or an object in the place of a function is a short form of the library's own; one that gives false ends its loop. */
function isFunction(match: Match): Answer {
  if (!match.has(fn)) return yes("value.kind", "no function is handed on");
  const node = match.the(fn);
  if (node.is(["string", "object", "array", "template_string"]))
    return no("value.kind", `\`${node.text}\` is a short form that only the library knows`, node);
  const isWritten = node.is(["arrow_function", "function_expression"]);
  const { name } = rowOf(match);
  if (/^(forEach|each)$/.test(name) && !(isWritten && givesNothing(node)))
    return unknown(
      "flow.leaves-early",
      `the loop of the library ends where \`${node.text.split("\n")[0]}\` gives false`,
      node,
    );
  return isWritten || typeOf(node)?.name === "Function"
    ? yes("value.kind", "a function is handed on", node)
    : unknown("value.kind", `\`${node.text}\` could be a short form that only the library knows`, node);
}

/** Does a function written here never give back a value? */
function givesNothing(node: Match["node"]): boolean {
  const body = node.child("body")!;
  if (!body.is("statement_block")) return body.is(["assignment_expression", "update_expression"]);
  return ![...body.descendants()].some((one) => one.is("return_statement") && one.parts.length > 0);
}

const js = trialsIn("javascript");
const ts = trialsIn("typescript");

export const nativeFunction = rule({
  id: "javascript/native-function",
  kind: "idiom",
  title: "Use what the language has instead of a library for it",
  why: "A reader has to know one library less, and pages load one file less.",
  was: ROWS.map(({ was }) => was),
  target: "2019",
  where: [
    (match) => !match.has(value) || !isMissing(match.the(value)) || rowOf(match).tolerates !== "nothing",
  ],
  given: [
    condition("it is an array, or an object that is there", isTolerated),
    condition("a function is handed on", isFunction),
    condition("the names of the language mean what they say", (match) =>
      isBuiltin(/^(Array|Object)\b/.exec(rowOf(match).becomes.texts[0]!)?.[0] ?? "Array", match.node),
    ),
  ],
  becomes: (match) => rowOf(match).becomes,
  trials: [
    js.rewrites(
      'import _ from "lodash";\nconst jars = [1];\nf(_.map(jars, (jar) => jar + 1));',
      "const jars = [1];\nf(jars.map((jar) => jar + 1));",
    ),
    js.rewrites(
      'const _ = require("underscore");\nconst jars = [1];\n_.each(jars, function (jar) { f(jar); });',
      "const jars = [1];\njars.forEach(function (jar) { f(jar); });",
    ),
    js.rewrites(
      'import { filter, isNil } from "lodash-es";\nconst jars = [1];\nf(filter(jars, (jar) => !isNil(jar)));',
      "const jars = [1];\nf(jars.filter((jar) => !(jar == null)));",
    ),
    js.rewrites(
      'import _ from "lodash";\nf(_.map(jars, (jar) => jar + 1));',
      "f(jars.map((jar) => jar + 1));",
      "likely",
    ),
    js.rewrites('import _ from "lodash";\nf(_.keys(jars));', "f(Object.keys(jars));", "likely"),
    js.rewrites('import _ from "lodash";\nf(_.keys({ a }));', "f(Object.keys({ a }));"),
    js.rewrites('import _ from "lodash";\nf(_.isArray(jars));', "f(Array.isArray(jars));"),
    js.rewrites(
      'import _ from "lodash";\nconst jars = [1];\n_.each(jars, f);',
      "const jars = [1];\njars.forEach(f);",
      "likely",
    ),
    js.rewrites(
      'import _ from "lodash";\nconst jars = [1];\nf(_.reduce(jars, (sum, jar) => sum + jar, 0), _.chunk(jars));',
      'import _ from "lodash";\nconst jars = [1];\nf(jars.reduce((sum, jar) => sum + jar, 0), _.chunk(jars));',
    ),
    // A parameter that may be left out, a value that may be null.
    ts.rewrites(
      'import _ from "lodash";\nconst f = (xs?: number[]) => _.map(xs, (x) => x + 1);',
      "const f = (xs?: number[]) => xs.map((x) => x + 1);",
      "likely",
    ),
    ts.rewrites(
      'import _ from "lodash";\nconst f = (xs: string[] | undefined) => _.map(xs, (x) => x + 1);',
      "const f = (xs: string[] | undefined) => xs.map((x) => x + 1);",
      "likely",
    ),
    js.rewrites(
      'import _ from "lodash";\nlet jars;\nif (x) jars = [1];\nf(_.map(jars, (jar) => jar + 1));',
      "let jars;\nif (x) jars = [1];\nf(jars.map((jar) => jar + 1));",
      "likely",
    ),
    js.holds('import _ from "lodash";\nconst jars = [1];\nf(_.map(jars, "age"));', "short form"),
    js.holds('import _ from "lodash";\nconst s = "abc";\nf(_.map(s, (c) => c));', "not an array"),
    js.ignores('import _ from "./own.js";\nf(_.map(jars, (jar) => jar));'),
    js.ignores('import _ from "lodash";\nf(_.chain(jars).map((jar) => jar).value());'),
    js.ignores('import _ from "lodash";\nf(_.map(jars));'),
    js.ignores("f(_.map(jars, (jar) => jar));\nfunction _() {}"),
  ],
});
