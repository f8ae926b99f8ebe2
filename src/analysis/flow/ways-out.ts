import { jumpOf, type SyntaxNode } from "../../syntax/index.js";
import type { Declaration } from "../names/declarations.js";
import type { Moment, Outcome } from "./graph.js";
import { isMissing } from "./missing.js";
import { questionOf, refersTo, saidByTest } from "./said.js";
import { flowAround, startOf } from "./questions.js";

/** How a function is left. */
export interface WayOut {
  readonly by: "return" | "end" | "exception";
  /** The jump or the code that throws; undefined at the end. */
  readonly at: SyntaxNode | undefined;
}

/**
 * The ways out of a function that do not pass any of some places, from one place on, or from the beginning of a function.
 * Those by an exception come last, calls first.
 * Ways on which a test says that the variable is missing, or false, do not count. Undefined where not all ways are known.
 */
export function waysOutWithout(
  from: SyntaxNode,
  goals: readonly SyntaxNode[],
  declaration: Declaration,
): readonly WayOut[] | undefined {
  const graph = flowAround(from);
  const starts = startOf(graph, from);
  if (graph.gap || starts.length === 0) return undefined;
  const passed = new Set(goals.flatMap((goal) => graph.within(goal)));
  const isStop = (moment: Moment): boolean => passed.has(moment) || saysMissing(moment, declaration);
  // The beginning of a `try` leads to its handlers, but nothing has gone wrong there yet.
  const throws = ({ node }: Moment): boolean => node !== undefined && !asksOnly(node, declaration);
  const reached = graph.after(starts, isStop, throws);
  const leads = (moment: Moment, to: Moment): boolean =>
    !isStop(moment) && graph.after([moment], isStop, throws).has(to);
  const found: WayOut[] = [];
  if (reached.has(graph.exit)) {
    const jumps = [...reached].filter(({ node }) => node && jumpOf(node) === "return");
    const leaving = jumps.filter((moment) => leads(moment, graph.exit));
    for (const { node } of leaving) found.push({ by: "return", at: node });
    if (leaving.length === 0 || endsOpenly(reached, graph.exit, isStop))
      found.push({ by: "end", at: undefined });
  }
  if (reached.has(graph.failure)) {
    const throwing = [...reached].filter(
      ({ node, thrown, next }) =>
        node && ((thrown && leadsOn(thrown, graph.failure)) || (jumpOf(node) === "throw" && next.length > 0)),
    );
    for (const { node } of throwing) found.push({ by: "exception", at: node });
  }
  const { calls } = from.tree.language;
  const rank = ({ by, at }: WayOut): number => ORDER[by] + (by === "exception" && !at?.is(calls) ? 1 : 0);
  return found.sort((a, b) => rank(a) - rank(b) || (a.at?.start ?? 0) - (b.at?.start ?? 0));

  function leadsOn(moment: Moment, to: Moment): boolean {
    return moment === to || leads(moment, to);
  }
}

/** Does a test say here that the variable holds nothing? A handle that counts as false is none. */
function saysMissing({ outcome }: Moment, declaration: Declaration): boolean {
  if (!outcome) return false;
  if (outcome.was === "false" && refersTo(outcome.test, declaration)) return true;
  const { missing, held, givenBack } = outcome.test.tree.language.flow.missing;
  const question = questionOf(outcome.test, declaration);
  if (question !== undefined && outcome.was === "true" && [...missing, ...givenBack].includes(question))
    return true;
  if (question !== undefined && outcome.was === "false" && held.includes(question)) return true;
  // What is not of the type of a handle is none.
  if (outcome.was === "false" && saidByTest({ ...outcome, was: "true" }, declaration) === "present")
    return true;
  return saidByTest(outcome, declaration) === "missing" || comparesWithNone(outcome, declaration);
}

/** Does an expression only ask whether the variable holds something? Such a question is not what goes wrong. */
function asksOnly(node: SyntaxNode, declaration: Declaration): boolean {
  const { missing, present, held, givenBack } = node.tree.language.flow.missing;
  const question = questionOf(node, declaration);
  if (question !== undefined) return [...missing, ...present, ...held, ...givenBack].includes(question);
  const isSaid = saidByTest({ test: node, was: "true" }, declaration) !== undefined;
  return isSaid || comparedWithNone(node, declaration) !== undefined;
}

/** `$file === false`, as PHP's functions say that they failed; `file !== undefined`, which asks for one missing value only. */
function comparesWithNone({ test, was }: Outcome, declaration: Declaration): boolean {
  const asked = comparedWithNone(test, declaration);
  return asked !== undefined && was === (asked === "equal" ? "true" : "false");
}

function comparedWithNone(test: SyntaxNode, declaration: Declaration): "equal" | "unequal" | undefined {
  const [left, right, ...more] = test.parts.filter((part) => !part.is(test.tree.language.operators));
  if (!left || !right || more.length > 0) return undefined;
  const isNone = (side: SyntaxNode): boolean => /^false$/i.test(side.text) || isMissing(side);
  const other = isNone(right) ? left : isNone(left) ? right : undefined;
  const { equal, unequal, exactly, kindWord } = test.tree.language.flow.missing;
  const asksKind = kindWord !== undefined && other?.text.startsWith(`${kindWord} `) === true;
  const subject = asksKind ? other.lastPart : other;
  if (!subject || !refersTo(subject, declaration)) return undefined;
  const operator = test.tree.text.slice(left.end, right.start).trim();
  if (equal.includes(operator) || exactly.equal.includes(operator)) return "equal";
  return unequal.includes(operator) || exactly.unequal.includes(operator) ? "unequal" : undefined;
}

/** Does a way come to the end of the function that is no `return`? */
function endsOpenly(reached: Set<Moment>, exit: Moment, isStop: (moment: Moment) => boolean): boolean {
  return [...reached].some(
    (moment) =>
      !isStop(moment) && moment.next.includes(exit) && !(moment.node && jumpOf(moment.node) === "return"),
  );
}

const ORDER: Readonly<Record<WayOut["by"], number>> = { return: 0, end: 1, exception: 2 };
