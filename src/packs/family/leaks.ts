import {
  condition,
  declarationOfHole,
  fateOf,
  functionAround,
  isSeenElsewhere,
  rule,
  shortened,
  unknown,
  usesOf,
  waysOutWithout,
  yes,
} from "../../core.js";
import type { Hole, Kind, Match, Rule, Snippet, SyntaxNode, Trial, WayOut } from "../../core.js";

/** What a language's rule for leaks needs to know beside what holds everywhere. */
export interface LeakSpec {
  readonly id: string;
  /** The declaration or assignment of the variable. */
  readonly was: readonly Snippet[];
  readonly name: Hole;
  readonly made: Hole;
  /** Words of which a file must have one. */
  readonly mentions: NonNullable<Rule["mentions"]>;
  /** Is something acquired that must be released? */
  acquires(match: Match): boolean;
  /** The statement or call by which a use of the variable releases it; undefined for other uses. */
  release(use: SyntaxNode, match: Match): SyntaxNode | undefined;
  /** Are ways out by an exception worth a word? Not where the language frees what nobody refers to any more. */
  readonly byException: boolean;
  /** Is it worth a word that nothing releases it at all? */
  readonly never: boolean;
  /** The rules that mend the place, where they can. */
  readonly yieldsTo: readonly string[];
  readonly trials: readonly Trial[];
}

interface Leak {
  readonly says: string;
  readonly way: WayOut | undefined;
  readonly passedOn: SyntaxNode | undefined;
}

const KIND: Kind = "smell";

/** A rule that reports resources which some way out of the function does not release. */
export function leakRule(spec: LeakSpec): Rule {
  const { id, was, mentions, yieldsTo, trials } = spec;
  const known = new WeakMap<Match, Leak | undefined>();
  const leak = (match: Match): Leak | undefined => {
    if (!known.has(match)) known.set(match, leakIn(match, spec));
    return known.get(match);
  };
  return rule({
    id,
    kind: KIND,
    title: "Release the resource on every exit path",
    why: "A file, a lock or a connection that one way out forgets stays open until the program ends, and the next one waits for it.",
    was,
    mentions,
    yieldsTo,
    where: [(match) => spec.acquires(match), (match) => leak(match) !== undefined],
    given: [
      condition("nobody else releases it", (match) => {
        const { passedOn } = leak(match)!;
        return passedOn
          ? unknown(
              "flow.escapes",
              `\`${shortened(passedOn.text)}\` is given it and may release it`,
              passedOn,
            )
          : yes("flow.escapes", "it is handed to nobody");
      }),
      condition("the way out is really taken", (match) => {
        const { way } = leak(match)!;
        return way?.by === "exception"
          ? unknown("flow.throws", `\`${shortened(way.at?.text ?? "")}\` may throw`, way.at)
          : yes("flow.throws", "it needs no exception");
      }),
    ],
    advice: (match) => leak(match)!.says,
    trials,
  });
}

function leakIn(match: Match, spec: LeakSpec): Leak | undefined {
  const to = declarationOfHole(match, spec.name);
  const around = functionAround(match.node);
  if (!to || !around || (to.as !== "local" && isSeenElsewhere(to)) || !around.holds(to.at[0]!))
    return undefined;
  const { references, doubts } = usesOf(to);
  if (doubts.length > 0 && !match.tree.language.binding.dynamicScope) return undefined;
  const name = match.textOf(spec.name);
  const releases: SyntaxNode[] = [];
  let passedOn: SyntaxNode | undefined;
  for (const use of references) {
    if (use.node.start < match.node.start) continue;
    const release = spec.release(use.node, match);
    if (release) {
      releases.push(release);
      continue;
    }
    if (match.nodes.some((one) => one.holds(use.node))) continue;
    if (use.does === "write" || use.does === "update") return undefined;
    const fate = fateOf(use);
    if (fate === "passed on") passedOn ??= use.node.parent?.closest(match.tree.language.calls) ?? use.node;
    else if (fate !== "stays" || isScoped(use.node) || isHandedOnByMember(use.node)) return undefined;
  }
  if (releases.length === 0) {
    if (!spec.never || passedOn) return undefined;
    return { says: `\`${name}\` is never released`, way: undefined, passedOn };
  }
  const ways = waysOutWithout(match.node, releases, to);
  const way = ways?.find(({ by }) => by !== "exception" || spec.byException);
  if (!way || (way.by === "exception" && way.at && match.node.holds(way.at))) return undefined;
  const line = way.at ? ` (line ${way.at.line})` : "";
  const code = shortened(way.at?.text ?? "");
  const says =
    way.by === "exception"
      ? `\`${name}\` is not released when \`${code}\` throws${line}`
      : way.by === "return"
        ? `\`${name}\` is not released where \`${code}\` leaves${line}`
        : `\`${name}\` is released on some ways only, and not at the end of the function`;
  return { says, way, passedOn };
}

/** Does a `with`, a `using` or the like release it? */
function isScoped(use: SyntaxNode): boolean {
  const { resourceBlocks } = use.tree.language;
  const block = use.closest(resourceBlocks);
  const body = block?.child("body");
  return block !== undefined && body !== undefined && !body.holds(use);
}

/** Is a member of it stored or returned, which may keep it? */
function isHandedOnByMember(use: SyntaxNode): boolean {
  const { memberReads, calls } = use.tree.language;
  const access = use.parent;
  if (!access?.is(memberReads) || !access.firstPart?.same(use)) return false;
  const isCalled =
    access.is(calls) || (access.parent?.is(calls) === true && access.parent.firstPart?.same(access) === true);
  if (isCalled) return false;
  return (
    fateOf({ node: access, does: "read", to: undefined, captured: false, member: false, named: false }) !==
    "stays"
  );
}

/** The call around a use that is written just so: `release` has `handle` in the place of the variable. */
export function callWritten(
  use: SyntaxNode,
  name: string,
  releases: readonly string[],
): SyntaxNode | undefined {
  const { calls } = use.tree.language;
  const bare = (code: string): string =>
    code
      .replace(/\s+/g, "")
      .replace(/^await/, "")
      .replace(/;$/, "");
  const wanted = releases.map((release) => bare(release.replace(/\bhandle\b/g, () => name)));
  for (let at: SyntaxNode | undefined = use.parent, depth = 0; at && depth < 4; at = at.parent, depth++) {
    if (at.is(calls) && wanted.includes(bare(at.text))) return at;
  }
  return undefined;
}
