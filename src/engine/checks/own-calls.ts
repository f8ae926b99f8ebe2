import { callOf } from "../../readings/index.js";
import { kindIdsOf, oncePerTree, type SyntaxNode } from "../../syntax/index.js";
import type { Fault, Rewriting } from "./check.js";

/**
 * A function that is there to do by hand what the new code calls would call itself without end: a polyfill of `includes`, a
 * method `__iter__` that counts positions, a map that works out `getOrDefault`.
 */
export function ownCallFault({ before, after }: Rewriting): Fault | undefined {
  const had = ownCalls(before);
  for (const [name, count] of ownCalls(after))
    if (count > (had.get(name) ?? 0))
      return { code: "edit.calls-itself", says: `\`${name}\` would call itself in the new code` };
  return undefined;
}

/** How often functions call themselves on their own object, by their names. */
const ownCalls = oncePerTree((tree): ReadonlyMap<string, number> => {
  const { calls, functions, flow } = tree.language;
  const counts = new Map<string, number>();
  const add = (name: string, count: number): void => void counts.set(name, (counts.get(name) ?? 0) + count);
  const isCall = new Set(kindIdsOf(tree.language, calls));
  const isFunction = new Set(kindIdsOf(tree.language, functions));
  /** The functions around that have a name, outermost first; with what they are members of, where that is written. */
  const around: { readonly name: string; readonly after: number }[] = [];
  for (let n = 0; n < tree.size; n++) {
    while (around.length > 0 && around.at(-1)!.after <= n) around.pop();
    const kind = tree.kindIds[n]!;
    if (isCall.has(kind) && around.length > 0) {
      const call = callOf(tree.node(n));
      const fn = call && around.findLast(({ name }) => callsIt(call, name));
      if (fn) add(fn.name.split(".").at(-1)!, 1);
    }
    if (!isFunction.has(kind)) continue;
    const name = nameOf(tree.node(n));
    if (name === undefined) continue;
    around.push({ name, after: tree.after[n]! });
    // A function may be called `constructor` or `toString`, which every object has.
    if (Object.hasOwn(flow.implicitCalls, name))
      add(name, [...tree.textOf(n).matchAll(flow.implicitCalls[name]!)].length);
  }
  return counts;
});

/** What a function is called: by its own name, or by what it is given to. */
function nameOf(fn: SyntaxNode): string | undefined {
  const own = fn.child("name")?.text;
  if (own !== undefined) return own;
  const declared = fn.child("declarator")?.text.split("(")[0];
  if (declared !== undefined) return declared.replaceAll("::", ".");
  const { parent } = fn;
  const to = parent?.child("left") ?? parent?.child("key") ?? parent?.child("name");
  return to && !to.same(fn) && to.end < fn.start ? to.text.replace(/\s+/g, "") : undefined;
}

const SELF = /^(this|self|\$this|@this)$/;

/** Does a call reach the function of this name: on the object itself, bare, or by the whole name? */
function callsIt(call: NonNullable<ReturnType<typeof callOf>>, name: string): boolean {
  if (call.method !== name.split(".").at(-1)) return false;
  return !call.receiver || SELF.test(call.receiver.text) || call.whole === name;
}
