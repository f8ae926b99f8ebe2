import {
  condition,
  copy,
  fresh,
  holes,
  isBuiltin,
  isLeftAlone,
  isTarget,
  isUnchanged,
  neverWritten,
  no,
  referencesAt,
  referencesOf,
  removal,
  rule,
  runsLater,
  trialsIn,
  typeOf,
  unknown,
  walkedByKey,
  yes,
} from "../../../core.js";
import type { Answer, Match, Segment, SyntaxNode } from "../../../core.js";
import { assertsNoMore, withoutSign } from "./asserted.js";

const { key, map, body } = holes({ key: "name", map: "expression", body: "statements" });
const value = fresh("value", { or: ["item", "entry"] });

const js = trialsIn("javascript");
const ts = trialsIn("typescript");

/** Does a method of the object itself give the keys, as maps have it? */
const isMap = ({ loop }: Match): boolean => loop.positions?.text.startsWith("Object.keys") !== true;

/** The first statement of the loop, where all that it does is to give the value a name. */
function ownOf({ loop }: Match): { name: SyntaxNode; statement: SyntaxNode } | undefined {
  const { own, body: statements } = loop;
  const isPlain =
    own && statements.length > 1 && /^(const|let|var)\s+[\p{L}\p{N}_$]+\s*=/u.test(own.statement.text);
  if (!isPlain || own.statement.parts.length !== 1) return undefined;
  const to = referencesAt(own.name).find((one) => !one.member)?.to;
  const isInside =
    to?.at.length === 1 && referencesOf(to).every((one) => statements.some((at) => at.holds(one.node)));
  return isInside ? { name: own.name, statement: own.statement } : undefined;
}

/** All values are read before the first round; what is looked up in a round is what is there by then. */
function staysTheSame(match: Match): Answer {
  const { loop } = match;
  const written = loop.lookUps.find(isTarget);
  if (written) return no("flow.written", `\`${written.text}\` is written`, written);
  const called = loop.lookUps.find((read) => read.parent?.is("call_expression") && read.field === "function");
  if (called)
    return no("value.result", `\`${called.text}\` is called with the object as its \`this\``, called);
  const later = loop.lookUps.find((at) => loop.body.some((part) => part.holds(at) && runsLater(at, part)));
  if (later)
    return no("resource.used-after", "the value is looked up in a function that may run later", later);
  return isUnchanged(match.the(map), match.all(body));
}

/** A map gives its keys by a method that other classes have as well. */
function isKnownMap(match: Match): Answer {
  const node = match.the(map);
  if (!isMap(match)) return isBuiltin("Object", node);
  const type = typeOf(node);
  return type?.name === "Map" && !type.declared && type.module === undefined
    ? yes("type.is", type.why, type.at)
    : unknown("type.not-known", `nothing says that \`${node.text}\` is a map`, node);
}

function looped(match: Match): readonly Segment[] {
  const { loop } = match;
  const own = ownOf(match);
  const name = own?.name.text ?? match.named(value);
  const again = loop.lookUps.filter((read) => own?.statement.holds(read) !== true);
  const isIdle = loop.others.length === 0;
  const given = isIdle ? name : `[${loop.index.text}, ${name}]`;
  const walks = loop.items.text;
  const entries = isIdle
    ? isMap(match)
      ? `${walks}.values()`
      : `Object.values(${walks})`
    : isMap(match)
      ? walks
      : `Object.entries(${walks})`;
  const isCallback = loop.form === "callback";
  const place = isCallback ? loop.header : loop.index;
  const edits = [
    ...(own ? [removal(own.statement)] : []),
    ...again.map(({ start, end }) => ({ start, end, text: name })),
    { start: place.start, end: place.end, text: isCallback ? `(${given})` : given },
    { start: loop.positions!.start, end: loop.positions!.end, text: entries },
  ].sort((a, b) => a.start - b.start);
  return [copy(match.nodes[0]!.start, match.nodes.at(-1)!.end, edits)];
}

