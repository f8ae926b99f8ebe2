import { loadGrammars, languageOfFile, parseFile, type SyntaxNode } from "../../syntax/index.js";
import type { PlanChange } from "../../plan/index.js";
import { literalOf } from "./literals.js";
import { NO_USE, patternShape, shapeOf, type Shape } from "./shape.js";
import type { Value } from "./value.js";

/** What is known of a parameter from what the function does with it. */
export interface Parameter {
  readonly name: string;
  readonly isRest: boolean;
  readonly hasDefault: boolean;
  /** Its type, as it is written. */
  readonly type?: string;
  readonly shape: Shape;
}

/** A changed function that can be called on its own. */
export interface Callable {
  readonly path: string;
  readonly name: string;
  readonly line: number;
  readonly parameters: readonly Parameter[];
  /** The values that are written in it. */
  readonly literals: readonly Value[];
  readonly changes: readonly PlanChange[];
  readonly isPython: boolean;
  /** Is its file a module with imports and exports of its own, and not one that is required? */
  readonly isModule: boolean;
  /** Can others call it by its name? */
  readonly isExported: boolean;
}

/** A changed place that cannot be tried, and why. */
export interface Untried {
  readonly path: string;
  readonly name: string;
  readonly line: number;
  readonly why: string;
}

const JAVASCRIPT_FUNCTIONS = [
  "function_declaration",
  "generator_function_declaration",
  "function_expression",
  "arrow_function",
  "method_definition",
];
const PYTHON_FUNCTIONS = ["function_definition", "lambda"];
const CLASSES = ["class_declaration", "class", "class_definition"];

/** Is it a file whose functions can be tried? */
export function canBeTried(path: string): boolean {
  return ["javascript", "typescript", "tsx", "python"].includes(languageOfFile(path)?.id ?? "");
}

/** The functions around changes of a file that can be called on their own, and those that cannot. */
export async function callablesIn(
  path: string,
  text: string,
  changes: readonly PlanChange[],
): Promise<{ readonly callables: readonly Callable[]; readonly untried: readonly Untried[] }> {
  const language = languageOfFile(path)!;
  await loadGrammars([language]);
  const tree = parseFile(text, language);
  const isPython = language.id === "python";
  const found = new Map<number, { node: SyntaxNode; name: string; changes: PlanChange[] }>();
  const untried: Untried[] = [];
  for (const change of changes) {
    const at = change.edits[0]?.start;
    if (at === undefined) continue;
    const node = outermostFunction(tree.root, at, isPython);
    const named = typeof node === "string" ? { why: node } : nameOf(node);
    if (typeof node === "string" || "why" in named) {
      untried.push({ path, name: "", line: change.line, why: "why" in named ? named.why : "" });
      continue;
    }
    const known = found.get(node.start) ?? { node, name: named.name, changes: [] };
    known.changes.push(change);
    found.set(node.start, known);
  }
  const isModule = tree.root.parts.some((part) => part.is(["import_statement", "export_statement"]));
  const callables = [...found.values()].map(({ node, name, changes: own }): Callable => {
    const parameters = parametersOf(node, isPython);
    return {
      path,
      name,
      line: node.line,
      parameters,
      literals: literalsIn(node),
      changes: own,
      isPython,
      isModule,
      isExported: isPython || isExportedName(tree.root, name),
    };
  });
  return { callables, untried };
}

/** The function at the top of a file that holds a place; or why there is none that can be called. */
function outermostFunction(root: SyntaxNode, at: number, isPython: boolean): SyntaxNode | string {
  const kinds = isPython ? PYTHON_FUNCTIONS : JAVASCRIPT_FUNCTIONS;
  let found: SyntaxNode | undefined;
  for (let node: SyntaxNode | undefined = root; node;) {
    if (node.is(CLASSES)) return "it is in a class";
    if (!found && node.is(kinds)) found = node;
    const inner: SyntaxNode | undefined = node.parts.find((part) => part.start <= at && at < part.end);
    if (found) break;
    node = inner;
  }
  return found ?? "it is in no function";
}

