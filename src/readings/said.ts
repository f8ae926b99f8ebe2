import { importOf, referencesAt, shortened } from "../analysis/index.js";
import { sameCode, type HoleKind, type SyntaxNode } from "../syntax/index.js";
import { chainsAt } from "./chains.js";
import { choicesAt } from "./choices.js";
import { fillsAt } from "./fills.js";
import { loopAt } from "./loops.js";
import { switchedAt } from "./switched.js";
import { presenceOf, type Asks, type PresenceTest } from "./presence-test.js";

/** What a piece of code says, for a person, and how a rule would ask for it. */
export interface ReadHere {
  /** The code that says it, from the first node to the last; offsets in UTF-16 code units. */
  readonly start: number;
  readonly end: number;
  /** What it is, as the end of a sentence: "a choice: …". */
  readonly says: string;
  /** The reading of the vocabulary that finds it, as an author writes it. */
  readonly reading: string;
  /** The holes that stand in it, with their kinds. */
  readonly holes: Readonly<Record<string, HoleKind>>;
  /** What it is imported for. */
  readonly imports: readonly string[];
}

type Written = Pick<ReadHere, "reading" | "holes" | "imports">;

/** A reading with holes for expressions, unless another kind is said. */
function written(reading: string, imports: string, holes: string, kinds: Written["holes"] = {}): Written {
  const named = holes.split(" ").map((name) => [name, kinds[name] ?? "expression"] as const);
  return { reading, imports: imports.split(" "), holes: Object.fromEntries(named) };
}

/** What is asked for, as the end of "asks whether `x` …". */
const ASKED: Readonly<Record<Asks, string>> = {
  missing: "is missing",
  null: "is null",
  undefined: "is undefined",
  set: "is set",
  loose: "is loosely equal to null",
  value: "has a value",
  key: "has the key",
  member: "has the member",
  truth: "counts as true",
  callable: "can be called",
};

/** How a choice is written for its test, and its values where one of them is what is tested. */
function choiceFor({ asks, isThere }: PresenceTest, isSame: boolean): Written {
  if (asks === "key") {
    const reading = "choice(hasKey(item(map, key)), item(map, key), fallback)";
    return written(reading, "choice hasKey item", "map key fallback");
  }
  if (asks === "member")
    return written("choice(hasMember(value), value, fallback)", "choice hasMember", "value fallback");
  const [subject, ways] = isSame ? ["value", "value, fallback"] : ["test", "then, otherwise"];
  const holes = isSame ? "value fallback" : "test then otherwise";
  if (asks === "truth") return written(`choice(truthy(${subject}), ${ways})`, "choice truthy", holes);
  const also = asks === "value" || asks === "loose" ? `, { or: ["${asks}"] }` : "";
  const how = isSame || isThere ? "present" : "missing";
  return written(`choice(${how}(${subject}${also}), ${ways})`, `choice ${how}`, holes);
}

const quoted = (node: SyntaxNode): string => `\`${shortened(node.text)}\``;

function rangeOf(nodes: readonly SyntaxNode[]): { readonly start: number; readonly end: number } {
  return { start: nodes[0]!.start, end: nodes.at(-1)!.end };
}

/** All that the code at a node says, as the readings see it: choices, filled places, guarded reads, loops over positions. */
function readingsAt(node: SyntaxNode): ReadHere[] {
  const found: ReadHere[] = [];
  for (const { nodes, test, yes, no, asked } of choicesAt(node)) {
    const tested = asked ?? presenceOf(test);
    const isSame = sameCode(tested.isThere ? yes : no, tested.subject);
    found.push({
      ...rangeOf(nodes),
      says: `a choice: ${quoted(yes)} where ${quoted(test)}, else ${quoted(no)}; the test asks whether ${quoted(tested.subject)} ${ASKED[tested.asks]}`,
      ...choiceFor(tested, isSame),
    });
  }
  const switched = switchedAt(node);
  if (switched) {
    const { arms, subject } = switched.switched;
    found.push({
      ...rangeOf(switched.nodes),
      says: `a \`switch\` that gives one of ${arms.length} values by ${quoted(subject)}`,
      ...written("switched(subject)", "switched", "subject"),
    });
  }
  for (const { nodes, place, value } of fillsAt(node))
    found.push({
      ...rangeOf(nodes),
      says: `a place that is filled: ${quoted(place)} is given ${quoted(value)} where it has no value`,
      ...written("filled(place, value)", "filled", "place value"),
    });
  for (const { nodes, links, use, kind } of chainsAt(node))
    found.push({
      ...rangeOf(nodes),
      says: `a guarded read: ${quoted(use)} is read only where ${links.map(({ test }) => quoted(test.test)).join(" and ")}`,
      ...written(
        `guarded(subject, read, otherwise, { as: ["${kind}"] })`,
        "guarded",
        "subject read otherwise",
      ),
    });
  const loop = loopAt(node);
  if (loop)
    found.push({
      ...rangeOf(loop.nodes),
      says: `a loop over positions: ${quoted(loop.index)} counts those of ${quoted(loop.items)}`,
      ...written("walked({ index, items, body })", "walked", "index items body", {
        index: "name",
        body: "statements",
      }),
    });
  return found;
}

/** Where a name comes from: an import, or a declaration of the file; undefined for what is no name by itself. */
function originSaid(node: SyntaxNode): string | undefined {
  const [reference] = referencesAt(node);
  if (!reference || reference.member) return undefined;
  const { to, unknown } = reference;
  if (unknown !== undefined) return `it is not known what ${quoted(node)} is: ${unknown}`;
  const imported = importOf(node);
  if (imported) {
    const { module, name } = imported;
    const what = name === undefined || name === "*" ? `the module ${module}` : `\`${name}\` of ${module}`;
    return `${quoted(node)} is ${what}, by an import`;
  }
  if (!to) return `${quoted(node)} is declared nowhere in this file`;
  const article = /^[aeiou]/.test(to.as) ? "an" : "a";
  return `${quoted(node)} is ${article} ${to.as}, declared in line ${to.at[0]!.line}`;
}

/** What is known of a place in code, for the author of a rule. */
export interface SaidHere {
  /** Where the name there comes from, as a sentence; undefined for what is no name by itself. */
  readonly origin: string | undefined;
  /** What the code around reads as, from the node outwards. Lines are 1-based. */
  readonly reads: readonly (ReadHere & { readonly line: number })[];
}

/** Where a name comes from, and what the code around it reads as, outwards to the statement it stands in. */
export function saidAt(node: SyntaxNode): SaidHere {
  const statement = statementAround(node);
  const around = [node, ...node.ancestors()].filter((at) => statement.holds(at));
  const reads = around.flatMap((at) => readingsAt(at).map((read) => ({ line: at.line, ...read })));
  return { origin: originSaid(node), reads };
}

/** The innermost statement that a node stands in, or the node itself outside of all. */
export function statementAround(node: SyntaxNode): SyntaxNode {
  const lists = node.tree.language.statementLists;
  return [node, ...node.ancestors()].find((at) => at.parent?.is(lists)) ?? node;
}
