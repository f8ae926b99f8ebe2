import { referencesAt, referencesOf } from "../../../core.js";
import type { SyntaxNode } from "../../../core.js";
import { isUsedBehind } from "../variables/order.js";
import type { Settings } from "./call-settings.js";
import { memberName } from "./method.js";

/** A call that makes a class, by its parts. */
export interface Made {
  readonly call: SyntaxNode;
  readonly base: SyntaxNode | undefined;
  readonly object: SyntaxNode;
  /** Is it one of the calls in the config word for word? */
  readonly isNamed: boolean;
}

export function madeBy(node: SyntaxNode, { calls }: Settings): Made | undefined {
  const callee = node.child("function");
  const [object, ...more] = node.child("arguments")?.parts ?? [];
  if (!callee || !object?.is("object") || more.length > 0) return undefined;
  const isMethod = callee.is("member_expression");
  const base = isMethod ? callee.child("object") : undefined;
  if (base && !base.is(["identifier", "member_expression"])) return undefined;
  const method = isMethod ? callee.child("property")!.text : undefined;
  const isNamed =
    calls.includes(callee.text.replace(/\s/g, "")) || (base && derives(base, method!, calls)) === true;
  const isAny = method !== undefined && calls.includes(`*.${method}`);
  return isNamed || isAny ? { call: node, base, object, isNamed } : undefined;
}

const MOST_PARENTS = 8;

/** Is a name that of a class which the same call made, or which is derived from one that the config names? */
function derives(base: SyntaxNode, method: string, calls: readonly string[], depth = 0): boolean {
  const to = base.is("identifier") ? referencesAt(base).find((one) => one.to)?.to : undefined;
  const holder = to?.at.length === 1 ? to.at[0]!.parent : undefined;
  const value = holder?.is("variable_declarator") ? holder.child("value") : undefined;
  const callee = value?.is("call_expression") ? value.child("function") : undefined;
  const isMade = callee?.is("member_expression") === true && callee.child("property")!.text === method;
  const heritage = holder?.is("class_declaration")
    ? holder.parts.find((part) => part.is("class_heritage"))?.firstPart
    : undefined;
  const parent = isMade ? callee.child("object")! : heritage;
  if (!parent || depth >= MOST_PARENTS) return false;
  return calls.includes(`${parent.text}.${method}`) || derives(parent, method, calls, depth + 1);
}

/**
 * A class with those of the same block that are made of it in the same way: one of the old kind cannot be derived from a
 * class, so they go together. Undefined for one that belongs to the family of another.
 */
export function familyOf(root: Made, set: Settings): readonly Made[] | undefined {
  const blockOf = ({ call: node }: Made): SyntaxNode | undefined =>
    node.closest(["statement_block", "program"]);
  const nameOf = ({ call: node }: Made): SyntaxNode | undefined =>
    node.parent?.is("variable_declarator") ? node.parent.child("name") : undefined;
  const block = blockOf(root);
  const all = [...(block?.descendants() ?? [])].flatMap((node) => {
    const made = node.is("call_expression") ? madeBy(node, set) : undefined;
    return made && blockOf(made)?.same(block) ? [made] : [];
  });
  const parentOf = ({ base }: Made): Made | undefined => {
    const to = base?.is("identifier") ? referencesAt(base).find((one) => one.to)?.to : undefined;
    return to && all.find((one) => nameOf(one) && to.at.some((at) => at.same(nameOf(one))));
  };
  if (parentOf(root)) return undefined;
  const family = [root];
  for (let i = 0; i < family.length; i++)
    family.push(...all.filter((one) => parentOf(one)?.call.same(family[i]!.call)));
  return family;
}

/** Where the class goes, and what it is called there. */
export interface Place {
  /** What the class takes the place of: the statement that declares a variable, or the call alone. */
  readonly node: SyntaxNode;
  readonly name: string;
  readonly isStatement: boolean;
}

const IDENTIFIER = /^[\p{L}_$][\p{L}\p{N}_$]*$/u;

/** `hive-card` as the name of a class. */
function classNameFrom(tag: string): string {
  const words = tag.split(/[^\p{L}\p{N}]+/u).filter((word) => word !== "");
  return words.map((word) => word[0]!.toUpperCase() + word.slice(1)).join("");
}

/** The name that a property of the object gives. */
function nameInside({ object }: Made, { name }: Settings): string {
  if (name === "") return "";
  const pair = object.parts.find((part) => part.is("pair") && memberName(part.child("key")!) === name);
  const value = pair?.child("value");
  const found = value?.is("string") ? classNameFrom(value.text.slice(1, -1)) : "";
  return IDENTIFIER.test(found) ? found : "";
}

export function placeOf(made: Made, set: Settings): Place {
  const { call: node, object } = made;
  const { parent } = node;
  const declaration = parent?.is("variable_declarator") ? parent.parent! : undefined;
  const variable = declaration && parent!.child("name");
  if (
    declaration &&
    variable?.is("identifier") &&
    declaration.parts.length === 1 &&
    isClassLike(declaration, variable)
  )
    return { node: declaration, name: variable.text, isStatement: true };
  const inside = nameInside(made, set);
  if (parent?.is("expression_statement")) return { node: parent, name: inside, isStatement: true };
  const target = parent?.is("assignment_expression")
    ? parent.child("left")?.text.split(".").at(-1)
    : undefined;
  const wished =
    inside !== ""
      ? inside
      : target !== undefined && IDENTIFIER.test(target) && target !== "exports"
        ? target
        : "";
  // Inside the class its own name would hide another of the same name; a variable gives its name by itself.
  const isFree = object.mentions(wished).length === 0 && !parent?.is("variable_declarator");
  return { node, name: isFree ? wished : "", isStatement: false };
}

/** Can a variable be declared as a class: given no other value, used behind its declaration, in its block only? */
function isClassLike(declaration: SyntaxNode, name: SyntaxNode): boolean {
  const statement = declaration.parent?.is("export_statement") ? declaration.parent : declaration;
  const block = statement.parent;
  const to = referencesAt(name).find((one) => one.to)?.to;
  if (!to || to.at.length !== 1 || !block?.is(["program", "statement_block"])) return false;
  const uses = referencesOf(to).filter(({ node }) => !node.same(name));
  if (uses.some(({ does, node }) => does !== "read" || !block.holds(node))) return false;
  return isUsedBehind({ name, uses, block, from: declaration.end }).is === "yes";
}
