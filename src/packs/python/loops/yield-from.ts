import {
  condition,
  holes,
  isUsedAfter,
  no,
  python,
  referencesAt,
  rule,
  trialsIn,
  unknown,
  yes,
} from "../../../core.js";
import type { Answer, Match } from "../../../core.js";

const { item, items } = holes({ item: "name", items: "expression" });

/** The item is given on, and nothing else is done with it. */
function isUsedNowhere(match: Match): Answer {
  const name = match.the(item);
  const to = referencesAt(name).find((one) => one.to)?.to;
  if (!to) return unknown("name.not-resolved", `what declares \`${name.text}\` is not known`, name);
  const used = isUsedAfter(to, match.node);
  return used.is === "yes"
    ? no("flow.used-later", used.evidence.says, used.evidence)
    : used.is === "no"
      ? yes("flow.used-later", used.evidence.says)
      : used;
}

const isAsync = (match: Match): boolean => {
  const around = [...match.node.ancestors()].find((above) => above.is("function_definition"));
  return around?.has("async") ?? true;
};

const { rewrites, ignores, holds } = trialsIn("python");

export const yieldFrom = rule({
  id: "python/yield-from",
  kind: "idiom",
  title: "Use yield from to give on what something else yields",
  why: "The loop does nothing but hand each item on.",
  was: python`
    for ${item} in ${items}:
        yield ${item}
  `,
  target: "3.3",
  where: [
    (match) => !isAsync(match),
    (match) => !match.node.has("async"),
    (match) => match.node.child("alternative") === undefined,
  ],
  given: [
    condition("the item is not used afterwards", isUsedNowhere),
    condition("nobody reaches through the generator", (match) =>
      unknown(
        "value.result",
        `a caller that sends a value, throws one in, or stops early would reach \`${match.textOf(items).split("\n")[0]}\`, which is closed then if it can be`,
        match.the(items),
      ),
    ),
  ],
  becomes: python`yield from ${items}`,
  trials: [
    rewrites("def f(xs):\n    for x in xs:\n        yield x\n", "def f(xs):\n    yield from xs\n", "likely"),
    rewrites(
      "def f(xs):\n    for x in g(xs, 1):\n        yield x  # each\n",
      "def f(xs):\n    yield from g(xs, 1)  # each\n",
      "likely",
    ),
    holds("def f(xs):\n    for x in xs:\n        yield x\n    print(x)\n", "is read later"),
    ignores("def f(xs):\n    for x in xs:\n        yield x + 1\n"),
    ignores("def f(xs):\n    for x in xs:\n        y = yield x\n"),
    ignores("async def f(xs):\n    for x in xs:\n        yield x\n"),
    ignores("async def f(xs):\n    async for x in xs:\n        yield x\n"),
    ignores("def f(xs):\n    for x in xs:\n        yield x\n    else:\n        yield 1\n"),
    ignores("def f(xs):\n    for x, y in xs:\n        yield x\n"),
  ],
});
