import { oncePerNode, oncePerTree, originOf, referencesAt, referencesOf, shortened } from "../../../core.js";
import type { Declaration, Reference, SyntaxNode } from "../../../core.js";
import { functionsBetween } from "../variables/order.js";
import { noMethod } from "./method.js";

/** A method that a statement gives a class of the old kind. */
export interface OldMethod {
  readonly key: SyntaxNode;
  readonly fn: SyntaxNode;
  readonly isStatic: boolean;
  /** The statement, or the property of an object that is the prototype. */
  readonly at: SyntaxNode;
}

/** A constructor function, and what the statements behind it make of it. */
export interface OldClass {
  readonly name: SyntaxNode;
  readonly fn: SyntaxNode;
  readonly statement: SyntaxNode;
  readonly to: Declaration;
  readonly methods: readonly OldMethod[];
  /** The class that it is derived from, with the statements that say so. */
  readonly base: SyntaxNode | undefined;
  /** Statements that a class makes needless. */
  readonly goes: readonly SyntaxNode[];
  /** Uses of the name that are none of these. */
  readonly others: readonly Reference[];
  /** Why a statement that speaks of the prototype is not understood. */
  readonly refused: { readonly at: SyntaxNode; readonly why: string } | undefined;
}

interface Statement {
  readonly methods?: readonly OldMethod[];
  readonly base?: SyntaxNode;
  readonly goes?: true;
  /** Is another object put in the place of the prototype? */
  readonly isWhole?: true;
  readonly refused?: string;
}

