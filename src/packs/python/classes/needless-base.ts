import { builtin, copy, ofKind, holes, rule, text, trialsIn } from "../../../core.js";
import type { Match, Segment, SyntaxNode } from "../../../core.js";

const { list } = holes({ list: { kind: "expression", node: "argument_list" } });

/** Behind other bases it may stand for an order that somebody wants. */
function isFirstAndOnly(node: SyntaxNode): boolean {
  if (node.parent?.is("class_definition") !== true) return false;
  const [first, ...rest] = node.parts;
  return first?.text === "object" && rest.every((part) => part.is("keyword_argument"));
}

/** What is left of the brackets without the base. */
function withoutBase(match: Match): Segment[] {
  const rest = match.the(list).parts.slice(1);
  return rest.length === 0 ? [text("")] : [text("("), copy(rest[0]!.start, rest.at(-1)!.end), text(")")];
}

const { rewrites, ignores, holds } = trialsIn("python");

export const needlessBase = rule({
  id: "python/needless-base",
  kind: "idiom",
  title: "Leave out the base class object",
  why: "Every class is derived from it since Python 3.",
  was: ofKind(list, { when: isFirstAndOnly }),
  mentions: ["object"],
  target: "3",
  given: [builtin("object")],
  becomes: withoutBase,
  trials: [
    rewrites("class A(object):\n    pass\n", "class A:\n    pass\n"),
    rewrites("class A(object, metaclass=M):\n    pass\n", "class A(metaclass=M):\n    pass\n"),
    rewrites("class A( object ): pass\n", "class A: pass\n"),
    holds("object = load()\nclass A(object):\n    pass\n", "another meaning"),
    ignores("class A(B, object):\n    pass\n"),
    ignores("class A(object, B):\n    pass\n"),
    ignores("f(object)\n"),
    trialsIn("python", "2.7").ignores("class A(object):\n    pass\n"),
  ],
});
