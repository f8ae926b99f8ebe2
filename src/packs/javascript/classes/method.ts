import { nameInFile, referencesOf, textAt, type Edit, type SyntaxNode } from "../../../core.js";

const FUNCTIONS = ["function_expression", "generator_function", "arrow_function"];
/** Functions with a `this`, and `arguments`, of their own. */
const OWN_THIS = [
  "function_declaration",
  "function_expression",
  "generator_function",
  "generator_function_declaration",
  "method_definition",
  "class_body",
];

/** Nodes in a function that belong to it, and not to a function with a `this` of its own in it. */
export function* ownNodes(node: SyntaxNode): Generator<SyntaxNode> {
  for (const child of node.children) {
    yield child;
    if (!child.is(OWN_THIS)) yield* ownNodes(child);
  }
}

/** Why a function cannot become a method; undefined where it can. */
export function noMethod(fn: SyntaxNode): string | undefined {
  if (!fn.is(FUNCTIONS)) return "it is no function that is written here";
  const name = fn.child("name");
  const own =
    name && nameInFile(name.text, name.tree).declarations.find(({ at }) => at.some((one) => one.same(name)));
  const again = own && referencesOf(own).find((one) => !one.node.same(name));
  if (again) return `the function calls itself by its own name \`${name.text}\``;
  if (fn.is("arrow_function")) {
    const lexical = [...ownNodes(fn)].find((node) => node.is("this") || node.text === "arguments");
    if (lexical) return `\`${lexical.text}\` in an arrow function is not that of the object`;
  }
  return undefined;
}

/** A key as the name of a member: without quotes where it needs none. */
export function memberName(key: SyntaxNode): string {
  const plain = /^(["'])([\p{L}_$][\p{L}\p{N}_$]*)\1$/u.exec(key.text)?.[2];
  return plain ?? key.text;
}

/** A function as a method of a class, standing as deep as `indent`. */
export function methodText(
  name: string,
  fn: SyntaxNode,
  indent: string,
  edits: readonly Edit[] = [],
): string {
  const { tree } = fn;
  const words = `${fn.has("async") ? "async " : ""}${fn.is("generator_function") ? "*" : ""}${name}`;
  const list = fn.child("parameters");
  const alone = fn.child("parameter");
  const body = fn.child("body")!;
  const inside = (node: SyntaxNode, to = node.end): string =>
    textAt(
      tree,
      { start: node.start, end: to },
      indent,
      edits.filter((edit) => node.start <= edit.start && edit.end <= to),
    );
  if (!fn.is("arrow_function")) return `${words}${inside(list!, fn.end)}`;
  const parameters = list ? inside(list) : `(${alone!.text})`;
  return body.is("statement_block")
    ? `${words}${parameters} ${inside(body)}`
    : `${words}${parameters} { return ${body.is("parenthesized_expression") && body.firstPart?.is("object") ? body.firstPart.text : inside(body)}; }`;
}
