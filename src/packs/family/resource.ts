import {
  caution,
  type Evidence,
  canThrow,
  condition,
  declarationOfHole,
  exitsOf,
  jumpOf,
  shapeOf,
  fateOf,
  isRead,
  nameInFile,
  no,
  referencesAt,
  referencesOf,
  runsLater,
  bodyAround,
  shortened,
  unknown,
  unprotected,
  yes,
} from "../../core.js";
import type {
  Answer,
  Condition,
  Declaration,
  Hole,
  Match,
  Reference,
  Resource,
  SyntaxNode,
} from "../../core.js";

/** The holes that patterns of a resource have in common: its variable, and what happens while it is held. */
export interface ResourceHoles {
  readonly name: Hole;
  readonly body: Hole;
}

/** Every use of the resource's variable in the function or class around the match. */
export function usesOfResource(match: Match, name: Hole): readonly Reference[] {
  const node = match.the(name);
  const to = declarationOfHole(match, name);
  if (to) return referencesOf(to);
  const around = bodyAround(match.node);
  return nameInFile(node.text, match.tree).references.filter((one) => !one.member && around.holds(one.node));
}

/** The uses between acquiring and releasing, without the releases that the new form makes needless. */
export function usesInside(match: Match, { name, body }: ResourceHoles): readonly Reference[] {
  const statements = match.all(body);
  const { release, early = [] } = resourceOf(match) ?? {};
  const releases = [...(release ? [release] : []), ...early];
  return usesOfResource(match, name).filter(
    ({ node }) =>
      statements.some((one) => one.holds(node)) && !releases.some(({ whole }) => whole.holds(node)),
  );
}

function resourceOf({ found }: Match): Resource | undefined {
  return isRead(found) ? found.resource : undefined;
}

/** The uses before and behind the matched code. */
export function usesOutside(match: Match, { name }: ResourceHoles): readonly Reference[] {
  const { start, end } = match.found;
  return usesOfResource(match, name).filter(({ node }) => node.start < start || node.start >= end);
}

/** What is acquired and released with nothing in between needs no scope. */
export function somethingBetween({ body }: ResourceHoles): Condition {
  return condition("something happens while it is held", (match) =>
    match.all(body).length > 0
      ? yes("form.worthwhile", "something happens while it is held")
      : no("form.worthwhile", "nothing happens between acquiring and releasing", match.node),
  );
}

/** The variable keeps the resource it was given. */
export function keptInPlace(holes: ResourceHoles): Condition {
  return condition("its variable is given nothing else meanwhile", (match) => {
    const inside = usesInside(match, holes);
    const written = inside.find(({ does }) => does === "write" || does === "update");
    const name = match.textOf(holes.name);
    if (written) return no("flow.written", `\`${name}\` is acquired anew here`, written.node);
    const address = inside.find(({ does }) => does === "address");
    return address
      ? no("flow.written", `\`${name}\` can be given something else through a reference`, address.node)
      : yes("flow.written", `\`${name}\` keeps what it was given`);
  });
}

/** Released in the one place that the pattern knows. `releases` tells a use that releases too. */
export function releasedOnce(holes: ResourceHoles, releases: (use: SyntaxNode) => boolean): Condition {
  return condition("it is released in one place", (match) => {
    const [again] = resourceOf(match)?.others ?? [];
    const other = again?.statement ?? usesInside(match, holes).find(({ node }) => releases(node))?.node;
    return other
      ? no("resource.released-once", "it is released in another place too", other)
      : yes("resource.released-once", "it is released in one place");
  });
}

/** Where a scoped form ends, the variable is gone. */
export function notUsedOutside(holes: ResourceHoles): Condition {
  return condition("its variable is not used outside", (match) => {
    const at = declarationOfHole(match, holes.name)?.at ?? [];
    const outside = usesOutside(match, holes).find(({ node }) => !at.some((one) => one.same(node)));
    const name = match.textOf(holes.name);
    return outside
      ? no("resource.used-after", `\`${name}\` is used outside of what becomes its scope`, outside.node)
      : yes("resource.used-after", `\`${name}\` is used nowhere else`);
  });
}

