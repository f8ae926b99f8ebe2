import type { SyntaxNode } from "../../syntax/index.js";
import { no, unknown, yes, type Answer } from "../answer.js";
import { classesDerivedFrom, classesNamed } from "../classes/class-index.js";
import { changesOf, referencesAt, type Declaration, type Reference } from "../names/declarations.js";
import { shortened } from "../shown.js";
import { assignmentOf, valueOf } from "../flow/assignment.js";
import { usesOf } from "../names/every-use.js";
import { valueOfLibrary } from "../library/values.js";
import { calledFromLibrary } from "../library/called.js";
import { annotationOf, unwrapped } from "../names/annotation.js";
import { keepsTypeUntil } from "./kept-type.js";
import { targetAround } from "../names/use.js";
import { originOf } from "./origin.js";

/** What the object of an expression is, as far as the source says. */
export interface KnownType {
  /** The name of the class or type, without its arguments. */
  readonly name: string;
  /** Its arguments as they are written, without white space: `<int,string>`. */
  readonly args?: string | undefined;
  /** The module it comes from, where an import says so. */
  readonly module?: string | undefined;
  /** The declaration of the class, where it stands in the same file. */
  readonly declared?: Declaration | undefined;
  readonly at: SyntaxNode;
  readonly why: string;
}

const DEEPEST = 6;

/** Asked for the type of a call whose function another file declares. */
export type Abroad = (call: SyntaxNode) => KnownType | undefined;
const nowhere: Abroad = () => undefined;

/** The type of a literal, by its kind and what marks it. */
function literalType({ kind, text, tree }: SyntaxNode): string | undefined {
  const { literalTypes, markedLiterals } = tree.language;
  const marked = markedLiterals[kind]?.find(([mark]) => mark.test(text));
  return marked ? marked[1] : literalTypes[kind];
}

/**
 * The type of an expression by what the file says of it: annotation, construction, literal, what is assigned, the
 * type of a parameter, what a function of the file returns, `this`. Undefined where nothing says, or where two
 * places say different things.
 */
export function typeOf(expression: SyntaxNode, abroad: Abroad = nowhere, depth = 0): KnownType | undefined {
  if (depth > DEEPEST) return undefined;
  const { language } = expression.tree;
  const inner = expression.is(language.parenthesized) ? expression.firstPart : undefined;
  if (inner) return typeOf(inner, abroad, depth + 1);
  const literal = literalType(expression);
  if (literal !== undefined)
    return { name: literal, at: expression, why: `\`${shortened(expression.text)}\` is a literal` };
  const self = language.binding.selfOf(expression);
  if (self) return ofClass(self, expression);
  const constructed = constructedClass(expression);
  if (constructed) return named(constructed, `\`${shortened(expression.text)}\` makes one`, expression);
  if (expression.is(language.calls))
    return returned(expression) ?? givenByLibrary(expression) ?? abroad(expression);
  const value = valueOfLibrary(expression);
  if (value) {
    const { type, typeIn } = value;
    const why = `\`${shortened(expression.text)}\` is a \`${type}\` of the library`;
    return { name: type, module: typeIn, at: expression, why };
  }
  const leaf = ownMember(expression) ?? leafOf(expression);
  const to =
    leaf &&
    referencesAt(leaf).find(({ member }) => !member || leaf.parent?.same(expression) || expression.same(leaf))
      ?.to;
  return leaf && to && typeOfDeclaration(to, leaf, abroad, depth);
}

/** The name of the member that `this.name` reads. */
function ownMember(expression: SyntaxNode): SyntaxNode | undefined {
  const { memberReads, binding } = expression.tree.language;
  const [object, member, ...rest] = expression.parts;
  const isOwn =
    expression.is(memberReads) && object && rest.length === 0 && binding.selfOf(object) !== undefined;
  return isOwn && member?.isLeaf ? member : undefined;
}

/** The single name that an expression is. */
function leafOf(expression: SyntaxNode): SyntaxNode | undefined {
  const { leaves } = expression.tree.language.binding;
  let at = expression;
  while (!at.isLeaf && at.parts.length === 1) at = at.firstPart!;
  return at.isLeaf && leaves[at.kind] !== undefined ? at : undefined;
}

