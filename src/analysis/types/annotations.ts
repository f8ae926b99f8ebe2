import type { SyntaxNode } from "../../syntax/index.js";
import { declarationOf } from "../names/builtins.js";

/** What an annotation says about the values an expression can have. */
export interface DeclaredType {
  /** Values that count as false without being missing, as they are written: `0`, `""`, `false`. */
  readonly falsy: readonly string[];
  readonly canBeNull: boolean;
  readonly canBeUndefined: boolean;
  /** By an annotation in the file, or by the project's compiler. */
  readonly how: "declared" | "inferred";
  /** The compiler options that what it says of missing values rests on, as a part of a sentence. */
  readonly by?: string | undefined;
  /** Why it cannot be told whether null and undefined are kept apart from it; a sentence. */
  readonly unsure?: string | undefined;
  /** Where the type is declared, else the expression. */
  readonly at: SyntaxNode;
  readonly text: string;
}

/** A type node of the source, and whether its holder may be left out altogether. */
interface Annotation {
  readonly type: SyntaxNode;
  readonly optional: boolean;
  readonly at: SyntaxNode;
}

/**
 * The type that annotations in this file give to a name or to a chain of properties. Undefined when any part
 * of it is not annotated here, is imported, or is too loose to tell.
 */
export function declaredType(expression: SyntaxNode): DeclaredType | undefined {
  const annotation = annotationOf(expression);
  if (!annotation) return undefined;
  const values = new Values();
  if (!values.add(annotation.type, 0)) return undefined;
  return {
    falsy: [...values.falsy],
    canBeNull: values.canBeNull,
    canBeUndefined: values.canBeUndefined || annotation.optional,
    how: "declared",
    at: annotation.at,
    text: annotation.type.text,
  };
}

/** Properties that primitive values have too, through their prototypes. */
const ON_PRIMITIVES = new Set(
  [String, Number, Boolean, BigInt, Symbol, Object].flatMap((type) =>
    Object.getOwnPropertyNames(type.prototype as object),
  ),
);

/** Can `""`, `0` or `false` have a property of this name? */
export function isOnPrimitives(property: string): boolean {
  return ON_PRIMITIVES.has(property);
}

function annotationOf(expression: SyntaxNode): Annotation | undefined {
  if (expression.is("parenthesized_expression"))
    return expression.parts[0] && annotationOf(expression.parts[0]);
  if (expression.is("non_null_expression")) return undefined;
  if (expression.is("member_expression")) {
    const object = expression.child("object");
    const property = expression.child("property");
    if (!object || !property) return undefined;
    const members = object.is("this") ? classAround(object) : namedObject(annotationOf(object)?.type);
    const member = members && memberOf(members, property.text);
    if (!member) return undefined;
    return expression.child("optional_chain") ? { ...member, optional: true } : member;
  }
  if (!expression.is("identifier")) return undefined;
  const declaration = declarationOf(expression);
  const holder = declaration?.parent;
  if (!holder?.is(["required_parameter", "optional_parameter", "variable_declarator"])) return undefined;
  if (!(holder.child("pattern") ?? holder.child("name"))?.same(declaration)) return undefined;
  const type = holder.child("type")?.parts[0];
  return type && { type, optional: holder.is("optional_parameter"), at: holder };
}

function classAround(node: SyntaxNode): SyntaxNode | undefined {
  return node.closest(node.tree.language.classes)?.child("body");
}

/** The body of the one object type that `type` names, missing values aside. */
function namedObject(type: SyntaxNode | undefined, depth = 0): SyntaxNode | undefined {
  if (!type || depth > 8) return undefined;
  if (type.is("object_type")) return type;
  if (type.is("parenthesized_type")) return namedObject(type.parts[0], depth + 1);
  if (type.is("union_type")) {
    const present = unionParts(type).filter((part) => !part.is("literal_type"));
    return present.length === 1 ? namedObject(present[0], depth + 1) : undefined;
  }
  if (!type.is("type_identifier")) return undefined;
  const declared = typeDeclaration(type);
  if (declared?.is("type_alias_declaration")) return namedObject(declared.child("value"), depth + 1);
  return declared?.child("body");
}

