import { jumpOf, holes, ofKind, rule, trialsIn } from "../../../core.js";
import type { Match, SyntaxNode } from "../../../core.js";

const { loop } = holes({ loop: { kind: "statement", node: ["for_statement", "while_statement"] } });

/** Can the loop be left by a `break` of its own? */
function hasBreak(node: SyntaxNode): boolean {
  return node.parts.some((part) => {
    if (part.is(["for_statement", "while_statement", "function_definition", "class_definition"]))
      return false;
    return jumpOf(part) === "break" || hasBreak(part);
  });
}

const bodyOf = (match: Match): SyntaxNode => match.the(loop).child("body")!;
const { reports, ignores } = trialsIn("python");

export const loopElse = rule({
  id: "python/loop-else",
  kind: "smell",
  title: "Say when the code behind a loop runs",
  why: "The `else` of a loop runs where no `break` left it, which most readers take for something else.",
  was: ofKind(loop, { when: (node) => node.child("alternative") !== undefined }),
  mentions: ["else"],
  advice: (match) =>
    hasBreak(bodyOf(match))
      ? "The `else` runs where no `break` ended the loop: put the search into a function that returns what it finds, or remember in a variable whether something was found."
      : "The loop has no `break`, so its `else` always runs: put the code behind the loop instead.",
  trials: [
    reports("for x in xs:\n    if x:\n        break\nelse:\n    print(1)\n", "where no `break` ended"),
    reports("while x:\n    x = x.next\nelse:\n    print(1)\n", "always runs"),
    reports("for x in xs:\n    for y in x:\n        break\nelse:\n    print(1)\n", "always runs"),
    ignores("for x in xs:\n    if x:\n        break\n    else:\n        print(1)\n"),
    reports("for x in xs:\n    def f():\n        return 1\nelse:\n    print(1)\n", "always runs"),
    ignores("try:\n    f()\nexcept E:\n    g()\nelse:\n    h()\n"),
  ],
});