/** The type that something declared has at a place: by its annotation, else by all that is assigned to it. */
function typeOfDeclaration(
  declaration: Declaration,
  place: SyntaxNode,
  abroad: Abroad,
  depth: number,
): KnownType | undefined {
  for (const at of declaration.at) {
    const annotation = annotationOf(at) ?? typeOfEach(at);
    if (!annotation) continue;
    const type = declaredType(annotation, at, declaration.name);
    const givesSame = (change: Reference): boolean => isSameType(typeGiven(change, abroad, depth), type);
    return keepsTypeUntil({ declaration, at, givesSame }, place) ? type : undefined;
  }
  if (declaration.as === "parameter" || declaration.as === "import") return undefined;
  // What may be assigned in a place that is not known may be anything.
  if (usesOf(declaration).doubts.length > 0) return undefined;
  let found: KnownType | undefined;
  for (const change of changesOf(declaration)) {
    const type = typeGiven(change, abroad, depth);
    if (!type || (found && !isSameType(type, found))) return undefined;
    found ??= type;
  }
  return found;
}

const isSameType = (one: KnownType | undefined, other: KnownType | undefined): boolean =>
  one !== undefined && other !== undefined && one.name === other.name && one.module === other.module;

/** The type of what a change gives, where that is a value as a whole. */
function typeGiven({ does, node }: Reference, abroad: Abroad, depth: number): KnownType | undefined {
  const assignment = does === "write" ? assignmentOf(node) : undefined;
  const value = assignment && valueOf(assignment);
  const isWhole = assignment && targetAround(node).parent?.same(assignment.parent) !== true;
  return value && isWhole ? typeOf(value, abroad, depth + 1) : undefined;
}

/** The type of each of several arguments that a parameter takes together, where its grammar has no name for it: `Hive... hives`. */
function typeOfEach(name: SyntaxNode): SyntaxNode | undefined {
  const { declarators } = name.tree.language.types;
  const holder = name.closest(Object.keys(declarators).filter((kind) => declarators[kind] === "many"));
  const place = holder?.parts.findIndex((part) => part.holds(name)) ?? -1;
  return place > 0 && !holder!.child("type") ? holder!.parts[place - 1] : undefined;
}

/** The type of a name with an annotation, with what its declarator makes of it: arrays, pointers to pointers, functions. */
function declaredType(annotation: SyntaxNode, at: SyntaxNode, name: string): KnownType | undefined {
  const type = named(annotation, `\`${name}\` is declared \`${annotation.text}\``, at);
  if (!type) return undefined;
  const { declarators, dimensions } = at.tree.language.types;
  const hasBrackets = (node: SyntaxNode | undefined): boolean =>
    dimensions !== undefined && node?.child(dimensions) !== undefined;
  let pointers = 0;
  for (let above = at.parent; above && !above.holds(annotation); above = above.parent) {
    const makes = hasBrackets(above) ? "many" : declarators[above.kind];
    if (makes === "function") return undefined;
    if (makes === "many") return arrayOf(type);
    if (makes === "tuple" || makes === "dict") return { ...type, name: makes, declared: undefined };
    if (makes === "pointer") pointers++;
  }
  const around = at.closest(Object.keys(declarators).filter((kind) => declarators[kind] === "many"));
  if (around?.holds(annotation))
    return { ...arrayOf(type), why: `\`${name}\` is declared \`${annotation.text}...\`` };
  if (hasBrackets(at.parent)) return arrayOf(type);
  return pointers > 1 ? { ...type, name: `${type.name}${"*".repeat(pointers)}`, declared: undefined } : type;
}

function arrayOf(type: KnownType): KnownType {
  return { ...type, name: `${type.name}[]`, declared: undefined, module: undefined };
}

/** The type that a type written in the code names. */
export function typeWritten(type: SyntaxNode): KnownType | undefined {
  return named(type, `\`${shortened(type.text)}\` is written here`, type);
}

function named(type: SyntaxNode, why: string, at: SyntaxNode): KnownType | undefined {
  const plain = unwrapped(type);
  const { arrays, around, composed } = type.tree.language.types;
  if (plain.is(arrays)) {
    const item = plain.child("element") ?? plain.child("type") ?? plain.firstPart;
    const known = item && named(item, why, at);
    return known && arrayOf(known);
  }
  const base = plain.child("name") ?? (plain.is(around) ? plain.firstPart : plain);
  if (!base || base.is(composed)) return undefined;
  const name = base.text.split(/::|\.|\\/).at(-1)!;
  if (!/^[\p{L}_$][\p{L}\p{N}_$]*$/u.test(name)) return undefined;
  const origin = originOf(base);
  const leaf = leafOf(base);
  const declared = leaf && referencesAt(leaf).find(({ to }) => to && to.as !== "import")?.to;
  const [args] = /^[<[].*[>\]]/.exec(plain.text.slice(base.end - plain.start).replace(/\s/g, "")) ?? [];
  return { name: origin?.name ?? name, args, module: origin?.module, declared, at, why };
}

