import { functionAround, nameInFile } from "../../../core.js";
import type { SyntaxNode, SyntaxTree } from "../../../core.js";

/** A file of a package, by its path from the project's root. */
export interface CodeFile {
  readonly path: string;
  readonly tree: SyntaxTree;
}

/** The uses of a name that nothing in the file declares: what the loader of the file gives it. */
export function given(name: string, tree: SyntaxTree): SyntaxNode[] {
  return nameInFile(name, tree)
    .references.filter(({ member, to }) => !member && !to)
    .map(({ node }) => node);
}

/** The statement of the file, not of a block in it, in which a node stands. */
export function topStatement(node: SyntaxNode): SyntaxNode {
  return node.parent?.is("program")
    ? node
    : [...node.ancestors()].find((above) => above.parent?.is("program"))!;
}

const ALWAYS_EVALUATED = [
  "expression_statement",
  "variable_declaration",
  "lexical_declaration",
  "variable_declarator",
  "assignment_expression",
  "call_expression",
  "new_expression",
  "arguments",
  "member_expression",
  "subscript_expression",
  "parenthesized_expression",
  "object",
  "pair",
  "array",
  "spread_element",
  "template_string",
  "template_substitution",
  "unary_expression",
];
const LOGICAL = ["&&", "||", "??"];

/** Is this evaluated once while the file is loaded, whatever happens? */
export function isAtLoad(node: SyntaxNode): boolean {
  for (let at = node; ;) {
    const above = at.parent;
    if (!above || above.is("program")) return above !== undefined;
    const called = above.is("statement_block") ? calledAtOnce(above.parent) : undefined;
    if (called) {
      const returns = [...above.descendants()].some(
        (part) =>
          part.is("return_statement") && part.start < node.start && functionAround(part)?.same(above.parent),
      );
      if (returns) return false;
      at = called;
      continue;
    }
    const isLogical = above.is("binary_expression") && LOGICAL.some((token) => above.has(token));
    const isFirst = above.child(isLogical ? "left" : "condition")?.same(at) ?? false;
    const isPlain = above.is("binary_expression") && !isLogical;
    const isTested = (isLogical || above.is("ternary_expression")) && isFirst;
    if (!isPlain && !isTested && !above.is(ALWAYS_EVALUATED)) return false;
    // What a chain that may end early calls is not always called.
    if (above.has("?.") || above.children.some((child) => child.is("optional_chain"))) return false;
    at = above;
  }
}

/** The call of a function that is called where it stands: `(function () { … })()`. */
function calledAtOnce(node: SyntaxNode | undefined): SyntaxNode | undefined {
  if (!node?.is(["function_expression", "arrow_function"]) || node.has("async")) return undefined;
  const callee = unwrapped(node);
  const call = callee.parent;
  return call?.is("call_expression") && call.child("function")?.same(callee) ? call : undefined;
}

/** Does code run when the file is loaded, rather than when one of its functions is called? */
export function runsAtLoad(node: SyntaxNode): boolean {
  const around = functionAround(node);
  if (!around) return true;
  const call = calledAtOnce(around);
  return call !== undefined && runsAtLoad(call);
}

/** What is around an expression, brackets left out. */
export function unwrapped(node: SyntaxNode): SyntaxNode {
  let at = node;
  while (at.parent?.is("parenthesized_expression")) at = at.parent;
  return at;
}

/** Without the brackets around it. */
export function inner(node: SyntaxNode): SyntaxNode {
  let at = node;
  while (at.is("parenthesized_expression") && at.firstPart) at = at.firstPart;
  return at;
}

/** A word made of the last part of a path: `./lib/honey-jar.js` gives `honeyJar`. */
export function nameOfPath(path: string): string {
  const last = path
    .replace(/\/(index(\.\w+)?)?$/, "")
    .replace(/\.(c|m)?jsx?$/, "")
    .split("/")
    .at(-1)!;
  const words = last.split(/[^\p{L}\p{N}]+/u).filter((word) => word !== "");
  const name = words.map((word, i) => (i === 0 ? word : word[0]!.toUpperCase() + word.slice(1))).join("");
  return /^\p{L}/u.test(name) ? name[0]!.toLowerCase() + name.slice(1) : `module${name}`;
}

const RESERVED = new Set(
  (
    "await break case catch class const continue debugger default delete do else enum export extends false finally for " +
    "function if implements import in instanceof interface let new null package private protected public return static " +
    "super switch this throw true try typeof var void while with yield arguments eval"
  ).split(" "),
);

/** May a module have a name for a variable? */
export function isPlainName(name: string): boolean {
  return /^[\p{L}_$][\p{L}\p{N}_$]*$/u.test(name) && !RESERVED.has(name);
}
