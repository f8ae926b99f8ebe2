import { condition, holes, isOfTrait, python, rule, trialsIn } from "../../../core.js";
import type { Answer, Match, Snippet } from "../../../core.js";

const { dict, key } = holes({ dict: "expression", key: "expression" });

/** Methods that dictionaries had in Python 2, and what does the same in Python 3. */
const FORMS: readonly (readonly [name: string, was: Snippet, becomes: Snippet])[] = [
  ["iteritems", python`${dict}.iteritems()`, python`${dict}.items()`],
  ["itervalues", python`${dict}.itervalues()`, python`${dict}.values()`],
  ["iterkeys", python`${dict}.iterkeys()`, python`${dict}.keys()`],
  ["has_key", python`${dict}.has_key(${key})`, python.expression`${key} in ${dict}`],
];

const formOf = ({ alternative }: Match) => FORMS[alternative]!;

/** Is it a dictionary? Other classes may have methods of these names, and keep them. */
const isDict = (match: Match): Answer =>
  isOfTrait(match.the(dict), "map", { what: "dict", methods: ["items", "values", "keys", formOf(match)[0]] });

const { rewrites, ignores, holds } = trialsIn("python");

export const goneMethods = rule({
  id: "python/gone-methods",
  kind: "breaks",
  title: "Use the methods that dictionaries have in Python 3",
  why: "The old ones are gone, and code that comes to one of them fails.",
  was: FORMS.map(([, was]) => was),
  target: "3",
  given: [condition("it is a dictionary", isDict, { unknownIs: "possible" })],
  becomes: (match) => formOf(match)[2],
  trials: [
    rewrites(
      "def f(jars: dict):\n    for k, v in jars.iteritems():\n        g(k, v)\n",
      "def f(jars: dict):\n    for k, v in jars.items():\n        g(k, v)\n",
    ),
    rewrites("jars = {}\nif jars.has_key(1):\n    g()\n", "jars = {}\nif 1 in jars:\n    g()\n"),
    rewrites(
      "jars = {}\nif not jars.has_key(a or b):\n    g()\n",
      "jars = {}\nif not (a or b) in jars:\n    g()\n",
    ),
    rewrites("for v in jars.itervalues():\n    g(v)\n", "for v in jars.values():\n    g(v)\n", "possible"),
    rewrites("jars = {}\nks = list(jars.iterkeys())\n", "jars = {}\nks = list(jars.keys())\n"),
    holds("jars = [1]\njars.iteritems()\n", "dict"),
    ignores("for k, v in jars.items():\n    g(k, v)\n"),
    ignores("jars.has_key(1, 2)\n"),
  ],
});
