import {
  condition,
  copy,
  holes,
  isBuiltin,
  isSideEffectFree,
  no,
  ofKind,
  rule,
  Snippet,
} from "../../../core.js";
import { javascript, trialsIn, typeOf, unknown, weakest, yes } from "../../../core.js";
import type { Answer, Condition, Match, Segment, SyntaxNode } from "../../../core.js";
import { callsOf, chainAt, type UtilityChain } from "./chains.js";
import { LIBRARY_WORDS, utilityOf, type UtilityCall } from "./library-call.js";
import { isDense, isPresent, isSubject, staysAsItIs } from "./lists.js";
import { callee, first, second, third, type Native } from "./native-row.js";
import { notEmpty } from "./native-values.js";
import { nativeOf } from "./natives.js";
import { codeOf, isWritten, saysTheSame, SHORT_FORMS } from "./short-forms.js";
import { givenBy, isAnswer, linked, receiver, writtenFor, type Written } from "./written.js";

const { chain } = holes({ chain: { kind: "expression", node: "call_expression" } });

/** Is the call in the middle of a longer chain, which is taken as a whole? */
const isLinked = (node: SyntaxNode): boolean =>
  node.parent?.is("member_expression") === true && node.field === "object";

const chainOf = (match: Match): UtilityChain | undefined =>
  match.has(chain) ? chainAt(match.the(chain)) : undefined;

/** The one call that was found, or the links of a chain. */
function callsIn(match: Match): UtilityCall[] {
  const links = chainOf(match);
  if (links) return callsOf(links, match);
  const utility = utilityOf(match.the(callee));
  const args = [first, second, third].flatMap((hole) => (match.has(hole) ? [match.the(hole)] : []));
  const node = match.node.is("unary_expression") ? match.node.child("argument")! : match.node;
  return utility ? [{ ...utility, match, node, args }] : [];
}

const nativeFor = ({ library, name, args }: UtilityCall): Native | undefined =>
  nativeOf(library, name, args.length);

const isNegated = (match: Match): boolean => match.node.is("unary_expression");

function written(call: UtilityCall, native: Native): Written {
  if (!isNegated(call.match)) return writtenFor(call, native);
  if (call.name === "isEmpty") return notEmpty(call)!;
  const code = writtenFor(call, native) as Snippet;
  return codeOf(
    code.texts.map((one) => one.replace(/ ==(=?) /, " !=$1 ")),
    code.parts,
  );
}

/** Is there another operator for the opposite of what the call becomes? */
function hasOpposite(call: UtilityCall): boolean {
  const code = call.name === "isEmpty" ? undefined : writtenFor(call, nativeFor(call)!);
  return code instanceof Snippet ? code.texts.some((one) => / ===? /.test(one)) : call.name === "isEmpty";
}

function hasForm(match: Match): boolean {
  if (match.has(chain)) return true;
  const [call] = callsIn(match);
  if (!call || !nativeFor(call) || call.args.some((one) => one.is("spread_element"))) return false;
  if (call.args.length > 1 && chainAt(call.node)) return false;
  return !isNegated(match) || hasOpposite(call);
}

type Ask = (call: UtilityCall, native: Native) => Answer | undefined;

/** What is asked of the calls of which there is something to ask: the weakest answer counts. */
function about(must: string, ask: Ask, unknownIs: "likely" | "possible" = "likely"): Condition {
  const answersFor = (match: Match): Answer[] =>
    callsIn(match).flatMap((call) => {
      const native = nativeFor(call);
      return (native && ask(call, native)) ?? [];
    });
  return condition(
    must,
    (match) => {
      const [first, ...rest] = answersFor(match);
      return weakest([first!, ...rest]);
    },
    { unknownIs, when: (match) => answersFor(match).length > 0 },
  );
}

/** Functions that walk objects as well as lists. */
const walksObjects = ({ walks, alsoObjects }: Native): boolean => walks !== undefined || alsoObjects === true;

const isTaken: Ask = (call, native) => {
  const { takes, walks } = native;
  if (typeof takes === "string" || call.args.length === 0) return undefined;
  return isSubject(call, walks === undefined ? takes : [...takes, "object"]);
};

