import {
  canThrow,
  condition,
  leavesEarly,
  nameInFile,
  no,
  referencesAt,
  shortened,
  unknown,
  valuesGiven,
  yes,
} from "../../core.js";
import type { Answer, Condition, Hole, Match, SyntaxNode } from "../../core.js";

/** The name that an expression ends in, where it is a variable or a member: `gate` of `self.gate`. */
function lastName(expression: SyntaxNode): SyntaxNode | undefined {
  return [...expression.descendants()].findLast((node) => node.isLeaf && node.named);
}

/** The values that the code of the class around, or of the file, gives a member; undefined where it cannot be told. */
export function valuesGivenTo(member: SyntaxNode): readonly SyntaxNode[] | undefined {
  const leaf = lastName(member);
  const to = leaf && referencesAt(leaf).find((one) => one.to)?.to;
  return to && valuesGiven(to);
}

/** Is all that the class around gives a member of the kind that is wanted? Undefined where it gives nothing, or something else. */
export function givenInClass(member: SyntaxNode, fits: (value: SyntaxNode) => boolean): Answer | undefined {
  const values = valuesGivenTo(member);
  if (!values || values.length === 0 || !values.every(fits)) return undefined;
  return yes(
    "flow.written",
    `\`${shortened(member.text)}\` is given \`${shortened(values[0]!.text)}\``,
    values[0],
  );
}

/** What is left open where only the class around was looked at: what others do. */
export function othersMayGive(member: SyntaxNode): Answer {
  return unknown(
    "flow.written",
    `another class could give \`${shortened(member.text)}\` something else`,
    member,
  );
}

/**
 * The lock is the same object when it is let go: a variable or member that is given a value once, or to which nothing in
 * between can give another.
 */
export function isSameThroughout(lock: SyntaxNode, body: readonly SyntaxNode[]): Answer {
  const { calls, indexReads } = lock.tree.language;
  const shown = shortened(lock.text);
  const worked = [...lock.descendants()].find((one) => one.is(indexReads) || isCalled(one));
  if (worked) return no("flow.written", `\`${shown}\` is worked out again where the lock is let go`, worked);
  const leaf = lastName(lock);
  const to = leaf && referencesAt(leaf).find((one) => one.to)?.to;
  const writes = (leaf ? nameInFile(leaf.tree.language.binding.bare(leaf), lock.tree).references : []).filter(
    (one) => one.to === to && /^(write|update|address)$/.test(one.does),
  );
  const written = writes.find(({ node }) => body.some((one) => one.holds(node)));
  if (written) return no("flow.written", `\`${shown}\` is another object from here on`, written.node);
  if (to && (to.as === "parameter" || to.as === "local" || writes.length <= 1) && to.as !== "import")
    return yes("flow.written", `\`${shown}\` is given a value once, or only in this function`, to.at[0]);
  const call = body.flatMap((one) => [...one.descendants()]).find((one) => one.is(calls));
  return call
    ? unknown("flow.written", `\`${shortened(call.text)}\` could give \`${shown}\` another object`, call)
    : yes("flow.written", `\`${shown}\` is not written meanwhile`, lock);
}

/** Is this a call with arguments, and not a bare member read as Ruby has it? */
function isCalled(node: SyntaxNode): boolean {
  const { calls, argumentLists } = node.tree.language;
  return node.is(calls) && node.parts.some((part) => part.is(argumentLists));
}

/**
 * A lock that no `finally` let go stayed taken when something in between threw or left, and is let go now. Somebody may
 * rely on either.
 */
export function letGoSooner(body: Hole, isStraight: (match: Match) => boolean): Condition {
  return condition("nothing in between throws or leaves with the lock taken", (match) => {
    if (!isStraight(match)) return yes("resource.every-path", "the old code lets it go on every path too");
    const statements = match.all(body);
    const { is, evidence } = leavesEarly(body).ask(match);
    if (is === "yes")
      return unknown(
        "resource.every-path",
        `${evidence.says} with the lock taken, which may be meant`,
        evidence,
      );
    const thrower = statements.map(canThrow).find(({ is }) => is !== "no");
    return thrower
      ? unknown(
          "resource.sooner",
          `${thrower.evidence.says}; the lock is let go then, and stayed taken before`,
          thrower.evidence,
        )
      : yes("resource.sooner", "nothing in between throws or leaves");
  });
}
