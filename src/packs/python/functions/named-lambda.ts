import { condition, holes, no, python, rule, trialsIn, yes } from "../../../core.js";

const { name, params, value } = holes({
  name: { kind: "name", node: "identifier" },
  params: "parameters",
  value: "expression",
});

const { rewrites, holds, ignores } = trialsIn("python");

export const namedLambda = rule({
  id: "python/named-lambda",
  kind: "idiom",
  title: "Define a function that has a name with def",
  why: "A lambda is for functions without a name: in a traceback it has none, and it has no room for more than one expression.",
  was: python`${name} = lambda ${params}: ${value}`,
  given: [
    condition("the function has lines of its own", ({ tree, node }) =>
      tree.firstOnLine(node.start) === node.start
        ? yes("form.fits", "the function has lines of its own")
        : no("form.fits", "the function shares a line with other code", node),
    ),
  ],
  becomes: python`
    def ${name}(${params}):
        return ${value}
  `,
  trials: [
    rewrites("f = lambda: (yield 1)\n", "def f():\n    return (yield 1)\n"),
    rewrites("f = lambda x, y=1: x + y\n", "def f(x, y=1):\n    return x + y\n"),
    rewrites("if a:\n    f = lambda: (1)\n", "if a:\n    def f():\n        return (1)\n"),
    rewrites(
      "f = lambda *a, **k: g(*a, **k)  # passes on\n",
      "def f(*a, **k):\n    return g(*a, **k)  # passes on\n",
    ),
    rewrites("f = lambda x: (x +\n    1)\n", "def f(x):\n    return (x +\n        1)\n"),
    holds("a = 1; f = lambda x: x\n", "shares a line"),
    ignores("f = g(lambda x: x)\n"),
    ignores("a.f = lambda x: x\n"),
    ignores("f = g = lambda x: x\n"),
    ignores("f: F = lambda x: x\n"),
    ignores("f, g = lambda x: x, 1\n"),
  ],
});