function unionParts(type: SyntaxNode): SyntaxNode[] {
  return type.parts.flatMap((part) => (part.is("union_type") ? unionParts(part) : [part]));
}

const TYPE_DECLARATIONS = [
  "interface_declaration",
  "type_alias_declaration",
  "class_declaration",
  "abstract_class_declaration",
];

/** The single declaration of a type's name in this file; undefined when imported, generic or declared twice. */
function typeDeclaration(name: SyntaxNode): SyntaxNode | undefined {
  const found: SyntaxNode[] = [];
  for (const node of name.tree.root.descendants()) {
    if (node.is("type_identifier") && node.text === name.text && node.field === "name") {
      if (node.parent) found.push(node.parent);
    }
  }
  const [only] = found;
  return found.length === 1 && only?.is(TYPE_DECLARATIONS) ? only : undefined;
}

function memberOf(body: SyntaxNode, name: string): Annotation | undefined {
  const found = body.parts.filter((part) => part.child("name")?.text === name);
  const [only] = found;
  if (found.length !== 1 || !only?.is(["property_signature", "public_field_definition"])) return undefined;
  const type = only.child("type")?.parts[0];
  return type && { type, optional: only.has("?"), at: only };
}

/** Types of the language's own library whose values are always objects. */
const OBJECTS = new Set([
  "Array",
  "ReadonlyArray",
  "Map",
  "Set",
  "WeakMap",
  "WeakSet",
  "Promise",
  "Date",
  "RegExp",
]);

/** Adds up the values of a type; `add` gives false where that cannot be told. */
class Values {
  readonly falsy = new Set<string>();
  canBeNull = false;
  canBeUndefined = false;

  add(type: SyntaxNode, depth: number): boolean {
    if (depth > 8) return false;
    switch (type.kind) {
      case "union_type":
        return unionParts(type).every((part) => this.add(part, depth + 1));
      case "parenthesized_type":
        return type.parts.every((part) => this.add(part, depth + 1));
      case "literal_type":
        return this.#literal(type.text);
      case "predefined_type":
        return this.#primitive(type.text);
      case "array_type":
      case "tuple_type":
      case "function_type":
      case "constructor_type":
        return true;
      case "object_type":
        return refusesPrimitives(type);
      case "generic_type": {
        const name = type.child("name");
        return name !== undefined && this.#named(name, depth);
      }
      case "type_identifier":
        return this.#named(type, depth);
      default:
        return false;
    }
  }

  #literal(text: string): boolean {
    if (text === "null") this.canBeNull = true;
    else if (text === "undefined") this.canBeUndefined = true;
    else if (/^(""|''|-?0|false)$/.test(text)) this.falsy.add(text.replace("''", '""'));
    return true;
  }

  #primitive(text: string): boolean {
    if (text === "string") this.falsy.add('""');
    else if (text === "number") this.falsy.add("0").add("NaN");
    else if (text === "boolean") this.falsy.add("false");
    else if (text === "symbol" || text === "object") return true;
    else return false;
    return true;
  }

  #named(name: SyntaxNode, depth: number): boolean {
    const declared = typeDeclaration(name);
    if (!declared) return OBJECTS.has(name.text) && !isDeclaredHere(name);
    if (declared.is("type_alias_declaration")) {
      const value = declared.child("value");
      return value !== undefined && !declared.child("type_parameters") && this.add(value, depth + 1);
    }
    const body = declared.child("body");
    return body !== undefined && refusesPrimitives(body);
  }
}

function isDeclaredHere(name: SyntaxNode): boolean {
  const named = (node: SyntaxNode): boolean =>
    node.isLeaf && node.text === name.text && (node.field === "name" || node.field === "alias");
  for (const node of name.tree.root.descendants()) {
    if (named(node) && !node.parent?.is("generic_type")) return true;
  }
  return false;
}

/** TypeScript lets a string stand for `{ length: number }`; a required property of its own rules that out. */
function refusesPrimitives(body: SyntaxNode): boolean {
  return body.parts.some((part) => {
    const name = part.child("name")?.text;
    return name !== undefined && !part.has("?") && !part.has("static") && !isOnPrimitives(name);
  });
}
