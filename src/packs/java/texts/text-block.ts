import { holes, indentUnit, ofKind, rule, text, trialsIn } from "../../../core.js";
import type { Segment, SyntaxNode } from "../../../core.js";

const { added } = holes({ added: { kind: "expression", node: "binary_expression" } });

/** The literals that are added up, from the first to the last; undefined where something else is added. */
function literalsOf(node: SyntaxNode): SyntaxNode[] | undefined {
  if (node.is("string_literal")) return node.text.startsWith('"""') ? undefined : [node];
  if (!node.is("binary_expression") || node.child("operator")?.text !== "+") return undefined;
  const [left, right] = [literalsOf(node.child("left")!), literalsOf(node.child("right")!)];
  return left && right && right.length === 1 ? [...left, ...right] : undefined;
}

const contentOf = (literal: SyntaxNode): string => literal.text.slice(1, -1);

/** Does a piece of code end with the escape for a new line, and not with a backslash and an `n`? */
const endsLine = (content: string): boolean => /(?:^|[^\\])(?:\\\\)*\\n$/.test(content);

/** The lines of a text, as they are escaped in a literal. */
function linesOf(content: string): string[] {
  const lines = [""];
  for (const [piece] of content.matchAll(/\\.|[^\\]/gs)) {
    if (piece === "\\n") lines.push("");
    else lines[lines.length - 1] += piece;
  }
  return lines;
}

/** A line as a text block has it: quotes stand for themselves, and spaces at the end are kept by an escape. */
function inBlock(line: string): string {
  const open = line.replace(/\\(.)/gs, (piece, escaped) => (escaped === '"' ? '"' : piece));
  const closed = open.replace(/"""/g, '""\\"').replace(/^\t+/, (tabs) => "\\t".repeat(tabs.length));
  return closed.replace(/ $/, "\\s").replace(/\t$/, "\\t");
}

/** Is one line of the text written in one literal, so that the block has the lines of the old code? */
function isWritten(node: SyntaxNode): boolean {
  const literals = literalsOf(node);
  if (!literals || (node.parent?.is("binary_expression") && literalsOf(node.parent))) return false;
  const contents = literals.map(contentOf);
  return (
    contents.slice(0, -1).every(endsLine) &&
    linesOf(contents.join("")).length > 2 &&
    // What stands for a character before the code is read could be a quote.
    !contents.some((content) => content.includes("\\u")) &&
    ![...node.descendants()].some((one) => one.is(one.tree.language.comments))
  );
}

function block(node: SyntaxNode): Segment[] {
  const { tree } = node;
  const literals = literalsOf(node)!;
  const second = literals[1]!;
  const base = tree.indentAt(node.start);
  const ahead = tree.text.slice(tree.firstOnLine(second.start), second.start);
  const indent = /^\+?\s*$/.test(ahead) ? tree.indentAt(second.start) : base + indentUnit(tree, base);
  const lines = linesOf(literals.map(contentOf).join("")).map(inBlock);
  const isEnded = lines.at(-1) === "";
  if (isEnded) lines.pop();
  const shown = lines.map((line) => (line === "" ? "" : indent + line)).join("\n");
  // Spaces that all lines begin with are kept where the end stands left of them.
  const isOpen = lines.every((line) => line === "" || /^ /.test(line));
  const last = isEnded ? `\n${indent}` : isOpen ? `\\\n${indent}` : "";
  // A quote at the end would be taken for one of those that close the block.
  const closing = last === "" ? shown.replace(/(?<!\\)((?:\\\\)*)"$/, '$1\\"') : shown;
  return [text(`"""\n${closing}${last}"""`)];
}

const { rewrites, ignores } = trialsIn("java", "15");
const inMethod = (code: string): string =>
  `class A {\n    String f(String x) {\n        ${code.replace(/\n(?!\n)/g, "\n        ")}\n    }\n}\n`;

export const textBlock = rule({
  id: "java/text-block",
  kind: "idiom",
  title: "Write a text of several lines as a text block",
  why: "Quotes, plus signs and escapes stand around each line, and the text can be neither read nor pasted.",
  target: "15",
  was: ofKind(added, { when: isWritten }),
  mentions: ["\\n"],
  becomes: (match) => block(match.the(added)),
  trials: [
    rewrites(
      inMethod('return "select *\\n" +\n    "  from hives\\n" +\n    " where id = \\"x\\"\\n";'),
      inMethod('return """\n    select *\n      from hives\n     where id = "x"\n    """;'),
    ),
    rewrites(
      inMethod('String a = "one\\n"\n    + "\\n"\n    + "three";\nreturn a;'),
      inMethod('String a = """\n    one\n\n    three""";\nreturn a;'),
    ),
    // Spaces at both ends of lines, tabs, three quotes, a quote at the end, other escapes.
    rewrites(
      inMethod('return "  a \\n"\n    + "\\tb\\\\n\\n"\n    + "  \\"\\"\\"c\\"";'),
      inMethod('return """\n      a\\s\n    \\tb\\\\n\n      ""\\"c\\"""";'),
    ),
    ignores(inMethod('return "  a\\n"\n    + "  b";')),
    rewrites(
      inMethod('return "  a\\n"\n    + "  b\\n"\n    + "  c";'),
      inMethod('return """\n      a\n      b\n      c\\\n    """;'),
    ),
    rewrites(
      inMethod('return g("a\\n"\n    + "b\\n" + x);'),
      inMethod('return g("""\n    a\n    b\n    """ + x);'),
    ),
    ignores(inMethod('return "a long text that goes on, "\n    + "and on\\n"\n    + "and on";')),
    ignores(inMethod('return "a\\n" + x + "b\\n";')),
    ignores(inMethod('return "a\\\\n"\n    + "b\\\\n"\n    + "c";')),
    ignores(inMethod('return "a\\n" // first\n    + "b\\n"\n    + "c";')),
    ignores(inMethod('return "a\\n"\n    + "\\u0022\\n"\n    + "c";')),
    ignores(inMethod('return x + "a\\n"\n    + "b\\n";')),
    trialsIn("java", "11").ignores(inMethod('return "a\\n"\n    + "b\\n"\n    + "c";')),
  ],
});
