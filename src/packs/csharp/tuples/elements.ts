import { nameInFile } from "../../../core.js";
import type { SyntaxNode } from "../../../core.js";
import { localOf, madeTuple, memberRead, tupleTypes, type MadeTuple } from "./tuple.js";

/** What code does with the tuples that a collection holds. */
export interface Elements {
  /** Their members that are read: 0 for `Item1`. */
  readonly reads: readonly { readonly place: number; readonly name: SyntaxNode }[];
  /** The tuples that are put into it. */
  readonly made: readonly MadeTuple[];
  /** The types that are written for one of them. */
  readonly declared: readonly SyntaxNode[];
  /** Such types of the parameters of lambdas, which can be left out. */
  readonly left: readonly SyntaxNode[];
}

const NOTHING: Elements = { reads: [], made: [], declared: [], left: [] };

function joined(all: readonly (Elements | undefined)[]): Elements | undefined {
  const known = all.flatMap((one) => one ?? []);
  if (known.length < all.length) return undefined;
  return {
    reads: known.flatMap(({ reads }) => reads),
    made: known.flatMap(({ made }) => made),
    declared: known.flatMap(({ declared }) => declared),
    left: known.flatMap(({ left }) => left),
  };
}

/** Methods that put what they are given, beside a key or a position. */
const PUTTING = /^(?:Add|Insert|Enqueue|Push|AddFirst|AddLast|AddRange)$/;
/** Members that see none of the tuples. */
const BLIND = /^(?:Count|Length|Clear|RemoveAt|ContainsKey|Keys|Any|Capacity|TrimExcess)$/;
/** Methods that give a list of the same tuples. */
const SAME =
  /^(?:Where|OrderBy|OrderByDescending|ThenBy|ThenByDescending|Take|TakeWhile|Skip|SkipWhile|Reverse|ToList|ToArray|AsEnumerable|Values)$/;
/** Methods that give one of the tuples, and throw where there is none. */
const ONE = /^(?:First|Last|Single|ElementAt|Dequeue|Pop|Peek)$/;
/** Methods that give something else, made by their lambdas. */
const OTHER = /^(?:Select|Any|All|Count|LongCount|Sum|Min|Max|Average|RemoveAll|ForEach|Exists|TrueForAll)$/;

/** What is done with the tuples where their collection is named; undefined where the collection itself is handed on. */
export function elementsAt(name: SyntaxNode): Elements | undefined {
  const access =
    name.parent?.is("member_access_expression") && name.field === "name" ? name.parent : undefined;
  // A member of another object than this one.
  if (access && access.child("expression")!.text !== "this") return undefined;
  return ofCollection(access ?? name);
}

function ofCollection(list: SyntaxNode): Elements | undefined {
  const { parent } = list;
  // Nobody takes what a method gives.
  if (parent?.is("expression_statement")) return NOTHING;
  if (parent?.is("foreach_statement") && list.field === "right") {
    const [item, type] = [parent.child("left"), parent.child("type")];
    return item && type ? joined([declaredAs(type), ofVariable(item)]) : undefined;
  }
  if (parent?.is("element_access_expression") && list.field === "expression") return ofElement(parent);
  if (!parent?.is("member_access_expression") || list.field !== "expression") return undefined;
  const method = parent.child("name")!.text;
  const call =
    parent.parent?.is("invocation_expression") && parent.field === "function" ? parent.parent : undefined;
  const args = call?.child("arguments")?.parts ?? [];
  if (call && PUTTING.test(method) && method !== "AddRange") return ofPut(args);
  if (BLIND.test(method) && args.length <= (/^(?:RemoveAt|ContainsKey)$/.test(method) ? 1 : 0))
    return NOTHING;
  if (method === "Values" && !call) return ofCollection(parent);
  if (!call) return undefined;
  const asked = joined(args.map(ofArgument));
  if (!asked) return undefined;
  if (SAME.test(method)) return joined([asked, ofCollection(call)]);
  if (ONE.test(method)) return joined([asked, ofElement(call)]);
  return OTHER.test(method) && args.length === 1 ? asked : undefined;
}

/** What is put: the last argument, behind a key or a position. */
function ofPut(args: readonly SyntaxNode[]): Elements | undefined {
  const value = args.at(-1);
  const made = value && madeTuple(value);
  return made ? { ...NOTHING, made: [made] } : undefined;
}

/** A function of one tuple, or a plain number. */
function ofArgument(argument: SyntaxNode): Elements | undefined {
  if (!argument.is("lambda_expression")) return argument.is("integer_literal") ? NOTHING : undefined;
  const parameters = argument.child("parameters");
  const [only, ...more] = parameters?.is("implicit_parameter") ? [parameters] : (parameters?.parts ?? []);
  const body = argument.child("body");
  if (!only || more.length > 0 || !only.is(["identifier", "implicit_parameter", "parameter"]) || !body)
    return undefined;
  const type = only.child("type");
  // The tuple itself may not be what the function gives.
  const uses = body.mentions((only.child("name") ?? only).text);
  const found = joined(uses.map(ofElement));
  if (!type || !found) return found;
  return tupleTypes(type) ? { ...found, left: [...found.left, type] } : undefined;
}

/** One tuple: a member of it is read, it is put into a variable, or another takes its place. */
function ofElement(element: SyntaxNode): Elements | undefined {
  const read = memberRead(element);
  if (read) return { ...NOTHING, reads: [read] };
  const { parent } = element;
  if (parent?.is("assignment_expression") && element.field === "left") {
    const made = madeTuple(parent.child("right")!);
    const isPlain = parent.children.some((child) => child.text === "=");
    return made && isPlain ? { ...NOTHING, made: [made] } : undefined;
  }
  const name = parent?.is("variable_declarator") ? parent.child("name") : undefined;
  const type = parent?.parent?.child("type");
  return name && type && !name.same(element) ? joined([declaredAs(type), ofVariable(name)]) : undefined;
}

function declaredAs(type: SyntaxNode): Elements | undefined {
  if (type.is("implicit_type")) return NOTHING;
  return tupleTypes(type) ? { ...NOTHING, declared: [type] } : undefined;
}

/** A variable of which only members are read. */
function ofVariable(name: SyntaxNode): Elements | undefined {
  const to = localOf(name);
  if (!to) return undefined;
  const uses = nameInFile(to.name, name.tree).references.filter(
    (one) => one.to === to && !one.node.same(name),
  );
  return joined(
    uses.map(({ node }) => {
      const read = memberRead(node);
      return read && { ...NOTHING, reads: [read] };
    }),
  );
}
