import { copy, holes, ofKind, rule, trialsIn } from "../../../core.js";
import type { Edit, Match, Segment, SyntaxNode } from "../../../core.js";

const { list } = holes({ list: { kind: "expression", node: ["array_creation_expression", "list_literal"] } });

const isLong = (node: SyntaxNode): boolean => /^(array|list)\s*\(/i.test(node.text);

/** Is it the outermost of its kind, so that those in it become short with it? */
function isOutermost(node: SyntaxNode): boolean {
  for (const above of node.ancestors()) {
    if (above.is(["expression_statement", "anonymous_function", "arrow_function", "arguments"])) return true;
    if (above.is(["array_creation_expression", "list_literal"]) && isLong(above)) return false;
  }
  return true;
}

function short(match: Match): Segment[] {
  const node = match.the(list);
  const edits: Edit[] = [];
  for (const one of node.descendants()) {
    if (!one.is(["array_creation_expression", "list_literal"]) || !isLong(one)) continue;
    const open = one.start + /^\w+\s*\(/.exec(one.text)![0].length;
    edits.push({ start: one.start, end: open, text: "[" }, { start: one.end - 1, end: one.end, text: "]" });
  }
  return [
    copy(
      node.start,
      node.end,
      edits.sort((a, b) => a.start - b.start),
    ),
  ];
}

const { rewrites, ignores } = trialsIn("php");
const php = (code: string): string => `<?php\n${code}\n`;

export const shortArray = rule({
  id: "php/short-array",
  kind: "idiom",
  title: "Use square brackets for arrays",
  why: "The word `array` looks like a call, and hides what stands in the list.",
  target: "7.1",
  was: ofKind(list, { when: (node) => isLong(node) && isOutermost(node) }),
  mentions: ["array", "list"],
  becomes: short,
  trials: [
    rewrites(php("$a = array(1, 'x' => array(2, 3));"), php("$a = [1, 'x' => [2, 3]];")),
    rewrites(php("list($a, list(, $b)) = f();"), php("[$a, [, $b]] = f();")),
    rewrites(php("foreach ($jars as list('age' => $n)) {}"), php("foreach ($jars as ['age' => $n]) {}")),
    rewrites(php("f(array(), array(g(array(1))));"), php("f([], [g([1])]);")),
    rewrites(php("$a = array( // all\n    1,\n);"), php("$a = [ // all\n    1,\n];")),
    rewrites(php("function f(array $a = array()) {}"), php("function f(array $a = []) {}")),
    ignores(php("$a = [1];")),
    ignores(php("$a = (array) $b;")),
    ignores(php("function f(array $a) {}")),
    ignores(php("$a = is_array($b);")),
    trialsIn("php", "5.3").ignores(php("$a = array(1);")),
  ],
});
