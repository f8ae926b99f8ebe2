import { classesNamed, importsIn, no, placeOf, unknown, yes } from "../../core.js";
import type { Answer, SyntaxNode } from "../../core.js";

/** Is a class that is named here the one of the platform's namespace, by a `using` or by its full name? */
export function isOfNamespace(name: string, namespace: string, at: SyntaxNode): Answer {
  const [own] = classesNamed(at.tree, name).classes;
  if (own) return no("name.library", `the project has a \`${name}\` of its own (${placeOf(own)})`, at);
  if (
    at.text
      .replace(/^new\s+/, "")
      .replace(/^global::/, "")
      .startsWith(`${namespace}.${name}`)
  )
    return yes("name.library", `\`${name}\` is named in full`, at);
  const brought = importsIn(at.tree).find(({ imports }) =>
    imports.some((one) => one.module === namespace && (one.name === "*" || one.name === name)),
  );
  return brought
    ? yes("name.library", `\`${name}\` is the one of \`${namespace}\``, brought.node)
    : unknown("name.not-resolved", `nothing in this file says where \`${name}\` comes from`, at);
}
