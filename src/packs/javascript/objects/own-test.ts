import { changesOf, compile, holes, javascript, matchAt, referencesAt } from "../../../core.js";
import type { SyntaxNode } from "../../../core.js";

const { object, key, alias } = holes({ object: "expression", key: "expression", alias: "name" });
const METHOD = [javascript`Object.prototype.hasOwnProperty`, javascript`({}).hasOwnProperty`];
const ASKING = [
  javascript`Object.prototype.hasOwnProperty.call(${object}, ${key})`,
  javascript`({}).hasOwnProperty.call(${object}, ${key})`,
  javascript`Object.hasOwn(${object}, ${key})`,
  javascript`${object}.hasOwnProperty(${key})`,
];
const ALIASED = javascript`${alias}.call(${object}, ${key})`;

/** A test for an own property, however it is asked: the object and the key. */
export function ownTest(test: SyntaxNode): { object: SyntaxNode; key: SyntaxNode } | undefined {
  const { tree, id } = test;
  for (const [i, snippet] of [...ASKING, ALIASED].entries()) {
    for (const pattern of compile(snippet, tree.language.id)) {
      const found = matchAt(pattern, tree, id);
      const at = (hole: typeof object): SyntaxNode => tree.node(found!.captures.get(hole)!.nodes[0]!);
      if (!found || (i === ASKING.length && !isMethodItself(at(alias)))) continue;
      return { object: at(object), key: at(key) };
    }
  }
  return undefined;
}

/** Does a variable hold the method of all objects? */
export function isMethodItself(name: SyntaxNode): boolean {
  const value = onlyValue(name);
  return (
    value !== undefined &&
    METHOD.flatMap((one) => compile(one, value.tree.language.id)).some((one) =>
      matchAt(one, value.tree, value.id),
    )
  );
}

/** The value of a variable that is given one value only. */
function onlyValue(name: SyntaxNode): SyntaxNode | undefined {
  const to = referencesAt(name).find((one) => one.to)?.to;
  const [only] = to?.at ?? [];
  if (!to || !only || to.at.length !== 1) return undefined;
  const isWrittenOnce = changesOf(to).every(({ node, does }) => does === "write" && node.same(only));
  const holder = only.parent;
  return isWrittenOnce && holder?.is("variable_declarator") ? holder.child("value") : undefined;
}
