import type { SyntaxNode } from "../../core.js";

/** A constructor, a destructor or an assignment of a class, by its head. */
export interface SpecialMember {
  readonly is: "constructor" | "destructor" | "copy" | "copy assignment";
  /** The name of its class. */
  readonly of: string;
  /** The class around it; undefined where it stands outside of its class. */
  readonly inside: SyntaxNode | undefined;
  readonly head: SyntaxNode;
}

/** The special member that a declaration or a definition is; undefined for any other function. */
export function specialMember(node: SyntaxNode): SpecialMember | undefined {
  let head = node.child("declarator");
  while (head?.is("reference_declarator")) head = head.firstPart;
  if (!head?.is("function_declarator")) return undefined;
  const inside = node.closest(["class_specifier", "struct_specifier", "union_specifier"]);
  let name = head.child("declarator");
  let scope: string | undefined;
  while (name?.is("qualified_identifier")) {
    scope = name.child("scope")?.text.replace(/<.*$/s, "");
    name = name.child("name");
  }
  const of = scope ?? inside?.child("name")?.text.replace(/<.*$/s, "");
  const parameters = head.child("parameters")?.parts ?? [];
  if (of === undefined || !name) return undefined;
  const found = (is: SpecialMember["is"]): SpecialMember => ({
    is,
    of,
    inside: scope === undefined ? inside : undefined,
    head,
  });
  if (name.is("destructor_name")) return found("destructor");
  const isCopied = parameters.length === 1 && isReferenceTo(parameters[0]!, of);
  if (name.is("operator_name"))
    return isCopied && /^operator\s*=$/.test(name.text) ? found("copy assignment") : undefined;
  if (name.text !== of) return undefined;
  if (parameters.length === 0) return found("constructor");
  return isCopied ? found("copy") : undefined;
}

/** Is a parameter a reference to an object of the class, to copy it? */
function isReferenceTo(parameter: SyntaxNode, name: string): boolean {
  const type = parameter.child("type")?.text.replace(/\s*<.*$/s, "");
  return type === name && /&/.test(parameter.text) && !/&&/.test(parameter.text);
}