/** Where the body becomes a block of its own, what it declares is not seen behind it any more. */
export function declaresNothingForLater({ body }: ResourceHoles): Condition {
  return condition("nothing that is declared meanwhile is used afterwards", (match) => {
    const later = declaredForLater(match, body);
    return later
      ? no("name.scope", `\`${later.use.text}\` is used behind what becomes a block`, later.use)
      : yes("name.scope", "what is declared in the block is used only there");
  });
}

/** A use behind the match of something that is first named in the body. */
export function declaredForLater(match: Match, body: Hole): { use: SyntaxNode; to: Declaration } | undefined {
  const { start, end } = match.found;
  const statements = match.all(body);
  const around = bodyAround(match.node);
  const seen = new Set<string>();
  const { hoisted = [] } = resourceOf(match) ?? {};
  for (const statement of statements) {
    for (const node of statement.descendants()) {
      if (!node.isLeaf || !node.named || seen.has(node.text) || runsLater(node, statement)) continue;
      const to = referencesAt(node).find(({ member }) => !member)?.to;
      if (!to || hoisted.includes(to) || !around.holds(to.at[0]!)) continue;
      seen.add(node.text);
      const declares = to.at.every((at) => statements.some((one) => one.holds(at)) || at.start > end);
      if (!declares || to.at[0]!.start < start || to.at[0]!.start > end) continue;
      if (statements.some((one) => one.holds(to.scope))) continue;
      const later = referencesOf(to).find((one) => one.node.start >= end);
      if (later) return { use: later.node, to };
    }
  }
  return undefined;
}

/**
 * On the way that runs to the end nothing changes where code by hand has no `finally`; on the others the resource
 * is now released. Does anyone still need it then?
 */
export function nobodyNeedsIt(
  holes: ResourceHoles,
  unprotected: Releasing["unprotected"] = unprotectedIn,
): Condition {
  return condition("nobody needs it after an early exit", (match): Answer => {
    const statements = unprotected(match);
    if (statements.length === 0)
      return yes("resource.every-path", "the old code releases it on every path too");
    const name = match.textOf(holes.name);
    let doubt: Answer | undefined;
    for (const use of usesInside(match, holes)) {
      const fate = fateOf(use);
      const statement = statements.find((one) => one.holds(use.node));
      if (!statement) continue;
      if (runsLater(use.node, statement))
        return no("resource.used-after", `\`${name}\` is used in a function that may run later`, use.node);
      if (fate === "passed on") {
        if (isHandedOut(use.node)) return no("resource.used-after", `\`${name}\` is handed on`, use.node);
        const call = callAround(use.node);
        doubt ??= unknown(
          "resource.used-after",
          `\`${shortened(call?.text ?? use.node.text)}\` could keep it and use it after an exception`,
          use.node,
        );
      } else if (fate !== "stays") return no("resource.used-after", `\`${name}\` is ${fate}`, use.node);
      const part = fateOfPart(use);
      if (part?.is === "no") return part;
      doubt ??= part;
    }
    const outside = usesOutside(match, holes).find(({ does }) => does !== "declare" && does !== "write");
    const { functions } = match.tree.language;
    if (outside) {
      for (const above of match.node.ancestors()) {
        if (above.is(functions)) break;
        if (shapeOf(above)?.is === "try")
          return no("resource.used-after", `\`${name}\` may still be used after an exception`, outside.node);
      }
      const exit = exitsOf(statements).find((node) => /break|continue/.test(jumpOf(node) ?? ""));
      if (exit)
        return no(
          "resource.used-after",
          `\`${name}\` may still be used after \`${shortened(exit.text)}\``,
          outside.node,
        );
    }
    return doubt ?? yes("resource.used-after", `\`${name}\` is used only here`);
  });
}

