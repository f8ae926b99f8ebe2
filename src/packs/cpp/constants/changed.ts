import {
  calledFromLibrary,
  classesNamed,
  howPassed,
  no,
  shortened,
  typeOf,
  unknown,
  yes,
} from "../../../core.js";
import type { Answer, Reference, SyntaxNode } from "../../../core.js";
import { withParentheses } from "../../family/parentheses.js";
import type { Variable } from "./variable.js";

/** What a use does to a variable: it only reads it, it may change it, or it changes it. */
export function changeBy({ is }: Pick<Variable, "is">, { node, does }: Reference): Answer {
  const shown = shortened(
    node.closest(["expression_statement", "declaration", "return_statement"])?.text ?? node.text,
  );
  const isPlain = is === "scalar" || is === "pointer";
  const parent = withParentheses(node).parent;
  if (is === "pointer" && parent?.is("subscript_expression") && parent.firstPart?.holds(node))
    return yes("flow.written", "only what it points to is read or written", node);
  if (does === "write" || does === "update")
    return no("flow.written", `\`${shown}\` gives it another value`, node);
  if (does === "address" || (parent?.is("pointer_expression") && parent.has("&")))
    return no("flow.escapes", `\`${shown}\` takes its address, or binds a reference to it`, node);
  if (node.closest(["decltype", "type_descriptor", "template_argument_list"]))
    return no("type.same", `\`${shown}\` speaks of its type`, node);
  if (!isPlain && parent?.is(["return_statement", "throw_statement", "co_return_statement"]))
    return no("value.result", "it leaves the function, and a constant could not be moved", node);
  if (does === "passed") return passed(node, parent, shown);
  if (!isPlain && parent?.is("initializer_list"))
    return unknown("flow.escapes", `\`${shown}\` could bind a reference to it`, node);
  return isPlain ? yes("flow.written", "it is only read", node) : onObject(node, parent);
}

function isNumber(node: SyntaxNode | undefined): boolean {
  return (
    node !== undefined &&
    (node.is("number_literal") ||
      /^(int|unsigned|long|char|size_t|uint\w+|short|bool)/.test(typeOf(node)?.name ?? ""))
  );
}

/** What is passed may be bound to a reference that changes it. */
function passed(node: SyntaxNode, parent: SyntaxNode | undefined, shown: string): Answer {
  if (parent?.is("binary_expression"))
    return isNumber(parent.child("left"))
      ? yes("flow.written", "it is only read", node)
      : no("flow.written", `\`${shown}\` could read into it`, node);
  if (parent?.is("for_range_loop"))
    return parent.child("declarator")?.is("reference_declarator") &&
      !parent.parts.some((one) => one.is("type_qualifier") && one.text === "const")
      ? unknown("flow.written", `\`${shortened(parent.text)}\` walks it by reference`, node)
      : yes("flow.written", "it is only walked", node);
  const call = parent?.is("argument_list") ? parent.parent : undefined;
  const callee = (call?.child("function") ?? call?.child("type"))?.text ?? "";
  const how = /^(std::)?(move|swap|exchange|forward|ref|tie|getline)\b/.test(callee)
    ? "reference"
    : howPassed(node);
  if (how === "value") return yes("flow.written", `\`${callee}\` takes it by value`, node);
  if (how === "reference") return no("flow.written", `\`${callee}\` takes it by reference`, node);
  if (!call && parent?.is("field_expression")) return onObject(node, parent);
  return unknown("flow.written", `\`${shortened(call?.text ?? shown)}\` could take it by reference`, node);
}

/** What is asked of an object: a member that is read, a method that promises to leave it alone. */
function onObject(node: SyntaxNode, parent: SyntaxNode | undefined): Answer {
  const shown = shortened(parent?.text ?? node.text);
  const doubt = unknown("flow.written", `\`${shown}\` could change it`, node);
  if (!parent) return doubt;
  if (parent.is("field_expression")) {
    const call = parent.parent?.is("call_expression") ? parent.parent : undefined;
    if (!call)
      return parent.parent?.is([
        "argument_list",
        "subscript_expression",
        "field_expression",
        "reference_declarator",
      ])
        ? doubt
        : yes("flow.written", "a member of it is read", node);
    const effect = calledFromLibrary(call)?.effect;
    if (effect === "none" || effect === "reads")
      return yes("flow.written", `\`${shown}\` leaves it alone`, node);
    const type = typeOf(node);
    const [own, ...more] = type ? classesNamed(node.tree, type.name).classes : [];
    const name = parent.child("field")?.text;
    const methods =
      own && more.length === 0 ? own.members.filter((one) => one.name === name && one.as === "method") : [];
    const isConstant =
      methods.length > 0 && methods.every(({ text }) => /\)\s*const\b/.test(text.split("{")[0]!));
    return isConstant
      ? yes("flow.written", `\`${name}\` of \`${type!.name}\` promises to leave it alone`, node)
      : doubt;
  }
  if (parent.is("binary_expression") && /^(==|!=|<|>|<=|>=|\+)$/.test(parent.child("operator")?.text ?? ""))
    return yes("flow.written", "it is compared or added", node);
  if (parent.is("init_declarator")) return yes("flow.written", "it is copied", node);
  return doubt;
}
