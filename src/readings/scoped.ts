import {
  isSideEffectFree,
  no,
  referencesAt,
  referencesOf,
  shortened,
  unknown,
  yes,
} from "../analysis/index.js";
import type { Answer, Declaration } from "../analysis/index.js";
import { compile, snippetFits, type Capture, type CapturePiece, type Hole } from "../pattern/index.js";
import { copy, lineEnd, reindent, text, type Edit, type Segment } from "../rewrite/index.js";
import { kindNamed, type Language, type SyntaxNode } from "../syntax/index.js";
import { assignedBy } from "./frame.js";
import { heldAt, type Held, type HeldForms } from "./held.js";
import type { NearMiss } from "./near.js";
import type { Reading, ReadingMatch } from "./reading.js";
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
  /** May a call acquire something? A place that is released in a way that is not followed is listed only then. */
  readonly acquires?: (made: SyntaxNode) => boolean;
}

/** A resource, with what becomes of the code around it. */
export interface Resource extends Held {
  /** The variables that are used later, and are declared ahead of the scoped form. */
  readonly hoisted: readonly Declaration[];
  /** Statements of handlers that are run after the release from now on. */
  readonly after: readonly SyntaxNode[];
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
  constructor(readonly forms: ScopedForms) {}

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
    const held = heldAt(node, forms);
    if (!held || held === "released elsewhere" || (forms.as === "straight" && held.guard)) return undefined;
    return matchOf(held, forms);
  }

  nearAt(node: SyntaxNode): NearMiss | undefined {
    const { acquires } = this.forms;
    const assigned = acquires && assignedBy(node);
    if (!assigned || !acquires(assigned.value) || heldAt(node, this.forms) !== "released elsewhere")
      return undefined;
    const { target, value } = assigned;
    return {
      at: node,
      says: `\`${shortened(target.text)}\` is given \`${shortened(value.text)}\` here, and released neither at the end of these statements nor in a \`finally\` for them`,
    };
  }

  whyNot(node: SyntaxNode): string {
    return heldAt(node, this.forms) === "released elsewhere"
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
  const edits = [...held.early.map(({ whole }) => goneEdit(whole)), ...hoisted.map(({ edit }) => edit)];
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
      forms,
      hoisted.map(({ says }) => says),
    ),
    resource: {
      ...held,
      hoisted: hoisted.map(({ to }) => to),
      after: guard?.acquires ? guard.handlers : [],
    },
    spelling: spellingOf(held, name.text),
  };
}

/** What stays ahead of the scoped form and behind it. */
function aroundOf(
  { gap, lead, guard, acquire, release, body }: Held,
  from: SyntaxNode,
  { takesHandlers = false }: ScopedForms,
  hoisted: readonly string[],
): NonNullable<ReadingMatch["around"]> {
  const { tree } = from;
  const base = tree.indentAt(from.start);
  const next = text(lineEnd(tree.text) + base);
  const stays = (statements: readonly SyntaxNode[]): Segment[] => {
    const piece = pieceOf(statements, []);
    if (!piece) return [];
    const { start, end } = piece;
    return [copy(start, end, reindent(tree, start, end, tree.indentAt(start), base)), next];
  };
  const before = [...hoisted.flatMap((says) => [text(says), next]), ...stays(gap)];
  const isKept = guard !== undefined && (guard.handlers.length > 0 || guard.more.length > 0);
  if (!isKept || (!guard.acquires && guard.more.length === 0))
    return { before: [...before, ...stays(lead)], after: [], at: from.start };
  const gone = lastlyEdit(guard, release);
  const { node, list } = guard;
  if (takesHandlers && lead.length === 0 && guard.acquires)
    return {
      before,
      after: [{ start: list.end, end: node.end, edits: [gone], stays: true }],
      at: from.start,
    };
  const named = list.same(node) ? guard.statements : list.children.filter((child) => child.named);
  const end = Math.max(acquire.end, body.at(-1)?.end ?? 0, ...named.map((child) => child.end));
  // What is acquired ahead of the `try` is acquired in it now.
  const inner = guard.acquires ? acquire : guard.statements[0]!;
  return {
    before: [...before, copy(node.start, inner.start)],
    after: [{ start: end, end: node.end, edits: [gone], stays: true }],
    at: inner.start,
  };
}

