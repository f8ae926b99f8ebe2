import { operatorOf } from "../analysis/index.js";
import { fill, type Hole } from "../pattern/index.js";
import { jumpOf, oncePerNode, sameCode, shapeOf, type Language, type SyntaxNode } from "../syntax/index.js";
import { asksFor, bare, callOf, presenceOf } from "./presence-test.js";
import { readingMatch, type Reading, type ReadingMatch } from "./reading.js";
import { branchKinds, expressionOf, isStatement, waysOf } from "./ways.js";

/** A comparison of two things by their own method, either of which may be missing. */
export interface EqualOrMissing {
  readonly left: SyntaxNode;
  readonly right: SyntaxNode;
  /** Is it true where both are equal or both are missing, or where they are not? */
  readonly isEqual: boolean;
  /** The statement that leaves, where statements make the comparison: it is run where `isEqual` says. */
  readonly leaves: SyntaxNode | undefined;
}

/**
 * A comparison of two things by the method that says what is equal, either of which may be missing, in any spelling:
 * `a == null ? b == null : a.equals(b)`, `a == b || (a != null && a.equals(b))`, the contrary, and branches that leave where
 * they differ. It is told by what comes out where both, one, or none of them is missing.
 */
export function equalOrMissing(left: Hole, right: Hole): Reading {
  return new EqualReading(left, right);
}

class EqualReading implements Reading {
  constructor(
    readonly left: Hole,
    readonly right: Hole,
  ) {}

  kindsIn(language: Language): readonly string[] {
    return language.flow.missing.equals === undefined
      ? []
      : [...branchKinds(language.flow.shapes), ...language.binary];
  }

  wordsIn({ flow }: Language): readonly string[] {
    return flow.missing.equals === undefined ? [] : [flow.missing.equals];
  }

  whyNot(): string {
    return "this does not compare two things of which both may be missing";
  }

  readAt(node: SyntaxNode): ReadingMatch | undefined {
    const found = readOnce(node);
    let captures = found && fill(this.left, found.left);
    captures = captures && fill(this.right, found!.right, captures);
    if (!found || !captures) return undefined;
    const isStatements = found.leaves !== undefined;
    const rest = { tests: [], frame: undefined, isStatements, spelling: [] };
    return { ...readingMatch({ ...rest, nodes: [node], captures }), equalOrMissing: found };
  }
}

const readOnce = oncePerNode<EqualOrMissing | undefined>(read);

function read(node: SyntaxNode): EqualOrMissing | undefined {
  const shape = shapeOf(node);
  if (shape?.is !== "branch" && shape?.is !== "shortCircuit") return undefined;
  const asked = askedIn(node);
  if (!asked) return undefined;
  const [left, right] = asked;
  const isCode = isStatement(node) || /statement$/.test(node.kind);
  const leaving = isCode ? leavingIn(node) : undefined;
  if (isCode && !leaving) return undefined;
  // Where the test alone compares them, nothing is said by the branch.
  const test = isCode ? waysOf(node)?.test : undefined;
  if (test && readOnce(bare(test))) return undefined;
  const outcomes = STATES.map((state) => new Comparing(left, right, state).outcomeOf(node));
  const isEqual = WANTED.every((wanted, i) => wanted.includes(outcomes[i]!));
  const isUnequal = WANTED.every((wanted, i) => wanted.map(contrary).includes(outcomes[i]!));
  return isEqual || isUnequal ? { left, right, isEqual, leaves: leaving } : undefined;
}

/** The two things that a call in the code compares. */
function askedIn(code: SyntaxNode): readonly [SyntaxNode, SyntaxNode] | undefined {
  const { calls, flow } = code.tree.language;
  for (const node of code.descendants()) {
    const call = node.is(calls) ? callOf(node) : undefined;
    const [right, ...more] = call?.args ?? [];
    if (call?.method !== flow.missing.equals || !call?.receiver || !right || more.length > 0) continue;
    return [bare(call.receiver), bare(right)];
  }
  return undefined;
}

/** The one statement that is run in all ways in which something is, where it leaves. */
function leavingIn(node: SyntaxNode): SyntaxNode | undefined {
  const ways = waysOf(node);
  if (!ways) return undefined;
  const ends = [ways.yes, ways.no].flatMap((way) => {
    const [only, ...more] = way;
    if (!only) return [];
    if (more.length > 0) return ["more" as const];
    if (jumpOf(only) !== undefined) return [only];
    return shapeOf(only)?.is === "branch" ? [leavingIn(only) ?? ("more" as const)] : ["more" as const];
  });
  const [first] = ends;
  if (!first || first === "more") return undefined;
  return ends.every((end) => end !== "more" && sameCode(end, first)) ? first : undefined;
}

/** What comes out: true, false, what the method says, the contrary of it, or something else. */
type Outcome = "yes" | "no" | "equal" | "unequal" | "other";

