import {
  builtin,
  calledFromLibrary,
  condition,
  copy,
  fresh,
  holes,
  isBuiltin,
  isLeftAlone,
  isMadeByLibrary,
  neverWritten,
  no,
  placeOf,
  removal,
  rule,
  runsLater,
  standInFor,
  trialsIn,
  unchangedDuring,
  unknown,
  walked,
  yes,
} from "../../core.js";
import type { Answer, Edit, Match, Segment } from "../../core.js";
import { walksPairs } from "./loops/pairs.js";
import { sequenceKnown } from "./sequence.js";

const SEQUENCE = {
  names: ["list", "tuple", "str", "bytes"],
  module: undefined,
  methods: ["__getitem__", "__iter__", "__len__"],
  what: "list",
};
const { index, items, body } = holes({ index: "name", items: "expression", body: "statements" });
const item = fresh("item", { singularOf: items });

/** The line with which the loop itself names the item, if it does more than that. */
const ownOf = ({ loop: { body, own } }: Match) =>
  // A line that says the type as well says more than the name.
  body.length > 1 && own && /^[\p{L}\p{N}_]+\s*=/u.test(own.statement.text) ? own : undefined;

/** Is the position good for nothing but looking the item up, here and in the function around? */
function indexIsIdle({ loop, node }: Match): boolean {
  if (loop.others.length > 0) return false;
  // A name in an expression is one of its own, since Python 3.
  if (loop.form === "clause") return !/\bxrange\b/.test(node.text);
  const isLocal = [...node.ancestors()].some((above) => above.is(node.tree.language.functions));
  return isLocal && loop.outside.length === 0;
}

/** Where the name is given something else, an item that is looked up again is not what it names. */
function isItemWritten(match: Match): boolean {
  const own = ownOf(match);
  const { body: all } = match.loop;
  return own !== undefined && isLeftAlone(own.name, all.slice(1)).is !== "yes";
}

/** Is the item all that the loop needs? */
const isIdle = (match: Match): boolean => indexIsIdle(match) && !isItemWritten(match);

/** The loop with the item in its header, and the position where that is used otherwise. */
function looped(match: Match): readonly Segment[] {
  const { loop } = match;
  const own = ownOf(match);
  const isWritten = isItemWritten(match);
  const name = own?.name.text ?? match.named(item);
  const names = isIdle(match) ? name : `${loop.index.text}, ${name}`;
  const walks = loop.items.text;
  // Blanks that the file has within the brackets of `len` stay within those of `enumerate`.
  const list = loop.items.parent;
  const inside = list?.is(list.tree.language.argumentLists) ? list.text.slice(1, -1) : walks;
  const source = loop.isBackwards
    ? `reversed(${walks})`
    : isIdle(match)
      ? walks
      : `enumerate(${loop.from === 1 ? `${walks}, 1` : inside})`;
  const again = loop.lookUps.filter((read) => own?.statement.holds(read) !== true);
  const gone = [...loop.counting, ...(own ? [own.statement] : [])];
  const edits = [
    ...gone.map(removal),
    ...(isWritten ? [] : again.map(({ start, end }) => ({ start, end, text: name }))),
    ...headerEdits(match, names, source),
  ];
  const [first, last] = [match.nodes[0]!, match.nodes.at(-1)!];
  return [
    copy(
      first.start,
      last.end,
      edits.sort((a, b) => a.start - b.start),
    ),
  ];
}

/** The new header; what stands between the name and the positions stays where the code has both. */
function headerEdits({ loop }: Match, names: string, source: string): readonly Edit[] {
  const { header, index, form, positions } = loop;
  if (form === "counted" || !positions)
    return [{ start: header.start, end: header.end, text: `for ${names} in ${source}` }];
  return [
    { start: index.start, end: index.end, text: names },
    { start: positions.start, end: positions.end, text: source },
  ];
}

/** An expression that is worked out bit by bit sees what becomes of the items meanwhile. */
function isReadAtOnce({ loop, node }: Match): Answer {
  const later = loop.lookUps.find((at) => loop.body.some((part) => part.holds(at) && runsLater(at, part)));
  if (later)
    return no("resource.used-after", "the item is looked up in a function that may run later", later);
  const call = node.is("generator_expression") ? node.closest(["call"]) : undefined;
  return node.is("generator_expression") && (!call || !calledFromLibrary(call))
    ? no("resource.used-after", "the items are looked up as they are asked for, which may be later", node)
    : yes("resource.used-after", "all look-ups run in the loop");
}

const { rewrites, ignores, holds } = trialsIn("python");

