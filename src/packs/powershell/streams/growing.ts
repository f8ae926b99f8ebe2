import type { SyntaxNode } from "../../../core.js";
import { commandName, statementsIn } from "./output.js";

/** A statement by which a list grows, and what it adds. */
export interface Add {
  readonly statement: SyntaxNode;
  readonly value: SyntaxNode;
}

/** A list that begins empty and grows in a loop. */
export interface Growing {
  /** `$names = @()`, or a list of the library that is made empty. */
  readonly start: SyntaxNode;
  /** The class of a list of the library, and the type of its items where it has one; undefined for an array. */
  readonly made: Made | undefined;
  /** The variable, as it is written there. */
  readonly name: SyntaxNode;
  /** The loop, or the pipeline into `ForEach-Object`. */
  readonly loop: SyntaxNode;
  /** `$names += …` in it, or `$names.Add(…)`. */
  readonly adds: readonly Add[];
  /** All other statements in the loop. */
  readonly others: readonly SyntaxNode[];
  /** The uses of the variable that are neither. */
  readonly reads: readonly SyntaxNode[];
  /** The statement behind the loop that gives the list to the caller, where that is all that is done with it. */
  readonly given: SyntaxNode | undefined;
}

/** A list of the library. */
export interface Made {
  readonly is: "List" | "ArrayList";
  readonly items: string | undefined;
}

const CLASS = String.raw`(?:system\.)?collections\.(?:(arraylist)|generic\.list\[([\w.]+)\])`;
const MAKES = [
  new RegExp(String.raw`^\[${CLASS}\](?:::new\(\)|@\(\))$`, "i"),
  new RegExp(String.raw`^new-object\s+(?:-typename\s+)?['"]?${CLASS}['"]?(?:\s*\(\))?$`, "i"),
];

/** Reads what makes an empty list of the library. */
function madeBy(value: SyntaxNode): Made | undefined {
  const found = MAKES.map((form) => form.exec(value.text)).find((one) => one !== null);
  if (!found) return undefined;
  return found[1] ? { is: "ArrayList", items: undefined } : { is: "List", items: found[2] };
}

/** Reads `$names.Add(…)`, also where its value is thrown away. */
function addedBy(statement: SyntaxNode, name: string): Add | undefined {
  let call: SyntaxNode | undefined = statement;
  if (statement.is("expression_with_unary_operator") && /^\[void\]/i.test(statement.text))
    call = statement.firstPart?.lastPart;
  else if (statement.is("assignment_expression") && /^\$null$/i.test(statement.firstPart!.text))
    call = statement.child("value");
  else if (statement.is("pipeline_chain") && statement.parts.length === 2)
    call = commandName(statement.lastPart!) === "out-null" ? statement.firstPart : undefined;
  if (!call?.is("invocation_expression") || bare(call.firstPart!.text) !== name) return undefined;
  const [, member, list] = call.parts;
  const given = list?.is("argument_list") ? (list.firstPart?.parts ?? []) : [];
  const [value] = given;
  return member?.text.toLowerCase() === "add" && value && given.length === 1
    ? { statement, value }
    : undefined;
}

const LOOPS = ["foreach_statement", "for_statement", "while_statement", "do_statement"];

const operatorOf = (node: SyntaxNode): string | undefined =>
  node.parts.find((part) => part.is("assignment_operator"))?.text;
const bare = (text: string): string => text.toLowerCase().replace(/^\$\{(.*)\}$/, "$$$1");

/** The function, script block or file whose variables a node sees as its own. */
export function scopeOf(node: SyntaxNode): SyntaxNode {
  for (const above of node.ancestors()) {
    if (above.is(["function_statement", "class_method_definition"])) return above;
    if (above.is("script_block_expression") && !isSameScope(above)) return above;
  }
  return node.tree.root;
}

/** `ForEach-Object` and `Where-Object` run their blocks in the scope around. */
function isSameScope(block: SyntaxNode): boolean {
  const command = block.closest(["command"]);
  return (
    command !== undefined && /^(foreach-object|foreach|%|where-object|where|\?)$/.test(commandName(command))
  );
}

