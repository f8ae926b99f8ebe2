import type { SyntaxNode } from "../../../core.js";
import { isFrom, type Mapper } from "./mapper.js";

/** A column or a relation as the new version has it. */
export interface Typed {
  /** The type of its values, as Python names it: `int`, `datetime.date`; the name of a class. */
  readonly type: string;
  readonly is: "value" | "one" | "many";
  readonly mayBeMissing: boolean;
  /** Arguments that say nothing any more. */
  readonly goes: readonly SyntaxNode[];
  /** What shows that a relation leads to one row or to many. */
  readonly seen?: SyntaxNode;
}

/** Why a column cannot be read. */
export interface Unread {
  readonly at: SyntaxNode;
  readonly why: string;
}

/** The argument of a call by its name. */
export function named(call: SyntaxNode, name: string): SyntaxNode | undefined {
  return argumentsOf(call).find((part) => part.is("keyword_argument") && part.child("name")?.text === name);
}

export const argumentsOf = (call: SyntaxNode): SyntaxNode[] =>
  call.child("arguments")?.parts.filter((part) => !part.is("comment")) ?? [];

/** What an argument that is True or False says; undefined where there is none, and a reason where it is something else. */
function flag(call: SyntaxNode, name: string): boolean | undefined | Unread {
  const argument = named(call, name);
  const value = argument?.child("value");
  if (!argument || !value) return undefined;
  if (value.is(["true", "false"])) return value.is("true");
  return { at: argument, why: `what \`${argument.text}\` says is only known when the program runs` };
}

const isUnread = (found: boolean | Typed | Unread | undefined): found is Unread =>
  typeof found === "object" && "why" in found;

/** Reads a column. A value may be missing unless it is said otherwise, or it is the key. */
export function columnOf(call: SyntaxNode, table: Mapper): Typed | Unread {
  const positional = argumentsOf(call).filter((part) => !part.is("keyword_argument"));
  const splat = argumentsOf(call).find((part) => part.is(["list_splat", "dictionary_splat"]));
  if (splat) return { at: splat, why: `what \`${splat.text}\` says is not seen here` };
  const typeOf = (part: SyntaxNode): string | undefined => {
    const name = (part.is("call") ? part.child("function") : part)?.text.split(".").at(-1);
    return name !== undefined && Object.hasOwn(table.types, name) ? table.types[name] : undefined;
  };
  const types = positional.filter((part) => typeOf(part) !== undefined);
  const [kind, ...more] = types;
  const strange = positional.find(
    (part) =>
      !types.includes(part) && !isFrom(part, table.reference) && !part.is("string") && !part.is("call"),
  );
  if (strange) return { at: strange, why: `the config names no type of values for \`${strange.text}\`` };
  if (!kind || more.length > 0) return { at: call, why: "the column does not say its type here" };
  const [missing, primary] = [flag(call, table.missing), flag(call, table.primary)];
  const bad = [missing, primary].find(isUnread);
  if (bad) return bad;
  const type = typeOf(kind)!;
  const first = Object.entries(table.types).find(([, one]) => one === type)?.[0];
  const isSaid = kind.is(["identifier", "attribute"]) && kind.text.split(".").at(-1) === first;
  const goes = [
    ...(isSaid ? [kind] : []),
    ...[named(call, table.missing)].filter((one) => one !== undefined),
  ];
  const mayBeMissing = missing === undefined ? primary !== true : missing === true;
  return { type, is: "value", mayBeMissing, goes };
}

/** The models of a file by their names, with the name of each one's table. */
interface Model {
  readonly node: SyntaxNode;
  readonly tables: readonly string[];
}

function modelsIn(root: SyntaxNode): Map<string, Model> {
  const found = new Map<string, Model>();
  for (const node of root.descendants()) {
    if (!node.is("class_definition")) continue;
    const values = assignedIn(node).flatMap(({ name, value }) =>
      /table/i.test(name) && value.is("string") ? [textOf(value)] : [],
    );
    found.set(node.child("name")!.text, { node, tables: values });
  }
  return found;
}

const textOf = (node: SyntaxNode): string => node.text.replace(/^\w*['"]+|['"]+$/g, "");

/** What a class body assigns to plain names, and as what they are annotated. */
function assignedIn(node: SyntaxNode): { name: string; type: string | undefined; value: SyntaxNode }[] {
  return node.child("body")!.parts.flatMap((statement) => {
    const assignment = statement.is("expression_statement") ? statement.firstPart : statement;
    const [name, value] = [assignment?.child("left"), assignment?.child("right")];
    return assignment?.is("assignment") && name?.is("identifier") && value
      ? [{ name: name.text, type: assignment.child("type")?.text, value }]
      : [];
  });
}

/** A column that refers to a table of another class. */
interface Reference {
  readonly value: SyntaxNode;
  readonly mayBeMissing: boolean;
}

/** The columns of a class, of either version, that refer to the table of another. */
function referencesTo(from: Model, to: Model, table: Mapper): Reference[] {
  const isReference = (part: SyntaxNode): boolean => {
    const [target] = isFrom(part, table.reference) ? argumentsOf(part) : [];
    return target?.is("string") === true && to.tables.includes(textOf(target).split(".")[0]!);
  };
  return assignedIn(from.node)
    .filter(({ value }) => value.is("call") && table.column?.some((name) => isFrom(value, name)) === true)
    .filter(({ value }) => argumentsOf(value).some(isReference))
    .map(({ type, value }) => ({ value, mayBeMissing: mayBeMissing(value, type, table) }));
}

function mayBeMissing(column: SyntaxNode, type: string | undefined, table: Mapper): boolean {
  if (type !== undefined) return /\b(Optional|None)\b/.test(type);
  const read = columnOf(column, table);
  return isUnread(read) || read.mayBeMissing;
}

/** Reads a relation: to many rows where the other class refers to this one, to one where this one refers to the other. */
export function relationOf(call: SyntaxNode, table: Mapper): Typed | Unread {
  const [target] = argumentsOf(call).filter((part) => !part.is("keyword_argument"));
  const type = target?.is("string") ? textOf(target) : target?.is("identifier") ? target.text : undefined;
  if (!target || type === undefined || !/^\w+$/.test(type))
    return { at: call, why: "the relation does not say its class here" };
  const said = flag(call, table.many);
  if (isUnread(said)) return said;
  const goes = [named(call, table.many)].filter((one) => one !== undefined);
  if (said === true) return { type, is: "many", mayBeMissing: false, goes, seen: goes[0]! };
  const models = modelsIn(call.tree.root);
  const own = models.get(call.closest(["class_definition"])!.child("name")!.text);
  const other = models.get(type);
  if (!own || !other)
    return { at: target, why: `\`${type}\` is not in this file, so one row or many cannot be told` };
  const [out, back] = [referencesTo(own, other, table), referencesTo(other, own, table)];
  if (said === false || (out.length === 1 && back.length === 0)) {
    const [through] = out;
    const seen = through ? { seen: through.value } : {};
    return { type, is: "one", mayBeMissing: through?.mayBeMissing ?? true, goes, ...seen };
  }
  if (back.length === 1 && out.length === 0)
    return { type, is: "many", mayBeMissing: false, goes, seen: back[0]!.value };
  return {
    at: call,
    why: `no single reference shows whether \`${type}\` stands for one row or for many`,
  };
}