const isThereToTake: Ask = (call, { takes }) =>
  takes === "value" || call.args.length === 0 ? undefined : isPresent(call);

/** A text or an object in the place of a function is a short form of the library's own; one that gives false ends its loop. */
const isFunction: Ask = (call, { runs, givesOther }) => {
  if (!runs) return undefined;
  const node = call.args[1]!;
  if (node.is(SHORT_FORMS) && runs !== "fold") return saysTheSame(node, call.args[0]!, call);
  if (givesOther && !(isWritten(node) && givesNothing(node))) {
    const says = `the loop of the library ends where \`${node.text.split("\n")[0]}\` gives false`;
    return unknown("flow.leaves-early", says, node);
  }
  return isWritten(node) || typeOf(node)?.name === "Function"
    ? yes("value.kind", "a function is handed on", node)
    : unknown("value.kind", `\`${node.text}\` could be a short form that only the library knows`, node);
};

/** Does a function written here never give back a value? */
function givesNothing(node: SyntaxNode): boolean {
  const body = node.child("body")!;
  if (!body.is("statement_block")) return body.is(["assignment_expression", "update_expression"]);
  return ![...body.descendants()].some((one) => one.is("return_statement") && one.parts.length > 0);
}

/** A loop of the library gives the list. */
const isStatement: Ask = ({ node, after }, { givesOther }) => {
  if (!givesOther) return undefined;
  return node.parent?.is("expression_statement") && !after
    ? yes("value.result", "nobody takes what the loop gives")
    : no("value.result", "what the loop of the library gives is the list", node);
};

/** The links of a chain of lodash that run a function: item by item where the list is long, and not one after the other. */
function linksInTurn(match: Match): UtilityCall[] {
  const links = chainOf(match);
  return links?.library === "lodash" ? callsOf(links, match).filter((call) => nativeFor(call)?.runs) : [];
}

function keepsOrder(match: Match): Answer {
  const code = "flow.order";
  for (const { args } of linksInTurn(match)) {
    const fn = args[1]!;
    if (fn.is(SHORT_FORMS)) continue;
    const given = isWritten(fn) ? givenBy(fn) : undefined;
    if (given && isSideEffectFree(given).is === "yes") continue;
    return unknown(code, `\`${fn.text.split("\n")[0]}\` was run item by item where the list is long`, fn);
  }
  return yes(code, "the functions of the chain have no side effects");
}

function canBeWritten(match: Match): Answer {
  const answers = callsIn(match).map((call): Answer => {
    const native = nativeFor(call);
    if (!native) return no("form.fits", `nothing in the language does what \`${call.name}\` does`, call.node);
    const code = written(call, native);
    return isAnswer(code) ? code : yes("form.fits", "the language has it");
  });
  return weakest([yes("form.fits", "the language has it"), ...answers]);
}

/** The code of a chain, its links where they stand. */
function chained(links: UtilityChain, match: Match): Segment[] {
  let ahead = receiver(links.start);
  for (const call of callsOf(links, match)) {
    const code = written(call, nativeFor(call)!) as Snippet | Segment[];
    const read = call.node.child("function")!;
    const gap = copy(read.child("object")!.end, read.child("property")!.start - 1);
    const isMember = !(code instanceof Snippet) || (code.texts[0] === "" && /^[.]/.test(code.texts[1]!));
    ahead = linked(call, code, isMember ? [...ahead, gap] : ahead);
  }
  return ahead;
}

function becomes(match: Match): Snippet | readonly Segment[] {
  const links = chainOf(match);
  if (links) return chained(links, match);
  const [call] = callsIn(match);
  return written(call!, nativeFor(call!)!) as Snippet | Segment[];
}

const textIn = (segment: Segment): string => ("text" in segment ? segment.text : "");

/** The names of the language that the new code uses. */
function namesOf(match: Match): string[] {
  return callsIn(match).flatMap((call) => {
    const native = nativeFor(call);
    const code = native && written(call, native);
    const texts = code instanceof Snippet ? code.texts : code && !isAnswer(code) ? code.map(textIn) : [];
    return /\b(Array|Object|Number|Date|Set|Boolean)\b/.exec(texts.join(""))?.[1] ?? [];
  });
}

const js = trialsIn("javascript");
const ts = trialsIn("typescript");
const old = trialsIn("javascript", "2019");

