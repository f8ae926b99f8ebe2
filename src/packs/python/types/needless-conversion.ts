import { condition, holes, isBuiltin, python, rule, trialsIn, typeOf, unknown, yes } from "../../../core.js";
import type { Answer, Match, Snippet } from "../../../core.js";

const { value } = holes({ value: "expression" });
const NAMES = ["str", "int", "float", "bool", "bytes", "tuple", "frozenset"];
const FORMS: readonly Snippet[] = [
  python`str(${value})`,
  python`int(${value})`,
  python`float(${value})`,
  python`bool(${value})`,
  python`bytes(${value})`,
  python`tuple(${value})`,
  python`frozenset(${value})`,
];

const nameOf = ({ alternative }: Match): string => NAMES[alternative]!;

/** Values of these types never change, so the same one does as well as another. */
function hasType(match: Match): Answer {
  const node = match.the(value);
  const type = typeOf(node);
  const name = nameOf(match);
  const isMade = node.is([
    "string",
    "integer",
    "float",
    "tuple",
    "true",
    "false",
    "call",
    "concatenated_string",
  ]);
  return isMade
    ? yes("type.is", type?.why ?? `\`${node.text}\` is a \`${name}\``, node)
    : unknown("type.stand-in", `\`${node.text}\` could be of a class derived from \`${name}\``, node);
}

const { rewrites, ignores, holds } = trialsIn("python");

export const needlessConversion = rule({
  id: "python/needless-conversion",
  kind: "smell",
  title: "Leave out a conversion to the type that a value has",
  why: "The reader asks what else the value could have been.",
  was: FORMS,
  where: [
    (match) => {
      const type = typeOf(match.the(value));
      return type?.name === nameOf(match) && type.module === undefined && !type.declared;
    },
  ],
  given: [
    condition("the type is the built-in one", (match) => isBuiltin(nameOf(match), match.node)),
    condition("the value has the type itself", hasType),
  ],
  becomes: python`${value}`,
  trials: [
    rewrites("n = int(len(jars))\n", "n = len(jars)\n"),
    rewrites('print(str("a"))\n', 'print("a")\n'),
    rewrites("s = str(str(x))\n", "s = str(x)\n"),
    rewrites("def f(n: int):\n    return int(n)\n", "def f(n: int):\n    return n\n", "likely"),
    rewrites("b = bool(isinstance(x, int))\n", "b = isinstance(x, int)\n"),
    holds("str = load()\nx = str('a')\n", "another meaning"),
    rewrites('b = bytes(b"a")\n', 'b = b"a"\n'),
    ignores("s = str(b'a')\n"),
    ignores("s = str(rB'a' b'b')\n"),
    ignores("n = float(2j)\n"),
    ignores("n = int(x)\n"),
    ignores("n = int(1.5)\n"),
    ignores("xs = list([1])\n"),
    ignores("n = int('3', 8)\n"),
  ],
});
