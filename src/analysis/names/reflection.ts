import type { SyntaxNode } from "../../syntax/index.js";
import { nameInFile } from "./declarations.js";

/**
 * The places in some code that can read, set or make a variable without writing its name as code: `eval`, `$$name`,
 * `Set-Variable`, and what brings in code that runs there, as `include` does.
 */
export function reflectionIn(code: readonly SyntaxNode[]): SyntaxNode[] {
  const [first] = code;
  if (!first) return [];
  const { tree } = first;
  const { namesWorkedOut = [], reflection, binding } = tree.language;
  const isIn = (node: SyntaxNode): boolean => code.some((one) => one.holds(node));
  const workedOut = tree.ofKinds(namesWorkedOut).map((n) => tree.node(n));
  const called = reflection.flatMap((word) =>
    nameInFile(binding.bareText(word), tree)
      .references.filter(({ to, member }) => !to && !member)
      .map(({ node }) => node),
  );
  const { kinds, is = () => true } = binding.runsInScope;
  const broughtIn = tree
    .ofKinds(kinds)
    .map((n) => tree.node(n))
    .filter(is);
  return [...workedOut, ...called, ...broughtIn].filter(isIn);
}
