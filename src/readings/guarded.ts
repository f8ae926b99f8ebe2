import { isSideEffectFree } from "../analysis/index.js";
import { fill, type Hole } from "../pattern/index.js";
import { copy, text, type Edit, type Segment } from "../rewrite/index.js";
import type { Language, SyntaxNode } from "../syntax/index.js";
import { chainsAt, safeToken, type Chain, type ChainKind, type Link, type Role } from "./chains.js";
import type { Asks, PresenceTest } from "./presence-test.js";
import { readingMatch, type Reading, type ReadingMatch } from "./reading.js";
import { evaluatedAhead } from "./frame.js";
import { branchKinds, isStatement } from "./ways.js";

/** Which chains are looked for. */
export interface GuardedLimits {
  readonly as: readonly ChainKind[];
  /** What the tests may ask for; all that asks for missing values, and the truth, where it is left out. */
  readonly asks?: readonly Asks[];
  /** What may become of what is read at last; anything but a negation of its truth where it is left out. */
  readonly roles?: readonly Role[];
  /** Is a local that only keeps the subject taken for the subject, in all chains or in some? */
  readonly copied?: true | ((chain: Chain) => boolean);
  /** What they may ask for besides. */
  readonly or?: readonly Asks[];
}

/**
 * Code that reads or calls something of a subject only where the subject is there, through any number of tests and steps:
 * `a && a.b && a.b.c`, `!a || !a.b`, `a != null ? a.b : null`, `if (a) a.b()`. The hole `read` stands for what is read at
 * last, `otherwise` for the value that a choice gives for what is missing.
 */
export function guarded(subject: Hole, read: Hole, otherwise: Hole, limits: GuardedLimits): Reading {
  return new GuardedReading(subject, read, otherwise, limits);
}

const ROLES: readonly Role[] = ["value", "asked", "compared"];
const ASKS: readonly Asks[] = ["missing", "null", "undefined", "set", "truth"];

/** Whether what is read counts as true can be asked by an operator behind it, too. */
function lastAsked(test: PresenceTest): PresenceTest {
  return test.asks === "truth" ? { ...test, staysAsked: true } : test;
}

const AS: Readonly<Record<ChainKind, string>> = {
  and: "operands of and",
  or: "operands of or",
  choice: "the condition of a choice",
  statement: "the condition of a statement",
};

class GuardedReading implements Reading {
  constructor(
    readonly subject: Hole,
    readonly read: Hole,
    readonly otherwise: Hole,
    readonly limits: GuardedLimits,
  ) {}

  kindsIn({ flow, binary }: Language): readonly string[] {
    if (!flow.safeStep) return [];
    return [...branchKinds(flow.shapes), ...binary.filter((kind) => flow.shapes[kind] !== undefined)];
  }

  wordsIn(): undefined {
    return undefined;
  }

  readAt(node: SyntaxNode): ReadingMatch | undefined {
    for (const chain of chainsAt(node)) {
      const match = this.#read(chain);
      if (match) return match;
    }
    return undefined;
  }

  whyNot(node: SyntaxNode): string | undefined {
    const [chain] = chainsAt(node);
    if (!chain) return "no test is followed by a read of what it asks for that the language can take safely";
    return `the tests stand as ${AS[chain.kind]}, or ask for something else`;
  }

  #read(chain: Chain): ReadingMatch | undefined {
    const { as, or = [] } = this.limits;
    const asks = [...(this.limits.asks ?? ASKS), ...or];
    const { kind, links, use, nodes, frame, otherwise, role } = chain;
    const { roles = ROLES } = this.limits;
    if (!as.includes(kind) || !roles.includes(role)) return undefined;
    const { copied = () => false } = this.limits;
    if (chain.copied && copied !== true && !copied(chain)) return undefined;
    let captures = fill(this.subject, links[0]!.test.subject);
    captures = captures && fill(this.read, use, captures);
    if (otherwise) captures = captures && fill(this.otherwise, otherwise, captures);
    if (!captures) return undefined;
    // What is read was evaluated to be tested and again to be used.
    const tests = [...links.map(({ test }) => test), ...(chain.asksUse ? [lastAsked(chain.asksUse)] : [])];
    if (!tests.every(({ asks: one }) => asks.includes(one))) return undefined;
    const ahead = frame && kind === "choice" ? evaluatedAhead(frame) : [];
    const spelling = [...ahead, ...(chain.always ? [chain.always] : [])].map(isSideEffectFree);
    const isStatements = frame !== undefined || (kind === "choice" && isStatement(nodes[0]!));
    return { ...readingMatch({ nodes, captures, tests, frame, isStatements, spelling }), chain };
  }
}

/** What is written before and behind what a link tests, where that cannot be read as it stands. */
export type Cover = (link: Link) => readonly [before: string, after: string] | undefined;

/**
 * A chain as one expression: the use with each tested step taken safely. What stands ahead of the first test stays, as does
 * the comparison that the use is part of.
 */
export function takenSafely(chain: Chain, cover: Cover = () => undefined): Segment[] {
  const { kind, nodes, use, last, links, from, frame } = chain;
  const safe = use.tree.language.flow.safeStep!;
  const covers = links.flatMap((link): Edit[] => {
    const { start, end } = stepInUse(use, link.steps[0]!).firstPart!;
    const [before, after] = cover(link) ?? ["", ""];
    return before === ""
      ? []
      : [
          { start, end: start, text: before },
          { start: end, end, text: after },
        ];
  });
  const taken = links.flatMap(({ steps }) => (safe.reachesOn ? steps.slice(0, 1) : steps));
  const edits = taken.flatMap((one): Edit[] => {
    const step = stepInUse(use, one);
    const token = safeToken(step);
    if (token) {
      const put = safe.tokens[token.text]!;
      return put === token.text ? [] : [{ start: token.start, end: token.end, text: put }];
    }
    const at = step.firstPart!.end;
    const isSafe = step.children.some((child) => child.kind === "optional_chain" || child.text === "?.");
    return isSafe ? [] : [{ start: at, end: at, text: safe.brackets[step.kind]! }];
  });
  // A cover comes ahead of the token behind it.
  edits.unshift(...covers);
  if (chain.copied) {
    const { start, end } = stepInUse(use, links[0]!.steps[0]!).firstPart!;
    edits.push({ start, end, text: chain.copied.value.text });
  }
  edits.sort((a, b) => a.start - b.start || a.end - b.end);
  if (frame || kind === "choice" || kind === "statement") return [copy(last.start, last.end, edits)];
  const { start } = nodes[0]!;
  const first = links[0]!;
  const { subject } = first.test;
  const base = stepInUse(use, first.steps[0]!).firstPart!;
  // What is tested first stays where it stands, with the comments behind it.
  if (covers.length === 0 && subject.start === from && use.start === last.start) {
    const [one, ...others] = edits;
    if (!one || one.start !== base.end) return [copy(start, subject.end), copy(base.end, last.end, edits)];
    return [copy(start, subject.end), text(one.text), copy(one.end, last.end, others)];
  }
  return [copy(start, from), copy(last.start, last.end, edits)];
}

/** The step of the use that goes on from the same code as a step of a test. */
function stepInUse(use: SyntaxNode, step: SyntaxNode): SyntaxNode {
  const depth = depthOf(step);
  let at = use;
  for (let d = depthOf(use); d > depth; d--) at = at.firstPart!;
  return at;
}

function depthOf(node: SyntaxNode): number {
  const { chains } = node.tree.language.flow;
  return node.is(chains) && node.firstPart ? 1 + depthOf(node.firstPart) : 0;
}
