import { isSideEffectFree } from "../analysis/index.js";
import { fill, type Hole } from "../pattern/index.js";
import { jumpOf, type Language, type SyntaxNode } from "../syntax/index.js";
import { present, wordsOf, type AlsoAsks } from "./choice.js";
import { assignedBy, evaluatedAhead, isValuePlace, type Frame } from "./frame.js";
import { asksFor, presenceOf, type PresenceTest } from "./presence-test.js";
import { readingMatch, type Reading, type ReadingMatch } from "./reading.js";
import { branchKinds, expressionOf, isStatement, neighbour, waysOf } from "./ways.js";

/**
 * A value that is returned or assigned where it is there, and an exception that is thrown where it is not:
 * `if (x == null) throw e; return x;`, `if (x != null) return x; throw e;`, with an `else` or without. The new expression
 * takes the place of the value.
 */
export function orThrows(value: Hole, error: Hole, also: AlsoAsks = {}): Reading {
  return new OrThrowsReading(value, error, also);
}

class OrThrowsReading implements Reading {
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
    return thrownHere(node)
      ? "the value is not returned or assigned as it is where it is there"
      : "nothing is thrown here where something is missing";
  }

  readAt(node: SyntaxNode): ReadingMatch | undefined {
    const found = thrownHere(node);
    if (!found || !present(this.value, this.also).asks.includes(found.test.asks)) return undefined;
    const { test, error, nodes, frame } = found;
    let captures = fill(this.value, test.subject);
    captures = captures && fill(this.error, error, captures);
    if (!captures) return undefined;
    const spelling = evaluatedAhead(frame).map(isSideEffectFree);
    return readingMatch({ nodes, captures, tests: [test], frame, isStatements: true, spelling });
  }
}

interface Thrown {
  readonly test: PresenceTest;
  readonly error: SyntaxNode;
  readonly nodes: readonly SyntaxNode[];
  readonly frame: Frame;
}

function thrownHere(node: SyntaxNode): Thrown | undefined {
  const ways = waysOf(node);
  if (!ways || !isStatement(node) || ways.yes.length > 1 || ways.no.length > 1) return undefined;
  const test = presenceOf(ways.test);
  let [[there], [gone]] = test.isThere ? [ways.yes, ways.no] : [ways.no, ways.yes];
  const next = there && gone ? undefined : neighbour(node, "after");
  if (!there) there = next;
  // What follows is only reached by what is missing if the other way leaves.
  else if (!gone && jumpOf(there) === "return") gone = next;
  const throwing = gone && expressionOf(gone);
  // `exit 1` leaves as well, and throws nothing.
  const throws = throwing && jumpOf(throwing) === "throw" && /^(?:throw|raise)\b/i.test(throwing.text);
  const error = throws && throwing.parts.length === 1 ? throwing.firstPart : undefined;
  const value = there && takenBy(there, next);
  if (!error || !value || !asksFor(test, value) || !isValuePlace(value, there!)) return undefined;
  return { test, error, nodes: next ? [node, next] : [node], frame: { statement: there!, value } };
}

/** The value that a statement returns, or assigns; a variable of a block that goes is none. */
function takenBy(statement: SyntaxNode, next: SyntaxNode | undefined): SyntaxNode | undefined {
  if (jumpOf(statement) === "return") return statement.parts.length === 1 ? statement.firstPart : undefined;
  const assigned = assignedBy(statement);
  const isOfBlock = assigned?.declares === true && !statement.same(next);
  return assigned && !isOfBlock ? assigned.value : undefined;
}
