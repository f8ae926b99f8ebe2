import { unknown, yes } from "../../../core.js";
import type { Answer, SyntaxNode } from "../../../core.js";

const DIRECTIVE = /^(["'])use strict\1;?$/;

/** Is code strict already, as that of a class always is? */
export function isStrict(node: SyntaxNode): Answer {
  const { root, language } = node.tree;
  const code = "form.fits";
  if (root.parts.some((part) => part.is(["import_statement", "export_statement"])))
    return yes(code, "a module is strict");
  if (language.id !== "javascript")
    return yes(code, "the compiler makes the file strict, or checks it as such");
  for (const above of [node, ...node.ancestors()]) {
    const first = above.is(["program", "statement_block"]) ? above.firstPart : undefined;
    if (first && DIRECTIVE.test(first.text)) return yes(code, "the code is strict already", first);
  }
  return unknown(code, "nothing makes the code strict so far, as that of a class is", node);
}

/** Methods of a class are not walked by `for…in`, as those are that are put on a prototype by hand. */
export function isNotWalked(at: SyntaxNode, methods: number): Answer {
  const code = "value.result";
  return methods === 0
    ? yes(code, "it has no methods", at)
    : unknown(code, "what walks objects of the class with `for…in` no longer comes to its methods", at);
}