/** Members that say something of the resource and do not need it any more. */
const PLAIN =
  /^(name|mode|encoding|errors|newlines|closed|length|size|path|read\w*|readline\w*|Read\w*|tell|fileno|getvalue|toString|ToString|Length|Name|isClosed|available|gets|eof\??|pos|lineno|count)$/;

/** What is read or called of the resource may leave with the result of the function; undefined where it does not. */
function fateOfPart(use: Reference): Answer | undefined {
  const { language } = use.node.tree;
  const access = use.node.parent;
  if (!access?.is(language.memberReads) || !access.firstPart?.same(use.node)) return undefined;
  const member = access.parts.find((part, i) => i > 0 && part.isLeaf)?.text ?? "";
  if (PLAIN.test(member) && isCalled(access)) return undefined;
  let whole = access.is(language.calls) ? access : isCalled(access) ? access.parent! : access;
  if (/^await/.test(whole.parent?.kind ?? "")) whole = whole.parent!;
  const fate = fateOf({ ...use, node: whole });
  const isPlain = PLAIN.test(member) && !/^(read|Read)/.test(member);
  if (isPlain || fate === "stays" || (fate === "passed on" && !isHandedOut(whole))) return undefined;
  const shown = shortened(whole.text);
  return isCalled(access)
    ? unknown("resource.used-after", `what \`${shown}\` gives could need it after an early exit`, whole)
    : no("resource.used-after", `\`${shown}\` is kept or handed on`, whole);
}

function isCalled(access: SyntaxNode): boolean {
  const { calls } = access.tree.language;
  return (
    access.is(calls) || (access.parent?.is(calls) === true && access.parent.firstPart?.same(access) === true)
  );
}

/** The call that a node is an argument of. */
function callAround(node: SyntaxNode): SyntaxNode | undefined {
  const { calls } = node.tree.language;
  return node.parent?.closest(calls);
}

/** Is the call that takes it returned as it is, so that the resource may leave with the result? */
function isHandedOut(argument: SyntaxNode): boolean {
  const { calls, suspensions } = argument.tree.language;
  for (let call = callAround(argument); call; call = call.parent?.closest(calls)) {
    const { parent } = call;
    if (parent?.is(suspensions)) return true;
    if (parent && jumpOf(parent) === "return") return true;
    if (!parent?.is(argument.tree.language.argumentLists)) return false;
  }
  return false;
}

/** How a rule's old code releases, and what it releases. */
export interface Releasing {
  /** The statements after which the old code did not release where they threw or left early. */
  unprotected(match: Match): readonly SyntaxNode[];
  /** Can nobody outside of this code see when it is released? */
  isUnseen(match: Match): boolean;
}

/** The statements of a reading that were not protected by a `finally`. */
export function unprotectedIn(match: Match): readonly SyntaxNode[] {
  return unprotected(match.resource);
}

/** What in some statements may throw, or leave before the end without a release. */
function leavesEarly(match: Match, statements: readonly SyntaxNode[]): Answer | undefined {
  const { early = [] } = resourceOf(match) ?? {};
  const isReleased = (exit: SyntaxNode): boolean =>
    early.some(({ whole }) => whole.parent?.same(exit.parent) && whole.end <= exit.start);
  const exit = exitsOf(statements).find((one) => !isReleased(one));
  if (exit) return unknown("resource.every-path", `\`${shortened(exit.text)}\` leaves before the end`, exit);
  return statements.map(canThrow).find(({ is }) => is !== "no");
}

/**
 * Where no `finally` released it, it is released now when something in between throws. That makes no difference where
 * nothing does, or where nobody can see it.
 */
