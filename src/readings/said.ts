import { importsIn, referencesAt, shortened } from "../analysis/index.js";
import type { SyntaxNode } from "../syntax/index.js";
import { chainsAt } from "./chains.js";
import { choicesAt } from "./choices.js";
import { fillsAt } from "./fills.js";
import { loopAt } from "./loops.js";
import { presenceOf, type Asks, type PresenceTest } from "./presence-test.js";

/** What a piece of code says, for a person, and how a rule would ask for it. */
export interface ReadHere {
  /** The code that says it, from the first node to the last. */
  readonly start: number;
  readonly end: number;
  /** One sentence. */
  readonly says: string;
  /** The reading of the vocabulary that finds it; undefined for a name. */
  readonly reading?: string;
}

/** What is asked for, as the end of "asks whether `x` …". */
const ASKED: Readonly<Record<Asks, string>> = {
  missing: "is missing",
  null: "is null",
  undefined: "is undefined",
  set: "is set",
  value: "has a value",
  key: "has the key",
  truth: "counts as true",
  callable: "can be called",
};

/** How a condition of a choice is written for a test. */
function conditionOf({ asks, isThere }: PresenceTest, subject: string): string {
  if (asks === "truth") return `truthy(${subject})`;
  if (asks === "key") return `hasKey(item(${subject}, key))`;
  const also = asks === "value" ? `, { or: ["value"] }` : "";
  return `${isThere ? "present" : "missing"}(${subject}${also})`;
}

const quoted = (node: SyntaxNode): string => `\`${shortened(node.text)}\``;

function rangeOf(nodes: readonly SyntaxNode[]): { readonly start: number; readonly end: number } {
  return { start: nodes[0]!.start, end: nodes.at(-1)!.end };
}

/** All that the code at a node says, as the readings see it: choices, filled places, guarded reads, loops over positions. */
export function readingsAt(node: SyntaxNode): ReadHere[] {
  const found: ReadHere[] = [];
  for (const { nodes, test, yes, no, asked } of choicesAt(node)) {
    const tested = asked ?? presenceOf(test);
    const isSame = tested.isThere ? yes.text === tested.subject.text : no.text === tested.subject.text;
    const [then, otherwise] = isSame ? ["value", "fallback"] : ["then", "otherwise"];
    const subject = isSame ? "value" : "test";
    const turned = isSame && !tested.isThere ? { ...tested, isThere: true } : tested;
    found.push({
      ...rangeOf(nodes),
      says: `a choice: ${quoted(yes)} where ${quoted(test)}, else ${quoted(no)}; the test asks whether ${quoted(tested.subject)} ${ASKED[tested.asks]}`,
      reading: `choice(${conditionOf(turned, subject)}, ${then}, ${otherwise})`,
    });
  }
  for (const { nodes, place, value } of fillsAt(node))
    found.push({
      ...rangeOf(nodes),
      says: `a place that is filled: ${quoted(place)} is given ${quoted(value)} where it has no value`,
      reading: "filled(place, value)",
    });
  for (const { nodes, links, use, kind } of chainsAt(node))
    found.push({
      ...rangeOf(nodes),
      says: `a guarded read: ${quoted(use)} is read only where ${links.map(({ test }) => quoted(test.test)).join(" and ")}`,
      reading: `guarded(subject, read, otherwise, { as: ["${kind}"] })`,
    });
  const loop = loopAt(node);
  if (loop)
    found.push({
      ...rangeOf(loop.nodes),
      says: `a loop over positions: ${quoted(loop.index)} counts those of ${quoted(loop.items)}`,
      reading: "walked({ index, items, body })",
    });
  return found;
}

/** Where a name comes from: an import, or a declaration of the file; undefined for what is no name or not known. */
export function originSaid(node: SyntaxNode): string | undefined {
  if (!node.isLeaf || node.tree.language.binding.leaves[node.kind] === undefined) return undefined;
  const imported = importsIn(node.tree)
    .flatMap(({ imports }) => imports)
    .find(({ local }) => local === node.text);
  const [reference] = referencesAt(node);
  const to = reference?.to;
  if (imported && (!to || to.as === "import")) {
    const { module, name } = imported;
    const what = name === undefined || name === "*" ? `the module ${module}` : `\`${name}\` of ${module}`;
    return `${quoted(node)} is ${what}, by an import`;
  }
  if (to) return `${quoted(node)} is a ${to.as}, declared in line ${to.at[0]!.line}`;
  return reference && !reference.member ? `${quoted(node)} is declared nowhere in this file` : undefined;
}
