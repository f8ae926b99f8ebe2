import type { SyntaxNode } from "../../syntax/index.js";
import { targetAround } from "./use.js";

/** Names that ask the compiler to find out the type. */
const INFERRED = /^(var|auto|const|let|val|dynamic|final)$/;

/** The type that is written beside a declared name. */
export function annotationOf(name: SyntaxNode): SyntaxNode | undefined {
  const implied = name.tree.language.binding.impliedType(name);
  if (implied) return unwrapped(implied);
  const target = targetAround(name);
  for (const holder of [target.parent, target.parent?.parent]) {
    if (!holder || holder.is(holder.tree.language.functions)) return undefined;
    const type = holder.child("type");
    if (type && !type.holds(name))
      return INFERRED.test(type.text) || type.is("implicit_type") ? undefined : unwrapped(type);
  }
  return undefined;
}

/** A type without the nodes that only hold it. */
export function unwrapped(type: SyntaxNode): SyntaxNode {
  return type.is(["type_annotation", "type", "named_type"]) && type.parts.length === 1
    ? unwrapped(type.firstPart!)
    : type;
}

/** The last word of the type that is written beside a declared name, without arguments: `Hive` for `const app::Hive&`. */
export function typeNameOf(name: SyntaxNode): string | undefined {
  const annotation = annotationOf(name);
  return annotation && /^(?:const\s+)?(?:[\w$]+(?:::|\.|\\))*([\w$]+)/.exec(annotation.text)?.[1];
}
