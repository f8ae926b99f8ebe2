import { escaped, type SyntaxNode } from "../../syntax/index.js";
import { unknown, type Answer } from "../answer.js";
import { classesNamed } from "../classes/class-index.js";
import { placeOf, type OwnClass, type OwnMember } from "../classes/own-class.js";
import { valueOfLibrary } from "../library/values.js";
import { referencesAt, type Declaration } from "../names/declarations.js";
import { useOf } from "../names/use.js";
import { surroundingsOf } from "../project.js";
import { shortened } from "../shown.js";
import { standsInProject } from "../text-found.js";
import { typeOf } from "../types/known.js";

/** May reading a bare name run code? Undefined where it certainly does not. */
export function codeRunByName(leaf: SyntaxNode): Answer | undefined {
  const { language } = leaf.tree;
  if (language.binding.leaves[leaf.kind] === undefined) return undefined;
  const use = useOf(leaf);
  if (typeof use === "string" || use.memberOf !== undefined || use.named) return undefined;
  const references = referencesAt(leaf).filter(({ member }) => !member);
  const to = references.find((one) => one.to)?.to;
  const why = references.find((one) => one.unknown !== undefined)?.unknown;
  switch (language.reads.names) {
    case "plain":
      return undefined;
    case "property":
      return codeRunByMember(leaf, to);
    case "method":
      return leaf.is("identifier") && !to
        ? unknown("effect.getter", `\`${leaf.text}\` is a method, and is called`, leaf)
        : undefined;
    case "macro":
      return codeRunInCpp(leaf, to);
    case "global":
      if (why !== undefined) return unknown("effect.getter", why, leaf);
      return !to && definesGetter(leaf, leaf.text)
        ? unknown("effect.getter", `\`${leaf.text}\` is defined with a getter`, leaf)
        : undefined;
  }
}

/** Does a file of the project define a getter of this name on some object, other than in a class or a literal? */
function definesGetter({ tree }: SyntaxNode, name: string): boolean {
  const form = new RegExp(
    `(defineProperty|defineProperties|__defineGetter__)\\b[^;]*\\b${escaped(name)}(?![\\w$])`,
  );
  return standsInProject(tree, name, form);
}

/** A macro may be anything, and what is volatile is read each time for a reason. */
function codeRunInCpp(leaf: SyntaxNode, to: Declaration | undefined): Answer | undefined {
  const at = to?.at[0];
  if (at?.closest(["preproc_def", "preproc_function_def"]))
    return unknown("effect.getter", `\`${leaf.text}\` is a macro`, at);
  const declaration = at?.closest(["declaration", "field_declaration", "parameter_declaration"]);
  if (declaration?.parts.some((part) => part.is("type_qualifier") && part.text === "volatile"))
    return unknown("effect.getter", `\`${leaf.text}\` is volatile`, at);
  if (to) return undefined;
  const { otherwise } = classesNamed(leaf.tree, leaf.text);
  if (otherwise?.startsWith("#")) return unknown("effect.getter", `\`${leaf.text}\` is a macro`, leaf);
  const isInCapitals = /^[A-Z][A-Z0-9_]+$/.test(leaf.text);
  return isInCapitals ? unknown("effect.getter", `\`${leaf.text}\` may be a macro`, leaf) : undefined;
}

/** A bare name of C# may be a property, of this class, of one that it is derived from, or of another part of it. */
function codeRunByMember(leaf: SyntaxNode, to: Declaration | undefined): Answer | undefined {
  const { classes } = leaf.tree.language;
  if (to && to.as !== "field") return undefined;
  const property = to?.at[0]?.closest([
    "property_declaration",
    "event_declaration",
    "field_declaration",
    "event_field_declaration",
  ]);
  if (property?.is(["field_declaration", "event_field_declaration"])) return undefined;
  const around = leaf.closest(classes);
  const name = around?.child("name")?.text;
  const found = name === undefined ? undefined : memberNamed(leaf, name, leaf.text);
  if (found?.member) return codeOf(found.member, found.of, leaf);
  if (to) return undefined;
  // `Console` in `Console.Out`: the name of a type.
  if (
    leaf.field === "expression" &&
    leaf.parent?.is("member_access_expression") &&
    /^[A-Z]/.test(leaf.text)
  ) {
    if (found?.isWhole !== false) return undefined;
  }
  return unknown("effect.getter", `\`${leaf.text}\` could be a property that runs code`, leaf);
}

function codeOf(member: OwnMember, of: OwnClass, at: SyntaxNode): Answer | undefined {
  return member.isPlain
    ? undefined
    : unknown(
        "effect.getter",
        `\`${member.name}\` is a property with code of its own (${placeOf({ ...of, line: member.line })})`,
        at,
      );
}

/** What is known of a member of a class. */
export interface FoundMember {
  /** Of several declarations the one that runs code; undefined where none is known. */
  readonly member?: OwnMember;
  readonly of: OwnClass;
  /** Are all the classes that it may come from in the project? */
  readonly isWhole: boolean;
}

/** A member of a class or of what it is derived from, where `mayBe` lets a class of the name be the one that is meant. */
export function memberNamed(
  at: SyntaxNode,
  className: string,
  name: string,
  mayBe: (path: string) => boolean = () => true,
): FoundMember | undefined {
  const seen = new Set<string>();
  const waiting = [className];
  let isWhole = true;
  let first: OwnClass | undefined;
  for (let next = waiting.shift(); next !== undefined; next = waiting.shift()) {
    if (seen.has(next)) continue;
    seen.add(next);
    const named = classesNamed(at.tree, next).classes;
    const classes = next === className ? named.filter(({ path }) => mayBe(path)) : named;
    if (classes.length === 0) isWhole = false;
    first ??= classes[0];
    const found = classes.flatMap((of) =>
      of.members.filter((each) => each.name === name).map((member) => ({ member, of, isWhole })),
    );
    const worst = found.find(({ member }) => !member.isPlain) ?? found[0];
    // Where only some of several classes of the name have it, it is not known which of them is meant.
    if (worst) return { ...worst, isWhole: isWhole && classes.length === 1 };
    waiting.push(...classes.flatMap(({ parents }) => parents));
  }
  return first && { of: first, isWhole };
}

