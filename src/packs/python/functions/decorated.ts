import {
  condition,
  copy,
  holes,
  isSideEffectFree,
  no,
  ofKind,
  rule,
  text,
  trialsIn,
  yes,
} from "../../../core.js";
import type { Match, Segment, SyntaxNode } from "../../../core.js";

const { fn } = holes({ fn: { kind: "statement", node: "function_definition" } });

/** The function with the decorators that it has. */
const holderOf = (node: SyntaxNode): SyntaxNode =>
  node.parent?.is("decorated_definition") ? node.parent : node;

/** The call right behind a function that replaces it by what is made of it: `weigh = logged(weigh)`. */
function replacing(node: SyntaxNode): { statement: SyntaxNode; decorator: SyntaxNode } | undefined {
  const name = node.child("name")!.text;
  const next = holderOf(node).nextPart;
  const assignment = next?.is("expression_statement") ? next.firstPart : undefined;
  const value = assignment?.is("assignment") ? assignment.child("right") : undefined;
  if (!next || !value?.is("call") || assignment!.child("left")!.text !== name || assignment!.child("type"))
    return undefined;
  const given = value.child("arguments")!.parts;
  const decorator = value.child("function")!;
  return given.length === 1 && given[0]!.text === name && decorator.mentions(name).length === 0
    ? { statement: next, decorator }
    : undefined;
}

const foundIn = (match: Match) => replacing(match.the(fn))!;

function decorated(match: Match): Segment[] {
  const holder = holderOf(match.the(fn));
  const { tree } = holder;
  const { statement, decorator } = foundIn(match);
  const between = tree.text.slice(holder.end, statement.start);
  const comment = between.includes("#") ? [copy(holder.end, holder.end + between.trimEnd().length)] : [];
  return [
    text("@"),
    copy(decorator.start, decorator.end),
    text(`\n${tree.indentAt(holder.start)}`),
    copy(holder.start, holder.end),
    ...comment,
  ];
}

const { rewrites, holds, ignores } = trialsIn("python");

export const decoratedRule = rule({
  id: "python/decorated",
  kind: "idiom",
  title: "Write what wraps a function as its decorator",
  why: "Who reads the head of the function does not see that something else goes by its name in the end.",
  was: ofKind(fn, {
    when: (node) => replacing(node) !== undefined,
    together: (node) => [holderOf(node), replacing(node)!.statement],
  }),
  mentions: ["def"],
  given: [
    condition("it can stand as a decorator", (match) => {
      const { decorator } = foundIn(match);
      const callee = decorator.is("call") ? decorator.child("function")! : decorator;
      return /^[\w.]+$/.test(callee.text)
        ? yes("form.fits", "it can stand as a decorator")
        : no(
            "form.fits",
            `\`${decorator.text}\` may stand as a decorator from Python 3.9 on only`,
            decorator,
          );
    }),
    condition("it may be worked out before the function is made", (match) =>
      isSideEffectFree(foundIn(match).decorator),
    ),
  ],
  becomes: decorated,
  trials: [
    rewrites("def f(x):\n    return x\nf = logged(f)\n", "@logged\ndef f(x):\n    return x\n"),
    rewrites(
      "class A:\n    @b\n    def f(self):\n        return 1\n\n    f = property(f)\n    x = 1\n",
      "class A:\n    @property\n    @b\n    def f(self):\n        return 1\n    x = 1\n",
    ),
    rewrites("async def f():\n    pass\nf = b(f)\nf = c(f)\n", "@c\n@b\nasync def f():\n    pass\n"),
    holds("def f():\n    pass\nf = times(3)(f)\n", "calls something"),
    holds("def f():\n    pass\nf = all[1](f)\n", "from Python 3.9"),
    ignores("def f():\n    pass\ng()\nf = logged(f)\n"),
    ignores("def f():\n    pass\ng = logged(f)\n"),
    ignores("def f():\n    pass\nf = logged(f, 1)\n"),
    ignores("def f():\n    pass\nf = f(f)\n"),
  ],
});
