import { condition, holes, ofKind, rule, text, trialsIn, unknown, yes } from "../../../core.js";
import type { Answer, Match, Segment, SyntaxNode } from "../../../core.js";

const { statement } = holes({ statement: { kind: "statement", node: "print_statement" } });

const streamOf = (node: SyntaxNode): SyntaxNode | undefined => node.parts.find((part) => part.is("chevron"));
const valuesOf = (node: SyntaxNode): SyntaxNode[] => node.parts.filter((part) => !part.is("chevron"));
/** A comma at the end keeps the line open. */
const staysOpen = (node: SyntaxNode): boolean => node.text.trimEnd().endsWith(",");

/** An open line gets its blank only when more is printed on it. */
function isPlain(match: Match): Answer {
  const node = match.the(statement);
  return staysOpen(node)
    ? unknown(
        "value.result",
        "the line stays open: where it ends without more on it, a blank is printed at its end",
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
    ...(staysOpen(node) && values.length > 0 ? ['end=" "'] : []),
    ...(stream ? [`file=${stream.text}`] : []),
  ];
  return [text(`print(${list.join(", ")})`)];
}

const { rewrites, ignores } = trialsIn("python");

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
    rewrites('print "hive",\n', 'print("hive", end=" ")\n', "likely"),
    rewrites("print >>f, a, b,\n", 'print(a, b, end=" ", file=f)\n', "likely"),
    ignores('print("hive")\n'),
    ignores("log.print(x)\n"),
  ],
});
