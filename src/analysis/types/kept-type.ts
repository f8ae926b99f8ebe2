import type { SyntaxNode } from "../../syntax/index.js";
import { flowAround } from "../flow/questions.js";
import type { Moment } from "../flow/graph.js";
import { calledFromLibrary } from "../library/called.js";
import { referencesOf, type Declaration, type Reference } from "../names/declarations.js";
import { isMember, usesOf } from "../names/every-use.js";

/** Where a language asks for the type of a name only once, so that something else may be put into it later. */
interface Declared {
  readonly declaration: Declaration;
  /** The name beside which the type is written. */
  readonly at: SyntaxNode;
  /** Does a change give a value of the same type? */
  readonly givesSame: (change: Reference) => boolean;
}

/** Can nothing of another type have been put into a declared name when a place is evaluated? */
export function keepsTypeUntil({ declaration, at, givesSame }: Declared, place: SyntaxNode): boolean {
  const { as, scope } = declaration;
  if (!scope.tree.language.types.heldAtFirst.includes(as) || isMember(declaration)) return true;
  // Who may only know the name of an argument does not write to it.
  if (usesOf(declaration).doubts.some(({ evidence }) => evidence.code !== "name.other-uses")) return false;
  const others = referencesOf(declaration).filter(
    (one) => one.does !== "read" && !one.node.same(at) && !isOnlyRead(one) && !givesSame(one),
  );
  if (others.length === 0) return true;
  const graph = flowAround(place);
  const ends = graph.at(place);
  if (ends.length === 0 || !graph.owner.holds(at)) return false;
  let earlier: Set<Moment> | undefined;
  return !others.some(({ node }) => {
    const written = graph.writesAt(node);
    const moments = written.length > 0 ? written : graph.at(node);
    return moments.length === 0 || moments.some((one) => (earlier ??= graph.before(ends)).has(one));
  });
}

/** Is a variable passed to what certainly does not take it by reference? */
function isOnlyRead({ does, node }: Reference): boolean {
  if (does !== "passed") return false;
  const call = node.closest(node.tree.language.calls);
  return call !== undefined && calledFromLibrary(call)?.effect === "none";
}
