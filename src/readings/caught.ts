import { classesNamed, nameInFile } from "../analysis/index.js";
import { jumpOf, shapeOf, type Language, type SyntaxNode } from "../syntax/index.js";
import { assignedBy, differenceOf, isPath } from "./frame.js";
import { itemRead, type PresenceTest } from "./presence-test.js";
import { statementsOf } from "./ways.js";

/** A value that is read of a key, and another where the key is not there, as what is thrown then says. */
export interface Caught {
  readonly test: PresenceTest;
  readonly read: SyntaxNode;
  readonly otherwise: SyntaxNode;
  /** The statement that reads. */
  readonly statement: SyntaxNode;
}

/** The kinds of nodes that catch. */
export function catchingKinds({ flow }: Language): string[] {
  if (flow.missing.keyErrors.length === 0) return [];
  return Object.entries(flow.shapes).flatMap(([kind, shape]) =>
    typeof shape === "function" || shape.is === "try" ? [kind] : [],
  );
}

/** `try { x = d[k]; } catch (KeyNotFound) { x = v; }`, with nothing else that could throw the same. */
export function caughtAt(node: SyntaxNode): Caught | undefined {
  const shape = shapeOf(node);
  if (shape?.is !== "try") return undefined;
  const { statementLists, flow } = node.tree.language;
  const { keyErrors, indexThrows } = flow.missing;
  const handlers = node.parts.filter((part) => part.is(shape.handlers));
  const rest = node.parts.filter((part) => !part.is(shape.handlers));
  const [handler] = handlers;
  if (handlers.length !== 1 || !handler || rest.length !== 1) return undefined;
  const body = rest[0]!.is(statementLists) ? rest[0]!.parts : rest;
  const [what, way] = [handler.firstPart, handler.lastPart];
  const instead = way ? statementsOf(way) : [];
  const [statement] = body;
  if (!what || handler.parts.length !== 2 || body.length !== 1 || instead.length !== 1 || !statement)
    return undefined;
  const error = what.text.replace(/^\(|\)$/g, "").trim();
  if (!keyErrors.includes(error) || isOfProject(error, node)) return undefined;
  const apart = differenceOf(statement, instead[0]!);
  const item = apart && itemRead(apart.one);
  if (!apart || !item || !isAll(statement, apart.one)) return undefined;
  const { collection, key } = item;
  const throws = indexThrows || !apart.one.is(node.tree.language.indexReads);
  if (!throws || !isPath(collection) || !(isPath(key) || key.is(node.tree.language.literals)))
    return undefined;
  const asks = { asks: "key", by: "question", words: [], allowsUndeclared: false, times: 0 } as const;
  const test: PresenceTest = { test: node, subject: collection, key, isThere: true, ...asks };
  return { test, read: apart.one, otherwise: apart.other, statement };
}

/** Does the project give the name of an error to something of its own? */
function isOfProject(name: string, { tree }: SyntaxNode): boolean {
  return nameInFile(name, tree).declarations.length > 0 || classesNamed(tree, name).classes.length > 0;
}

/** Is a value all that a statement works out? */
function isAll(statement: SyntaxNode, value: SyntaxNode): boolean {
  const assigned = assignedBy(statement);
  if (assigned) return assigned.value.same(value) && isPath(assigned.target);
  return jumpOf(statement) === "return" && statement.parts.length === 1 && statement.firstPart!.same(value);
}
