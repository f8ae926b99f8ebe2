import { condition, holes, no, ofKind, rule, text, trialsIn, yes } from "../../../index.js";
import type { Answer, Match, Segment, SyntaxNode } from "../../../index.js";

const { statement } = holes({ statement: { kind: "statement", node: "print_statement" } });

const streamOf = (node: SyntaxNode): SyntaxNode | undefined => node.parts.find((part) => part.is("chevron"));
const valuesOf = (node: SyntaxNode): SyntaxNode[] => node.parts.filter((part) => !part.is("chevron"));
/** A comma at the end keeps the line open. */
const staysOpen = (node: SyntaxNode): boolean => node.text.trimEnd().endsWith(",");

/** Brackets around several values would print a tuple in both, and an open line knows whether a blank is wanted. */
function isPlain(match: Match): Answer {
  const node = match.the(statement);
  return staysOpen(node)
    ? no(
        "value.result",
        "the line stays open, and whether a blank follows is only known when the next one is printed",
        node,
      )
    : yes("value.result", "the line ends here");
}

function called(match: Match): Segment[] {
  const node = match.the(statement);
  const { text: code } = node.tree;
  const values = valuesOf(node);
  const stream = streamOf(node)?.firstPart;
  const list = [
    ...(values.length > 0 ? [code.slice(values[0]!.start, values.at(-1)!.end)] : []),
    ...(stream ? [`file=${stream.text}`] : []),
  ];
  return [text(`print(${list.join(", ")})`)];
}

const { rewrites, ignores, holds } = trialsIn("python");

export const printCall = rule({
  id: "python/print-call",
  kind: "breaks",
  title: "Call print as a function",
  why: "Python 3 has no statement of that name.",
  was: ofKind(statement, { together: (node) => [node] }),
  mentions: ["print"],
  target: "3",
  given: [condition("the line ends here", isPlain)],
  becomes: called,
  trials: [
    rewrites('print "hive"\n', 'print("hive")\n'),
    rewrites('print "hive", n, a + b\n', 'print("hive", n, a + b)\n'),
    rewrites(
      'import sys\nprint >>sys.stderr, "hive", n\n',
      'import sys\nprint("hive", n, file=sys.stderr)\n',
    ),
    rewrites('if a:\n    print "%d jars" % n  # all\n', 'if a:\n    print("%d jars" % n)  # all\n'),
    holds('print "hive",\n', "stays open"),
    ignores('print("hive")\n'),
    ignores("log.print(x)\n"),
  ],
});
