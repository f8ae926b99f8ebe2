import {
  condition,
  copy,
  fresh,
  holes,
  isLeftAlone,
  isOfTrait,
  isTarget,
  isUnchanged,
  neverWritten,
  no,
  removal,
  rule,
  runsLater,
  trialsIn,
  walkedByKey,
  yes,
} from "../../../core.js";
import type { Answer, Match, Segment } from "../../../core.js";

const { key, map, body } = holes({ key: "name", map: "expression", body: "statements" });
const value = fresh("value", { or: ["item", "entry"] });

/** The line with which the loop itself names the value, if it does more than that. */
const ownOf = ({ loop: { body: statements, own } }: Match) =>
  statements.length > 1 && own && /^[\p{L}\p{N}_]+\s*=/u.test(own.statement.text) ? own : undefined;

/** The dictionary gives its values as it goes, and refuses to go on once keys came or went. */
function staysTheSame(match: Match): Answer {
  const { loop, node } = match;
  const written = loop.lookUps.find(isTarget);
  if (written) return no("flow.written", `\`${written.text}\` is written`, written);
  const later = loop.lookUps.find((at) => loop.body.some((part) => part.holds(at) && runsLater(at, part)));
  if (later)
    return no("resource.used-after", "the value is looked up in a function that may run later", later);
  if (node.is("generator_expression"))
    return no(
      "resource.used-after",
      "the values are looked up as they are asked for, which may be later",
      node,
    );
  const own = ownOf(match);
  const isFirst = own !== undefined && loop.lookUps.every((read) => own.statement.holds(read));
  return isFirst
    ? yes("flow.written", "the value is read first", own.statement)
    : isUnchanged(match.the(map), match.all(body));
}

function looped(match: Match): readonly Segment[] {
  const { loop } = match;
  const own = ownOf(match);
  const name = own?.name.text ?? match.named(value);
  const again = loop.lookUps.filter((read) => own?.statement.holds(read) !== true);
  const isLocal =
    loop.form === "clause" ||
    (loop.outside.length === 0 && match.node.closest(["function_definition"]) !== undefined);
  const isIdle = loop.others.length === 0 && isLocal;
  const { positions, items, index } = loop;
  const edits = [
    ...(own ? [removal(own.statement)] : []),
    ...again.map(({ start, end }) => ({ start, end, text: name })),
    { start: index.start, end: index.end, text: isIdle ? name : `${index.text}, ${name}` },
    { start: positions!.start, end: positions!.end, text: `${items.text}.${isIdle ? "values" : "items"}()` },
  ].sort((a, b) => a.start - b.start);
  return [copy(match.nodes[0]!.start, match.nodes.at(-1)!.end, edits)];
}

const { rewrites, ignores, holds } = trialsIn("python");

export const keyAndValue = rule({
  id: "python/key-and-value",
  kind: "idiom",
  title: "Walk the items of a dictionary instead of looking each value up",
  why: "The value is looked up again and again, and the reader must see that it is always that of the key.",
  was: walkedByKey({ index: key, items: map, body }),
  where: [
    (match) => /^[\p{L}_][\p{L}\p{N}_.]*$/u.test(match.textOf(map)),
    (match) => match.loop.lookUps.every((read) => read.is("subscript")),
    (match) => ![match.textOf(key), ...match.textOf(map).split(".")].includes(ownOf(match)?.name.text ?? ""),
  ],
  given: [
    condition(
      "it is a dictionary, with the methods of one",
      (match) =>
        isOfTrait(match.the(map), "map", {
          what: "dict",
          methods: ["__getitem__", "__iter__", "items", "keys"],
        }),
      { unknownIs: "possible" },
    ),
    neverWritten(key, { in: body }),
    condition("the values are those that looking them up would give", staysTheSame),
    condition("the name of the value is written nowhere else", (match) => {
      const own = ownOf(match);
      return own
        ? isLeftAlone(own.name, match.loop.body.slice(1))
        : yes("flow.written", "the value has a name of its own");
    }),
    condition("the loop does not stand in a class body", (match) => {
      const above = [...match.node.ancestors()].find((node) =>
        node.is(["class_definition", "function_definition"]),
      );
      return above?.is("class_definition") && match.loop.form !== "clause"
        ? no("name.scope", "the new name would become an attribute of the class", above)
        : yes("name.scope", "the new name stays local");
    }),
  ],
  becomes: looped,
  trials: [
    rewrites(
      "def f(jars: dict):\n    n = 0\n    for k in jars:\n        n = n * 2 + jars[k] - k\n",
      "def f(jars: dict):\n    n = 0\n    for k, value in jars.items():\n        n = n * 2 + value - k\n",
    ),
    rewrites(
      "def f(jars: dict):\n    for k in jars.keys():\n        jar = jars[k]\n        g(k, jar)\n",
      "def f(jars: dict):\n    for k, jar in jars.items():\n        g(k, jar)\n",
    ),
    rewrites(
      "def f(jars: dict):\n    return [jars[k] for k in jars]\n",
      "def f(jars: dict):\n    return [value for value in jars.values()]\n",
    ),
    rewrites(
      "def f(jars: dict):\n    return {k: jars[k] for k in jars if k}\n",
      "def f(jars: dict):\n    return {k: value for k, value in jars.items() if k}\n",
    ),
    rewrites(
      "def f(jars):\n    for k in jars.keys():\n        print(k, jars[k])\n",
      "def f(jars):\n    for k, value in jars.items():\n        print(k, value)\n",
      "possible",
    ),
    holds("def f(jars: dict):\n    for k in jars:\n        jars[k] = 1\n", "is written"),
    holds("def f(jars: dict):\n    for k in jars:\n        g(lambda: jars[k])\n", "may run later"),
    holds("def f(jars: dict):\n    return (jars[k] for k in jars)\n", "may be later"),
    holds("def f(jars: list):\n    for k in jars:\n        print(jars[k])\n", "dict"),
    ignores("def f(jars: dict):\n    for k in jars:\n        print(k)\n"),
    ignores("def f(jars: dict):\n    for k in sorted(jars):\n        print(jars[k])\n"),
    ignores("def f(jars: dict):\n    for k in jars:\n        print(lids[k])\n"),
    ignores("def f(jars: dict):\n    for k, v in jars.items():\n        print(jars[k])\n"),
  ],
});
