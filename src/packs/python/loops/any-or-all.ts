import { condition, flagged, holes, rule, trialsIn, unnegated } from "../../../core.js";
import type { Flagged, Match, Segment, SyntaxNode } from "../../../core.js";
import { isNotSeenFlagging, needNotAskAll } from "../../family/collecting.js";
import { isContrary, negated } from "../negated.js";
import { areOnLines, asked, askedTogether, codeOf, forClause, itselfOr, laidOut } from "./clauses.js";
import { areBuiltin, endsNames, isEachContrary, mayStand, raisesNoEnd } from "./may-stand.js";

const { items } = holes({ items: "expression" });

const testsOf = ({ flagged: { sieves } }: Match): SyntaxNode[] => sieves.map(({ test }) => test);

/** The function that the loop is, with the test that it asks for each item. */
interface Asking {
  readonly name: "any" | "all" | "not any";
  readonly test: Segment[];
}

function askingOf(match: Match): Asking {
  const { sieves, isFound } = match.flagged;
  const together = askedTogether(match, sieves);
  if (isFound) return { name: "any", test: together };
  const contrary = turnedRound(match.flagged);
  return contrary ? { name: "all", test: contrary } : { name: "not any", test: together };
}

/** The test that all items pass where none is found; undefined where it cannot be turned round for certain. */
function turnedRound({ sieves }: Flagged): Segment[] | undefined {
  const [only, ...more] = sieves;
  if (!only || more.length > 0) return undefined;
  if (!only.isTrue) return asked({ ...only, isTrue: true });
  if (!unnegated(only.test).isTrue) return negated(only.test);
  const contrary = only.test.is("comparison_operator") ? negated(only.test) : [];
  const [first] = contrary;
  // `not a < b` is no better than the test itself.
  const isShort = first !== undefined && !("text" in first);
  return isShort && isContrary(only.test).is === "yes" ? contrary : undefined;
}

function clausesOf(match: Match): Segment[][] {
  const { test } = askingOf(match);
  return itselfOr(match.flagged, codeOf(match, test), [test, forClause(match.flagged)]);
}

const { rewrites, ignores, holds } = trialsIn("python");