export function releasedSooner({ name }: ResourceHoles, releasing: Releasing): Condition {
  return condition("nobody notices that it is released sooner when something in between throws", (match) => {
    const statements = releasing.unprotected(match);
    if (statements.length === 0)
      return yes("resource.every-path", "the old code releases it on every path too");
    const early = leavesEarly(match, statements);
    if (!early) return yes("resource.sooner", "nothing in between throws or leaves");
    const { says } = early.evidence;
    const shown = match.textOf(name);
    return releasing.isUnseen(match)
      ? yes("resource.sooner", `nobody outside of this code sees when \`${shown}\` is released`)
      : unknown(
          "resource.sooner",
          `${says}; \`${shown}\` is released then, and was not before`,
          early.evidence,
        );
  });
}

/** The note of a rule whose old code released at the end only. */
export function soonerNote(match: Match, { name }: ResourceHoles, releasing: Releasing): string[] {
  if (!releasing.isUnseen(match) || !leavesEarly(match, releasing.unprotected(match))) return [];
  return [`when something in between throws, \`${match.textOf(name)}\` is released at once now`];
}

/** The caution of such a rule, where somebody may see it. */
export function soonerCaution(match: Match, { name }: ResourceHoles, releasing: Releasing): Evidence[] {
  if (releasing.isUnseen(match) || !leavesEarly(match, releasing.unprotected(match))) return [];
  return [
    caution(
      "resource.sooner",
      `when something in between throws, \`${match.textOf(name)}\` is released at once now, and stayed open before`,
    ),
  ];
}

/**
 * What must hold where the body becomes a block of its own that the variable is seen in, as in Java and C#.
 * `releases` tells a use that releases.
 */
export function blockConditions(
  holes: ResourceHoles,
  releasing: Releasing,
  releases: (use: SyntaxNode) => boolean,
): Condition[] {
  return [
    somethingBetween(holes),
    keptInPlace(holes),
    releasedOnce(holes, releases),
    notUsedOutside(holes),
    nobodyNeedsIt(holes, releasing.unprotected),
    releasedSooner(holes, releasing),
    declaresNothingForLater(holes),
  ];
}

/**
 * Where acquiring fails, the old code may have failed in releasing nothing, unless it asked. To ask a variable that was
 * never given a value is an error as well, but where it reads as a missing one.
 */
export function failsTheSame({
  name,
  made,
  unsetIs = "an error",
}: ResourceHoles & { readonly made: Hole; readonly unsetIs?: "missing" | "an error" }): Condition {
  const asks = (match: Match): boolean => {
    const { release, first, acquire } = match.resource;
    return release.tested && (!first.same(acquire) || unsetIs === "missing");
  };
  return condition(
    "what is released is there",
    (match) =>
      asks(match)
        ? yes("resource.failed", `the old code asks whether \`${match.textOf(name)}\` is there`)
        : unknown(
            "resource.failed",
            `where \`${shortened(match.textOf(made))}\` fails, the old code failed again in releasing \`${match.textOf(name)}\``,
            match.node,
          ),
    { when: (match) => match.resource.guard?.acquires === true },
  );
}

/** Is something released without a question whether it is there, once acquiring it has not failed? */
export function isReleasedAnyway({ resource }: Match): boolean {
  const { release, guard } = resource;
  return !release.tested && !release.quiet && guard?.acquires !== true;
}

/** What a scoped form does otherwise than the code by hand did, beside releasing sooner. */
export function scopedCautions(match: Match, { name }: ResourceHoles): Evidence[] {
  const { release, after, guard } = match.resource;
  const what = match.textOf(name);
  const result: Evidence[] = [];
  if (after.length > 0)
    result.push(
      caution("resource.order", `when closing \`${what}\` throws, the handler now catches it`),
      caution("resource.order", `\`${what}\` is now closed before the handler runs, not after it`),
    );
  if (release.quiet)
    result.push(
      caution(
        "resource.same-release",
        `when releasing \`${what}\` fails, the exception is seen now, and was passed over before`,
      ),
    );
  const [more] = guard?.more ?? [];
  if (more)
    result.push(
      caution(
        "resource.order",
        `when releasing \`${what}\` fails, \`${shortened(more.text)}\` is done all the same now`,
      ),
    );
  return result;
}
