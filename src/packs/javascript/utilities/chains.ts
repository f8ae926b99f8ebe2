import type { Match, SyntaxNode } from "../../../core.js";
import { libraryOf, utilityOf, type UtilityCall } from "./library-call.js";
import { nativeOf } from "./natives.js";

/** Calls of a library that are linked to one another: `_.chain(jars).filter(f).map(g).value()`. */
export interface UtilityChain {
  /** What the chain begins with. */
  readonly start: SyntaxNode;
  /** The calls from the first to the last, without those that wrap and unwrap. */
  readonly links: readonly SyntaxNode[];
  readonly library: "lodash" | "underscore";
}

/** Links that end a chain by themselves where nothing asks for the library's own. */
const ENDS =
  /^(some|any|every|all|find|detect|findIndex|reduce|foldl|inject|first|head|last|join|includes|contains|indexOf|sum|sumBy|size|isEmpty|isArray|startsWith|endsWith|has|get)$/;

const methodOf = (call: SyntaxNode): string | undefined =>
  call.child("function")?.is("member_expression")
    ? call.child("function")!.child("property")!.text
    : undefined;

/** The chain that a call ends. */
export function chainAt(node: SyntaxNode): UtilityChain | undefined {
  const last = methodOf(node);
  if (last === undefined) return undefined;
  const links: SyntaxNode[] = [];
  let at = node;
  for (;;) {
    const callee = at.child("function");
    if (!at.is("call_expression") || !callee || at.text.includes("?.")) return undefined;
    const wrapped = wrappedBy(at, callee);
    if (wrapped) {
      const { start, library, isExplicit } = wrapped;
      const isValue = last === "value" && node.child("arguments")!.parts.length === 0;
      if (!isValue && (isExplicit || !ENDS.test(last))) return undefined;
      const calls = isValue ? links.slice(0, -1) : links;
      return calls.length > 0 || isValue ? { start, links: calls, library } : undefined;
    }
    if (!callee.is("member_expression")) return undefined;
    links.unshift(at);
    at = callee.child("object")!;
  }
}

function wrappedBy(
  call: SyntaxNode,
  callee: SyntaxNode,
): { start: SyntaxNode; library: UtilityChain["library"]; isExplicit: boolean } | undefined {
  const [start, ...more] = call.child("arguments")?.parts ?? [];
  if (!start || more.length > 0) return undefined;
  const bare = libraryOf(callee);
  if (bare) return { start, library: bare, isExplicit: false };
  const utility = utilityOf(callee);
  return utility?.name === "chain" ? { start, library: utility.library, isExplicit: true } : undefined;
}

/** The links of a chain as calls, each with what the one ahead gives. */
export function callsOf({ start, links, library }: UtilityChain, match: Match): UtilityCall[] {
  let ahead = start;
  let after: UtilityCall["after"];
  return links.map((node) => {
    const name = methodOf(node)!;
    const args = [ahead, ...node.child("arguments")!.parts];
    const call: UtilityCall = { library, name, match, node, args, ...(after ? { after } : {}) };
    after = { gives: nativeOf(library, name, args.length)?.gives };
    ahead = node;
    return call;
  });
}
