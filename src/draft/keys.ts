import {
  heredocText,
  sameToken,
  significantChildren,
  unwrapped,
  type NodeId,
  type SyntaxTree,
} from "../syntax/index.js";

/**
 * Numbers for pieces of code: two nodes, of one tree or of two, have the same number where they say the same, as
 * `treesEqual` means it. The trees must be of one grammar.
 */
export class Keys {
  readonly #numbers = new Map<string, number>();
  readonly #known = new WeakMap<SyntaxTree, Map<NodeId, number>>();

  of(tree: SyntaxTree, node: NodeId): number {
    let known = this.#known.get(tree);
    if (!known) this.#known.set(tree, (known = new Map()));
    let key = known.get(node);
    if (key === undefined) known.set(node, (key = this.#number(this.#said(tree, unwrapped(tree, node)))));
    return key;
  }

  /** One number for several nodes side by side. */
  ofRun(tree: SyntaxTree, nodes: readonly NodeId[]): number {
    const [only] = nodes;
    if (only !== undefined && nodes.length === 1) return this.of(tree, only);
    return this.#number(`run ${nodes.map((node) => this.of(tree, node)).join(" ")}`);
  }

  #number(said: string): number {
    let number = this.#numbers.get(said);
    if (number === undefined) this.#numbers.set(said, (number = this.#numbers.size));
    return number;
  }

  #said(tree: SyntaxTree, node: NodeId): string {
    const kind = tree.kind(node);
    const { language } = tree;
    if (!tree.isNamed(node) && tree.isLeaf(node)) return `token ${kind}`;
    if (language.heredocStarts.includes(kind)) return `heredoc ${heredocText(tree, node) ?? ""}`;
    if (language.strings.includes(kind) || tree.isLeaf(node)) return `leaf ${kind} ${plainText(tree, node)}`;
    return `${kind}(${significantChildren(tree, node)
      .map((child) => this.of(tree, child))
      .join(" ")})`;
  }
}

/** The text of a leaf or a string, in double quotes where the quotes do not count. */
function plainText(tree: SyntaxTree, node: NodeId): string {
  const text = tree.textOf(node);
  const kind = tree.kind(node);
  const other = text.startsWith("'") && text.endsWith("'") ? `"${text.slice(1, -1)}"` : text;
  const quoted = sameToken(tree.language, kind, text, other) ? other : text;
  const lower = quoted.toLowerCase();
  return sameToken(tree.language, kind, quoted, lower) ? lower : quoted;
}
