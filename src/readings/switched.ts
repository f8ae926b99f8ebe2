import { fill, type Hole } from "../pattern/index.js";
import {
  jumpOf,
  oncePerNode,
  partsOf,
  sameCode,
  saidOf,
  shapeOf,
  type Language,
  type SyntaxNode,
} from "../syntax/index.js";
import { isSwitch, switchKinds, type Switch } from "./cases.js";
import { assignedBy } from "./frame.js";
import { bare } from "./presence-test.js";
import { readingMatch, type Reading, type ReadingMatch } from "./reading.js";
import { expressionOf, isStatement, neighbour, statementsOf } from "./ways.js";

/**
 * A `switch` statement each of whose ways gives one value for all of it: every way returns one, or assigns one to the same
 * variable, or throws. There is a way for all else, at the end or as the statement behind it.
 */
export function switched(subject: Hole): Reading {
  return new SwitchedReading(subject);
}

/** What a `switch` chooses by, and the value of each way. */
export interface Switched {
  readonly node: SyntaxNode;
  readonly subject: SyntaxNode;
  /** In their order; the way for all else is the last. */
  readonly arms: readonly Arm[];
  /** The variable that is given the value; undefined where it is returned. */
  readonly target: SyntaxNode | undefined;
  /** The statement right ahead that declares it without a value. */
  readonly declared: SyntaxNode | undefined;
}

/** One value of a `switch`. */
export interface Arm {
  /** The constants that it is given for; none for all else. */
  readonly labels: readonly SyntaxNode[];
  /** The value, or the statement that throws. */
  readonly gives: SyntaxNode;
  readonly throws: boolean;
  /** The statement that returns, assigns or throws. */
  readonly statement: SyntaxNode;
  /** The ways that lead to it, which name its constants; none for the statement behind the `switch`. */
  readonly ways: readonly SyntaxNode[];
}

class SwitchedReading implements Reading {
  constructor(readonly subject: Hole) {}

  kindsIn(language: Language): readonly string[] {
    return switchKinds(language);
  }

  wordsIn(): readonly string[] {
    return ["switch"];
  }

  whyNot(): string {
    return "not every way of it gives a value to the same place, or nothing is given for all else";
  }

  readAt(node: SyntaxNode): ReadingMatch | undefined {
    const found = switchedAt(node);
    const captures = found && fill(this.subject, found.switched.subject);
    if (!captures) return undefined;
    const { nodes, switched: one } = found;
    const rest = { tests: [], frame: undefined, isStatements: true, spelling: [] };
    return { ...readingMatch({ ...rest, nodes, captures }), switched: one };
  }
}

/** What a way does with its value. */
interface Given {
  readonly statement: SyntaxNode;
  readonly does: "return" | "assign" | "throw";
  readonly value: SyntaxNode;
  readonly target?: SyntaxNode;
}

/** What a `switch` statement gives, with all statements that belong to it. */
export const switchedAt = oncePerNode(readSwitch);

function readSwitch(
  node: SyntaxNode,
): { readonly switched: Switched; readonly nodes: readonly SyntaxNode[] } | undefined {
  const shape = shapeOf(node);
  if (!shape || !isSwitch(shape) || !isStatement(node)) return undefined;
  const whole = node.parent && expressionOf(node.parent).same(node) ? node.parent : node;
  const value = typeof shape.value === "number" ? undefined : partsOf(node, shape.value)[0];
  const ways = node.child("body")?.parts.filter((part) => part.is(shape.ways)) ?? [];
  const arms = value && armsOf(ways, shape, saidOf(shape.fallsThrough, node) === true);
  if (!arms) return undefined;
  const next = neighbour(whole, "after");
  const behind = arms.some(({ isElse }) => isElse) ? undefined : next && givenBy(next);
  if (behind && behind.does !== "return" && behind.does !== "throw") return undefined;
  const all = behind ? [...arms, { labels: [], isElse: true, given: behind, ways: [] }] : arms;
  const [first] = all.flatMap(({ given }) => (given.does === "throw" ? [] : [given]));
  if (!first || all.filter(({ given }) => given.does !== "throw").length < 2 || all.length < 3)
    return undefined;
  const otherwise = all.find(({ isElse }) => isElse);
  // What is assigned goes on behind it, and what follows would not be for all else.
  if (!otherwise || (behind && first.does === "assign")) return undefined;
  const isAlike = all.every(
    ({ given }) =>
      given.does === "throw" ||
      (given.does === first.does && (!given.target || sameCode(given.target, first.target!))),
  );
  if (!isAlike) return undefined;
  const ahead = neighbour(whole, "before");
  const declared = first.target && ahead && declaresOnly(ahead, first.target) ? ahead : undefined;
  const nodes = [...(declared ? [declared] : []), whole, ...(behind ? [next!] : [])];
  return {
    nodes,
    switched: {
      node,
      subject: bare(value),
      arms: [...all.filter((arm) => arm !== otherwise), otherwise].map(
        ({ labels, isElse, given, ways: own }) => ({
          labels: isElse ? [] : labels,
          gives: given.value,
          throws: given.does === "throw",
          statement: given.statement,
          ways: own,
        }),
      ),
      target: first.target,
      declared,
    },
  };
}

