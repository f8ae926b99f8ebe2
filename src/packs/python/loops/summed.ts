import {
  collected,
  condition,
  copy,
  holes,
  no,
  rule,
  shortened,
  text,
  trialsIn,
  typeOf,
  unknown,
  yes,
} from "../../../core.js";
import type { Answer, Match, Segment } from "../../../core.js";
import { isNotSeenGrowing } from "../../family/collecting.js";
import { areOnLines, asked, bracketed, forClause, itselfOr, laidOut } from "./clauses.js";
import { areBuiltin, endsNames, isEachContrary, mayStand, raisesNoEnd } from "./may-stand.js";

const { total, items, value } = holes({ total: "name", items: "expression", value: "expression" });

/** Whole numbers come to the same sum however they are added up. */
function areWhole({ collecting: { value: added } }: Match): Answer {
  const type = typeOf(added);
  const shown = shortened(added.text);
  if (type?.name === "int" && type.declared === undefined) return yes("type.is", type.why, type.at);
  return type?.name === "float" || added.is("float")
    ? no(
        "type.is",
        `\`${shown}\` is a float, and since Python 3.12 \`sum\` rounds floats in another way`,
        added,
      )
    : unknown(
        "type.is",
        `\`${shown}\` could be a float, and since Python 3.12 \`sum\` rounds floats in another way`,
        added,
      );
}

/** One for each item, of all items, is what `len` is for. */
function countsSome({ collecting: { value: added, sieves }, node }: Match): Answer {
  return added.is("integer") && sieves.length === 0
    ? no("form.fits", "all items are counted, for which there are shorter ways", node)
    : yes("form.fits", "it is a sum");
}

function clausesOf({ collecting }: Match): Segment[][] {
  const { value: added, sieves } = collecting;
  const isAlone = !added.is("expression_list");
  return itselfOr(collecting, added.text, [
    isAlone ? [copy(added.start, added.end)] : bracketed(added),
    forClause(collecting),
    ...sieves.map((sieve) => [text("if "), ...asked(sieve)]),
  ]);
}

const { rewrites, ignores, holds } = trialsIn("python");

export const summed = rule({
  id: "python/summed",
  kind: "idiom",
  title: "Use sum to add up or count items",
  why: "The name of the function says what the loop is for.",
  was: collected({ list: total, items, value, gathers: ["total"] }),
  given: [
    ...isNotSeenGrowing(),
    condition("it is a sum", countsSome),
    condition("what is added are whole numbers", areWhole, { unknownIs: "possible" }),
    condition("a test that is turned round is the contrary", ({ collecting: { sieves } }) =>
      isEachContrary(sieves),
    ),
    condition("`sum` is the built-in function", (match) => areBuiltin(["sum"], match.node)),
    condition("the names of the loop are not used afterwards", ({ collecting }) => endsNames(collecting)),
    condition("it may stand in a generator", ({ collecting }) => mayStand(collecting, [collecting.value])),
    condition("nothing raises StopIteration", ({ collecting: { value: added, sieves } }) =>
      raisesNoEnd([added, ...sieves.map(({ test }) => test)]),
    ),
    condition("each part stands on one line", (match) => areOnLines(match, clausesOf(match))),
  ],
  becomes: (match) => laidOut(match, ["sum(", ")"], clausesOf(match)),
  trials: [
    rewrites(
      "def f(names):\n    n = 0\n    for name in names:\n        n += len(name)\n    return n\n",
      "def f(names):\n    n = sum(len(name) for name in names)\n    return n\n",
    ),
    rewrites(
      "def f(jars):\n    n = 0\n    for jar in jars:\n        if jar.full:\n            n += 1\n    return n\n",
      "def f(jars):\n    n = sum(1 for jar in jars if jar.full)\n    return n\n",
    ),
    rewrites(
      "def f(jars):\n    n = 0\n    for jar in jars:\n        if jar.full:\n            continue\n        n = n + int(jar.kg)\n    return n\n",
      "def f(jars):\n    n = sum(int(jar.kg) for jar in jars if not jar.full)\n    return n\n",
    ),
    rewrites(
      "def f(sizes):\n    n = 0\n    for size in sizes:\n        n += size\n    return n\n",
      "def f(sizes):\n    n = sum(sizes)\n    return n\n",
      "possible",
    ),
    // Floats may come out otherwise in the last place.
    rewrites(
      "def f(jars):\n    kg = 0\n    for jar in jars:\n        kg += jar.kg\n    return kg\n",
      "def f(jars):\n    kg = sum(jar.kg for jar in jars)\n    return kg\n",
      "possible",
    ),
    holds(
      "def f(jars):\n    kg = 0\n    for jar in jars:\n        kg += float(jar.kg)\n    return kg\n",
      "is a float",
    ),
    holds(
      "def f(jars):\n    n = 0\n    for jar in jars:\n        n += 1\n    return n\n",
      "all items are counted",
    ),
    holds(
      "def f(jars):\n    n = 0\n    for jar in jars:\n        n += len(jar.name) + n\n    return n\n",
      "is read while",
    ),
    holds(
      "def f(names):\n    n = 0\n    for name in names:\n        n += len(name)\n    return n, name\n",
      "is read later",
    ),
    holds(
      "def f(names):\n    try:\n        n = 0\n        for name in names:\n            n += len(name)\n    except E:\n        print(n)\n",
      "where the loop throws",
    ),
    ignores("def f(names):\n    n = 0.0\n    for name in names:\n        n += len(name)\n    return n\n"),
    ignores("def f(names):\n    n = 1\n    for name in names:\n        n += len(name)\n    return n\n"),
    ignores("def f(names):\n    n = 0\n    for name in names:\n        n -= len(name)\n    return n\n"),
    ignores("def f(names):\n    n = 0\n    for name in names:\n        n = len(name) - n\n    return n\n"),
  ],
});
