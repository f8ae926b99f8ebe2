import { countLeading, oncePerTree, shapeOf, type SyntaxNode } from "../../syntax/index.js";
import { bodyAround } from "../names/scopes.js";
import { assignmentOf, valueOf } from "./assignment.js";
import { outermostLoop } from "./loops.js";
import { givesSomething, isCreation } from "./presence.js";

/**
 * Could it turn out that a variable is there where it is read? Asked first, since it takes neither names nor the flow of
 * control: not where nothing of the name before it is tested, has a member read or is given something new.
 */
export function mayBeThere(name: SyntaxNode): boolean {
  return standsBefore(saysPresentIn(bodyAround(name), name.tree.language.binding.bare(name)), name);
}

const saying = oncePerTree(() => new Map<string, readonly number[]>());

/** Where mentions of a name in a function begin that may say that it is there, in order. */
function saysPresentIn(body: SyntaxNode, name: string): readonly number[] {
  const key = `${body.id} ${name}`;
  const known = saying(body.tree);
  let found = known.get(key);
  if (!found) {
    const { tree } = body;
    const all = tree.named(name);
    const inBody: SyntaxNode[] = [];
    for (let i = countLeading(all.length, (k) => all[k]! < body.id); i < all.length; i++) {
      if (all[i]! >= tree.after[body.id]!) break;
      const node = tree.node(all[i]!);
      if (maySayPresent(node, body)) inBody.push(node);
    }
    known.set(key, (found = inBody.map(({ start }) => start)));
  }
  return found;
}

/** Is one of some places, in order, before a name, or in a loop around it? */
function standsBefore(starts: readonly number[], name: SyntaxNode): boolean {
  if (starts.length > 0 && starts[0]! < name.start) return true;
  const loop = outermostLoop(name, bodyAround(name));
  if (!loop) return false;
  const next = starts[countLeading(starts.length, (i) => starts[i]! <= name.start)];
  return next !== undefined && next < loop.end;
}

function maySayPresent(node: SyntaxNode, body: SyntaxNode): boolean {
  const { memberReads, flow } = node.tree.language;
  const holder = assignmentOf(node);
  const value = holder && valueOf(holder);
  if (value && (isCreation(value) || givesSomething(value))) return true;
  let at = node;
  for (const above of node.ancestors()) {
    if (above.same(body)) return false;
    if (flow.missing.readsThrow && above.is(memberReads)) return true;
    const shape = shapeOf(above);
    if (
      shape &&
      shape.is !== "jump" &&
      shape.is !== "try" &&
      at.field !== "body" &&
      at.field !== "consequence"
    )
      return true;
    at = above;
  }
  return false;
}