export const indexAndItem = rule({
  id: "python/index-and-item",
  kind: "idiom",
  title: "Take the item from the loop instead of looking it up by index",
  why: "Looking the item up by index hides what the loop is about and invites off-by-one mistakes.",
  was: [walked({ index, items, body }), walked({ index, items, body, backwards: true })],
  where: [
    (match) => /^[\p{L}_][\p{L}\p{N}_.]*$/u.test(match.textOf(items)),
    (match) => !walksPairs(match),
    // A name that is the index, or part of what is looped over, cannot be that of the item.
    (match) => {
      const name = ownOf(match)?.name.text;
      return name === undefined || ![match.textOf(index), ...match.textOf(items).split(".")].includes(name);
    },
  ],
  given: [
    condition("no class of the project stands in for the list", (match) => {
      const standIn = standInFor(match.node, SEQUENCE);
      return standIn && !isMadeByLibrary(match.the(items), SEQUENCE)
        ? unknown(
            "type.stand-in",
            `\`${match.textOf(items)}\` could be a \`${standIn.name}\` (${placeOf(standIn)}), which has methods of its own`,
          )
        : yes("type.stand-in", "no class of the project stands in for it");
    }),
    condition("`range` is the built-in one", ({ loop, node }) => {
      const range = /\bin\s+(x?range)\b/.exec(loop.node.text)?.[1];
      return loop.form === "counted" || range === undefined
        ? yes("name.library", "`range` is not called")
        : isBuiltin(range, node);
    }),
    builtin("len"),
    condition("the loop goes forwards, or needs the item alone", (match) => {
      const { loop, node } = match;
      if (!loop.isBackwards) return yes("form.fits", "the loop goes forwards");
      if (isIdle(match)) return isBuiltin("reversed", node);
      const used = loop.others[0] ?? loop.outside[0] ?? loop.index;
      return no("form.fits", `\`${loop.index.text}\` is used otherwise, and counts down`, used);
    }),
    neverWritten(index, { in: body }),
    unchangedDuring(items, { during: body }),
    condition("the index is not part of what is looped over", (match) =>
      match.textOf(items).split(".").includes(match.textOf(index))
        ? no("flow.written", `\`${match.textOf(items)}\` is written with the index`, match.node)
        : yes("flow.written", "the index and the items have different names"),
    ),
    condition("no item is looked up in code that runs later", isReadAtOnce),
    condition("the loop does not stand in a class body", (match) => {
      const above = [...match.node.ancestors()].find((node) =>
        node.is(["class_definition", "function_definition"]),
      );
      return above?.is("class_definition") && match.loop.form !== "clause"
        ? no("name.scope", "the new name would become an attribute of the class", above)
        : yes("name.scope", "the new name stays local");
    }),
    condition(
      "looping gives what looking up by number gives",
      (match) =>
        sequenceKnown(match.the(items)) ??
        unknown(
          "value.kind",
          `\`${match.textOf(items)}\` could be a mapping with numbers as keys`,
          match.the(items),
        ),
    ),
  ],
  becomes: looped,
  trials: [
    rewrites(
      `
      def report(names: list[str]):
          for i in range(len(names)):
              print(i, names[i])
      `,
      `
      def report(names: list[str]):
          for i, name in enumerate(names):
              print(i, name)
      `,
    ),
    rewrites(
      "def f():\n    xs = [3, 4]\n    for i in range(len(xs) - 1, -1, -1):\n        print(xs[i])\n",
      "def f():\n    xs = [3, 4]\n    for item in reversed(xs):\n        print(item)\n",
    ),
    rewrites(
      "def f():\n    xs = [3, 4]\n    return [xs[i] for i in reversed(range(len(xs)))]\n",
      "def f():\n    xs = [3, 4]\n    return [item for item in reversed(xs)]\n",
    ),
    rewrites(
      "def f():\n    jars = [3, 4]\n    for i in reversed(range(len(jars))):\n        jar = jars[i]\n        print(jar)\n",
      "def f():\n    jars = [3, 4]\n    for jar in reversed(jars):\n        print(jar)\n",
    ),
    // What the new code walks by is what these methods are for.
    holds(
      "class Hives:\n    def __iter__(self):\n        for i in range(len(self)):\n            yield self[i]\n",
      "`__iter__` would call itself",
    ),
    holds(
      "class Hives:\n    def __reversed__(self):\n        for i in reversed(range(len(self))):\n            yield self[i]\n",
      "`__reversed__` would call itself",
    ),
    // Items are often taken out from behind, for which the positions are needed.
    holds(
      "def f():\n    xs = [3, 4]\n    for i in range(len(xs) - 1, -1, -1):\n        if xs[i] > 3:\n            del xs[i]\n",
      "changed",
    ),
    holds(
      "def f():\n    xs = [3, 4]\n    for i in reversed(range(len(xs))):\n        print(i, xs[i])\n",
      "counts down",
    ),
    holds(
      "def f():\n    xs = [3, 4]\n    for i in reversed(range(len(xs))):\n        print(xs[i])\n    return i\n",
      "counts down",
    ),
    ignores("def f():\n    xs = [3, 4]\n    for i in range(len(xs) - 1, 0, -1):\n        print(xs[i])\n"),
    ignores("def f():\n    xs = [3, 4]\n    for i in range(len(xs), -1, -1):\n        print(xs[i])\n"),
    rewrites(
      "xs = [3, 4]\nfor i in range(0, len(xs)):\n    x = xs[i]\n    print(i, x)\n",
      "xs = [3, 4]\nfor i, x in enumerate(xs):\n    print(i, x)\n",
    ),
    rewrites(
      "def f():\n    xs = [3, 4]\n    for i in range(len(xs)):\n        x = xs[i]\n        print(x, xs[i])\n",
      "def f():\n    xs = [3, 4]\n    for x in xs:\n        print(x, x)\n",
    ),
    rewrites(
      "def f():\n    xs = [3, 4]\n    for i in range(len(xs)):\n        x = xs[i]\n        x = x + 1\n        print(x, xs[i])\n",
      "def f():\n    xs = [3, 4]\n    for i, x in enumerate(xs):\n        x = x + 1\n        print(x, xs[i])\n",
    ),
    rewrites(
      "xs = [3, 4]\nfor n in range(1, len(xs) + 1):\n    print(n, xs[n - 1])\n",
      "xs = [3, 4]\nfor n, item in enumerate(xs, 1):\n    print(n, item)\n",
    ),
    rewrites(
      "def f():\n    xs = [3, 4]\n    for i in range(0, len(xs), 1):  # each\n        x = xs[i]  # one\n        print(x)\n",
      "def f():\n    xs = [3, 4]\n    for x in xs:  # each\n        # one\n        print(x)\n",
    ),
    holds("xs = [[3], [4]]\nfor i in range(len(xs)):\n    xs = xs[i]\n    print(xs)\n", "is written"),
    rewrites(
      `
      def weigh(jars: list):
          total = 0
          i = 0
          while i < len(jars):
              jar = jars[i]  # one by one
              total += jar.weight
              i += 1
          return total
      `,
      `
      def weigh(jars: list):
          total = 0
          for jar in jars:
              # one by one
              total += jar.weight
          return total
      `,
    ),
    rewrites(
      `
      def show(jars: list):
          n = len(jars)
          print("all")
          i = 0
          while n > i:
              print(i, jars[i])
              i = i + 1
      `,
      `
      def show(jars: list):
          n = len(jars)
          print("all")
          for i, jar in enumerate(jars):
              print(i, jar)
      `,
    ),
    rewrites(
      `
      def labels(jars: list):
          return [jars[i] for i in range(len(jars)) if jars[i]]
      `,
      `
      def labels(jars: list):
          return [jar for jar in jars if jar]
      `,
    ),
    rewrites(
      `
      def numbered(jars: list):
          return {i: jars[i] for i in range(0, len(jars))}
      `,
      `
      def numbered(jars: list):
          return {i: jar for i, jar in enumerate(jars)}
      `,
    ),
    rewrites(
      `
      def weight(jars: list):
          return sum(jars[i] for i in range(len(jars)))
      `,
      `
      def weight(jars: list):
          return sum(jar for jar in jars)
      `,
    ),
    rewrites(
      `
      def flat(rows: list):
          return [cell for k in range(len(rows)) for cell in rows[k]]
      `,
      `
      def flat(rows: list):
          return [cell for row in rows for cell in row]
      `,
    ),
    rewrites(
      `
      def weigh(jars: list):
          for i in range(len(jars)):
              jar: Jar = jars[i]
              print(jar)
      `,
      `
      def weigh(jars: list):
          for item in jars:
              jar: Jar = item
              print(jar)
      `,
    ),
    holds(
      `
      def lazy(jars: list):
          return (jars[i] for i in range(len(jars)))
      `,
      "which may be later",
    ),
    holds(
      `
      def full(jars: list):
          i = 0
          while i < len(jars):
              if not jars[i]:
                  continue
              i += 1
      `,
      "go on with the next item",
    ),
    holds(
      `
      def first(jars: list):
          i = 0
          while i < len(jars):
              if jars[i]:
                  break
              i += 1
          return i
      `,
      "outside of the loop",
    ),
    holds(
      `
      def calls(jars: list):
          found = []
          i = 0
          while i < len(jars):
              found += [jars[i], lambda: i]
              i += 1
          return found
      `,
      "may run later",
    ),
    holds(
      `
      def stale(jars: list):
          n = len(jars)
          jars.append(3)
          for i in range(n):
              print(jars[i])
      `,
      "is changed here",
    ),
    ignores("def f(xs):\n    i = 0\n    while i < len(xs):\n        print(xs[i])\n        i += 2\n"),
    ignores("def f(xs):\n    i = 1\n    while i < len(xs):\n        print(xs[i])\n        i += 1\n"),
    ignores("def f(xs, i):\n    while i < len(xs):\n        print(xs[i])\n        i += 1\n"),
    ignores(
      "def f(xs):\n    i = 0\n    while i < len(xs):\n        print(xs[i])\n        i += 1\n    else:\n        print(2)\n",
    ),
    ignores("xs = [3, 4]\nfor n in range(1, len(xs)):\n    print(n, xs[n - 1])\n"),
    ignores("xs = [3, 4]\nfor n in range(1, len(xs) + 1):\n    print(n, xs[n])\n"),
    ignores("xs = [3, 4]\nfor i in range(len(xs)):\n    x = xs[i + 1]\n    print(x)\n"),
    rewrites(
      `
      def total():
          weights = [3, 4]
          for i in range(len(weights)):  # each one
              # in kilograms
              print(weights[i])
      `,
      `
      def total():
          weights = [3, 4]
          for weight in weights:  # each one
              # in kilograms
              print(weight)
      `,
    ),
    rewrites(
      `
      def show(frames):
          for k in range(len(frames)): print(k, frames[k].side)
      `,
      `
      def show(frames):
          for k, frame in enumerate(frames): print(k, frame.side)
      `,
      "likely",
    ),
    rewrites(
      `
      def show(hives: list):
          hive = 3
          for k in range(len(hives)):
              print(k, hive, hives[k])
      `,
      `
      def show(hives: list):
          hive = 3
          for k, item in enumerate(hives):
              print(k, hive, item)
      `,
    ),
    rewrites(
      `
      def show(self):
          for k in range(len(self.boxes)):
              self.weigh(k, self.boxes[k])
      `,
      `
      def show(self):
          for k, box in enumerate(self.boxes):
              self.weigh(k, box)
      `,
      "likely",
    ),
    rewrites(
      `
      from typing import List
      def f(names: List[str]):
          for i in range(len(names)):
              print(i, names[i])
      `,
      `
      from typing import List
      def f(names: List[str]):
          for i, name in enumerate(names):
              print(i, name)
      `,
      "certain",
    ),
    rewrites(
      `
      from shelf import List
      def f(names: List[str]):
          for i in range(len(names)):
              print(i, names[i])
      `,
      `
      from shelf import List
      def f(names: List[str]):
          for i, name in enumerate(names):
              print(i, name)
      `,
      "likely",
    ),
    rewrites(
      `
      from shelf import sorted
      def f(keys):
          names = sorted(keys)
          for i in range(len(names)):
              print(i, names[i])
      `,
      `
      from shelf import sorted
      def f(keys):
          names = sorted(keys)
          for i, name in enumerate(names):
              print(i, name)
      `,
      "likely",
    ),
    rewrites(
      `
      def f():
          def g():
              names = []
              return names
          for i in range(len(names)):
              print(i, names[i])
      `,
      `
      def f():
          def g():
              names = []
              return names
          for i, name in enumerate(names):
              print(i, name)
      `,
      "likely",
    ),
    ignores(`
      for i in range(len(names)):
          print(i)
    `),
    ignores(`
      for i in range(len(names)):
          print(names[i - 1])
    `),
    ignores(`
      for i in range(len(names)):
          print(names[i])
      else:
          print("none")
    `),
    ignores(`
      for i in range(1, len(names)):
          print(names[i])
    `),
    holds(
      `
      def clear(names: list):
          for i in range(len(names)):
              names[i] = names[i].strip()
      `,
      "changed",
    ),
    holds(
      `
      def skip(names: list):
          for i in range(len(names)):
              if names[i]:
                  i += 1
      `,
      "`i` is written",
    ),
    holds(
      `
      def drop(names: list):
          for i in range(len(names)):
              if not names[i]:
                  names.pop()
      `,
      "changed",
    ),
    holds(
      `
      def later(names: list):
          calls = []
          for i in range(len(names)):
              calls += [lambda: names[i]]
      `,
      "run later",
    ),
    holds(
      `
      def len(x): return 3
      def f(names: list):
          for i in range(len(names)):
              print(names[i])
      `,
      "another meaning",
    ),
    rewrites(
      `
      def add(names: list, other):
          for i in range(len(names)):
              other[i] = names[i]
      `,
      `
      def add(names: list, other):
          for i, name in enumerate(names):
              other[i] = name
      `,
      "likely",
    ),
    rewrites(
      `
      from shapes import *
      def f(names: list):
          for i in range(len(names)):
              print(i, names[i])
      `,
      `
      from shapes import *
      def f(names: list):
          for i, name in enumerate(names):
              print(i, name)
      `,
      "likely",
    ),
  ],
});
