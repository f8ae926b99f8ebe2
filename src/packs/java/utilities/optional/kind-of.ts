import type { SyntaxNode } from "../../../../core.js";
import { declaredType } from "../../types.js";
import { namesIt } from "./library-optional.js";
import { givesIt, type Members } from "./members.js";

/**
 * What an expression gives: the type, which becomes the other one; null; the type by a function of the library, which stays what
 * it is; something else; or nobody knows.
 */
export type Kind = "moved" | "null" | "library" | "other" | "unknown";

const PLAIN =
  /literal$|^(lambda_expression|method_reference|object_creation_expression|array_creation_expression|binary_expression|unary_expression|instanceof_expression|this|true|false)$/;
/** Methods of the class that give one of its objects. */
const MADE = ["of", "absent", "fromNullable", "fromJavaUtil"];
/** Functions of the library that give its own type. */
const OF_LIBRARY = /^(Iterables|Iterators)\.tryFind$|^Enums\.getIfPresent$/;

/** What an expression gives. */
export function kindOf(node: SyntaxNode, members: Members): Kind {
  if (node.is("null_literal")) return "null";
  if (PLAIN.test(node.kind)) return "other";
  if (node.is("parenthesized_expression")) return kindOf(node.firstPart!, members);
  if (node.is("assignment_expression")) return kindOf(node.child("right")!, members);
  if (node.is("cast_expression")) return namesIt(node.child("type")!) ? "moved" : "other";
  if (node.is("ternary_expression")) {
    const ways = [node.child("consequence")!, node.child("alternative")!].map((way) => kindOf(way, members));
    return (
      ways.find((way) => way === "unknown" || way === "library") ??
      (ways.includes("moved") ? "moved" : ways[0]!)
    );
  }
  if (node.is("method_invocation")) return ofCall(node, members);
  return node.is(["identifier", "field_access"]) ? ofVariable(node, members) : "unknown";
}

function ofVariable(node: SyntaxNode, members: Members): Kind {
  const type = declaredType(node);
  if (type?.text === "var") {
    const declarator = type.parent?.child("declarator");
    const value = declarator?.child("value");
    return value ? kindOf(value, members) : "unknown";
  }
  if (type) return namesIt(type) ? "moved" : "other";
  const name = (node.child("field") ?? node).text;
  return alike(members.fieldsNamed(name).map(namesIt));
}

const alike = (found: readonly boolean[]): Kind => {
  if (found.length === 0) return "unknown";
  return found.every(Boolean) ? "moved" : found.some(Boolean) ? "unknown" : "other";
};

function ofCall(call: SyntaxNode, members: Members): Kind {
  const object = call.child("object");
  const name = call.child("name")!.text;
  if (object && namesIt(object)) return MADE.includes(name) ? "moved" : "other";
  if (object && OF_LIBRARY.test(`${object.text}.${name}`)) return "library";
  if (object && /^(first|last|firstMatch)$/.test(name) && /^FluentIterable\s*\./.test(object.text))
    return "library";
  if (object && (name === "or" || name === "transform")) {
    const of = kindOf(object, members);
    if (of === "moved" || of === "library") {
      const [first] = call.child("arguments")!.parts;
      return name === "transform" || (first && kindOf(first, members) === "moved") ? of : "other";
    }
  }
  if (object && /^(get|orNull|isPresent|asSet|equals|hashCode|toString)$/.test(name)) {
    if (kindOf(object, members) === "moved") return "other";
  }
  return members.names.has(name) ? alike(members.meantBy(call, name).map(givesIt)) : "unknown";
}
