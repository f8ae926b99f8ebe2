import { no, referencesAt, referencesOf, unknown, yes } from "../../../core.js";
import type { Answer, Reference, SyntaxNode } from "../../../core.js";

/** A name, and where what it stands for is there. */
export interface Placed {
  readonly name: SyntaxNode;
  readonly uses: readonly Reference[];
  /** The block in which it is declared. */
  readonly block: SyntaxNode;
  /** The offset from which on it may be used. */
  readonly from: number;
  /** Code ahead of that which is certainly run later. */
  readonly runsLater?: SyntaxNode | undefined;
}

/** Is a name only used once its declaration has been run? */
export function isUsedBehind({ name, uses, block, from, runsLater }: Placed): Answer {
  const code = "flow.order";
  let doubt: Answer | undefined;
  for (const { node } of uses) {
    if (node.same(name)) continue;
    const [outer] = functionsBetween(node, block);
    if (!outer) {
      if (node.start < from) return no(code, `\`${name.text}\` is used before it is declared`, node);
      continue;
    }
    if (isHoisted(outer)) {
      const early = calledEarly(outer, block, from, new Set());
      if (early)
        doubt ??= unknown(
          code,
          `\`${outer.child("name")!.text}\`, which uses \`${name.text}\`, may run before it is declared`,
          early,
        );
      continue;
    }
    // A function that is the value itself runs later.
    if (outer.start >= from || runsLater?.same(outer)) continue;
    doubt ??= unknown(code, `a function that uses \`${name.text}\` may run before it is declared`, node);
  }
  return doubt ?? yes(code, `\`${name.text}\` is declared before it is used`, name);
}

const isHoisted = (fn: SyntaxNode): boolean =>
  fn.is(["function_declaration", "generator_function_declaration"]);

/** The functions between a use and the block of a variable, outermost first. */
export function functionsBetween(node: SyntaxNode, block: SyntaxNode): SyntaxNode[] {
  const { functions } = node.tree.language;
  return [...node.ancestors()]
    .filter((above) => block.holds(above) && above.is(functions) && !above.same(block))
    .reverse();
}

/** A mention of a function ahead of a place, which may call it there. */
function calledEarly(
  fn: SyntaxNode,
  block: SyntaxNode,
  from: number,
  seen: Set<number>,
): SyntaxNode | undefined {
  if (seen.has(fn.id)) return undefined;
  seen.add(fn.id);
  const name = fn.child("name");
  const to = name && referencesAt(name).find((one) => one.to)?.to;
  if (!to) return fn;
  // Modules that import each other may call what is exported before all of it was run.
  if (fn.parent?.is("export_statement"))
    return fn.tree.root.parts.some((part) => part.is("import_statement")) ? fn : undefined;
  for (const { node } of referencesOf(to)) {
    if (node.same(name) || fn.holds(node)) continue;
    const [outer] = functionsBetween(node, block);
    if (!outer) {
      if (node.start < from) return node;
      continue;
    }
    const isHoisted = outer.is(["function_declaration", "generator_function_declaration"]);
    const early = isHoisted ? calledEarly(outer, block, from, seen) : outer.start < from ? node : undefined;
    if (early) return early;
  }
  return undefined;
}
