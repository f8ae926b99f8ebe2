import { removal } from "../rewrite/index.js";
import { isSideEffectFree, no, shortened, unknown, yes, type Answer } from "../analysis/index.js";
import { compile, snippetFits, type Capture, type Hole } from "../pattern/index.js";
import { kindNamed, oncePerNode, type Language, type SyntaxNode } from "../syntax/index.js";
import { assignedBy } from "./frame.js";
import { heldAt, type Held, type HeldForms } from "./held.js";
import { usedLater } from "./hoisted.js";
import type { NearMiss } from "./near.js";
import { aroundOf, commentsAhead, lastlyEdit, pieceOf } from "./pieces.js";
import type { Reading, ReadingMatch } from "./reading.js";
import type { Release } from "./releases.js";
import { neighbour } from "./ways.js";

/** A resource as a rule's author describes it. */
export interface ScopedForms extends HeldForms {
  /** What happens while it is held: all statements that are to stand in the scoped form. */
  readonly body: Hole;
  /** Only these ways of releasing; all of them where it is left out. */
  readonly as?: "straight";
  /** Does the scoped form have handlers and a last clause of its own, so that those of the `try` become its? */
  readonly takesHandlers?: boolean;
  /** Does the scoped form hide what is declared in it, so that what is used later is declared ahead of it? */
  readonly hides?: boolean;
}

/**
 * What is acquired, used and released, whatever stands in between: at once or with the variable declared first, inside of
 * the `try` or ahead of it, in `finally` or at the end, behind a test, with an early exit that releases by itself, quietly.
 * The replacement is the scoped form; handlers, and statements that are not run while the resource is held, stay around it.
 */
export function scoped(forms: ScopedForms): Reading {
  return new ScopedReading(forms);
}

class ScopedReading implements Reading {
  readonly #heldAt: (statement: SyntaxNode) => ReturnType<typeof heldAt>;

  constructor(readonly forms: ScopedForms) {
    this.#heldAt = oncePerNode((statement) => heldAt(statement, forms));
  }

  kindsIn(language: Language): readonly string[] {
    const { acquire, later } = this.forms;
    const begins = [...acquire, ...(later ? [later.declare] : [])];
    const patterns = begins.flatMap((snippet) =>
      snippetFits(snippet, language.id) ? compile(snippet, language.id) : [],
    );
    return [...new Set(patterns.map(({ rootKind }) => kindNamed(language, rootKind)))];
  }

  wordsIn(): undefined {
    return undefined;
  }

  readAt(node: SyntaxNode): ReadingMatch | undefined {
    const { forms } = this;
    const held = this.#heldAt(node);
    if (!held || held === "released elsewhere" || (forms.as === "straight" && held.guard)) return undefined;
    return matchOf(held, forms);
  }

