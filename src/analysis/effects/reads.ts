import { escaped, type SyntaxNode } from "../../syntax/index.js";
import { unknown, type Answer } from "../answer.js";
import { classesNamed } from "../classes/class-index.js";
import { placeOf, type OwnClass, type OwnMember } from "../classes/own-class.js";
import { referencesAt, type Declaration } from "../names/declarations.js";
import { useOf } from "../names/use.js";
import { surroundingsOf } from "../project.js";
import { shortened } from "../shown.js";
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
  switch (language.id) {
    case "csharp":
      return codeRunByMember(leaf, to);
    case "ruby":
      return leaf.is("identifier") && !to
        ? unknown(`\`${leaf.text}\` is a method, and is called`, leaf)
        : undefined;
    case "cpp":
      return codeRunInCpp(leaf, to);
    case "javascript":
    case "typescript":
    case "tsx":
      if (why !== undefined) return unknown(why, leaf);
      return to ? undefined : codeRunByGlobal(leaf);
    default:
      return undefined;
  }
}

/** A global of JavaScript may be defined with a getter, which some file of the project then says. */
function codeRunByGlobal(leaf: SyntaxNode): Answer | undefined {
  const name = leaf.text;
  const form = new RegExp(
    `(defineProperty|__defineGetter__)\\s*\\([^)]*["'\`]${name.replace(/\$/g, "\\$")}["'\`]`,
  );
  const { files } = surroundingsOf(leaf.tree);
  const texts = [leaf.tree.text, ...[...(files?.naming(name) ?? [])].map(({ text }) => text)];
  return texts.some((text) => form.test(text))
    ? unknown(`\`${name}\` is defined with a getter`, leaf)
    : undefined;
}

/** A macro may be anything, and what is volatile is read each time for a reason. */
function codeRunInCpp(leaf: SyntaxNode, to: Declaration | undefined): Answer | undefined {
  const at = to?.at[0];
  if (at?.closest(["preproc_def", "preproc_function_def"])) return unknown(`\`${leaf.text}\` is a macro`, at);
  const declaration = at?.closest(["declaration", "field_declaration", "parameter_declaration"]);
  if (declaration?.parts.some((part) => part.is("type_qualifier") && part.text === "volatile"))
    return unknown(`\`${leaf.text}\` is volatile`, at);
  if (to) return undefined;
  const { otherwise } = classesNamed(leaf.tree, leaf.text);
  return otherwise?.startsWith("#") ? unknown(`\`${leaf.text}\` is a macro`, leaf) : undefined;
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
  return unknown(`\`${leaf.text}\` could be a property that runs code`, leaf);
}

function codeOf(member: OwnMember, of: OwnClass, at: SyntaxNode): Answer | undefined {
  return member.isPlain
    ? undefined
    : unknown(
        `\`${member.name}\` is a property with code of its own (${placeOf({ ...of, line: member.line })})`,
        at,
      );
}

/** A member of a class or of what it is derived from; `isWhole` tells whether all of these are in the project. */
export function memberNamed(
  at: SyntaxNode,
  className: string,
  name: string,
): { readonly member?: OwnMember; readonly of: OwnClass; readonly isWhole: boolean } | undefined {
  const seen = new Set<string>();
  const waiting = [className];
  let isWhole = true;
  let first: OwnClass | undefined;
  for (let next = waiting.shift(); next !== undefined; next = waiting.shift()) {
    if (seen.has(next)) continue;
    seen.add(next);
    const { classes } = classesNamed(at.tree, next);
    if (classes.length === 0) isWhole = false;
    for (const one of classes) {
      first ??= one;
      const member = one.members.find((each) => each.name === name);
      if (member) return { member, of: one, isWhole };
      waiting.push(...one.parents);
    }
  }
  return first && { of: first, isWhole };
}

/** May reading a member of an object run code? Undefined where it certainly does not. */
export function codeRunByMemberRead(node: SyntaxNode): Answer | undefined {
  const { language } = node.tree;
  const says = unknown(`reading \`${shortened(node.text)}\` could run a getter`, node);
  const object = node.child("object") ?? node.child("expression") ?? node.child("argument") ?? node.parts[0];
  const name = (node.child("name") ?? node.child("property") ?? node.child("field") ?? node.parts.at(-1))
    ?.text;
  if (!object || name === undefined) return says;
  switch (language.id) {
    case "java":
      return undefined;
    case "cpp":
      return node.children.some((child) => child.kind === "->") && !isPointer(object) ? says : undefined;
    case "csharp": {
      const owner = classNameOf(object);
      const found = owner === undefined ? undefined : memberNamed(node, owner, name);
      return found?.member ? codeOf(found.member, found.of, node) : says;
    }
    case "php": {
      const owner = classNameOf(object);
      const found = owner === undefined ? undefined : memberNamed(node, owner, name);
      const magic = owner === undefined ? undefined : memberNamed(node, owner, "__get");
      const isDeclared = found?.member?.as === "field" && !found.member.text.includes("{");
      return isDeclared && magic && !magic.member && magic.isWhole ? undefined : says;
    }
    case "javascript":
    case "typescript":
    case "tsx": {
      const owner = classNameOf(object);
      const found = owner === undefined ? undefined : memberNamed(node, owner, name);
      const isField = found?.member?.as === "field" || isParameterOfConstructor(node, object, name);
      return isField && !hasAccessor(node, name) ? undefined : says;
    }
    default:
      return says;
  }
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
function hasAccessor({ tree }: SyntaxNode, name: string): boolean {
  const { files } = surroundingsOf(tree);
  if (!files) return true;
  const word = escaped(name);
  const form = new RegExp(
    `\\bget\\s+(${word}|["'\`]${word}["'\`]|\\[)\\s*|(defineProperty|defineProperties|__defineGetter__)\\b[^;]*\\b${word}\\b`,
  );
  const has = (word: string, wanted: RegExp): boolean =>
    wanted.test(tree.text) || [...files.naming(word)].some(({ text }) => wanted.test(text));
  return has(name, form) || has("Proxy", /\bnew Proxy\(/);
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
  const base = node.parts[0];
  const type = base && typeOf(base);
  const name = type?.declared === undefined ? type?.name : undefined;
  const says = unknown(
    `reading \`${shortened(node.text)}\` could run code of the class of \`${shortened(base?.text ?? "")}\``,
    node,
  );
  switch (language.id) {
    case "java":
      return undefined;
    case "cpp":
      return base && isPointer(base) ? undefined : says;
    case "csharp":
      return name?.endsWith("[]") || name === "string" ? undefined : says;
    case "php":
      return name === "array" || name === "string" ? undefined : says;
    case "python":
      return /^(list|dict|tuple|str|bytes)$/.test(name ?? "") ? undefined : says;
    default:
      return says;
  }
}