export const keyAndValue = rule({
  id: "javascript/key-and-value",
  kind: "idiom",
  title: "Walk the entries instead of looking each value up by its key",
  why: "The value is looked up again and again, and the reader must see that it is always that of the key.",
  was: walkedByKey({ index: key, items: map, body }),
  where: [
    (match) => /^(this\.)?[\p{L}_$][\p{L}\p{N}_$.]*$/u.test(match.textOf(map)),
    ({ loop }) => loop.form === "callback" || /^for\s*\((const|let|var)\s/.test(loop.node.text),
    // What a map gives by its method has no methods of arrays.
    (match) => !isMap(match) || match.loop.form !== "callback",
    // Reads of a map are calls, and those of an object are not.
    (match) => match.loop.lookUps.every((read) => withoutSign(read).is("call_expression") === isMap(match)),
    (match) => ![match.textOf(key), ...match.textOf(map).split(".")].includes(ownOf(match)?.name.text ?? ""),
    ({ loop }) => loop.form !== "callback" || !loop.node.child("arguments")?.firstPart?.child("return_type"),
  ],
  given: [
    condition("it is the library's", isKnownMap, { unknownIs: "possible" }),
    neverWritten(key, { in: body }),
    condition("the values are those that looking them up would give", staysTheSame),
    condition("the key is used in the loop only", ({ loop }) =>
      /^for\s*\(var\s/.test(loop.node.text)
        ? loop.outside.length > 0
          ? no("resource.used-after", `\`${loop.index.text}\` is used outside of the loop`, loop.outside[0])
          : yes("resource.used-after", "the key is used in the loop only")
        : yes("resource.used-after", "the key is seen in the loop only"),
    ),
    condition("the name of the value is written nowhere else", (match) => {
      const own = ownOf(match);
      return own
        ? isLeftAlone(own.name, match.loop.body.slice(1))
        : yes("flow.written", "the value has a name of its own");
    }),
    assertsNoMore(),
  ],
  becomes: looped,
  trials: [
    js.rewrites(
      "const jars = { a: 1 }; let n = 0; for (const k of Object.keys(jars)) n = n + jars[k] + k;",
      "const jars = { a: 1 }; let n = 0; for (const [k, value] of Object.entries(jars)) n = n + value + k;",
    ),
    js.rewrites(
      "const jars = { a: 1 }; let n = 0; for (const k of Object.keys(jars)) n = jars[k];",
      "const jars = { a: 1 }; let n = 0; for (const value of Object.values(jars)) n = value;",
    ),
    js.rewrites(
      "for (const k of Object.keys(jars)) { const jar = jars[k]; f(k, jar, jars[k]); }",
      "for (const [k, jar] of Object.entries(jars)) { f(k, jar, jar); }",
      "likely",
    ),
    js.rewrites(
      "Object.keys(jars).forEach((k) => { var jar = jars[k]; f(jar); });",
      "Object.values(jars).forEach((jar) => { f(jar); });",
      "likely",
    ),
    js.rewrites(
      "Object.keys(jars).forEach((k) => { f(k, jars[k]); });",
      "Object.entries(jars).forEach(([k, value]) => { f(k, value); });",
      "likely",
    ),
    js.rewrites(
      "const all = Object.keys(jars).map((k) => jars[k]);",
      "const all = Object.values(jars).map((value) => value);",
    ),
    js.rewrites(
      "Object.keys(jars).forEach(function (k) { f(k, jars[k]); });",
      "Object.entries(jars).forEach(function ([k, value]) { f(k, value); });",
      "likely",
    ),
    js.rewrites(
      "const jars = new Map(); for (const k of jars.keys()) f(k, jars.get(k));",
      "const jars = new Map(); for (const [k, value] of jars) f(k, value);",
      "likely",
    ),
    js.rewrites(
      "const jars = new Map(); let n = 0; for (const k of jars.keys()) n = jars.get(k);",
      "const jars = new Map(); let n = 0; for (const value of jars.values()) n = value;",
    ),
    js.rewrites(
      "for (const k of jars.keys()) f(k, jars.get(k));",
      "for (const [k, value] of jars) f(k, value);",
      "possible",
    ),
    js.holds("for (const k of Object.keys(jars)) { jars[k] = 1; }", "is written"),
    js.holds("for (const k of Object.keys(jars)) { f(jars[k]); delete jars[k]; }", "is written"),
    js.holds("for (const k of Object.keys(jars)) jars[k]();", "is called with the object"),
    js.holds("for (const k of Object.keys(jars)) later(() => jars[k]);", "may run later"),
    js.holds("for (let k of Object.keys(jars)) { f(jars[k]); k = 1; }", "is written"),
    // `for…in` walks the positions of the keys.
    js.ignores("let n = 0; for (const k in Object.keys(jars)) n = jars[k];"),
    js.ignores("for (const k of Object.keys(jars)) f(k);"),
    js.ignores("for (const k of Object.keys(jars)) f(lids[k]);"),
    js.ignores("for (const k in jars) f(jars[k]);"),
    js.ignores("for (const k of keys(jars)) f(jars[k]);"),
    js.ignores("const some = Object.keys(jars).filter((k) => jars[k]);"),
    js.ignores("Object.keys(jars).forEach((k, i) => f(i, jars[k]));"),
    ts.ignores("for (const k of jars.keys()) f(jars[k]);"),
    trialsIn("javascript", "2016").ignores("for (const k of Object.keys(jars)) f(k, jars[k]);"),
  ],
});
