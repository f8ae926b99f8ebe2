import {
  condition,
  builtin,
  fresh,
  holes,
  isMadeByLibrary,
  neverWritten,
  placeOf,
  python,
  rule,
  standInFor,
  trialsIn,
  unchangedDuring,
} from "../../index.js";
import { functionAround, isBuiltin, isLeftAlone, no, runsLater, unknown, yes } from "../../index.js";
import type { Match, Snippet, SyntaxNode } from "../../index.js";
import { sequenceKnown } from "./sequence.js";

const SEQUENCE = {
  names: ["list", "tuple", "str", "bytes"],
  module: undefined,
  methods: ["__getitem__", "__iter__", "__len__"],
  what: "list",
};
const { index, items, body, own } = holes({
  index: "name",
  items: "expression",
  body: "statements",
  own: "name",
});
const item = fresh("item", { singularOf: items });

/** Old loops: over all positions, or over those from one on with the item before each. */
const FORMS: readonly { readonly was: Snippet; readonly from: 0 | 1; readonly named: boolean }[] = [
  python`range(len(${items}))`,
  python`range(0, len(${items}))`,
  python`range(0, len(${items}), 1)`,
  python`xrange(len(${items}))`,
].flatMap((positions) => [
  {
    from: 0,
    named: true,
    was: python`
      for ${index} in ${positions}:
          ${own} = ${items}[${index}]
          ${body}
    `,
  },
  {
    from: 0,
    named: false,
    was: python`
      for ${index} in ${positions}:
          ${body}
    `,
  },
]);
const FROM_ONE = {
  from: 1,
  named: false,
  was: python`
    for ${index} in range(1, len(${items}) + 1):
        ${body}
  `,
} as const;
const ALL = [...FORMS, FROM_ONE];
const formOf = (match: Match) => ALL[match.alternative]!;

const lookUp = python`${items}[${index}]`;
const lookUpBefore = python`${items}[${index} - 1]`;

/** Every mention of the index inside the loop, with whether it only looks the item up. */
function uses(match: Match): { at: SyntaxNode; looksUp: boolean }[] {
  const name = match.textOf(index);
  return match
    .all(body)
    .flatMap((statement) => statement.mentions(name))
    .map((at) => ({ at, looksUp: isLookUp(match, at) }));
}

function isLookUp(match: Match, mention: SyntaxNode): boolean {
  const isBefore = formOf(match).from === 1;
  const key = isBefore ? mention.parent : mention;
  const isKey = !isBefore || key?.text.replace(/\s/g, "") === `${mention.text}-1`;
  const read = key?.parent;
  return (
    isKey &&
    read?.is("subscript") === true &&
    read.child("subscript")?.same(key) === true &&
    read.parts.length === 2 &&
    read.child("value")?.text === match.textOf(items)
  );
}

/** The new loop: with the index where it is used otherwise, and with the loop's own name for the item where it has one. */
function looped(match: Match): Snippet {
  const { from, named } = formOf(match);
  const isIdle = indexIsIdle(match);
  if (named) {
    // Where the name is given something else, an item that is looked up again is not what it names.
    const isWritten = isLeftAlone(match.textOf(own), match.all(body), match.node).is !== "yes";
    const inside = isWritten ? body : body.replacing(lookUp, own);
    return isIdle && !isWritten
      ? python`
          for ${own} in ${items}:
              ${inside}
        `
      : python`
          for ${index}, ${own} in enumerate(${items}):
              ${inside}
        `;
  }
  const inside = body.replacing(from === 1 ? lookUpBefore : lookUp, item);
  if (isIdle)
    return python`
      for ${item} in ${items}:
          ${inside}
    `;
  return from === 1
    ? python`
        for ${index}, ${item} in enumerate(${items}, 1):
            ${inside}
      `
    : python`
        for ${index}, ${item} in enumerate(${items}):
            ${inside}
      `;
}

/** Is the index good for nothing but the look-up, here and in the function around? */
function indexIsIdle(match: Match): boolean {
  const around = functionAround(match.node);
  if (!around) return false;
  const inLoop = uses(match);
  const everywhere = around.mentions(match.textOf(index)).length;
  // The loop names it once, and so does the line that looks its own item up.
  const others = formOf(match).named ? 2 : 1;
  return inLoop.every((use) => use.looksUp) && everywhere === inLoop.length + others;
}

const { rewrites, ignores, holds } = trialsIn("python");

export const indexAndItem = rule({
  id: "python/index-and-item",
  kind: "idiom",
  title: "Take the item from the loop instead of looking it up by index",
  why: "Looking the item up by index hides what the loop is about and invites off-by-one mistakes.",
  was: ALL.map(({ was }) => was),
  where: [
    (match) => /^[\p{L}_][\p{L}\p{N}_.]*$/u.test(match.textOf(items)),
    (match) => formOf(match).named || uses(match).some((use) => use.looksUp),
    (match) => match.all(body).length > 0,
    // A name that is the index, or part of what is looped over, cannot be that of the item.
    (match) =>
      !match.has(own) ||
      ![match.textOf(index), ...match.textOf(items).split(".")].includes(match.textOf(own)),
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
    condition("`range` is the built-in one", (match) =>
      isBuiltin(/^for\s+\w+\s+in\s+(x?range)/.exec(match.node.text)?.[1] ?? "range", match.node),
    ),
    builtin("len"),
    neverWritten(index, { in: body }),
    unchangedDuring(items, { during: body }),
    condition("the index is not part of what is looped over", (match) =>
      match.textOf(items).split(".").includes(match.textOf(index))
        ? no("flow.written", `\`${match.textOf(items)}\` is written with the index`, match.node)
        : yes("flow.written", "the index and the items have different names"),
    ),
    condition("no item is looked up in code that runs later", (match) => {
      const later = uses(match).find(({ at, looksUp }) =>
        match.all(body).some((statement) => looksUp && statement.holds(at) && runsLater(at, statement)),
      );
      return later
        ? no("resource.used-after", "the item is looked up in a function that may run later", later.at)
        : yes("resource.used-after", "all look-ups run in the loop");
    }),
    condition("the loop does not stand in a class body", (match) => {
      const above = [...match.node.ancestors()].find((node) =>
        node.is(["class_definition", "function_definition"]),
      );
      return above?.is("class_definition")
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
      "def f():\n    xs = [3, 4]\n    # each\n    for x in xs:  # one\n        print(x)\n",
    ),
    holds("xs = [[3], [4]]\nfor i in range(len(xs)):\n    xs = xs[i]\n    print(xs)\n", "is written"),
    ignores("xs = [3, 4]\nfor n in range(1, len(xs)):\n    print(n, xs[n - 1])\n"),
    ignores("xs = [3, 4]\nfor n in range(1, len(xs) + 1):\n    print(n, xs[n])\n"),
    ignores("xs = [3, 4]\nfor i in range(len(xs)):\n    x = xs[i + 1]\n    print(x)\n"),
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
