import { isTarget, referencesAt, referencesOf } from "../../../core.js";
import type { SyntaxNode } from "../../../core.js";
import { isKept, simplePattern } from "./pattern.js";
import type { Loading } from "./requires.js";

/** Members that every object has, and what a module gives as an object has not. */
const OF_OBJECTS =
  "constructor hasOwnProperty isPrototypeOf propertyIsEnumerable toLocaleString toString valueOf __proto__".split(
    " ",
  );

/** Where the exports of a file are used as one object, or in a way in which a module cannot be. */
export interface AsObject {
  readonly node: SyntaxNode;
  /** Nothing but the members of an object can do this. */
  readonly isImpossible: boolean;
}

/** The first use of what is loaded that is more than reading one of these names. */
export function usedAsObject(
  { call, how, declarator, member }: Loading,
  names: ReadonlySet<string>,
): AsObject | undefined {
  const among = (name: string, node: SyntaxNode): AsObject | undefined =>
    names.has(name) ? undefined : { node, isImpossible: true };
  const asMember = (node: SyntaxNode): AsObject | undefined => {
    const { parent } = node;
    if (!parent?.is("member_expression") || !parent.child("object")?.same(node))
      return { node, isImpossible: false };
    const name = parent.child("property")!.text;
    if (isTarget(parent) || OF_OBJECTS.includes(name)) return { node: parent, isImpossible: true };
    return undefined;
  };
  if (how === "bare") return undefined;
  if (member) return among(member.text, member);
  const around = declarator ?? (call.field === "value" ? call.parent : undefined);
  const target = around?.is("variable_declarator") ? around.child("name") : undefined;
  if (!target || (how === "inline" && !target.is("identifier"))) return asMember(call);
  const pattern = simplePattern(target);
  if (pattern) return pattern.map(({ key, local }) => among(key, local)).find((one) => one !== undefined);
  if (!target.is("identifier")) return { node: target, isImpossible: false };
  if (!isKept(target)) return { node: target, isImpossible: false };
  const to = referencesAt(target).find((one) => !one.member)!.to!;
  const uses = referencesOf(to).filter(({ node }) => !node.same(target));
  return uses.map(({ node }) => asMember(node)).find((one) => one !== undefined);
}
