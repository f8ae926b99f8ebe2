import { isLibraryFunction, type Answer, type SyntaxNode } from "../../../core.js";

/** What a call of New-Object says: the type, and what follows. */
export interface Made {
  /** Undefined for one that is worked out. */
  readonly type: string | undefined;
  readonly args: readonly SyntaxNode[];
  readonly properties: SyntaxNode | undefined;
}

/** What each parameter may be cut down to: `-Type`, `-arg`. */
const PARAMETERS = { type: "typename", args: "argumentlist", properties: "property" } as const;
type Parameter = keyof typeof PARAMETERS;

function parameterOf(written: string): Parameter | undefined {
  const word = written.slice(1).toLowerCase();
  if (word === "args") return "args";
  const fitting = Object.keys(PARAMETERS).filter((one) => PARAMETERS[one as Parameter].startsWith(word));
  return fitting.length === 1 ? (fitting[0] as Parameter) : undefined;
}

/** Reads a call of New-Object; undefined for other commands, and for parameters that are none of these (`-ComObject`). */
export function madeBy(command: SyntaxNode): Made | undefined {
  if (!command.is("command") || !/^new-object$/i.test(command.child("command_name")?.text ?? ""))
    return undefined;
  const found: Partial<Record<Parameter, SyntaxNode>> = {};
  const free: Parameter[] = ["type", "args"];
  let next: Parameter | undefined;
  const elements = command.child("command_elements")?.parts ?? [];
  for (const part of elements.filter((one) => !one.is("command_argument_sep"))) {
    if (part.is("command_parameter")) {
      const named = next === undefined && !part.text.endsWith(":") ? parameterOf(part.text) : undefined;
      if (named === undefined) return undefined;
      next = named;
      continue;
    }
    const as = next ?? free.find((one) => found[one] === undefined);
    if (as === undefined || found[as] !== undefined) return undefined;
    found[as] = part;
    next = undefined;
  }
  const args = found.args ? itemsOf(found.args) : [];
  if (next !== undefined || !found.type || !args) return undefined;
  return { type: typeIn(found.type), args, properties: found.properties };
}

/** A type that is written out, as a word or a plain string. */
function typeIn(node: SyntaxNode): string | undefined {
  const text = node.text.replace(/^(["'])(.*)\1$/, "$2");
  return /^[\w.]+(\[[\w.,[\] ]*\])?$/.test(text) &&
    node.is(["generic_token", "expandable_string_literal", "verbatim_string_characters"])
    ? text
    : undefined;
}

/** The items of a list of arguments, or the one argument; undefined for what is no plain list of values. */
function itemsOf(node: SyntaxNode): readonly SyntaxNode[] | undefined {
  if (node.is("generic_token")) return undefined;
  if (node.is(["argument_list", "array_expression", "parenthesized_expression", "statement_list"])) {
    const [only, ...more] = node.parts;
    return more.length > 0 ? undefined : only ? itemsOf(only) : [];
  }
  const items = node.is(["argument_expression_list", "array_literal_expression"]) ? node.parts : [node];
  // `, $list` passes a list as one argument, and `@options` names arguments.
  const isOther = /^[\s(]*,|^@\w/.test(node.text);
  return isOther || items.some((one) => one.is(["command", "pipeline", "generic_token"])) ? undefined : items;
}

/** Brackets that only a command needs: `(New-Object Jar).Seal()`, `$jars.Add((New-Object Jar))`. */
export function areForCommand(brackets: SyntaxNode): boolean {
  const { parent } = brackets;
  if (!brackets.is("parenthesized_expression") || brackets.parts.length !== 1 || !parent) return false;
  const isReceiver =
    parent.is(["member_access", "invocation_expression", "element_access"]) &&
    parent.firstPart!.same(brackets);
  return isReceiver || parent.is("argument_expression_list") || brackets.field === "value";
}

/** The blank at the end of a command, which belongs to it where it stands in a pipeline. */
export const endOf = ({ text }: SyntaxNode): string => /\s*$/.exec(text)![0];

/** A script or a project can have a command of this name of its own. */
export const isOfPowerShell = (command: SyntaxNode): Answer =>
  isLibraryFunction(command.child("command_name")!);
