import { shortened } from "../analysis/index.js";
import { sameCode, type SyntaxNode } from "../syntax/index.js";
import { assignedBy, differenceOf } from "./frame.js";
import { asksFor, presenceOf, type Asks } from "./presence-test.js";
import { isStatement, neighbour, waysOf, type Ways } from "./ways.js";

/** A place of a known kind that no spelling fits, and why not. */
export interface NearMiss {
  readonly at: SyntaxNode;
  readonly says: string;
}

/** A value that falls back to another, where a way does something else as well. */
export function nearChoice(node: SyntaxNode, asks: readonly Asks[]): NearMiss | undefined {
  const seen = testedBranch(node, asks, 3);
  if (!seen) return undefined;
  const { there, gone, subject, test } = seen;
  for (const one of there) {
    for (const other of gone) {
      const apart = differenceOf(one, other);
      if (!apart || !asksFor(test, apart.one)) continue;
      const more = [...there, ...gone].find((statement) => !statement.same(one) && !statement.same(other));
      if (more)
        return {
          at: more,
          says: `\`${subject}\` falls back to \`${shortened(apart.other.text)}\` here, and \`${shortened(more.text)}\` is done as well`,
        };
    }
  }
  return undefined;
}

/** A place that is filled in where it has no value, where something else is done as well, before or otherwise. */
export function nearFill(node: SyntaxNode, asks: readonly Asks[]): NearMiss | undefined {
  const seen = testedBranch(node, asks, 2);
  if (!seen) return undefined;
  const { there, gone, subject, test } = seen;
  const filling = gone.find((statement) => {
    const assigned = assignedBy(statement);
    return assigned && !assigned.declares && asksFor(test, assigned.target);
  });
  const more = filling && [...gone, ...there].find((statement) => !statement.same(filling));
  return (
    more && {
      at: more,
      says: `\`${subject}\` is filled in here, and \`${shortened(more.text)}\` is done as well`,
    }
  );
}

/** A branch that tests for a value, with at least so many statements in its ways together. */
function testedBranch(node: SyntaxNode, asks: readonly Asks[], atLeast: number) {
  const ways = waysOf(node);
  if (!ways || ways.yes.length + ways.no.length < atLeast || !isStatement(node)) return undefined;
  const test = presenceOf(ways.test);
  if (!asks.includes(test.asks)) return undefined;
  const [there, gone] = test.isThere ? [ways.yes, ways.no] : [ways.no, ways.yes];
  const subject = test.key ? `${test.subject.text}[${test.key.text}]` : test.subject.text;
  return { there, gone, test, subject: shortened(subject) };
}

/**
 * Why a branch is no choice that a reading takes: for a rule's author, who asks about one place. A sentence for every
 * node that branches.
 */
export function whyNoChoice(node: SyntaxNode, asks: readonly Asks[]): string | undefined {
  const ways = waysOf(node);
  if (!ways) return undefined;
  const test = presenceOf(ways.test);
  if (!asks.includes(test.asks))
    return `the test asks ${ASKED[test.asks]} of \`${shortened(test.subject.text)}\`, and the rule looks for tests that ask ${asks.map((one) => ASKED[one]).join(", or ")}`;
  return whyNoValue(node, ways) ?? whyOtherValue(node, ways);
}

const ASKED: Readonly<Record<Asks, string>> = {
  missing: "for all missing values",
  null: "for null",
  undefined: "for undefined",
  set: "whether it is set",
  loose: "for null in a loose comparison",
  value: "for the value in it",
  key: "for a key",
  member: "for a member by its name",
  callable: "whether it can be called",
  truth: "whether it is true",
};

function whyNoValue(node: SyntaxNode, { yes, no }: Ways): string | undefined {
  const more = yes.length > 1 ? yes[1] : no.length > 1 ? no[1] : undefined;
  if (more) return `a way does more than give a value: \`${shortened(more.text)}\``;
  const [a, b] = [yes[0], no[0]];
  const next = (b ?? a) ? neighbour(node, "after") : undefined;
  const [one, other] = a && b ? [a, b] : [a ?? b, next];
  if (!one || !other) return "there is one way only, and nothing follows it";
  return differenceOf(one, other) || !isStatement(node)
    ? undefined
    : `\`${shortened(one.text)}\` and \`${shortened(other.text)}\` differ in more than one value`;
}

function whyOtherValue(node: SyntaxNode, { test, yes, no }: Ways): string | undefined {
  const { subject, isThere, asks } = presenceOf(test);
  const [one, other] = [yes[0] ?? no[0], no[0] ?? neighbour(node, "after")];
  const apart = one && other && isStatement(node) ? differenceOf(one, other) : undefined;
  const values = apart ? [apart.one, apart.other] : [yes[0], no[0]];
  const value = values[isThere ? 0 : 1];
  if (!value || sameCode(value, subject)) return undefined;
  const is = asks === "truth" ? "true" : "there";
  return `where \`${shortened(subject.text)}\` is ${is}, the value is \`${shortened(value.text)}\``;
}
