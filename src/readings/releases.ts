import { referencesAt, referencesOf, bodyAround, nameInFile } from "../analysis/index.js";
import {
  compile,
  fill,
  matchOneAt,
  snippetFits,
  type Capture,
  type CompiledPattern,
  type Hole,
  type Snippet,
} from "../pattern/index.js";
import { shapeOf, type SyntaxNode } from "../syntax/index.js";
import { asksFor, presenceOf } from "./presence-test.js";
import { isStatement, statementsOf, waysOf } from "./ways.js";

/** A way of releasing something. */
export interface ReleaseForm {
  /** The statement that releases, with the hole of the variable in it. */
  readonly code: Snippet;
  /** Does it pass over what goes wrong? */
  readonly quietly?: boolean;
}

/** A statement that releases what a variable holds. */
export interface Release {
  readonly statement: SyntaxNode;
  /** The same with the test and the `try` around it that are there for nothing else. */
  readonly whole: SyntaxNode;
  readonly form: ReleaseForm;
  readonly captures: ReadonlyMap<Hole, Capture>;
  /** Is it only released if it is there, and does a test of its truth ask that, which an empty one may fail? */
  readonly tested: boolean;
  readonly byTruth: boolean;
  /** Does the code pass over what goes wrong, and what does it do then? */
  readonly quiet: boolean;
  readonly instead: readonly SyntaxNode[];
}

/** The uses of a local variable behind an offset, in the function around it. */
function usesBehind(variable: SyntaxNode, from: number): SyntaxNode[] {
  const name = leafOf(variable);
  const to = referencesAt(name).find(({ member }) => !member)?.to;
  const uses = to
    ? referencesOf(to)
    : nameInFile(name.text, name.tree).references.filter(({ member }) => !member);
  const around = bodyAround(name);
  return uses.map(({ node }) => node).filter((node) => node.start >= from && around.holds(node));
}

/** The name in `$x`. */
function leafOf(variable: SyntaxNode): SyntaxNode {
  const { leaves } = variable.tree.language.binding;
  return [...variable.descendants()].find((one) => one.isLeaf && leaves[one.kind] !== undefined) ?? variable;
}

/** What releases a variable behind an offset, in the order of the code. */
export function releasesOf(
  name: SyntaxNode,
  from: number,
  hole: Hole,
  forms: readonly ReleaseForm[],
): Release[] {
  const bound = fill(hole, name);
  if (!bound) return [];
  return usesBehind(name, from).flatMap((use) => releaseBy(use, name, forms, bound) ?? []);
}

function releaseBy(
  use: SyntaxNode,
  name: SyntaxNode,
  forms: readonly ReleaseForm[],
  bound: ReadonlyMap<Hole, Capture>,
): Release | undefined {
  for (let at: SyntaxNode | undefined = use.parent; at; at = at.parent) {
    for (const form of forms) {
      const match = matchOneAt(patternsOf(form, at), at.tree, at.id, bound);
      const statement = match && statementOf(at);
      if (statement) return wholeOf(statement, form, match.captures, name);
    }
    if (isStatement(at)) return undefined;
  }
  return undefined;
}

/** A statement, or the one that is nothing but this expression. */
function statementOf(node: SyntaxNode): SyntaxNode | undefined {
  if (isStatement(node)) return node;
  const { parent, tree } = node;
  // `file.close if file`
  const ways = parent && isStatement(parent) ? waysOf(parent) : undefined;
  if (ways && [...ways.yes, ...ways.no].some((way) => way.same(node))) return node;
  return parent?.is(tree.language.expressionStatement) && isStatement(parent) ? parent : undefined;
}

function patternsOf({ code }: ReleaseForm, { tree }: SyntaxNode): readonly CompiledPattern[] {
  return snippetFits(code, tree.language.id) ? compile(code, tree.language.id) : [];
}

/** Goes out to what stands around a release for its sake alone: `if (x != null)`, `try { … } catch { }`. */
function wholeOf(
  statement: SyntaxNode,
  form: ReleaseForm,
  captures: ReadonlyMap<Hole, Capture>,
  name: SyntaxNode,
): Release {
  let whole = statement;
  let [tested, quiet, byTruth] = [asksByItself(form, statement), form.quietly === true, false];
  const instead: SyntaxNode[] = [];
  for (;;) {
    const holder = holderOf(whole);
    const ways = holder && waysOf(holder);
    const test = ways && presenceOf(ways.test);
    if (holder && test && ways.yes.length + ways.no.length === 1 && asksFor(test, name)) {
      if (test.isThere !== ways.yes.length > 0) break;
      [whole, tested, byTruth] = [holder, true, byTruth || test.by === "truth"];
      continue;
    }
    const handlers = holder && handlersOf(holder);
    if (!holder || !handlers) break;
    [whole, quiet] = [holder, true];
    instead.push(...handlers.flatMap(doneIn));
  }
  return { statement, whole, form, captures, tested, byTruth, quiet, instead };
}

/** Does a form only release what is there: `x?.close()`, `x&.close`? */
function asksByItself({ code }: ReleaseForm, { tree }: SyntaxNode): boolean {
  const safe = Object.values(tree.language.flow.safeStep?.tokens ?? {});
  return safe.some((token) => code.texts.some((text) => text.trimStart().startsWith(token)));
}

/** The statement that another one is all of. */
function holderOf(statement: SyntaxNode): SyntaxNode | undefined {
  const { language } = statement.tree;
  const { parent } = statement;
  if (!parent?.is(language.statementLists)) return parent;
  if (parent.parts.length !== 1) return undefined;
  let holder = parent.parent;
  while (holder?.is(language.flow.wrappers)) holder = holder.parent;
  return holder;
}

/** The handlers of a `try` that has nothing else. */
function handlersOf(node: SyntaxNode): readonly SyntaxNode[] | undefined {
  const shape = shapeOf(node);
  if (shape?.is !== "try" || shape.handlers.length === 0) return undefined;
  const handlers = node.parts.filter((part) => part.is(shape.handlers));
  return handlers.length > 0 && handlers.length === node.parts.length - 1 ? handlers : undefined;
}

/** The statements of a handler that do something. */
function doneIn(handler: SyntaxNode): readonly SyntaxNode[] {
  const way = handler.lastPart;
  if (!way?.is(way.tree.language.statementLists)) return [];
  return statementsOf(way).filter((one) => !/^(pass_statement|empty_statement)$/.test(one.kind));
}