function ofClass(scope: SyntaxNode, at: SyntaxNode): KnownType | undefined {
  const name = scope.child("name") ?? scope.parent?.child("name");
  return (
    name && {
      name: name.text,
      declared: referencesAt(name)[0]?.to,
      at,
      why: `\`${at.text}\` is the object of the class around`,
    }
  );
}

/** The class in `new Hive()`, `Hive()` and `Hive.new`. */
function constructedClass(expression: SyntaxNode): SyntaxNode | undefined {
  const { language } = expression.tree;
  const { creations, maker } = language.types;
  const place = creations[expression.kind];
  const type = place === 0 ? expression.firstPart : place === undefined ? undefined : expression.child(place);
  if (type) return type;
  if (!expression.is(language.calls)) return undefined;
  if (maker !== undefined && expression.child("method")?.text === maker) return expression.child("receiver");
  const called = expression.child("function");
  const last = called && [...called.descendants()].filter((node) => node.isLeaf && node.named).at(-1);
  if (!called || !last || !language.callsMakeObjects) return undefined;
  const to = referencesAt(last)[0]?.to;
  const isClass = to
    ? to.as === "class" || (to.as === "import" && /^[A-Z]/.test(last.text))
    : /^[A-Z]/.test(last.text);
  return isClass ? called : undefined;
}

/** What a function of the library gives. */
function givenByLibrary(call: SyntaxNode): KnownType | undefined {
  const row = calledFromLibrary(call);
  return row?.gives === undefined
    ? undefined
    : { name: row.gives, at: call, why: `\`${shortened(call.text)}\` gives \`${row.gives}\`` };
}

/** What a function of the same file says that it returns. */
function returned(call: SyntaxNode): KnownType | undefined {
  const called = call.child("function") ?? call.child("name") ?? call.child("method");
  const leaf = called && leafOf(called);
  const to =
    leaf && referencesAt(leaf).find(({ to: one }) => one?.as === "function" || one?.as === "method")?.to;
  return to && returnTypeOf(to);
}

/** The type that a function is declared to return; undefined for one that gives its value later. */
export function returnTypeOf({ at }: Declaration): KnownType | undefined {
  const [only] = at;
  if (!only || at.length !== 1) return undefined;
  const { functions, asyncMarks } = only.tree.language;
  const body = only.closest(functions);
  if (!body?.child("name")?.same(only)) return undefined;
  if (body.children.some((child) => asyncMarks.includes(child.text))) return undefined;
  const type = body.child("return_type") ?? body.child("returns") ?? body.child("type");
  return type && named(type, `\`${only.text}\` returns \`${unwrapped(type).text}\``, only);
}

/** Is the object of an expression of this class, or of one derived from it? */
export function isInstanceOf(
  expression: SyntaxNode,
  wanted: { readonly name: string; readonly module?: string },
  abroad: Abroad = nowhere,
): Answer {
  const type = typeOf(expression, abroad);
  if (!type)
    return unknown(
      "type.not-known",
      `nothing in this file says what \`${shortened(expression.text)}\` is`,
      expression,
    );
  if (type.name === wanted.name && (wanted.module === undefined || type.module === wanted.module)) {
    return yes("type.is", type.why, type.at);
  }
  if (type.name.endsWith("[]") && wanted.name === "Array") return yes("type.is", type.why, type.at);
  if (/(\[\]|\*\*)$/.test(type.name))
    return no("type.is", `${type.why}, which is no \`${wanted.name}\``, type.at);
  const { classes } = classesNamed(expression.tree, type.name);
  if (type.declared || (classes.length > 0 && type.module === undefined)) {
    const parents = classes.flatMap((one) => one.parents);
    if (type.declared && parents.length === 0)
      return no("type.is", `${type.why}, which is no \`${wanted.name}\``, type.at);
    const derived = classesDerivedFrom(expression.tree, [wanted.name]).classes;
    if (derived.some((one) => one.name === type.name) && wanted.module === undefined)
      return yes("type.is", `${type.why}, which is derived from \`${wanted.name}\``, type.at);
    return unknown("type.is", `${type.why}, whose parents are not all known`, type.at);
  }
  const { literalTypes, plainTypes } = expression.tree.language;
  const isLiteral = Object.values(literalTypes).includes(type.name) || plainTypes.includes(type.name);
  return isLiteral
    ? no("type.is", `${type.why}, no \`${wanted.name}\``, type.at)
    : unknown("type.is", `${type.why}; what that is derived from is not known`, type.at);
}
