import type { Declares, ScopeFacts, ScopeKind, SyntaxNode } from "../../syntax/index.js";

/** A node in which names live, with what its language says of it. */
export interface Scope {
  readonly node: SyntaxNode;
  readonly facts: ScopeFacts;
}

const FILE: ScopeFacts = { is: "file" };

/**
 * The scopes around a node, innermost first; the file is the last. Code that stands in a node but is evaluated
 * outside of it (default values, the name of a function) is not in its scope.
 */
export function* scopesAround(node: SyntaxNode): Generator<Scope> {
  const { scopes, evaluatedOutside, reopened } = node.tree.language.binding;
  let skipsFunction = false;
  let at = node;
  for (let above = at.parent; above; above = at.parent) {
    if (evaluatedOutside(at)) skipsFunction = true;
    const facts = scopes[above.kind];
    if (facts && facts.is !== "file") {
      const isOutside = facts.outside?.some((part) => part === at.field || part === at.kind) ?? false;
      if (skipsFunction && facts.is === "function") skipsFunction = false;
      else if (!isOutside) yield { node: reopened(above), facts };
    }
    at = above;
  }
  yield { node: at, facts: scopes[at.kind] ?? FILE };
}

/** The scope in which a name that is declared here is seen. */
export function scopeOfDeclaration(name: SyntaxNode, { in: reach }: Declares): SyntaxNode {
  if (typeof reach === "function") return reach(name) ?? name.tree.root;
  if (reach === "file") return name.tree.root;
  const wanted = STOPS[reach];
  for (const { node, facts } of scopesAround(name)) if (wanted.includes(facts.is)) return node;
  return name.tree.root;
}

const STOPS: Readonly<Record<"here" | "function" | "class", readonly ScopeKind[]>> = {
  here: ["block", "function", "class", "namespace", "file"],
  function: ["function", "class", "namespace", "file"],
  class: ["class", "namespace", "file"],
};

/** The innermost function, class or file whose code a node is part of. */
export function bodyAround(node: SyntaxNode): SyntaxNode {
  for (const scope of scopesAround(node)) if (STOPS.function.includes(scope.facts.is)) return scope.node;
  return node.tree.root;
}

/** The innermost function around a node; undefined at the top level of the file. */
export function functionAround(node: SyntaxNode): SyntaxNode | undefined {
  const { functions } = node.tree.language;
  for (const above of node.ancestors()) if (above.is(functions)) return above;
  return undefined;
}
