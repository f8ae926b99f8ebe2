import type { SyntaxNode } from "../node.js";
import type { SyntaxTree } from "../tree.js";

/**
 * What is wrong with the lines of a Python file, told without places, that the grammar does not check: the statements of
 * a block stand at one indentation, deeper than what they belong to, and a statement goes on in the next line only in
 * brackets or behind a `\`.
 */
export function pythonLayoutFaults(tree: SyntaxTree): Set<string> {
  const faults = new Set<string>();
  const note = (node: SyntaxNode, what: string): void => {
    faults.add(`${what} ${node.text.replace(/\s+/g, " ")}`);
  };
  for (const node of tree.root.descendants()) {
    if (node.is(["block", "module"])) {
      const firsts = node.parts.filter((part) => !part.is("comment") && isFirst(part));
      const indents = new Set(firsts.map(indentOf));
      if (indents.size > 1) note(node, "indents");
      const own = firsts[0] && indentOf(firsts[0]);
      const owner = node.parent;
      if (own !== undefined && owner && isFirst(owner) && !isDeeper(own, indentOf(owner)))
        note(node, "depth");
      for (const first of firsts) if (isContinued(first)) note(first, "continued");
      if (node.is("module") && own !== undefined && own !== "") note(node, "top");
    } else if (!node.isLeaf && !node.is(BRACKETED) && !isInBrackets(node)) {
      const { children } = node;
      for (let i = 1; i < children.length; i++) {
        const gap = tree.text.slice(children[i - 1]!.end, children[i]!.start);
        if (children[i]!.is(["block", "comment"]) || children[i - 1]!.is("comment") || isClause(children[i]!))
          continue;
        if (/(?<!\\)\r?\n/.test(gap)) note(node, "broken");
        if (/\\[^\r\n]/.test(gap)) note(node, "stray");
      }
    }
  }
  return faults;
}

const BRACKETED = [
  "argument_list",
  "parameters",
  "list",
  "tuple",
  "dictionary",
  "set",
  "parenthesized_expression",
  "list_comprehension",
  "dictionary_comprehension",
  "set_comprehension",
  "generator_expression",
  "subscript",
  "string",
  "concatenated_string",
  "list_pattern",
  "tuple_pattern",
  "import_from_statement",
  "interpolation",
  "type_parameter",
  "module",
  "block",
  "decorated_definition",
  "with_clause",
  "case_pattern",
  "class_pattern",
  "dict_pattern",
  "ERROR",
];

function isInBrackets(node: SyntaxNode): boolean {
  for (const above of node.ancestors()) {
    if (above.is(["block", "module"])) return false;
    if (above.is(BRACKETED)) return true;
  }
  return false;
}

/** `else`, `except` and their like begin lines of their own. */
function isClause(node: SyntaxNode): boolean {
  return /_clause$/.test(node.kind) && !node.is(["for_in_clause", "if_clause"]);
}

/** Is the line before one that goes on, with a `\\` at its end? */
function isContinued({ tree, start }: SyntaxNode): boolean {
  const line = tree.lineStart(tree.lineAt(start));
  return /\\\r?\n$/.test(tree.text.slice(Math.max(0, line - 3), line));
}

function isFirst(node: SyntaxNode): boolean {
  return node.tree.firstOnLine(node.start) === node.start;
}

function indentOf(node: SyntaxNode): string {
  return node.tree.indentAt(node.start);
}

function isDeeper(inner: string, outer: string): boolean {
  return inner.length > outer.length && inner.startsWith(outer);
}
