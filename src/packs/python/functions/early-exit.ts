import {
  condition,
  copy,
  exitsOf,
  holes,
  indentUnit,
  ofKind,
  reindent,
  rule,
  text,
  trialsIn,
} from "../../../core.js";
import type { Match, Segment, SyntaxNode } from "../../../core.js";
import { isContrary, negated } from "../negated.js";

const { branch } = holes({ branch: { kind: "statement", node: "if_statement" } });

/** What is worth a level less: as many lines, or a block in the block. */
const LINES = 4;
const BLOCKS = ["if_statement", "for_statement", "while_statement", "with_statement", "try_statement"];
const LOOPS = ["for_statement", "while_statement"];

/** The function or the loop that ends with a branch. */
function endedBy(node: SyntaxNode): SyntaxNode | undefined {
  const block = node.parent;
  const holder = block?.parent;
  if (!block?.is("block") || !node.same(block.lastPart) || node.child("alternative")) return undefined;
  if (!holder?.is(["function_definition", ...LOOPS]) || !holder.child("body")?.same(block)) return undefined;
  return holder.nextPart?.is("else_clause") !== true ? holder : undefined;
}

function isDeep(node: SyntaxNode): boolean {
  const body = node.child("consequence")!;
  const lines = node.tree.lineAt(body.end) - body.line + 1;
  return endedBy(node) !== undefined && lines >= LINES && body.parts.some((part) => part.is(BLOCKS));
}

function leaving(match: Match): string {
  const holder = endedBy(match.the(branch))!;
  if (holder.is(LOOPS)) return "continue";
  const gives = exitsOf(holder.child("body")!.parts).some(
    (one) => one.is("return_statement") && one.firstPart,
  );
  return gives ? "return None" : "return";
}

function flat(match: Match): Segment[] {
  const node = match.the(branch);
  const { tree } = node;
  const body = node.child("consequence")!;
  const indent = tree.indentAt(node.start);
  const colon = node.children.find((child) => child.kind === ":")!;
  const line = /^[^\r\n]*/.exec(tree.text.slice(colon.end))![0].trimEnd();
  const end = colon.end + line.length;
  // Comments on lines of their own ahead of the first statement belong to it.
  const start = end + /^\s*/.exec(tree.text.slice(end, body.end))![0].length;
  return [
    text("if "),
    ...negated(node.child("condition")!),
    text(":"),
    ...(line === "" ? [] : [copy(colon.end, end)]),
    text(`\n${indent}${indentUnit(tree, indent)}${leaving(match)}\n${indent}`),
    copy(start, body.end, reindent(tree, start, body.end, tree.indentAt(start), indent)),
  ];
}

const { rewrites, ignores } = trialsIn("python");

export const earlyExit = rule({
  id: "python/early-exit",
  kind: "idiom",
  title: "Leave early instead of putting the rest into a branch",
  why: "The reader keeps a condition in mind down to the end of the function, and everything stands a level deeper.",
  taste: true,
  was: ofKind(branch, { when: isDeep, together: (node) => [node] }),
  mentions: ["if"],
  given: [
    condition("the condition can be turned round", (match) =>
      isContrary(match.the(branch).child("condition")!),
    ),
  ],
  becomes: flat,
  trials: [
    rewrites(
      `
      def weigh(hive):
          log(hive)
          if hive is not None:
              # All of its boxes.
              for box in hive.boxes:
                  add(box)
              done(hive)
              count()
      `,
      `
      def weigh(hive):
          log(hive)
          if hive is None:
              return
          # All of its boxes.
          for box in hive.boxes:
              add(box)
          done(hive)
          count()
      `,
    ),
    rewrites(
      `
      for hive in hives:
          if not hive.empty and hive.age > 3:
              if hive.queen:
                  feed(hive)
              count(hive)
              weigh(hive)
      `,
      `
      for hive in hives:
          if not (not hive.empty and hive.age > 3):
              continue
          if hive.queen:
              feed(hive)
          count(hive)
          weigh(hive)
      `,
    ),
    rewrites(
      "def f(x):\n    if x is not None and not y:\n        if a:\n            g()\n        g()\n        h()\n",
      "def f(x):\n    if x is None or y:\n        return\n    if a:\n        g()\n    g()\n    h()\n",
    ),
    rewrites(
      "def f(x):\n    if (not x):  # is there\n        # all\n        if a:\n            g()\n        g()  # b\n        h()\n",
      "def f(x):\n    if x:  # is there\n        return\n    # all\n    if a:\n        g()\n    g()  # b\n    h()\n",
    ),
    rewrites(
      "def f(x):\n    if x == 1:\n        if a:\n            return 2\n        g()\n        return 3\n",
      "def f(x):\n    if x != 1:\n        return None\n    if a:\n        return 2\n    g()\n    return 3\n",
    ),
    rewrites(
      "def f(x, y):\n    if x == y:\n        if a:\n            g()\n        g()\n        h()\n",
      "def f(x, y):\n    if x != y:\n        return\n    if a:\n        g()\n    g()\n    h()\n",
      "likely",
    ),
    ignores(
      "def f(x):\n    if x:\n        if a:\n            g()\n        g()\n        h()\n    else:\n        g()\n",
    ),
    ignores("def f(x):\n    if x:\n        if a:\n            g()\n        g()\n        h()\n    g()\n"),
    ignores("def f(x):\n    if x:\n        g()\n"),
    ignores("if x:\n    if a:\n        g()\n    g()\n    h()\n"),
    ignores(
      "def f():\n    try:\n        if x:\n            if a:\n                g()\n            g()\n            h()\n    finally:\n        h()\n",
    ),
  ],
});
