import type { SyntaxNode, ValueTypes } from "../../syntax/index.js";
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
  const facts = expression.tree.language.types.values;
  const annotation = facts && annotationOf(expression, facts);
  if (!facts || !annotation) return undefined;
  const values = new Values(facts);
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

function annotationOf(expression: SyntaxNode, facts: ValueTypes): Annotation | undefined {
  if (expression.is(facts.parenthesized))
    return expression.firstPart && annotationOf(expression.firstPart, facts);
  if (expression.is(facts.asserted)) return undefined;
  if (expression.is(facts.member)) {
    const object = expression.child("object");
    const property = expression.child("property");
    if (!object || !property) return undefined;
    const members = object.is(facts.self)
      ? classAround(object)
      : namedObject(annotationOf(object, facts)?.type, facts);
    const member = members && memberOf(members, property.text, facts);
    if (!member) return undefined;
    return expression.child(facts.cut) ? { ...member, optional: true } : member;
  }
  if (!expression.is(facts.name)) return undefined;
  const declaration = declarationOf(expression);
  const holder = declaration?.parent;
  if (!holder?.is(facts.holders)) return undefined;
  if (!(holder.child("pattern") ?? holder.child("name"))?.same(declaration)) return undefined;
  const type = holder.child("type")?.firstPart;
  return type && { type, optional: holder.is(facts.optionalHolders), at: holder };
}

function classAround(node: SyntaxNode): SyntaxNode | undefined {
  return node.closest(node.tree.language.classes)?.child("body");
}

/** The body of the one object type that `type` names, missing values aside. */
function namedObject(type: SyntaxNode | undefined, facts: ValueTypes, depth = 0): SyntaxNode | undefined {
  if (!type || depth > 8) return undefined;
  if (type.is(facts.object)) return type;
  if (type.is(facts.grouped)) return namedObject(type.firstPart, facts, depth + 1);
  if (type.is(facts.union)) {
    const present = unionParts(type, facts).filter((part) => !part.is(facts.literal));
    return present.length === 1 ? namedObject(present[0], facts, depth + 1) : undefined;
  }
  if (!type.is(facts.named)) return undefined;
  const declared = typeDeclaration(type, facts);
  if (declared?.is(facts.alias)) return namedObject(declared.child("value"), facts, depth + 1);
  return declared?.child("body");
}

function unionParts(type: SyntaxNode, facts: ValueTypes): SyntaxNode[] {
  return type.parts.flatMap((part) => (part.is(facts.union) ? unionParts(part, facts) : [part]));
}

/** The single declaration of a type's name in this file; undefined when imported, generic or declared twice. */
function typeDeclaration(name: SyntaxNode, facts: ValueTypes): SyntaxNode | undefined {
  const found: SyntaxNode[] = [];
  for (const id of name.tree.ofKinds([facts.named])) {
    const node = name.tree.node(id);
    if (node.text === name.text && node.field === "name" && node.parent) found.push(node.parent);
  }
  const [only] = found;
  return found.length === 1 && only?.is(facts.declarations) ? only : undefined;
}

function memberOf(body: SyntaxNode, name: string, facts: ValueTypes): Annotation | undefined {
  const found = body.parts.filter((part) => part.child("name")?.text === name);
  const [only] = found;
  if (found.length !== 1 || !only?.is(facts.members)) return undefined;
  const type = only.child("type")?.firstPart;
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

  constructor(private readonly facts: ValueTypes) {}

  add(type: SyntaxNode, depth: number): boolean {
    const { facts } = this;
    if (depth > 8) return false;
    if (type.is(facts.union)) return unionParts(type, facts).every((part) => this.add(part, depth + 1));
    if (type.is(facts.grouped)) return type.parts.every((part) => this.add(part, depth + 1));
    if (type.is(facts.literal)) return this.#literal(type.text);
    if (type.is(facts.predefined)) return this.#primitive(type.text);
    if (type.is(facts.alwaysObjects)) return true;
    if (type.is(facts.object)) return refusesPrimitives(type);
    if (type.is(facts.generic)) {
      const name = type.child("name");
      return name !== undefined && this.#named(name, depth);
    }
    return type.is(facts.named) && this.#named(type, depth);
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
    const declared = typeDeclaration(name, this.facts);
    if (!declared) return OBJECTS.has(name.text) && !isDeclaredHere(name, this.facts);
    if (declared.is(this.facts.alias)) {
      const value = declared.child("value");
      return value !== undefined && !declared.child("type_parameters") && this.add(value, depth + 1);
    }
    const body = declared.child("body");
    return body !== undefined && refusesPrimitives(body);
  }
}

function isDeclaredHere(name: SyntaxNode, facts: ValueTypes): boolean {
  const named = (node: SyntaxNode): boolean =>
    node.isLeaf && node.text === name.text && (node.field === "name" || node.field === "alias");
  for (const node of name.tree.root.descendants()) {
    if (named(node) && !node.parent?.is(facts.generic)) return true;
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