/** By what name a function at the top of a file is known there; or why it is known by none. */
function nameOf(node: SyntaxNode): { readonly name: string } | { readonly why: string } {
  const own = node.child("name")?.text;
  const { parent } = node;
  const inside = { why: "it is in another function or a branch" };
  if (node.is("lambda")) return { why: "it has no name" };
  if (node.is(["function_definition", "function_declaration", "generator_function_declaration"]))
    return own !== undefined && isTop(parent, ["export_statement", "decorated_definition"])
      ? { name: own }
      : inside;
  if (parent?.is("variable_declarator") && isTop(parent.parent?.parent, ["export_statement"])) {
    const name = parent.child("name");
    return name?.is("identifier") ? { name: name.text } : { why: "it has no name" };
  }
  if (parent?.is("assignment_expression") && isTop(parent.parent?.parent, [])) {
    const left = parent.child("left")!.text;
    if (/^(module\.)?exports(\.[\w$]+)?$/.test(left)) return { name: left };
  }
  const member = memberName(node);
  if (member !== undefined) return { name: member };
  return { why: "it is made inside of something else" };
}

/** By what name a member of an object is known that is itself known at the top of the file. */
function memberName(node: SyntaxNode): string | undefined {
  const pair = node.is("method_definition") ? node : node.parent?.is("pair") ? node.parent : undefined;
  const key = (pair?.child("key") ?? pair?.child("name"))?.text;
  const object = pair?.parent;
  // An accessor is not called.
  if (!pair || !object?.is("object") || key === undefined || !/^[\p{L}_$][\p{L}\p{N}_$]*$/u.test(key))
    return undefined;
  if (/^(get|set)\s/.test(pair.text) && pair.is("method_definition")) return undefined;
  const owner = nameOf(object);
  return "name" in owner ? `${owner.name}.${key}` : undefined;
}

function isTop(node: SyntaxNode | undefined, wrappers: readonly string[]): boolean {
  if (node === undefined) return false;
  if (node.is(["program", "module"])) return true;
  return node.is(wrappers) && isTop(node.parent, wrappers);
}

function isExportedName(root: SyntaxNode, name: string): boolean {
  if (name.includes("exports")) return true;
  return root.parts.some(
    (part) =>
      (part.is("export_statement") && part.mentions(name).length > 0) ||
      (/^(module\.)?exports\b/.test(part.text) && part.mentions(name).length > 0),
  );
}

function parametersOf(node: SyntaxNode, isPython: boolean): Parameter[] {
  const single = node.child("parameter");
  const list = single ? [single] : (node.child("parameters")?.parts ?? []);
  const body = node.child("body");
  return list.flatMap((part): Parameter[] => {
    if (part.is(["keyword_separator", "positional_separator", "dictionary_splat_pattern"])) return [];
    const isRest =
      part.is(["rest_pattern", "list_splat_pattern"]) || part.child("pattern")?.is("rest_pattern") === true;
    const inner = part.child("pattern") ?? part.child("name") ?? part.child("left") ?? part;
    const name = inner.is("identifier")
      ? inner.text
      : (inner.parts.find((one) => one.is("identifier"))?.text ?? "");
    const hasDefault =
      part.child("value") !== undefined || part.child("right") !== undefined || part.is("optional_parameter");
    const type = part.child("type")?.text.replace(/^:\s*/, "");
    const shape = inner.is(["object_pattern"])
      ? patternShape(inner, body)
      : body && name !== ""
        ? shapeOf(name, body)
        : NO_USE;
    return [{ name, isRest, hasDefault, shape, ...(type === undefined ? {} : { type }) }];
  });
}

function literalsIn(node: SyntaxNode): Value[] {
  const found = new Map<string, Value>();
  for (const inner of node.descendants()) {
    const value = literalOf(inner);
    if (value && value.is !== "list" && value.is !== "table" && value.is !== "thing")
      found.set(JSON.stringify(value), value);
  }
  return [...found.values()].slice(0, 30);
}