export const anyOrAll = rule({
  id: "python/any-or-all",
  kind: "idiom",
  title: "Use any or all to ask whether items pass a test",
  why: "The name of the function says what the loop is for, and the reader need not see where it is left.",
  was: flagged(items),
  given: [
    ...isNotSeenFlagging(),
    condition("a test that is turned round is the contrary", ({ flagged: { sieves, isFound } }) =>
      isEachContrary(isFound || sieves.length > 1 ? sieves : []),
    ),
    condition("`any` and `all` are the built-in functions", (match) =>
      areBuiltin([askingOf(match).name.replace("not ", "")], match.node),
    ),
    condition("the names of the loop are not used afterwards", (match) => endsNames(match.flagged)),
    condition("it may stand in a generator", (match) => mayStand(match.flagged, [])),
    condition("no test raises StopIteration", (match) => raisesNoEnd(testsOf(match))),
    needNotAskAll(),
    condition("each part stands on one line", (match) => areOnLines(match, clausesOf(match))),
  ],
  becomes: (match) => laidOut(match, [`${askingOf(match).name}(`, ")"], clausesOf(match)),
  trials: [
    rewrites(
      "def f(jars):\n    found = False\n    for jar in jars:\n        if jar.kg > 3:\n            found = True\n            break\n    return found\n",
      "def f(jars):\n    found = any(jar.kg > 3 for jar in jars)\n    return found\n",
    ),
    rewrites(
      "def f(jars):\n    for jar in jars:\n        if jar.broken:\n            return True\n    return False\n",
      "def f(jars):\n    return any(jar.broken for jar in jars)\n",
    ),
    rewrites(
      "def f(jars):\n    for jar in jars:\n        if not jar.full:\n            return False\n    return True\n",
      "def f(jars):\n    return all(jar.full for jar in jars)\n",
    ),
    rewrites(
      "def f(jars):\n    for jar in jars:\n        if jar.broken:\n            return False\n    return True\n",
      "def f(jars):\n    return not any(jar.broken for jar in jars)\n",
    ),
    rewrites(
      "def f(jars):\n    for jar in jars:\n        if jar is None:\n            return False\n    return True\n",
      "def f(jars):\n    return all(jar is not None for jar in jars)\n",
    ),
    // An object may say for itself what is not equal.
    rewrites(
      "def f(jars, x):\n    for jar in jars:\n        if jar != x:\n            return False\n    return True\n",
      "def f(jars, x):\n    return not any(jar != x for jar in jars)\n",
    ),
    rewrites(
      "def f(jars):\n    ok = True\n    for jar in jars:\n        if jar.old and jar.open or jar.lost:\n            if jar.kg:\n                ok = False\n    return ok\n",
      "def f(jars):\n    ok = not any((jar.old and jar.open or jar.lost) and jar.kg for jar in jars)\n    return ok\n",
      "likely",
    ),
    rewrites(
      "def f(jars):\n    for jar in jars:\n        if not jar.full:\n            continue\n        if jar.old:\n            return True\n    return False\n",
      "def f(jars):\n    return any(jar.full and jar.old for jar in jars)\n",
    ),
    // A test that is called may raise anything.
    rewrites(
      "def f(jars):\n    for jar in jars:\n        if is_full(jar):\n            return True\n    return False\n",
      "def f(jars):\n    return any(is_full(jar) for jar in jars)\n",
      "likely",
    ),
    rewrites(
      "def f(names):\n    for name in names:\n        if len(name) > 3:\n            return True\n    return False\n",
      "def f(names):\n    return any(len(name) > 3 for name in names)\n",
    ),
    // All items are asked, and one of the questions does something.
    holds(
      "def f(jars):\n    found = False\n    for jar in jars:\n        if jar.weigh():\n            found = True\n    return found\n",
      "no longer evaluated",
    ),
    ignores(
      "def f(jars, box):\n    box.full = False\n    for jar in jars:\n        if jar.full:\n            box.full = True\n",
    ),
    rewrites(
      "def f(answers):\n    for answer in answers:\n        if answer:\n            return True\n    return False\n",
      "def f(answers):\n    return any(answers)\n",
    ),
    rewrites(
      "def f(jars):\n    for jar in jars:\n        if jar.kg >= 3:\n            return False\n    return True\n",
      "def f(jars):\n    return not any(jar.kg >= 3 for jar in jars)\n",
    ),
    rewrites(
      "def f(jars, by):\n    for jar in jars:\n        if sorted(jar, key=by):\n            return True\n    return False\n",
      "def f(jars, by):\n    return any(sorted(jar, key=by) for jar in jars)\n",
      "likely",
    ),
    holds(
      "def f(jars):\n    for jar in jars:\n        if next(jar):\n            return True\n    return False\n",
      "StopIteration",
    ),
    holds(
      "def f(jars):\n    found = False\n    for jar in jars:\n        if not found and jar.full:\n            found = True\n    return found\n",
      "is read while",
    ),
    holds(
      "def f(jars):\n    found = False\n    for jar in jars:\n        if jar.full:\n            found = True\n            break\n    return jar if found else None\n",
      "is read later",
    ),
    holds(
      "def f(jars):\n    found = False\n    try:\n        found = False\n        for jar in jars:\n            if jar.full:\n                found = True\n    except E:\n        pass\n    return found\n",
      "is read after this",
    ),
    holds(
      "def any(x):\n    return x\n\n\ndef f(jars):\n    for jar in jars:\n        if jar.full:\n            return True\n    return False\n",
      "`any`",
    ),
    holds(
      "async def f(jars):\n    for jar in jars:\n        if await jar.full():\n            return True\n    return False\n",
      "may not stand",
    ),
    ignores(
      "def f(jars):\n    for jar in jars:\n        if jar.full:\n            return True\n    return None\n",
    ),
    ignores(
      "def f():\n    for jar in jar:\n        if jar.full:\n            return True\n    return False\n",
    ),
    ignores(
      "def f(jars):\n    for jar in jars:\n        if jar.full:\n            return True\n    return True\n",
    ),
    ignores("def f(jars):\n    for jar in jars:\n        return True\n    return False\n"),
    ignores(
      "def f(jars):\n    for jar in jars:\n        if jar.full:\n            return True\n        g(jar)\n    return False\n",
    ),
    ignores(
      "def f(jars):\n    for jar in jars:\n        if jar.full:\n            return True\n    else:\n        g()\n    return False\n",
    ),
    ignores(
      "def f(jars):\n    found = False\n    for jar in jars:\n        if jar.full:\n            found = True\n            continue\n        found = False\n    return found\n",
    ),
    ignores(
      "def f(jars):\n    found = False\n    for jar in jars:\n        if jar.full:\n            found = jar\n            break\n    return found\n",
    ),
  ],
});
