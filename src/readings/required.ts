import {
  functionAround,
  isSideEffectFree,
  referencesAt,
  shortened,
  unknown,
  yes,
  type Answer,
} from "../analysis/index.js";
import { fill, type Hole } from "../pattern/index.js";
import { jumpOf, sameCode, type Language, type SyntaxNode } from "../syntax/index.js";
import { present, wordsOf, type AlsoAsks } from "./choice.js";
import { assignedBy, evaluatedAhead, type Frame } from "./frame.js";
import { bare, presenceOf, type PresenceTest } from "./presence-test.js";
import { readingMatch, type Reading, type ReadingMatch } from "./reading.js";
import { branchKinds, isStatement, neighbour, waysOf } from "./ways.js";

/** So many statements may stand between a guard and what it protects. */
const MOST_BETWEEN = 24;

/**
 * A guard that throws where a value is missing, and the statement behind it that stores the value; other guards and plain
 * assignments may stand in between. The new expression takes the place of the value, and the guard goes.
 */
export function required(value: Hole, error: Hole, also: AlsoAsks = {}): Reading {
  return new RequiredReading(value, error, also);
}

class RequiredReading implements Reading {
  constructor(
    readonly value: Hole,
    readonly error: Hole,
    readonly also: AlsoAsks,
  ) {}

  kindsIn({ flow }: Language): readonly string[] {
    return branchKinds(flow.shapes);
  }

  wordsIn(language: Language): readonly string[] | undefined {
    return wordsOf(present(this.value, this.also), language);
  }

  whyNot(node: SyntaxNode): string {
    return guardAt(node)
      ? "nothing behind the guard stores the value, with nothing but guards and assignments in between"
      : "this is no guard that throws where something is missing";
  }

  readAt(node: SyntaxNode): ReadingMatch | undefined {
    const guard = guardAt(node);
    if (!guard || !present(this.value, this.also).asks.includes(guard.test.asks)) return undefined;
    const stored = storedAfter(node, guard);
    if (!stored) return undefined;
    let captures = fill(this.value, guard.test.subject);
    captures = captures && fill(this.error, guard.error, captures);
    if (!captures) return undefined;
    const { nodes, frame, between } = stored;
    const spelling = [
      ...between.map((statement) => mayComeFirst(statement, guard.test.subject)),
      ...evaluatedAhead(frame).map(isSideEffectFree),
    ];
    return readingMatch({ nodes, captures, tests: [guard.test], frame, isStatements: true, spelling });
  }
}

interface Guard {
  readonly test: PresenceTest;
  readonly error: SyntaxNode;
}

function guardAt(node: SyntaxNode): Guard | undefined {
  const ways = waysOf(node);
  if (!ways || !isStatement(node) || ways.yes.length + ways.no.length !== 1) return undefined;
  const [way] = [...ways.yes, ...ways.no];
  const test = presenceOf(ways.test);
  const [error] = way?.parts ?? [];
  const throws = way !== undefined && jumpOf(way) === "throw" && way.parts.length === 1;
  return throws && error && test.isThere === ways.no.length > 0 ? { test, error } : undefined;
}

interface Stored {
  readonly nodes: readonly SyntaxNode[];
  readonly between: readonly SyntaxNode[];
  readonly frame: Frame;
}

function storedAfter(guard: SyntaxNode, { test, error }: Guard): Stored | undefined {
  const value = test.subject;
  const between: SyntaxNode[] = [];
  for (
    let at = neighbour(guard, "after");
    at && between.length <= MOST_BETWEEN;
    at = neighbour(at, "after")
  ) {
    const assigned = assignedBy(at);
    if (assigned && sameCode(bare(assigned.value), value)) {
      const from = between[0]?.start ?? at.start;
      const frame = { statement: at, value: assigned.value, from };
      return { nodes: [guard, ...between, at], between, frame };
    }
    const mentions = [...at.descendants()].some((node) => node.isLeaf && node.text === value.text);
    if (mentions || (!guardAt(at) && !(assigned && isPlainOrThrows(assigned.value)))) return undefined;
    // What is thrown must say the same behind the assignment.
    const written = assigned?.target;
    if (written && [...error.descendants()].some((node) => node.isLeaf && written.text.endsWith(node.text)))
      return undefined;
    between.push(at);
  }
  return undefined;
}

/** A name or a literal, or one that is there or throws, as a guard before this one has become. */
function isPlainOrThrows(value: SyntaxNode): boolean {
  const last = value.lastPart;
  return value.isLeaf || (value.firstPart?.isLeaf === true && last !== undefined && jumpOf(last) === "throw");
}

/** May a statement that stood behind the guard come ahead of what it asks? */
function mayComeFirst(statement: SyntaxNode, value: SyntaxNode): Answer {
  const shown = shortened(statement.text);
  const guard = guardAt(statement);
  if (guard) {
    const free = isSideEffectFree(guard.test.subject);
    if (free.is !== "yes") return free;
    const isStored = storedAfter(statement, guard) !== undefined;
    return isStored
      ? yes(
          "flow.order",
          `\`${shown}\` protects a later statement, where it is asked in the same order`,
          statement,
        )
      : unknown(
          "flow.order",
          `where both are missing, \`${shown}\` is asked before \`${value.text}\` now`,
          statement,
        );
  }
  return isOfNewObject(statement)
    ? yes("flow.order", "nobody sees what a constructor did that fails", statement)
    : unknown("flow.order", `\`${shown}\` is done before \`${value.text}\` is asked for`, statement);
}

/** Does a statement of a constructor write a member of the object that is made, and nothing that others see? */
function isOfNewObject(statement: SyntaxNode): boolean {
  const { constructors } = statement.tree.language;
  const target = assignedBy(statement)?.target;
  const isOwn = target !== undefined && (target.isLeaf || /^this\b/.test(target.text));
  if (!isOwn || functionAround(statement)?.is(constructors) !== true) return false;
  // What is reached through `this` is no static member.
  if (!target.isLeaf) return true;
  const [at] = referencesAt(target).find(({ to }) => to)?.to?.at ?? [];
  if (!at) return false;
  const line = at.tree.text.slice(at.tree.lineStart(at.line), at.start);
  return !/\bstatic\b/.test(line);
}
