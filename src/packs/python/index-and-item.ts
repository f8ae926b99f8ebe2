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
import { functionAround, no, runsLater, unknown, yes, type Match, type SyntaxNode } from "../../index.js";
import { sequenceKnown } from "./sequence.js";

const SEQUENCE = {
  names: ["list", "tuple", "str", "bytes"],
  module: undefined,
  methods: ["__getitem__", "__iter__", "__len__"],
  what: "list",
};
const { index, items, body } = holes({ index: "name", items: "expression", body: "statements" });
const item = fresh("item", { singularOf: items });

const lookUp = python`${items}[${index}]`;

const both = python`
  for ${index}, ${item} in enumerate(${items}):
      ${body.replacing(lookUp, item)}
`;
const itemOnly = python`
  for ${item} in ${items}:
      ${body.replacing(lookUp, item)}
`;

/** Every mention of the index inside the loop, with whether it only looks the item up. */
function uses(match: Match): { at: SyntaxNode; looksUp: boolean }[] {
  const name = match.textOf(index);
  return match
    .all(body)
    .flatMap((statement) => statement.mentions(name))
    .map((at) => ({ at, looksUp: isLookUp(match, at) }));
}

function isLookUp(match: Match, mention: SyntaxNode): boolean {
  const { parent } = mention;
  return (
    parent !== undefined &&
    parent.is("subscript") &&
    parent.child("subscript")?.same(mention) === true &&
    parent.parts.length === 2 &&
    parent.child("value")?.text === match.textOf(items)
  );
}

/** Is the index good for nothing but the look-up, here and in the function around? */
function indexIsIdle(match: Match): boolean {
  const around = functionAround(match.node);
  if (!around) return false;
  const inLoop = uses(match);
  const everywhere = around.mentions(match.textOf(index)).length;
  return inLoop.every((use) => use.looksUp) && everywhere === inLoop.length + 1;
}

const { rewrites, ignores, holds } = trialsIn("python");

export const indexAndItem = rule({
  id: "python/index-and-item",
  kind: "idiom",
  title: "Take the item from the loop instead of looking it up by index",
  why: "Looking the item up by index hides what the loop is about and invites off-by-one mistakes.",
  was: python`
    for ${index} in range(len(${items})):
        ${body}
  `,
  where: [
    (match) => /^[\p{L}_][\p{L}\p{N}_.]*$/u.test(match.textOf(items)),
    (match) => uses(match).some((use) => use.looksUp),
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
    builtin("range"),
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
  becomes: (match) => (indexIsIdle(match) ? itemOnly : both),
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
