import { condition, copy, holes, no, python, rule, text, trialsIn, yes } from "../../../core.js";
import type { Match, Segment } from "../../../core.js";

const { name, made } = holes({
  name: { kind: "name", node: "identifier" },
  made: { kind: "expression", node: "lambda" },
});

function defined(match: Match): Segment[] {
  const fn = match.the(made);
  const list = fn.child("parameters");
  const body = fn.child("body")!;
  const inner = body.is("parenthesized_expression") && !body.text.includes("\n") ? body.firstPart! : body;
  return [
    text(`def ${match.textOf(name)}(`),
    ...(list ? [copy(list.start, list.end)] : []),
    text(`):\n${match.tree.indentAt(match.node.start)}    return `),
    copy(inner.start, inner.end),
  ];
}

const { rewrites, holds, ignores } = trialsIn("python");

export const namedLambda = rule({
  id: "python/named-lambda",
  kind: "idiom",
  title: "Define a function that has a name with def",
  why: "A lambda is for functions without a name: in a traceback it has none, and it has no room for more than one expression.",
  was: python`${name} = ${made}`,
  mentions: ["lambda"],
  given: [
    condition("the function fits on its lines", (match) => {
      const fn = match.the(made);
      const isAlone = match.tree.firstOnLine(match.node.start) === match.node.start;
      return fn.text.includes("\n") || !isAlone
        ? no("form.fits", "the function spans lines, or shares one", fn)
        : yes("form.fits", "the function fits on its lines");
    }),
  ],
  becomes: defined,
  trials: [
    rewrites("f = lambda x, y=1: x + y\n", "def f(x, y=1):\n    return x + y\n"),
    rewrites("if a:\n    f = lambda: (1)\n", "if a:\n    def f():\n        return 1\n"),
    rewrites(
      "f = lambda *a, **k: g(*a, **k)  # passes on\n",
      "def f(*a, **k):\n    return g(*a, **k)  # passes on\n",
    ),
    holds("f = lambda x: (x +\n    1)\n", "spans lines"),
    holds("a = 1; f = lambda x: x\n", "shares one"),
    ignores("f = g(lambda x: x)\n"),
    ignores("a.f = lambda x: x\n"),
    ignores("f = g = lambda x: x\n"),
    ignores("f: F = lambda x: x\n"),
    ignores("f, g = lambda x: x, 1\n"),
  ],
});