interface Way {
  readonly labels: readonly SyntaxNode[];
  readonly isElse: boolean;
  readonly given: Given;
  readonly ways: readonly SyntaxNode[];
}

function armsOf(ways: readonly SyntaxNode[], shape: Switch, fallsThrough: boolean): Way[] | undefined {
  const arms: Way[] = [];
  let labels: SyntaxNode[] = [];
  let own: SyntaxNode[] = [];
  let isElse = false;
  for (const way of ways) {
    own.push(way);
    const named = partsOf(way, shape.labels!);
    // A guard asks for more than a constant.
    if (named.some((label) => label.parts.some((part) => /guard/.test(part.kind)))) return undefined;
    labels.push(...named.flatMap(constantsOf));
    isElse ||= shape.isDefault(way) === true;
    const done = way.parts.filter((part) => !named.some((label) => label.same(part))).flatMap(statementsOf);
    if (done.length === 0) continue;
    const given = givenAlone(done, fallsThrough && !way.same(ways.at(-1)));
    if (!given) return undefined;
    arms.push({ labels, isElse, given, ways: own });
    [labels, own, isElse] = [[], [], false];
  }
  return labels.length > 0 || isElse || arms.filter((arm) => arm.isElse).length > 1 ? undefined : arms;
}

/** The constants of a label: several in `case 1, 2`. */
function constantsOf(label: SyntaxNode): readonly SyntaxNode[] {
  if (/^default\b/.test(label.text)) return [];
  return /label/.test(label.kind) ? label.parts : [label];
}

/** What the statements of a way give, where they do nothing else. */
function givenAlone(done: readonly SyntaxNode[], mustLeave: boolean): Given | undefined {
  const [first, last] = done;
  const given = first && givenBy(first);
  if (!given || done.length > 2) return undefined;
  const isBreak = last !== undefined && jumpOf(last) === "break" && last.parts.length === 0;
  if (done.length === 2 && !isBreak) return undefined;
  return given.does === "assign" && !isBreak && mustLeave ? undefined : given;
}

function givenBy(statement: SyntaxNode): Given | undefined {
  const jump = jumpOf(expressionOf(statement));
  if (jump === "throw" && /^throw\b/.test(statement.text))
    return { statement, does: "throw", value: statement };
  if (jump === "return" && /^return\b/.test(statement.text)) {
    const [value, ...more] = statement.parts;
    const isPlace = value && /^ref_/.test(value.kind);
    return value && more.length === 0 && !isPlace ? { statement, does: "return", value } : undefined;
  }
  const assigned = assignedBy(statement);
  return assigned && !assigned.declares && isOwnPlace(assigned.target)
    ? { statement, does: "assign", value: assigned.value, target: assigned.target }
    : undefined;
}

/** A name, or a member of the object itself: finding it evaluates nothing. */
const isOwnPlace = ({ text }: SyntaxNode): boolean => /^(?:\$?this(?:\.|->))?\$?\w+$/.test(text);

/** Does a statement declare this one variable, and give it no value? */
function declaresOnly(statement: SyntaxNode, target: SyntaxNode): boolean {
  const parts = statement.parts.length === 1 ? statement.parts[0]!.parts : statement.parts;
  const declarators = parts.filter((part) => /declarator$/.test(part.kind));
  const [only] = declarators;
  return declarators.length === 1 && only?.parts.length === 1 && only.text === target.text;
}
