import { isMissing, runsLater, type Declaration } from "../analysis/index.js";
import {
  compile,
  fill,
  matchOneAt,
  snippetFits,
  type Capture,
  type Hole,
  type Snippet,
} from "../pattern/index.js";
import { jumpOf, shapeOf, type SyntaxNode } from "../syntax/index.js";
import { releasesOf, type Release, type ReleaseForm } from "./releases.js";
import { neighbour } from "./ways.js";

type Captures = ReadonlyMap<Hole, Capture>;

/** How a resource is acquired and released, in the words of a language. */
export interface HeldForms {
  readonly name: Hole;
  readonly made: Hole;
  /** The statement that acquires it and declares its variable; where nothing is declared, the only one. */
  readonly acquire: readonly Snippet[];
  /** Where the variable is declared first: that statement, with nothing in the variable, and the one that acquires. */
  readonly later?: { readonly declare: Snippet; readonly acquire: Snippet };
  readonly release: readonly ReleaseForm[];
  /** Which expressions are known to acquire one; all others are passed over, unless the rule `guesses`. */
  readonly acquires?: (made: SyntaxNode) => boolean;
  /** Are other expressions taken too, of which a condition then asks? */
  readonly guesses?: boolean;
}

/** Where a resource is acquired, what happens while it is held, and how it is released. */
export interface Held {
  readonly captures: Captures;
  readonly name: SyntaxNode;
  /** The first statement: the one that acquires, or the declaration ahead of it. */
  readonly first: SyntaxNode;
  readonly acquire: SyntaxNode;
  /** Statements between a declaration and the `try`. */
  readonly gap: readonly SyntaxNode[];
  /** Statements of the `try` ahead of the one that acquires. */
  readonly lead: readonly SyntaxNode[];
  /** Statements between acquiring and the `try`: what they throw left the resource open. */
  readonly ahead: readonly SyntaxNode[];
  /** Statements of the `try`, or those between acquiring and releasing where there is none. */
  readonly body: readonly SyntaxNode[];
  readonly release: Release;
  /** Releases ahead of a jump that leaves early. */
  readonly early: readonly Release[];
  /** All others that stand in what becomes the scoped form. */
  readonly others: readonly Release[];
  readonly guard: Guard | undefined;
}

/** A resource, with what becomes of the code around it. */
export interface Resource extends Held {
  /** The variables that are used later, and are declared ahead of the scoped form. */
  readonly hoisted: readonly Declaration[];
  /** Statements of handlers that are run after the release from now on. */
  readonly after: readonly SyntaxNode[];
}

/** A `try` that releases at its end. */
export interface Guard {
  readonly node: SyntaxNode;
  readonly handlers: readonly SyntaxNode[];
  /** The clause that is always run at last, and what it does beside releasing. */
  readonly lastly: SyntaxNode;
  readonly more: readonly SyntaxNode[];
  /** Is the release the first that is done there? */
  readonly isFirst: boolean;
  /** The statements of the `try` itself, and the node that they stand in. */
  readonly statements: readonly SyntaxNode[];
  readonly list: SyntaxNode;
  /** Does the `try` hold what acquires? */
  readonly acquires: boolean;
}

/** The resource that a statement acquires or declares the variable of, if it is released in a way that can be followed. */
export function heldAt(statement: SyntaxNode, forms: HeldForms): Held | "released elsewhere" | undefined {
  const begun = begunAt(statement, forms);
  if (!begun) return undefined;
  const { name, captures, isDeclared } = begun;
  const releases = releasesOf(name, statement.end, forms.name, forms.release);
  if (releases.length === 0) return undefined;
  const guards = releases.flatMap((release) => guardOf(release) ?? []);
  // The declaration ahead of the `try` is where such a resource is looked at.
  const isDeclaredAhead = (guard: SyntaxNode): boolean =>
    (guard.parent?.parts ?? []).some(
      (one) =>
        one.end <= guard.start &&
        forms.later !== undefined &&
        fitted(forms.later.declare, one, fill(forms.name, name)) !== undefined,
    );
  if (!isDeclared && guards.some(({ node }) => node.holds(statement) && isDeclaredAhead(node)))
    return undefined;
  const later = isDeclared ? forms.later!.acquire : undefined;
  const found = firstOf(releases, (release) =>
    guardOf(release)
      ? guarded(statement, release, later, captures)
      : isDeclared
        ? undefined
        : straight(statement, release),
  );
  if (!found) return "released elsewhere";
  const inside = [...found.ahead, ...found.body];
  const rest = releases.filter((one) => one !== found.release);
  const early = found.guard?.handlers.length
    ? []
    : rest.filter((one) => inside.some((s) => s.holds(one.whole) && isEarly(one, s)));
  const others = rest.filter((one) => !early.includes(one) && inside.some((s) => s.holds(one.whole)));
  return {
    ...found,
    name,
    captures: new Map([...found.release.captures, ...captures, ...(found.captures ?? [])]),
    early,
    others,
  };
}

interface Begun {
  readonly name: SyntaxNode;
  readonly captures: Captures;
  readonly isDeclared: boolean;
}