/** Reads the code from the statement that makes an empty list. */
export function growingAt(start: SyntaxNode): Growing | undefined {
  const [name, , value] = start.parts;
  if (!name?.is("variable") || operatorOf(start) !== "=" || !value) return undefined;
  const made = madeBy(value);
  if (!made && (!value.is("array_expression") || value.parts.length > 0)) return undefined;
  if (!/^\$\w+$/.test(name.text) || !start.parent?.is("statement_list")) return undefined;
  const scope = scopeOf(start);
  const uses = [...scope.descendants()].filter(
    (node) => node.is("variable") && bare(node.text) === bare(name.text) && !node.same(name),
  );
  const first = uses[0];
  const siblings = start.parent.parts;
  const loop = first && siblings.find((one) => one.start > start.start && one.holds(first));
  const isLoop = loop?.is(LOOPS) === true || (loop !== undefined && blockOfEach(loop) !== undefined);
  if (!loop || !isLoop) return undefined;
  const statements = [...statementsOf(loop)];
  const addOf = (one: SyntaxNode): Add | undefined =>
    made
      ? addedBy(one, bare(name.text))
      : one.is("assignment_expression") &&
          operatorOf(one) === "+=" &&
          bare(one.firstPart!.text) === bare(name.text)
        ? { statement: one, value: one.child("value") ?? one.lastPart! }
        : undefined;
  const adds = statements.flatMap((one) => addOf(one) ?? []);
  if (adds.length === 0) return undefined;
  const isAdd = (use: SyntaxNode): boolean =>
    adds.some(({ statement, value }) => statement.holds(use) && !value.holds(use));
  const reads = uses.filter((use) => !isAdd(use));
  const others = statements.filter((one) => !addOf(one));
  const isWhole = scopeOf(loop).same(scope) && adds.every(({ statement }) => scopeOf(statement).same(scope));
  return isWhole
    ? { start, made, name, loop, adds, others, reads, given: givenBehind(loop, reads, scope) }
    : undefined;
}

/** The block that `ForEach-Object` runs at the end of a pipeline. */
function blockOfEach(pipeline: SyntaxNode): SyntaxNode | undefined {
  const last = pipeline.is("pipeline_chain") ? pipeline.lastPart : undefined;
  if (!last?.is("command") || !/^(foreach-object|foreach|%)$/.test(commandName(last))) return undefined;
  const given = last.child("command_elements")?.parts.filter((one) => !one.is("command_argument_sep")) ?? [];
  return given.length === 1 && given[0]!.is("script_block_expression") ? given[0] : undefined;
}

function* statementsOf(loop: SyntaxNode): Generator<SyntaxNode> {
  const block = blockOfEach(loop);
  const lists = block
    ? [...block.descendants()].filter((node) => node.is("statement_list")).slice(0, 1)
    : loop.parts.filter((part) => part.is("statement_block"));
  for (const list of lists) yield* statementsIn(list);
}

/** `return $names` or `$names`, as the last statement of a function, where nothing else reads the list. */
function givenBehind(
  loop: SyntaxNode,
  reads: readonly SyntaxNode[],
  scope: SyntaxNode,
): SyntaxNode | undefined {
  const next = loop.nextPart;
  const [only, ...more] = reads;
  if (
    !next ||
    !only ||
    more.length > 0 ||
    !next.holds(only) ||
    next.nextPart ||
    !scope.is("function_statement")
  )
    return undefined;
  const isBody =
    next.parent?.parent?.is("script_block") === true && next.parent.parent.parent?.same(scope) === true;
  const isGiven =
    next.same(only) ||
    (next.is("flow_control_statement") && /^return\s+\$\w+$/i.test(next.text)) ||
    (next.is("command") && /^write-output\s+\$\w+$/i.test(next.text));
  return isBody && isGiven ? next : undefined;
}