export const nativeFunction = rule({
  id: "javascript/native-function",
  kind: "idiom",
  title: "Use what the language has instead of a library for it",
  why: "A reader has to know one library less, and pages load one file less.",
  was: [
    javascript`!${callee}(${first})`,
    javascript`${callee}()`,
    javascript`${callee}(${first})`,
    javascript`${callee}(${first}, ${second})`,
    javascript`${callee}(${first}, ${second}, ${third})`,
    ofKind(chain, { when: (node) => !isLinked(node) && chainAt(node) !== undefined }),
  ],
  mentions: LIBRARY_WORDS,
  where: [hasForm],
  given: [
    condition("the language has what the library does", canBeWritten),
    about(
      "it is what the language takes",
      (call, native) => (walksObjects(native) ? isTaken(call, native) : undefined),
      "possible",
    ),
    about("it is a list, or a string", (call, native) =>
      walksObjects(native) ? undefined : isTaken(call, native),
    ),
    about("it is there", isThereToTake),
    about("every place of the list is filled", (call, { needsAll }) =>
      needsAll ? isDense(call) : undefined,
    ),
    about("a function is handed on", isFunction),
    about("the list keeps its items meanwhile", (call, { runs }) => (runs ? staysAsItIs(call) : undefined)),
    about("nobody asks for what the loop gives", isStatement),
    about("both give the same value", (call, { asks }) => asks?.(call)),
    condition("functions are run in the same order", keepsOrder, {
      when: (match) => linksInTurn(match).length > 1,
    }),
    condition(
      "the names of the language mean what they say",
      (match) => {
        const [first, ...rest] = namesOf(match).map((name) => isBuiltin(name, match.node));
        return weakest([first!, ...rest]);
      },
      { when: (match) => namesOf(match).length > 0 },
    ),
  ],
  becomes,
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
      "const jars = [1];\nf(jars.filter((jar) => jar != null));",
    ),
    js.rewrites(
      'import _ from "lodash";\nf(_.map(jars, (jar) => jar + 1));',
      "f(jars.map((jar) => jar + 1));",
      "possible",
    ),
    js.rewrites(
      'import _ from "lodash";\nf(_.map(jars, (jar) => jar + 1), jars.length);',
      "f(jars.map((jar) => jar + 1), jars.length);",
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
    // Short forms of functions.
    js.rewrites(
      'import _ from "lodash";\nconst jars = [{ age: 1 }];\nf(_.map(jars, "age"), _.reject(jars, "net weight"));',
      'const jars = [{ age: 1 }];\nf(jars.map((jar) => jar.age), jars.filter((jar) => !jar["net weight"]));',
      "likely",
    ),
    js.rewrites(
      'import _ from "lodash";\nf(_.map([{ age: 1 }], "age"));',
      "f([{ age: 1 }].map((item) => item.age));",
    ),
    js.rewrites(
      'import _ from "lodash";\nf(_.find(jars, { age: 1, kind: "oak" }), _.some(jars, ["age", 2]));',
      'f(jars.find((jar) => jar.age === 1 && jar.kind === "oak"), jars.some((jar) => jar.age === 2));',
      "possible",
    ),
    js.rewrites(
      'import _ from "underscore";\nf(_.where(jars, { age }), _.pluck(jars, "kind"));',
      "f(jars.filter((jar) => jar.age === age), jars.map((jar) => jar.kind));",
      "likely",
    ),
    js.rewrites(
      'import _ from "lodash";\nf(_.map(jars, "keeper.name"), _.sumBy(jars, "age"), _.keyBy(jars, "id"));',
      "f(jars.map((jar) => jar.keeper?.name), jars.reduce((total, jar) => total + jar.age, 0), Object.fromEntries(jars.map((jar) => [jar.id, jar])));",
      "possible",
    ),
    js.holds('import _ from "lodash";\nf(_.find(jars, { keeper: { name: "x" } }));', "short form"),
    js.holds('import _ from "underscore";\nf(_.map(jars, "keeper.name"));', "short form"),
    js.holds('import _ from "lodash";\nf(_.find(jars, { age: g() }));', "short form"),
    js.holds('import _ from "lodash";\nf(_.map(jars, { age: 1 }));', "short form"),
    // The library takes objects for lists.
    js.rewrites(
      'import _ from "lodash";\nconst byAge = _.groupBy(jars, "age");\n_.forEach(byAge, function (rows, age) { rows.n = age; });',
      'import _ from "lodash";\nconst byAge = _.groupBy(jars, "age");\nObject.entries(byAge).forEach(function ([age, rows]) { rows.n = age; });',
      "likely",
    ),
    js.rewrites(
      'import _ from "lodash";\nconst o = { a: 1, b: 2 };\nf(_.map(o, (n, key) => key + n), _.filter(o, (n) => n > 1), _.size(o));',
      "const o = { a: 1, b: 2 };\nf(Object.entries(o).map(([key, n]) => key + n), Object.values(o).filter((n) => n > 1), Object.keys(o).length);",
    ),
    js.rewrites(
      'import _ from "lodash";\n_.forOwn(o, (n, key) => { f(key, n); });',
      "Object.entries(o).forEach(([key, n]) => { f(key, n); });",
      "likely",
    ),
    js.holds(
      'import _ from "lodash";\n_.each(all, function (rows, key) { f(key); });',
      "could be the key of a member",
    ),
    js.holds(
      'import _ from "lodash";\nconst o = { length: 2, 0: "a" };\nf(_.map(o, (x) => x));',
      "not an array",
    ),
    // Places that were never filled.
    js.rewrites(
      'import _ from "lodash";\nf(_.map(new Array(5), () => 1));',
      "f(new Array(5).map(() => 1));",
      "likely",
    ),
    js.rewrites(
      'import _ from "lodash";\nconst jars = [1];\njars[7] = 2;\nf(_.map(jars, (jar) => jar + 1));',
      "const jars = [1];\njars[7] = 2;\nf(jars.map((jar) => jar + 1));",
      "likely",
    ),
    // The list is cut short meanwhile: the library goes on to its old length.
    js.holds(
      'import _ from "lodash";\nconst jars = [1, 2];\n_.each(jars, function (jar) { jars.pop(); });',
      "is changed here",
    ),
    js.rewrites(
      'import _ from "lodash";\nconst jars = [1, 2];\n_.each(jars, function (jar, i, all) { all.pop(); });',
      "const jars = [1, 2];\njars.forEach(function (jar, i, all) { all.pop(); });",
      "likely",
    ),
    // What a loop gives is the list.
    js.holds('import _ from "lodash";\nf(_.each(jars, (jar) => { g(jar); }));', "is the list"),
    // Parts of lists, texts, objects and values.
    js.rewrites(
      'import _ from "lodash";\nconst jars = [3, 3];\nf(_.first(jars), _.last(jars), _.uniq(jars), _.compact(jars), _.take(jars, 2));',
      "const jars = [3, 3];\nf(jars[0], jars.at(-1), [...new Set(jars)], jars.filter(Boolean), jars.slice(0, 2));",
    ),
    old.rewrites(
      'import _ from "lodash";\nconst jars = [3];\nf(_.last(jars));',
      "const jars = [3];\nf(jars[jars.length - 1]);",
    ),
    js.holds('import _ from "lodash";\nf(_.takeRight(jars, 0));', "for none"),
    js.rewrites(
      'import _ from "lodash";\nconst jars = [3];\nif (_.isEmpty(jars)) f();\nif (!_.isEmpty(jars)) g();',
      "const jars = [3];\nif (jars.length === 0) f();\nif (jars.length > 0) g();",
    ),
    js.rewrites(
      'import _ from "lodash";\nf(_.get(hive, "keeper.name"), _.get(hive, "jars[0]", 3));',
      "f(hive?.keeper?.name, hive?.jars?.[0] ?? 3);",
      "likely",
    ),
    js.rewrites('import _ from "lodash";\nf(_.get(this, "age"));', "f(this?.age);"),
    js.rewrites('import _ from "lodash";\nf(_.get({ age: 1 }, "age"));', "f({ age: 1 }.age);"),
    // Characters that count twice, lists that are only like ones.
    js.rewrites(
      'import _ from "lodash";\nconst s = String(x);\nf(_.size(s));',
      "const s = String(x);\nf(s.length);",
      "likely",
    ),
    js.rewrites(
      'import _ from "lodash";\nf(_.split("a\u{1F41D}b", ""));',
      'f("a\u{1F41D}b".split(""));',
      "likely",
    ),
    js.rewrites('import _ from "lodash";\nf(_.split("a,b", ","));', 'f("a,b".split(","));'),
    js.rewrites('import _ from "lodash";\nf(_.concat([1], xs));', "f([1].concat(xs));", "likely"),
    js.rewrites(
      'import _ from "lodash";\nf(_.range(xs.length));',
      "f([...Array(xs.length).keys()]);",
      "likely",
    ),
    js.holds(
      'import _ from "lodash";\nimport Object from "./own.js";\nconst o = { a: 1 };\nf(_.map(o, (n) => n));',
      "another meaning",
    ),
    js.rewrites('import _ from "lodash";\nf(_.get(hive, "age"));', "f(hive?.age);"),
    js.holds('import _ from "lodash";\nf(_.get(hive, path));', "nothing in the language"),
    js.holds('import _ from "lodash";\nf(_.get(hive, "age", g()));', "nothing in the language"),
    js.rewrites(
      "const _ = require('lodash');\nf(_.isFunction(g), _.isDate('x'));",
      "f(typeof g === 'function', 'x' instanceof Date);",
      "likely",
    ),
    js.rewrites(
      'import _ from "lodash";\nf(_.trim(" x "), _.startsWith("abc", "a"), _.range(5), _.range(1, 4));',
      'f(" x ".trim(), "abc".startsWith("a"), [...Array(5).keys()], Array.from({ length: 3 }, (_unused, i) => i + 1));',
    ),
    js.rewrites('import _ from "lodash";\nf(_.assign({}, { a: 1 }));', "f(Object.assign({}, { a: 1 }));"),
    js.rewrites('import _ from "lodash";\nf(_.extend({}, a));', "f(Object.assign({}, a));", "likely"),
    // However the function is taken from the library.
    js.rewrites('import map from "lodash/map";\nf(map([1], (x) => x));', "f([1].map((x) => x));"),
    js.rewrites('const first = require("lodash.first");\nf(first([1]));', "f([1][0]);"),
    // Chains as a whole.
    js.rewrites(
      `
      import _ from "lodash";
      const names = _.chain(hives())
        .filter((hive) => hive.old) // the old ones
        .map("name")
        .uniq()
        .value();
      `,
      `
      const names = [...new Set(hives()
        .filter((hive) => hive.old) // the old ones
        .map((item) => item.name))];
      `,
      "possible",
    ),
    js.rewrites(
      'import _ from "lodash";\nconst jars = [1];\nf(_(jars).map((jar) => jar + 1).join("-"));',
      'const jars = [1];\nf(jars.map((jar) => jar + 1).join("-"));',
    ),
    // Links are run item by item where the list is long.
    js.rewrites(
      'import _ from "lodash";\nconst jars = [1];\nf(_(jars).filter((jar) => jar > 1).map((jar) => jar + 1).join("-"));',
      'const jars = [1];\nf(jars.filter((jar) => jar > 1).map((jar) => jar + 1).join("-"));',
      "likely",
    ),
    js.rewrites(
      'import _ from "lodash";\nconst jars = [1];\nf(_(jars).map((jar) => g(jar)).map((jar) => h(jar)).value());',
      "const jars = [1];\nf(jars.map((jar) => g(jar)).map((jar) => h(jar)));",
      "likely",
    ),
    js.holds(
      'import _ from "lodash";\nf(_.chain(jars).map("a").sortBy("b").value());',
      "does what `sortBy` does",
    ),
    js.ignores('import _ from "lodash";\nf(_(jars).map((jar) => jar));'),
    js.holds('import _ from "lodash";\nconst s = "abc";\nf(_.map(s, (c) => c));', "not an array"),
    js.ignores('import _ from "./own.js";\nf(_.map(jars, (jar) => jar));'),
    js.ignores('import _ from "lodash";\nf(_.chunk(jars, 2));'),
    js.ignores('import _ from "lodash";\nf(_.map(jars));'),
    js.ignores("f(_.map(jars, (jar) => jar));\nfunction _() {}"),
  ],
});
