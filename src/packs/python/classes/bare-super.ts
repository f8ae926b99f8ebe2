import {
  condition,
  holes,
  isBuiltin,
  isLeftAlone,
  no,
  python,
  rule,
  trialsIn,
  unknown,
  yes,
} from "../../../core.js";
import type { Answer, Match, SyntaxNode } from "../../../core.js";

const { owner, self } = holes({ owner: "name", self: "name" });

/** Code that has a first argument of its own, which is not the object. */
const OWN_FRAME = [
  "lambda",
  "generator_expression",
  "list_comprehension",
  "set_comprehension",
  "dictionary_comprehension",
];

/** The method around a call, where nothing in between runs in a frame of its own. */
function methodAround(node: SyntaxNode): SyntaxNode | undefined {
  for (const above of node.ancestors()) {
    if (above.is(OWN_FRAME)) return undefined;
    if (above.is("function_definition")) return above;
  }
  return undefined;
}

/** The class whose body a method stands in. */
function classOf(method: SyntaxNode): SyntaxNode | undefined {
  const holder = method.parent?.is("decorated_definition") ? method.parent.parent : method.parent;
  return holder?.is("block") && holder.parent?.is("class_definition") ? holder.parent : undefined;
}

/** Does the call say what it would say without its arguments? */
function saysNothingNew(match: Match): boolean {
  const method = methodAround(match.node);
  const first = method?.child("parameters")?.firstPart;
  const name = first?.is("identifier") ? first.text : first?.child("name")?.text;
  return (
    name === match.textOf(self) &&
    method !== undefined &&
    classOf(method)?.child("name")?.text === match.textOf(owner)
  );
}

/** Is the object the one that the method was called on? */
function isUnchanged(match: Match): Answer {
  const method = methodAround(match.node)!;
  const isStatic = method.parent?.is("decorated_definition") && /@staticmethod\b/.test(method.parent.text);
  if (isStatic) return no("value.result", "a static method has no object of its own", method);
  return isLeftAlone(match.the(self), [method.child("body")!]);
}

/** A class that a decorator replaces is another one than its methods were made for. */
function isItself(match: Match): Answer {
  const owns = classOf(methodAround(match.node)!)!;
  const decorated = owns.parent?.is("decorated_definition") ? owns.parent : undefined;
  const decorator = decorated?.parts.find((part) => part.is("decorator"));
  const known = /^@(\w+\.)*(total_ordering|final|unique|runtime_checkable)\b/;
  if (decorator && !known.test(decorator.text))
    return unknown(
      "value.result",
      `\`${decorator.text.split("\n")[0]}\` could put another class in the place of this one`,
      decorator,
    );
  return yes("value.result", `the method belongs to \`${match.textOf(owner)}\``, owns);
}

const { rewrites, ignores, holds } = trialsIn("python");

export const bareSuper = rule({
  id: "python/bare-super",
  kind: "idiom",
  title: "Call super without arguments",
  why: "The arguments repeat what the place says, and are forgotten when the class gets another name.",
  was: python`super(${owner}, ${self})`,
  target: "3",
  where: [saysNothingNew],
  given: [
    condition("`super` is the built-in one", ({ node }) => isBuiltin("super", node)),
    condition("the object is the one that the method was called on", isUnchanged),
    condition("the class is the one that its methods were made for", isItself),
  ],
  becomes: python`super()`,
  trials: [
    rewrites(
      "class A(B):\n    def __init__(self, x):\n        super(A, self).__init__(x)\n",
      "class A(B):\n    def __init__(self, x):\n        super().__init__(x)\n",
    ),
    rewrites(
      "class A(B):\n    @classmethod\n    def make(cls):\n        return super(A, cls).make()\n",
      "class A(B):\n    @classmethod\n    def make(cls):\n        return super().make()\n",
    ),
    rewrites(
      "@register\nclass A(B):\n    def f(self):\n        super(A, self).f()\n",
      "@register\nclass A(B):\n    def f(self):\n        super().f()\n",
      "likely",
    ),
    ignores("class A(B):\n    def f(self):\n        super(B, self).f()\n"),
    ignores("class A(B):\n    def f(self):\n        def g(self):\n            super(A, self).f()\n"),
    ignores("class A(B):\n    def f(self):\n        return [super(A, self).g(x) for x in y]\n"),
    ignores("class A(B):\n    def f(self, other):\n        super(A, other).f()\n"),
    ignores("class A(B):\n    def f(self):\n        super(type(self), self).f()\n"),
    ignores("def f(self):\n    super(A, self).f()\n"),
    holds("class A(B):\n    def f(self):\n        self = g()\n        super(A, self).f()\n", "is written"),
    holds("class A(B):\n    @staticmethod\n    def f(x):\n        super(A, x).f()\n", "static method"),
    trialsIn("python", "2.7").ignores("class A(B):\n    def f(self):\n        super(A, self).f()\n"),
  ],
});