const CONTRARY: Readonly<Record<Outcome, Outcome>> = {
  yes: "no",
  no: "yes",
  equal: "unequal",
  unequal: "equal",
  other: "other",
};
const contrary = (outcome: Outcome): Outcome => CONTRARY[outcome];

/** Which of the two is there, and whether both are the same object. */
interface State {
  readonly left: boolean;
  readonly right: boolean;
  readonly isSame: boolean;
}

const STATES: readonly State[] = [
  { left: false, right: false, isSame: true },
  { left: false, right: true, isSame: false },
  { left: true, right: false, isSame: false },
  { left: true, right: true, isSame: true },
  { left: true, right: true, isSame: false },
];

/** What comes out in each state of a comparison; nothing is equal to what is missing, and everything to itself. */
const WANTED: readonly (readonly Outcome[])[] = [
  ["yes"],
  ["no"],
  ["no", "equal"],
  ["yes", "equal"],
  ["equal"],
];

/** Follows a condition, or branches that leave, in one state. */
class Comparing {
  constructor(
    readonly left: SyntaxNode,
    readonly right: SyntaxNode,
    readonly state: State,
  ) {}

  outcomeOf(node: SyntaxNode): Outcome {
    const code = bare(node);
    if (code.text === "true") return "yes";
    if (code.text === "false") return "no";
    const shape = shapeOf(code);
    if (shape?.is === "negation" && code.lastPart) return contrary(this.outcomeOf(code.lastPart));
    if (shape?.is === "branch") return this.#ofBranch(code);
    const runsIf = shape?.is === "shortCircuit" ? shape.runsIf[operatorOf(code)] : undefined;
    if (runsIf === "true" || runsIf === "false") return this.#joined(code, runsIf === "true");
    return this.#byIdentity(code) ?? this.#byMethod(code) ?? this.#byPresence(code);
  }

  #ofBranch(node: SyntaxNode): Outcome {
    const ways = waysOf(node);
    if (!ways) return "other";
    const test = this.outcomeOf(ways.test);
    const [yes, no] = [ways.yes, ways.no].map((way) => this.#ofWay(way));
    if (test === "yes") return yes!;
    if (test === "no") return no!;
    if (yes === "yes" && no === "no") return test;
    return yes === "no" && no === "yes" ? contrary(test) : "other";
  }

  /** A value, or whether statements leave. */
  #ofWay(way: readonly SyntaxNode[]): Outcome {
    const [only] = way;
    if (!only) return "no";
    return jumpOf(only) === undefined ? this.outcomeOf(expressionOf(only)) : "yes";
  }

  #joined(node: SyntaxNode, isAnd: boolean): Outcome {
    const [left, right] = [node.firstPart!, node.lastPart!];
    const [through, ends] = isAnd ? (["yes", "no"] as const) : (["no", "yes"] as const);
    const first = this.outcomeOf(left);
    if (first === ends) return ends;
    if (first === through) return this.outcomeOf(right);
    return this.outcomeOf(right) === through ? first : "other";
  }

  /** `a == b`. */
  #byIdentity(code: SyntaxNode): Outcome | undefined {
    const { binary, flow } = code.tree.language;
    if (!code.is(binary) || code.parts.length < 2) return undefined;
    const operator = operatorOf(code);
    const isEqual = flow.missing.equal.includes(operator);
    if (!isEqual && !flow.missing.unequal.includes(operator)) return undefined;
    const [one, other] = [bare(code.firstPart!), bare(code.lastPart!)];
    const isOurs =
      (sameCode(one, this.left) && sameCode(other, this.right)) ||
      (sameCode(one, this.right) && sameCode(other, this.left));
    if (!isOurs) return undefined;
    return this.state.isSame === isEqual ? "yes" : "no";
  }

  /** `a.equals(b)`. */
  #byMethod(code: SyntaxNode): Outcome | undefined {
    const call = code.is(code.tree.language.calls) ? callOf(code) : undefined;
    if (call?.method !== code.tree.language.flow.missing.equals || !call?.receiver) return undefined;
    const [right, ...more] = call.args;
    const isOurs =
      right &&
      more.length === 0 &&
      sameCode(bare(call.receiver), this.left) &&
      sameCode(bare(right), this.right);
    // What is missing has no methods.
    return isOurs && this.state.left ? "equal" : "other";
  }

  #byPresence(code: SyntaxNode): Outcome {
    const test = presenceOf(code);
    if (!["missing", "null"].includes(test.asks) || test.by === "truth") return "other";
    const isThere = asksFor(test, this.left)
      ? this.state.left
      : asksFor(test, this.right)
        ? this.state.right
        : undefined;
    if (isThere === undefined) return "other";
    return isThere === test.isThere ? "yes" : "no";
  }
}