/** Names of which a prototype is spoken of, or that inherit: most functions are told from a class by this alone. */
const spokenOf = oncePerTree(({ text }): ReadonlySet<string> => {
  const names = new Set<string>();
  for (const { index } of text.matchAll(/\bprototype\b/g)) {
    const owner = /([^\s.,;:(){}[\]!=]+)\s*\.\s*$/.exec(text.slice(Math.max(0, index - LONGEST), index))?.[1];
    if (owner !== undefined) names.add(owner);
  }
  for (const { index } of text.matchAll(/(inherits|setPrototypeOf)\)?\s*\(/g)) {
    const first = /\(\s*([^\s.,;:(){}[\]]+)/.exec(text.slice(index, index + LONGEST))?.[1];
    if (first !== undefined) names.add(first);
  }
  return names;
});
/** As far as the name of a class may stand from the word that tells it. */
const LONGEST = 120;

/** The class that a function is made to be by the statements around; undefined for one that has no methods. */
export const oldClassAt = oncePerNode(readClass);

function readClass(fn: SyntaxNode): OldClass | undefined {
  const declarator =
    fn.is("function_expression") && fn.parent?.is("variable_declarator") ? fn.parent : undefined;
  if (!declarator && !fn.is("function_declaration")) return undefined;
  const statement = declarator ? declarator.parent! : fn;
  const name = declarator ? declarator.child("name") : fn.child("name");
  const place = statement.parent?.is("export_statement") ? statement.parent : statement;
  const list = place.parent;
  if (!name?.is("identifier") || !spokenOf(fn.tree).has(name.text)) return undefined;
  if (!list?.is(["program", "statement_block"]) || fn.has("async")) return undefined;
  if (declarator && statement.parts.length !== 1) return undefined;
  const to = referencesAt(name).find((one) => one.to)?.to;
  if (!to || to.at.length !== 1) return undefined;
  const methods: OldMethod[] = [];
  const goes: SyntaxNode[] = [];
  const others: Reference[] = [];
  let base: SyntaxNode | undefined;
  let refused: OldClass["refused"];
  const seen = new Set<number>();
  for (const reference of referencesOf(to)) {
    if (reference.node.same(name)) continue;
    const around = list.parts.find((part) => part.holds(reference.node));
    const read =
      around && !fn.holds(reference.node) ? statementOf(around, name.text, reference.node) : undefined;
    if (!read) {
      // A method may speak of its class.
      const inMethod = methods.some((one) => one.fn.holds(reference.node));
      if (!inMethod && !goes.some((one) => one.holds(reference.node))) others.push(reference);
      continue;
    }
    if (seen.has(around!.id)) continue;
    seen.add(around!.id);
    methods.push(...(read.methods ?? []));
    if (read.base && base && base.text !== read.base.text)
      refused ??= { at: around!, why: `it is derived from \`${base.text}\` and from \`${read.base.text}\`` };
    base ??= read.base;
    // What was given before goes with the old prototype.
    if (read.isWhole && methods.some((one) => !one.isStatic && !around!.holds(one.at)))
      refused ??= { at: around!, why: "the prototype is given whole after it was given methods" };
    if (read.goes) goes.push(around!);
    if (read.refused !== undefined) refused ??= { at: around!, why: read.refused };
  }
  if (!methods.some(({ isStatic }) => !isStatic) && !base) return undefined;
  refused ??= overtaken({ methods, goes, others }, list);
  return { name, fn, statement, to, methods, base, goes, others, refused };
}

/** What a statement makes of a class, where it begins with the name; undefined where it is an ordinary one. */
function statementOf(statement: SyntaxNode, name: string, use: SyntaxNode): Statement | undefined {
  const expression = statement.is("expression_statement") ? statement.firstPart : undefined;
  if (!expression) return undefined;
  if (expression.is("assignment_expression")) return assigned(statement, expression, name, use);
  return expression.is("call_expression") ? called(expression, name, use) : undefined;
}

const isPrototype = (node: SyntaxNode | undefined, name: string): boolean =>
  node?.is("member_expression") === true && node.text.replace(/\s/g, "") === `${name}.prototype`;

function assigned(
  statement: SyntaxNode,
  { parts }: SyntaxNode,
  name: string,
  use: SyntaxNode,
): Statement | undefined {
  const [left, right] = parts;
  if (!left?.holds(use) || !right || parts.length !== 2) return undefined;
  if (isPrototype(left, name)) return wholePrototype(right, name);
  if (!left.is("member_expression")) return undefined;
  const [object, key] = [left.child("object"), left.child("property")];
  if (!object || !key) return undefined;
  if (isPrototype(object, name)) {
    if (key.text === "constructor")
      return right.text === name ? { goes: true } : { refused: "another constructor is given" };
    if (noMethod(right) !== undefined) return undefined;
    return { methods: [{ key, fn: right, isStatic: false, at: statement }], goes: true };
  }
  if (object.text !== name) return undefined;
  if (key.text === "prototype" || RESERVED.includes(key.text))
    return { refused: `\`${left.text}\` is given a value` };
  if (noMethod(right) !== undefined) return undefined;
  return { methods: [{ key, fn: right, isStatic: true, at: statement }], goes: true };
}

/** Members that every class has of its own, and that cannot be given another value. */
const RESERVED = ["name", "length", "arguments", "caller"];

/** `N.prototype = …`: an object with methods, or one that is made of another class's. */
function wholePrototype(value: SyntaxNode, name: string): Statement {
  if (value.is("object")) {
    const methods: OldMethod[] = [];
    for (const part of value.parts) {
      const key = part.child("key") ?? part.child("name");
      const fn = part.child("value");
      if (part.is("pair") && key?.text === "constructor" && fn?.text === name) continue;
      if (part.is("method_definition") && key) methods.push({ key, fn: part, isStatic: false, at: part });
      else if (part.is("pair") && key && fn && noMethod(fn) === undefined)
        methods.push({ key, fn, isStatic: false, at: part });
      else return { refused: `\`${part.text.split("\n")[0]}\` in the prototype is no method` };
    }
    return { methods, goes: true, isWhole: true };
  }
  const made = /^Object\.create\(([\p{L}_$][\p{L}\p{N}_$.]*)\.prototype/u.exec(value.text.replace(/\s/g, ""));
  const base =
    made &&
    [...value.descendants()].find(
      (node) => node.text.replace(/\s/g, "") === made[1] && !node.isLeaf === made[1]!.includes("."),
    );
  const extra = value.is("call_expression") ? value.child("arguments")?.parts[1] : undefined;
  const isPlain =
    !extra ||
    /^\{constructor:\{(value:[\w$]+|enumerable:\w+|writable:\w+|configurable:\w+|,)*\},?\}$/.test(
      extra.text.replace(/\s/g, ""),
    );
  return base && isPlain
    ? { base, goes: true, isWhole: true }
    : { refused: "the prototype is given an object that is not understood" };
}

/** Code that stays and gives the class members that a later statement gave it as well; that one comes first in a class. */
function overtaken(
  { methods, goes, others }: Pick<OldClass, "methods" | "goes" | "others">,
  list: SyntaxNode,
): OldClass["refused"] {
  for (const { node } of others) {
    const later = goes.filter((one) => one.start > node.start);
    if (later.length === 0 || functionsBetween(node, list).length > 0) continue;
    const read = node.parent?.is("member_expression") && node.field === "object" ? node.parent : undefined;
    const isProto = read?.child("property")?.text === "prototype";
    const member = isProto && read?.parent?.is("member_expression") ? read.parent : read;
    const key = member?.child("property")?.text;
    const isSet =
      member?.field === "left" &&
      member.parent?.is(["assignment_expression", "augmented_assignment_expression"]);
    const isReplaced =
      isProto && later.some((one) => /\.prototype$/.test(one.firstPart?.child("left")?.text ?? ""));
    const isOther =
      isSet &&
      !isReplaced &&
      key !== "prototype" &&
      !methods.some((one) => one.key.text === key && one.isStatic !== isProto);
    if (isOther || node.parent?.is("new_expression") || (read && !isProto && !isSet)) continue;
    const why = `the prototype is changed further down, which would come before \`${shortened((member ?? node).text)}\``;
    return { at: node, why };
  }
  return undefined;
}

/** `util.inherits(N, Base)`, `Object.setPrototypeOf(N.prototype, Base.prototype)`, and the same of the functions themselves. */
function called(call: SyntaxNode, name: string, use: SyntaxNode): Statement | undefined {
  const callee = call.child("function");
  const [first, second, ...more] = call.child("arguments")?.parts ?? [];
  if (!callee || !first?.holds(use) || !second || more.length > 0) return undefined;
  if (first.text === name && isInherits(callee)) return { base: second, goes: true };
  if (callee.text !== "Object.setPrototypeOf") return undefined;
  if (isPrototype(first, name) && /\.prototype$/.test(second.text))
    return { base: second.child("object")!, goes: true };
  return first.text === name ? { base: second, goes: true } : undefined;
}

function isInherits(callee: SyntaxNode): boolean {
  const origin = originOf(callee);
  if (!origin) return false;
  const { module, name } = origin;
  return (
    (/^(node:)?util$/.test(module) && /^(default\.)?inherits$/.test(name ?? "")) ||
    (module === "inherits" && (name ?? "default") === "default")
  );
}

/** What is exported stands in a statement of its own. */
export const placeOf = ({ statement }: OldClass): SyntaxNode =>
  statement.parent?.is("export_statement") ? statement.parent : statement;

/**
 * A class with all those of the same block that are derived from it, which must become classes together; undefined for one
 * that belongs to the family of another.
 */
export function familyOf(root: OldClass): readonly OldClass[] | undefined {
  const { parts } = placeOf(root).parent!;
  const all = parts.flatMap((part) => {
    const inner = part.is("export_statement") ? (part.child("declaration") ?? part.child("value")) : part;
    const fn = inner?.is("function_declaration")
      ? inner
      : inner?.is(["variable_declaration", "lexical_declaration"])
        ? inner.firstPart?.child("value")
        : undefined;
    return (fn && oldClassAt(fn)) ?? [];
  });
  const parentOf = ({ base }: OldClass): OldClass | undefined => {
    const to = base?.is("identifier") ? referencesAt(base).find((one) => one.to)?.to : undefined;
    return to && all.find((one) => one.to === to);
  };
  if (parentOf(root)) return undefined;
  const family = [root];
  for (let i = 0; i < family.length; i++)
    family.push(
      ...all.filter(
        (one) => parentOf(one)?.to === family[i]!.to && !family.some((other) => other.to === one.to),
      ),
    );
  return family;
}
