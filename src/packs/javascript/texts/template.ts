import {
  condition,
  holes,
  javascript,
  no,
  rule,
  shortened,
  text,
  trialsIn,
  typeOf,
  unknown,
  valuesOf,
  yes,
} from "../../../core.js";
import type { Answer, Match, Segment, SyntaxNode } from "../../../core.js";

const { left, right } = holes({ left: "expression", right: "expression" });

const bare = (node: SyntaxNode): SyntaxNode =>
  node.is("parenthesized_expression") && node.firstPart?.is("string") ? node.firstPart : node;

/** The operands of a row of `+`, from left to right. */
function operandsOf(node: SyntaxNode): SyntaxNode[] {
  const isSum = node.is("binary_expression") && node.child("operator")?.text === "+";
  return isSum ? [...operandsOf(node.child("left")!), bare(node.child("right")!)] : [bare(node)];
}

/** The pieces of the text: what is added up before the first string goes together, since it may be numbers. */
function piecesOf(match: Match): (SyntaxNode | { start: SyntaxNode; end: SyntaxNode })[] {
  const operands = operandsOf(match.node);
  const first = operands.findIndex((one) => one.is("string"));
  return first > 1
    ? [{ start: operands[0]!, end: operands[first - 1]! }, ...operands.slice(first)]
    : operands;
}

const isSum = (node: SyntaxNode | undefined): boolean =>
  node?.is("binary_expression") === true && node.child("operator")?.text === "+";

/** A row that is whole, on one line, with a string early enough and something to put in. */
function isWorthwhile(match: Match): boolean {
  const { node } = match;
  const operands = operandsOf(node);
  const strings = operands.filter((one) => one.is("string"));
  if (isSum(node.parent) && node.field === "left") return false;
  if (node.parent?.is("parenthesized_expression") && isSum(node.parent.parent) && strings.length === 0)
    return false;
  if (strings.length === 0 || strings.length === operands.length || node.text.includes("\n")) return false;
  if (operands.some((one) => !one.is("string") && one.text.includes("`"))) return false;
  // Strings side by side are kept apart for a reason.
  return operands.every((one, i) => !(one.is("string") && operands[i + 1]?.is("string")));
}

/** The inside of a string as a template has it; undefined for what a template may not hold. */
function inTemplate(string: SyntaxNode): string | undefined {
  const inside = string.text.slice(1, -1);
  if (/\\[1-9]|\\0\d/.test(inside)) return undefined;
  return inside.replace(/`|\$\{/g, "\\$&").replace(/\\(["'])/g, "$1");
}

/** Only an object with a conversion of its own is turned into text in another way. */
function isTextAlike(match: Match): Answer {
  for (const piece of piecesOf(match)) {
    if (!("kind" in piece)) continue;
    if (piece.is("string")) {
      if (inTemplate(piece) === undefined)
        return no(
          "form.fits",
          `\`${shortened(piece.text)}\` has an escape that templates do not know`,
          piece,
        );
      continue;
    }
    const type = typeOf(piece)?.name ?? valuesOf(match, piece)?.text;
    const isPlain =
      type !== undefined &&
      type
        .split("|")
        .every((one) => /^(string|number|boolean|bigint|null|undefined|"[^"]*")$/.test(one.trim()));
    if (!isPlain && !isPlainValue(piece))
      return unknown(
        "value.result",
        `\`${shortened(piece.text)}\` could be an object that gives \`+\` another value than its text`,
        piece,
      );
  }
  return yes("value.result", "both give the same text");
}

/** Does an expression give a number, a string or the like, whatever stands in it? */
function isPlainValue(node: SyntaxNode): boolean {
  if (node.is("parenthesized_expression")) return isPlainValue(node.firstPart!);
  if (node.is(["number", "template_string", "true", "false", "null"])) return true;
  if (node.is("unary_expression"))
    return ["typeof", "!", "-", "+", "~"].includes(node.child("operator")?.text ?? "");
  if (node.is("update_expression")) return true;
  return node.is("binary_expression") && ["-", "*", "/", "%"].includes(node.child("operator")?.text ?? "");
}

function template(match: Match): Segment[] {
  const { tree } = match;
  const parts = piecesOf(match).map((piece) => {
    if (!("kind" in piece)) return `\${${tree.text.slice(piece.start.start, piece.end.end)}}`;
    if (piece.is("string")) return inTemplate(piece)!;
    const inner =
      piece.is("parenthesized_expression") && !piece.firstPart!.is("sequence_expression")
        ? piece.firstPart!
        : piece;
    return `\${${inner.text}}`;
  });
  return [text(`\`${parts.join("")}\``)];
}

const js = trialsIn("javascript");
const ts = trialsIn("typescript");

export const templateString = rule({
  id: "javascript/template",
  kind: "idiom",
  title: "Write a text with values in it as a template",
  why: "Quotes and plus signs hide what the text looks like, and a missing space is easily overlooked.",
  was: javascript`${left} + ${right}`,
  where: [isWorthwhile],
  given: [condition("both give the same text", isTextAlike)],
  becomes: template,
  trials: [
    js.rewrites('f("a " + 1 * n + " b");', "f(`a ${1 * n} b`);"),
    js.rewrites('const n = 3; f("jar " + n);', "const n = 3; f(`jar ${n}`);"),
    js.rewrites('f("jar " + n + " of " + m.all);', "f(`jar ${n} of ${m.all}`);", "likely"),
    js.rewrites('f(a + b + " jars");', "f(`${a + b} jars`);"),
    js.rewrites('f(a + " jars");', "f(`${a} jars`);", "likely"),
    js.rewrites("f('it\\'s ' + typeof n);", "f(`it's ${typeof n}`);"),
    js.rewrites('f("`${" + typeof n);', "f(`\\`\\${${typeof n}`);"),
    js.rewrites('f("a\\n" + (n - 1) + "b");', "f(`a\\n${n - 1}b`);"),
    js.rewrites('f("a" + (b ? 1 : 2));', "f(`a${b ? 1 : 2}`);", "likely"),
    js.rewrites('const s = "a"; f(s + "-" + typeof n + s);', 'const s = "a"; f(`${s}-${typeof n}${s}`);'),
    ts.rewrites("const f = (n: number) => 'jar ' + n;", "const f = (n: number) => `jar ${n}`;"),
    js.holds('f("\\1" + typeof n);', "escape"),
    js.ignores('f("a" + "b");'),
    js.ignores('f("a " +\n  n);'),
    js.ignores("f(a + b);"),
    js.ignores('f("a" + `b${c}`);'),
    js.ignores('f("a" + "b" + c);'),
    trialsIn("javascript", "5").ignores('f("a" + typeof b);'),
  ],
});