  nearAt(node: SyntaxNode): NearMiss | undefined {
    const { acquires } = this.forms;
    if (!acquires || this.#heldAt(node) !== "released elsewhere") return undefined;
    const assigned = assignedBy(node);
    if (!assigned || !acquires(assigned.value)) return undefined;
    const { target, value } = assigned;
    return {
      at: node,
      says: `\`${shortened(target.text)}\` is given \`${shortened(value.text)}\` here, and released neither at the end of these statements nor in a \`finally\` for them`,
    };
  }

  whyNot(node: SyntaxNode): string {
    return this.#heldAt(node) === "released elsewhere"
      ? "it is released in a place that is neither at the end of these statements nor in a `finally` for them"
      : "nothing that is acquired here is released in a way that the rule knows";
  }
}

function matchOf(held: Held, forms: ScopedForms): ReadingMatch {
  const { guard, first, release, captures, name } = held;
  const { tree } = first;
  const last = guard?.node ?? release.whole;
  const list = last.parent!.parts;
  const from = guard?.acquires && guard.list.holds(first) ? last : first;
  const [a, b] = [from, last].map((node) => list.findIndex((part) => part.same(node))) as [number, number];
  const nodes = list.slice(a, b + 1);
  const hoisted = forms.hides ? usedLater(held, last.end) : [];
  const edits = [...held.early.map(({ whole }) => removal(whole)), ...hoisted.map(({ edit }) => edit)];
  const moved = hoisted.flatMap(({ whole }) => whole ?? []);
  const stays = (statement: SyntaxNode): boolean => !moved.some((one) => one.same(statement));
  const isKept = guard !== undefined && (guard.handlers.length > 0 || guard.more.length > 0);
  const staysInside = isKept && !guard.acquires && guard.more.length === 0;
  const pieces = [
    pieceOf(held.ahead.filter(stays), edits),
    staysInside ? undefined : commentsAhead(held),
    staysInside
      ? pieceOf([guard.node], [lastlyEdit(guard, release)])
      : pieceOf(held.body.filter(stays), edits),
  ].filter((piece) => piece !== undefined);
  const body: Capture = {
    tree,
    nodes: pieces.flatMap((piece) => piece.nodes),
    start: pieces[0]?.start ?? held.acquire.end,
    end: pieces.at(-1)?.end ?? held.acquire.end,
    pieces,
  };
  return {
    pattern: undefined,
    tree,
    nodes: nodes.map(({ id }) => id),
    start: from.start,
    end: last.end,
    captures: new Map([...captures, [forms.body, body]]),
    isStatements: true,
    tests: [],
    frame: undefined,
    around: aroundOf(
      held,
      from,
      forms.takesHandlers === true,
      hoisted.map(({ says }) => says),
    ),
    resource: {
      ...held,
      hoisted: hoisted.map(({ to }) => to),
      after: guard?.acquires ? guard.handlers : [],
    },
    spelling: [
      ...(forms.as === "straight" ? staysPlain(release, name.text) : []),
      ...spellingOf(held, name.text),
    ],
  };
}

/** Where the new code releases by the same statement, what stood around that statement would be gone. */
function staysPlain({ whole, statement }: Release, name: string): Answer[] {
  if (whole.same(statement)) return [];
  const says = `\`${name}\` is released in \`${shortened(whole.text)}\`, of which only the release would be left`;
  return [no("resource.failed", says, whole)];
}

/** What must hold for the spelling to mean the same as a scoped form. */
function spellingOf({ gap, lead, guard, release, early, ahead }: Held, name: string): Answer[] {
  const answers: Answer[] = [];
  const more = guard?.more ?? [];
  const used = [...gap, ...lead, ...more].flatMap((one) => one.mentions(name))[0];
  if (used)
    answers.push(no("resource.used-after", `\`${name}\` is used outside of what becomes its scope`, used));
  const [other] = more;
  if (other && (!guard!.isFirst || (!guard!.acquires && guard!.handlers.length > 0)))
    answers.push(no("resource.order", `\`${shortened(other.text)}\` is done in the same \`finally\``, other));
  else if (other && !guard!.acquires)
    answers.push(
      unknown(
        "resource.order",
        `where \`${name}\` cannot be acquired, \`${shortened(other.text)}\` is run now, and was not before`,
        other,
      ),
    );
  const handler = guard?.acquires ? guard.handlers.flatMap((one) => one.mentions(name))[0] : undefined;
  if (handler)
    answers.push(no("resource.order", `\`${name}\` is closed before this handler runs now`, handler));
  const given = more.length > 0 && !guard!.acquires ? ahead.flatMap((one) => assignedBy(one) ?? []) : [];
  const later = given.find(({ target }) => more.some((one) => one.mentions(target.text).length > 0));
  if (later)
    answers.push(
      no(
        "resource.order",
        `\`${shortened(later.target.text)}\` could have no value yet in the \`finally\``,
        later.target,
      ),
    );
  const comment = commentIn(release);
  if (comment)
    answers.push(
      no(
        "resource.same-release",
        `a comment says why what goes wrong while \`${name}\` is released is passed over`,
        comment,
      ),
    );
  const [instead] = release.instead;
  if (instead)
    answers.push(
      no(
        "resource.same-release",
        `\`${shortened(instead.text)}\` is done where releasing \`${name}\` fails, and would not be any more`,
        instead,
      ),
    );
  else if (release.quiet)
    answers.push(
      unknown(
        "resource.same-release",
        `what goes wrong while \`${name}\` is released is passed over here`,
        release.whole,
      ),
    );
  for (const { whole, instead: done } of early) {
    const jump = neighbour(whole, "after")!;
    const late = jump.parts.find((part) => isSideEffectFree(part).is !== "yes");
    if (late)
      answers.push(
        unknown(
          "resource.order",
          `\`${shortened(late.text)}\` is worked out before \`${name}\` is released now, and was after it`,
          late,
        ),
      );
    if (done[0])
      answers.push(
        no("resource.same-release", `\`${shortened(done[0].text)}\` would not be done any more`, done[0]),
      );
  }
  if (early.length > 0)
    answers.push(
      yes("resource.every-path", `\`${name}\` is released ahead of each early exit`, early[0]!.whole),
    );
  return answers;
}

/** A comment in the handlers around a release. */
function commentIn({ whole, quiet }: Held["release"]): SyntaxNode | undefined {
  const { tree, start, end } = whole;
  const [first] = quiet ? tree.commentsIn(start, end) : [];
  return first === undefined ? undefined : tree.node(first);
}