/** Takes the release out of the clause that is always run at last, or the clause where nothing else is in it. */
function lastlyEdit({ lastly, more, node }: NonNullable<Held["guard"]>, release: Held["release"]): Edit {
  if (more.length > 0) return goneEdit(release.whole);
  const at = node.parts.findIndex((part) => part.same(lastly));
  return { start: node.parts[at - 1]!.end, end: lastly.end, text: "" };
}

/** Takes a statement out, with its line where it has one to itself. */
function goneEdit({ tree, start, end }: SyntaxNode): Edit {
  const { text: code } = tree;
  const separated = new RegExp(`^[ \\t]*(?:${tree.language.statementSeparator ?? ""}[ \\t]*)?`);
  const rest = /^[ \t]*(\r?\n)?/.exec(code.slice(end))!;
  const line = tree.lineStart(tree.lineAt(start));
  const isAlone = rest[1] !== undefined && code.slice(line, start).trim() === "";
  return isAlone
    ? { start: line, end: end + rest[0].length, text: "" }
    : { start, end: end + separated.exec(code.slice(end))![0].length, text: "" };
}

function pieceOf(statements: readonly SyntaxNode[], edits: readonly Edit[]): CapturePiece | undefined {
  const [one, other] = [statements[0], statements.at(-1)];
  if (!one || !other) return undefined;
  const [start, end] = [one.start, other.end];
  return {
    nodes: statements.map(({ id }) => id),
    start,
    end,
    edits: edits.filter((edit) => start <= edit.end && edit.end <= end).sort((a, b) => a.start - b.start),
  };
}

/** Comments on lines of their own ahead of a `try` that goes. */
function commentsAhead({ guard, acquire, ahead }: Held): CapturePiece | undefined {
  if (!guard || guard.acquires || guard.more.length > 0) return undefined;
  const { tree, start } = guard.node;
  const from = ahead.at(-1)?.end ?? acquire.end;
  const comments = tree
    .commentsIn(from, start)
    .filter((n) => tree.firstOnLine(tree.starts[n]!) === tree.starts[n]);
  const [first, last] = [comments[0], comments.at(-1)];
  return first === undefined
    ? undefined
    : { nodes: [], start: tree.starts[first]!, end: tree.ends[last!]!, edits: [] };
}

/** A variable that is declared ahead of a scoped form from now on. */
interface Hoisted {
  readonly to: Declaration;
  readonly says: string;
  readonly edit: Edit;
  /** The statement, where all of it goes ahead. */
  readonly whole?: SyntaxNode;
}

/** Variables that are declared while a resource is held without a `try`, and used later. */
function usedLater({ guard, ahead, body, acquire }: Held, end: number): Hoisted[] {
  const statements = guard ? ahead : body;
  return statements.flatMap((statement, i) => {
    const assigned = assignedBy(statement);
    if (!assigned?.declares || !assigned.target.isLeaf) return [];
    const { target } = assigned;
    const to = referencesAt(target).find(({ member }) => !member)?.to;
    if (!to || !referencesOf(to).some(({ node }) => node.start >= end)) return [];
    // Ahead of its declaration the name means something else.
    const sooner = [acquire, ...statements.slice(0, i)];
    if (sooner.some((one) => one.mentions(target.text).length > 0)) return [];
    // A literal is the same wherever it stands.
    if (isLiteral(assigned.value))
      return [{ to, says: statement.text, whole: statement, edit: goneEdit(statement) }];
    const declared = declaredWithout(statement, target, assigned.value);
    return declared === undefined
      ? []
      : [{ to, says: declared, edit: { start: statement.start, end: target.start, text: "" } }];
  });
}

function isLiteral(value: SyntaxNode): boolean {
  const { literals, strings, plainValues } = value.tree.language;
  return value.is(literals) || value.is(strings) || value.is(plainValues);
}

/** A declaration without its value: `int n;`, `let n;`; undefined where the type comes from the value. */
function declaredWithout(
  { tree, start, parts, kind }: SyntaxNode,
  name: SyntaxNode,
  value: SyntaxNode,
): string | undefined {
  if (tree.text.slice(name.end, value.start).trim() !== "=") return undefined;
  if (kind === "lexical_declaration") return `let ${name.text};`;
  const type = [...name.ancestors()].map((above) => above.child("type")).find((one) => one !== undefined);
  // The items of an array can only be listed where it is declared.
  if (!type || type.text === "var" || parts.length === 0 || value.text.startsWith("{")) return undefined;
  return `${tree.text.slice(start, name.end)};`;
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
