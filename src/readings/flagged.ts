import type { Hole } from "../pattern/index.js";
import { jumpOf, oncePerNode, type SyntaxNode } from "../syntax/index.js";
import { frameOf, madeAhead } from "./collecting.js";
import { assignedBy } from "./frame.js";
import { bare } from "./presence-test.js";
import type { Reading } from "./reading.js";
import { SiftedReading, type SiftedLoop } from "./sifting.js";
import { sieved, walkAt, type Sifted } from "./walk.js";
import { expressionOf, isGiven, isStatement, neighbour } from "./ways.js";

/** A loop that only finds out whether one of the items passes a test. */
export interface Flagged extends Sifted {
  /** What comes out where there is such an item; the contrary comes out where there is none. */
  readonly isFound: boolean;
  /** Is the loop left at the first such item? */
  readonly stops: boolean;
  /** The variable that is set; undefined where the function returns what was found. */
  readonly name: SyntaxNode | undefined;
}

/**
 * A loop that finds out whether one of the items passes a test: it sets a variable that was false ahead of it to true, and
 * may leave the loop then; or returns true, with false behind it. Also with true and false the other way round. What comes in
 * its place is a value; the tests stand in `match.flagged`.
 */
export function flagged(items: Hole): Reading {
  return new SiftedReading(items, {
    words: ["true", "True"],
    whyNot: "this loop does not only find out whether one of the items passes a test",
    at: flaggedAt,
    part: (what) => ({ flagged: what }),
  });
}

const flaggedAt = oncePerNode<SiftedLoop<Flagged> | undefined>(readFlagged);

/** What is done with the first item that passes. */
interface SetBy {
  readonly to: SyntaxNode | undefined;
  readonly isFound: boolean;
  readonly stops: boolean;
}

function readFlagged(node: SyntaxNode): SiftedLoop<Flagged> | undefined {
  const walk = walkAt(node);
  const found = walk && isStatement(walk.loop) ? sieved(walk, setBy) : undefined;
  if (!walk || !found || found.sieves.length === 0) return undefined;
  const { body: _, ...walked } = walk;
  const { loop } = walk;
  const { to, isFound, stops } = found.done;
  // A `return` in a function that is run for each item gives something to nobody.
  if (walk.fn && stops) return undefined;
  const common = { ...walked, sieves: found.sieves, isFound, stops };
  if (!to) {
    const next = neighbour(loop, "after");
    const value = next && givenBy(next);
    if (!value || truthOf(value) !== !isFound) return undefined;
    return {
      what: { ...common, name: undefined },
      nodes: [loop, next],
      frame: { statement: next, value },
    };
  }
  const made = madeAhead(loop, to);
  if (!made || truthOf(made.empty) !== !isFound || !isVariable(made.list)) return undefined;
  return {
    what: { ...common, name: made.list },
    nodes: [made.first, ...made.between, loop],
    frame: frameOf(made, loop),
  };
}

function setBy([first, ...more]: readonly SyntaxNode[]): SetBy | undefined {
  if (!first) return undefined;
  if (jumpOf(first) === "return") {
    const value = more.length === 0 ? givenBy(first) : undefined;
    const isFound = value && truthOf(value);
    return isFound === undefined ? undefined : { to: undefined, isFound, stops: true };
  }
  const given = assignedBy(first);
  const isFound = given && truthOf(given.value);
  if (!given || given.declares || isFound === undefined || saysMore(given)) return undefined;
  const [last, ...rest] = more;
  const stops = last !== undefined && jumpOf(last) === "break" && last.parts.length === 0;
  return rest.length > 0 || (last && !stops) ? undefined : { to: given.target, isFound, stops };
}

/** The one value that a `return` gives, or the last statement of a function where that is what it gives. */
export function givenBy(statement: SyntaxNode): SyntaxNode | undefined {
  if (jumpOf(statement) !== "return") return isGiven(statement) ? expressionOf(statement) : undefined;
  const [only] = statement.parts;
  const values = only?.is(statement.tree.language.argumentLists) ? only.parts : statement.parts;
  return values.length === 1 ? values[0] : undefined;
}

/** Does an assignment say more than what it assigns, such as a type? */
export function saysMore({ target, value }: { target: SyntaxNode; value: SyntaxNode }): boolean {
  return !/^\s*=\s*\(*\s*$/.test(target.tree.text.slice(target.end, value.start));
}

/** Is it a plain variable, which nothing can reach by another way? */
const isVariable = (node: SyntaxNode): boolean => node.is(["identifier", "variable_name"]);

/** Is an expression the word for true, or the one for false? */
export function truthOf(expression: SyntaxNode): boolean | undefined {
  const { text } = bare(expression);
  if (/^[Tt]rue$/.test(text)) return true;
  return /^[Ff]alse$/.test(text) ? false : undefined;
}
