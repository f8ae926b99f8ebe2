import { changesOf, referencesAt } from "../../../core.js";
import type { Declaration, SyntaxNode } from "../../../core.js";
import { inner } from "./brackets.js";
import type { Whole } from "./exported.js";
import { isPlainName } from "./names.js";
import type { Loading } from "./requires.js";
import { usesThis } from "./uses-this.js";

/** What a name at the top of a file declares, where nothing gives it another value later. */
export function steady(name: SyntaxNode): Declaration | undefined {
  const to = referencesAt(name).find((one) => !one.member)?.to;
  if (!to?.scope.is("program")) return undefined;
  const [at, ...more] = to.at;
  const changes = changesOf(to).filter(({ node }) => !node.same(at));
  const holder = at?.closest(["variable_declarator"]);
  const isValued =
    holder === undefined || !holder.child("name")!.same(at) || holder.child("value") !== undefined;
  const isThere = to.as === "function" || (at !== undefined && at.start < name.start);
  return more.length === 0 && changes.length === 0 && isValued && isThere ? to : undefined;
}

/** One of the names of `module.exports = { weigh, seal: close }`. */
export interface Named {
  readonly name: string;
  /** Where it stands among the members. */
  readonly member: SyntaxNode;
  /** The variable, or the call that loads a file of the package. */
  readonly value: SyntaxNode;
  readonly loading: Loading | undefined;
}

/** The names that an object literal exports, where each is a variable of the file or another file; undefined for any other value. */
export function namesOf({ value }: Whole, loadings: readonly Loading[]): readonly Named[] | undefined {
  if (!value.is("object") || value.parts.length === 0) return undefined;
  const names: Named[] = [];
  for (const member of value.parts) {
    const isShort = member.is("shorthand_property_identifier");
    const key = isShort ? member : member.is("pair") ? member.child("key") : undefined;
    const node = isShort ? member : key && inner(member.child("value")!);
    if (!key || !node || !(isShort || key.is("property_identifier")) || key.text === "default")
      return undefined;
    const loading = loadings.find(({ call, how }) => call.same(node) && how === "inline");
    const isName = isShort || node.is("identifier");
    const to = isName && isPlainName(node.text) ? steady(node) : undefined;
    if (!loading && !to) return undefined;
    const holder = to?.at[0]!.parent;
    if (holder && usesThis(holder.child("value") ?? holder)) return undefined;
    if (names.some(({ name }) => name === key.text)) return undefined;
    names.push({ name: key.text, member, value: node, loading });
  }
  return names;
}