function begunAt(statement: SyntaxNode, forms: HeldForms): Begun | undefined {
  const { name, made, acquire, later, acquires, guesses } = forms;
  const { tree } = statement;
  const leaf = (captures: Captures): SyntaxNode => tree.node(captures.get(name)!.nodes[0]!);
  for (const snippet of acquire) {
    const captures = fitted(snippet, statement);
    const value = captures && tree.node(captures.get(made)!.nodes[0]!);
    if (!value || isMissing(value)) continue;
    if (acquires && !guesses && !acquires(value)) return undefined;
    return { name: leaf(captures), captures, isDeclared: false };
  }
  const captures = later && fitted(later.declare, statement);
  return captures && { name: leaf(captures), captures, isDeclared: true };
}

function fitted(snippet: Snippet, { tree, id }: SyntaxNode, bound?: Captures): Captures | undefined {
  if (!snippetFits(snippet, tree.language.id)) return undefined;
  return matchOneAt(compile(snippet, tree.language.id), tree, id, bound)?.captures;
}

type Found = Omit<Held, "name" | "captures" | "early" | "others"> & { readonly captures?: Captures };

/** The `try` at whose end a release stands. */
function guardOf({ whole }: Release): Omit<Guard, "acquires"> | undefined {
  const { statementLists } = whole.tree.language;
  const lastly = [whole.parent, whole.parent?.parent].find((one) => {
    const around = one?.parent && shapeOf(one.parent);
    return around?.is === "try" && one!.kind === around.lastly;
  });
  const node = lastly?.parent;
  const shape = node && shapeOf(node);
  if (
    !node ||
    shape?.is !== "try" ||
    (shape.otherwise && node.parts.some((part) => part.is(shape.otherwise!)))
  )
    return undefined;
  const handlers = node.parts.filter((part) => part.is(shape.handlers));
  const rest = node.parts.filter((part) => !part.is(shape.handlers) && !part.same(lastly));
  const [block] = rest;
  const list = rest.length === 1 && block?.is(statementLists) ? block : node;
  // Where the grammar has no node for them, the statements stand in the `try` itself.
  if (list.same(node) && !node.is(statementLists)) return undefined;
  const lasts = whole.parent!.parts;
  return {
    node,
    handlers,
    lastly,
    more: lasts.filter((one) => !one.same(whole)),
    isFirst: lasts[0]?.same(whole) === true,
    list,
    statements: list.same(node) ? rest : list.parts,
  };
}

/** Released in the `finally` of a `try` that follows, or that the statement stands in. */
function guarded(
  first: SyntaxNode,
  release: Release,
  later: Snippet | undefined,
  bound: Captures,
): Found | undefined {
  const guard = guardOf(release)!;
  const { statements: parts } = guard;
  if (!later && first.parent?.same(guard.list)) {
    const at = parts.findIndex((part) => part.same(first));
    const [lead, body] = [parts.slice(0, at), parts.slice(at + 1)];
    const common = { first, acquire: first, gap: [], ahead: [], release };
    return { ...common, lead, body, guard: { ...guard, acquires: true } };
  }
  const between = statementsUpTo(first, guard.node);
  if (!between) return undefined;
  if (!later) {
    const common = { first, acquire: first, gap: [], lead: [], release };
    return { ...common, ahead: between, body: parts, guard: { ...guard, acquires: false } };
  }
  const bare = new Map([...bound]);
  for (const [i, part] of parts.entries()) {
    const captures = fitted(later, part, bare);
    if (!captures) continue;
    const common = { first, acquire: part, gap: between, lead: parts.slice(0, i), ahead: [], release };
    return { ...common, body: parts.slice(i + 1), guard: { ...guard, acquires: true }, captures };
  }
  return undefined;
}

/** Released further on in the same list, with no `try`. */
function straight(first: SyntaxNode, release: Release): Found | undefined {
  const body = statementsUpTo(first, release.whole);
  if (!body) return undefined;
  return { first, acquire: first, gap: [], lead: [], ahead: [], body, release, guard: undefined };
}

function firstOf<T, R>(all: readonly T[], find: (one: T) => R | undefined): R | undefined {
  for (const one of all) {
    const found = find(one);
    if (found !== undefined) return found;
  }
  return undefined;
}

/** The statements between two of the same list. */
function statementsUpTo(from: SyntaxNode, to: SyntaxNode): SyntaxNode[] | undefined {
  const { parent, tree } = from;
  if (!parent?.is(tree.language.statementLists) || !to.parent?.same(parent)) return undefined;
  const { parts } = parent;
  const [a, b] = [from, to].map((node) => parts.findIndex((part) => part.same(node))) as [number, number];
  return a >= 0 && a < b ? parts.slice(a + 1, b) : undefined;
}

/** Is the function left right behind a release, with nothing around that could catch what it throws? */
function isEarly({ whole }: Release, statement: SyntaxNode): boolean {
  const next = neighbour(whole, "after");
  const jump = next && jumpOf(next);
  if ((jump !== "return" && jump !== "throw") || runsLater(whole, statement)) return false;
  for (const above of whole.ancestors()) {
    if (shapeOf(above)?.is === "try") return false;
    if (above.same(statement)) return true;
  }
  return true;
}

/** The statements that an exception may leave without a release. */
export function unprotected({ guard, ahead, body }: Held): readonly SyntaxNode[] {
  return guard ? ahead : body;
}
