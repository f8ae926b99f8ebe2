import {
  condition,
  copy,
  firstFound,
  holes,
  isMissing,
  mayRunAnyway,
  rule,
  text,
  trialsIn,
} from "../../../core.js";
import type { Match, Segment, SyntaxNode } from "../../../core.js";
import { isNotSeenSeeking } from "../../family/collecting.js";
import { areOnLines, askedTogether, bracketed, codeOf, forClause, laidOut } from "./clauses.js";
import { areBuiltin, endsNames, isEachContrary, mayStand, raisesNoEnd } from "./may-stand.js";

const { items } = holes({ items: "expression" });

const evaluated = ({ sought: { sieves, value } }: Match): SyntaxNode[] => [
  value,
  ...sieves.map(({ test }) => test),
];

function clausesOf(match: Match): Segment[][] {
  const { sieves, value } = match.sought;
  return [bracketed(value), forClause(match.sought), [text("if "), ...askedTogether(match, sieves)]];
}

const { rewrites, ignores, holds } = trialsIn("python");

export const firstFoundRule = rule({
  id: "python/first-found",
  kind: "idiom",
  title: "Use next to take the first item that passes a test",
  why: "What is looked for and its default stand in one expression, and the reader need not see where the loop is left.",
  was: firstFound(items),
  given: [
    ...isNotSeenSeeking(),
    condition("a test that is turned round is the contrary", ({ sought: { sieves } }) =>
      isEachContrary(sieves),
    ),
    condition("`next` is the built-in function", (match) => areBuiltin(["next"], match.node)),
    condition("the names of the loop are not used afterwards", (match) => endsNames(match.sought)),
    condition("it may stand in a generator", (match) => mayStand(match.sought, [match.sought.value])),
    condition("nothing in it raises StopIteration", (match) => raisesNoEnd(evaluated(match))),
    condition(
      "evaluating the default although it is not needed makes no difference",
      ({ sought: { otherwise } }) => mayRunAnyway(otherwise!),
      { when: ({ sought: { otherwise } }) => otherwise !== undefined },
    ),
    condition("each part stands on one line", (match) => areOnLines(match, clausesOf(match))),
  ],
  becomes: (match): Segment[] => {
    const { otherwise } = match.sought;
    const code =
      !otherwise || isMissing(otherwise) ? "None" : codeOf(match, [copy(otherwise.start, otherwise.end)]);
    return laidOut(match, ["next((", `), ${code})`], clausesOf(match));
  },
  trials: [
    rewrites(
      "def f(jars):\n    first = None\n    for jar in jars:\n        if jar.full:\n            first = jar\n            break\n    return first\n",
      "def f(jars):\n    first = next((jar for jar in jars if jar.full), None)\n    return first\n",
    ),
    rewrites(
      "def f(jars):\n    for jar in jars:\n        if jar.full:\n            return jar.label\n    return 'none'\n",
      "def f(jars):\n    return next((jar.label for jar in jars if jar.full), 'none')\n",
    ),
    rewrites(
      "def f(jars):\n    kg = -1\n    for n, jar in enumerate(jars):\n        if not jar.full:\n            continue\n        if jar.old or jar.lost:\n            kg = n * 2\n            break\n    return kg\n",
      "def f(jars):\n    kg = next((\n        n * 2\n        for n, jar in enumerate(jars)\n        if jar.full and (jar.old or jar.lost)\n    ), -1)\n    return kg\n",
    ),
    // A test that is called may raise anything.
    rewrites(
      "def f(jars):\n    for jar in jars:\n        if is_full(jar):\n            return jar\n    return None\n",
      "def f(jars):\n    return next((jar for jar in jars if is_full(jar)), None)\n",
      "likely",
    ),
    // The loop's name is used afterwards.
    holds(
      "def f(jars):\n    first = None\n    for jar in jars:\n        if jar.full:\n            first = jar\n            break\n    return first, jar\n",
      "is read later",
    ),
    holds(
      "def f(jars):\n    for jar in jars:\n        if jar.full:\n            return jar\n    return make(3)\n",
      "calls something",
    ),
    holds(
      "def next(x): return x\ndef f(jars):\n    for jar in jars:\n        if jar.full:\n            return jar\n    return None\n",
      "next",
    ),
    holds(
      "async def f(jars):\n    for jar in jars:\n        if await jar.full():\n            return jar\n    return None\n",
      "await",
    ),
    ignores(
      "def f(jars):\n    first = None\n    for jar in jars:\n        if jar.full:\n            first: Jar = jar\n            break\n    return first\n",
    ),
    // The last such item, and not the first.
    ignores(
      "def f(jars):\n    last = None\n    for jar in jars:\n        if jar.full:\n            last = jar\n    return last\n",
    ),
    ignores(
      "def f(jars):\n    for jar in jars:\n        if jar.full:\n            return True\n    return False\n",
    ),
    ignores(
      "def f(jars):\n    for jar in jars:\n        if jar.full:\n            return jar\n    raise Lost()\n",
    ),
    ignores(
      "def f(jars):\n    first = None\n    for jar in jars:\n        if jar.full:\n            first = jar\n            n = 1\n            break\n    return first\n",
    ),
    ignores(
      "def f(jars):\n    first = None\n    for jar in jars:\n        if jar.full:\n            first = jar\n            break\n    else:\n        first = make()\n    return first\n",
    ),
  ],
});