/** May reading a member of an object run code? Undefined where it certainly does not. */
export function codeRunByMemberRead(node: SyntaxNode): Answer | undefined {
  const { language } = node.tree;
  const says = unknown("effect.getter", `reading \`${shortened(node.text)}\` could run a getter`, node);
  const object = node.child("object") ?? node.child("expression") ?? node.child("argument") ?? node.firstPart;
  const name = (node.child("name") ?? node.child("property") ?? node.child("field") ?? node.lastPart)?.text;
  if (!object || name === undefined) return says;
  if (valueOfLibrary(node)) return undefined;
  switch (language.reads.members) {
    case "plain":
      return undefined;
    case "arrow":
      return node.children.some((child) => child.kind === "->") && !isPointer(object) ? says : undefined;
    case "property": {
      const found = memberOf(object, name);
      return found?.member ? codeOf(found.member, found.of, node) : says;
    }
    case "magic": {
      const { member } = memberOf(object, name) ?? {};
      const magic = memberOf(object, "__get");
      const isDeclared = member?.as === "field" && !member.text.includes("{");
      return isDeclared && magic && !magic.member && magic.isWhole ? undefined : says;
    }
    case "getter": {
      const isField =
        memberOf(object, name)?.member?.as === "field" || isParameterOfConstructor(node, object, name);
      return isField && !hasAccessor(node, name) ? undefined : says;
    }
    case "any":
      return says;
  }
}

/** A member of the class of the project that an object is of, as far as that is known. */
function memberOf(object: SyntaxNode, name: string): FoundMember | undefined {
  const owner = classNameOf(object);
  return owner === undefined ? undefined : memberNamed(object, owner, name, mayMean(object));
}

/**
 * Which files may declare the class of an object: where imports name files, the one that it is imported from. What
 * hands a class on is not followed.
 */
function mayMean(object: SyntaxNode): (path: string) => boolean {
  const { tree } = object;
  const { path: from } = surroundingsOf(tree);
  const module = typeOf(object)?.module;
  if (module === undefined || tree.language.reads.members !== "getter") return () => true;
  return (path) => tree.language.links.imports(module, from, path) === "yes";
}

/** `constructor(private readonly orders: Order[])` declares a field. */
function isParameterOfConstructor(node: SyntaxNode, object: SyntaxNode, name: string): boolean {
  const owner = object.is("this") ? node.closest(node.tree.language.classes) : undefined;
  const body = owner?.child("body");
  const constructor = body?.parts.find((part) => part.child("name")?.text === "constructor");
  return (constructor?.child("parameters")?.parts ?? []).some(
    (part) =>
      (part.child("pattern") ?? part.child("name"))?.text === name &&
      part.parts.some((one) => one.is(["accessibility_modifier", "readonly"])),
  );
}

/** Does the project define a getter of this name anywhere, or objects that answer every read themselves? */
function hasAccessor(node: SyntaxNode, name: string): boolean {
  const { tree } = node;
  if (!surroundingsOf(tree).files) return true;
  const word = escaped(name);
  const form = new RegExp(`\\bget\\s+(${word}(?![\\w$])|["'\`]${word}["'\`]|\\[)`);
  return (
    standsInProject(tree, name, form) ||
    definesGetter(node, name) ||
    standsInProject(tree, "Proxy", /\bnew Proxy\(/)
  );
}

/** The class of the project that an object is of: the one around for `this`, else the one it is declared as or names. */
function classNameOf(object: SyntaxNode): string | undefined {
  const { language } = object.tree;
  const self = language.binding.selfOf(object);
  if (self) return (self.child("name") ?? self.parent?.child("name"))?.text;
  const type = typeOf(object);
  if (type) return type.name;
  const to = object.isLeaf ? referencesAt(object).find((one) => one.to)?.to : undefined;
  return to?.as === "class" ? to.name : undefined;
}

/** Is a name declared as a plain pointer, or is it `this`? */
export function isPointer(node: SyntaxNode): boolean {
  if (node.is("this")) return true;
  const leaf = node.is("field_expression") && node.child("argument")?.is("this") ? node.child("field") : node;
  if (!leaf?.isLeaf) return false;
  const to = referencesAt(leaf).find((one) => one.to)?.to;
  const declarator = to?.at[0]?.parent;
  return declarator?.is("pointer_declarator") === true;
}

/** May reading an item run code, or put something there? Undefined where it certainly does not. */
export function codeRunByItem(node: SyntaxNode): Answer | undefined {
  const { language } = node.tree;
  const base = node.firstPart;
  const type = base && typeOf(base);
  const name = type?.declared === undefined ? type?.name : undefined;
  const says = unknown(
    "effect.getter",
    `reading \`${shortened(node.text)}\` could run code of the class of \`${shortened(base?.text ?? "")}\``,
    node,
  );
  const { plainItems } = language.reads;
  if (plainItems === "all") return undefined;
  if (plainItems === "pointers") return base && isPointer(base) ? undefined : says;
  return name !== undefined && (plainItems.includes(name) || name.endsWith("[]")) ? undefined : says;
}
