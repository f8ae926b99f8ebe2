import { importStatements, parse, type NodeId, type SyntaxTree } from "../syntax/index.js";
import type { Instance } from "./instances.js";
import { outermostAround } from "./probe.js";
import { endOf, startOf, type Run } from "./run.js";

/** Files shorter than this are taken whole. */
const SHORT = 3000;

const known = new WeakMap<Instance, Instance>();

/**
 * The same edit in a file that has nothing else than its imports and the statement around the edit: whether a rule does there what
 * the author did is found out much sooner.
 */
export function excerptOf(instance: Instance): Instance {
  let found = known.get(instance);
  if (!found) known.set(instance, (found = made(instance) ?? instance));
  return found;
}

function made(instance: Instance): Instance | undefined {
  const { file, before } = instance;
  const { tree } = before;
  const around = outermostAround(before, []);
  if (tree.text.length < SHORT || (around.start === 0 && around.end === tree.text.length)) return undefined;
  const imports = importStatements(tree)
    .filter(({ node }) => node.end <= around.start || node.start >= around.end)
    .map(({ node }) => node.text.trimEnd());
  const lead = imports.length === 0 ? "" : `${imports.join("\n")}\n\n`;
  const excerpt = parse(lead + tree.text.slice(around.start, around.end), tree.language);
  if (excerpt.errors.length > 0) return undefined;
  const nodes = before.nodes.map((n) => sameNode(tree, n, excerpt, lead.length - around.start));
  if (!nodes.every((n) => n !== undefined)) return undefined;
  const run: Run = { tree: excerpt, nodes };
  if (endOf(run) - startOf(run) !== endOf(before) - startOf(before)) return undefined;
  // Excerpts of one file are files of their own.
  const path = `${before.nodes[0]}-${file.path.replaceAll("/", "-").replaceAll(":", "-")}`;
  return { ...instance, file: { ...file, path, before: excerpt }, before: run };
}

function sameNode(tree: SyntaxTree, n: NodeId, other: SyntaxTree, shift: number): NodeId | undefined {
  const [start, end] = [tree.starts[n]! + shift, tree.ends[n]! + shift];
  for (let at: NodeId = other.nodeAt(start, end).id; at >= 0; at = other.parents[at]!) {
    if (other.starts[at]! !== start || other.ends[at]! !== end) return undefined;
    if (other.kindIds[at] === tree.kindIds[n]) return at;
  }
  return undefined;
}
