import {
  calledFromLibrary,
  classesNamed,
  no,
  referencesAt,
  shortened,
  typeOf,
  unknown,
  yes,
} from "../../../core.js";
import type { Answer, Reference, SyntaxNode } from "../../../core.js";
import { withParentheses } from "../../family/parentheses.js";
import type { Variable } from "./variable.js";

/** What a use does to a variable: it only reads it, it may change it, or it changes it. */
export function changeBy({ is }: Variable, { node, does }: Reference): Answer {
  const shown = shortened(
    node.closest(["expression_statement", "declaration", "return_statement"])?.text ?? node.text,
  );
  const changes = (): Answer => no("flow.written", `\`${shown}\` gives it another value`, node);
  const reads = yes("flow.written", "it is only read", node);
  const parent = withParentheses(node).parent;
  if (is === "pointer" && parent?.is("subscript_expression") && parent.firstPart?.holds(node)) return reads;
  if (does === "write" || does === "update") return changes();
  if (does === "address" || (parent?.is("pointer_expression") && parent.has("&")))
    return no("flow.escapes", `\`${shown}\` takes its address, or binds a reference to it`, node);
  if (node.closest(["decltype", "type_descriptor", "template_argument_list"]))
    return no("type.same", `\`${shown}\` speaks of its type`, node);
  if (
    parent?.is("binary_expression") &&
    parent.child("operator")?.text === ">>" &&
    parent.child("right")?.holds(node) &&
    !isNumber(parent.child("left"))
  )
    return no("flow.written", `\`${shown}\` could read into it`, node);
  if (parent?.is("return_statement")) return returned(node, is);
  if (parent?.is("argument_list")) return passed(node, parent);
  if (parent?.is("initializer_list") && is !== "scalar" && is !== "pointer")
    return unknown("flow.escapes", `\`${shown}\` could bind a reference to it`, node);
  if (parent?.is("for_range_loop"))
    return parent.child("declarator")?.is("reference_declarator") &&
      !parent.parts.some((one) => one.is("type_qualifier") && one.text === "const")
      ? unknown("flow.written", `\`${shortened(parent.text)}\` walks it by reference`, node)
      : reads;
  if (is === "scalar" || is === "pointer")
    return does === "passed" ? unknown("flow.escapes", `\`${shown}\` could change it`, node) : reads;
  return onObject(node, parent);
}

function isNumber(node: SyntaxNode | undefined): boolean {
  return (
    node !== undefined &&
    (node.is("number_literal") ||
      /^(int|unsigned|long|char|size_t|uint\w+|short|bool)/.test(typeOf(node)?.name ?? ""))
  );
}

/** A constant object is copied where it would be moved out of the function, and no reference to it may leave. */
function returned(node: SyntaxNode, is: Variable["is"]): Answer {
  const around = node.closest(["function_definition", "lambda_expression"]);
  const declarator = around?.child("declarator");
  if (around?.is("function_definition") && declarator?.is("reference_declarator"))
    return no("flow.escapes", "a reference to it is returned", node);
  if (is === "scalar" || is === "pointer") return yes("flow.written", "its value is returned", node);
  return no("value.result", "it is returned, and a constant could not be moved", node);
}

/** An argument may be bound to a reference that changes it. */
function passed(node: SyntaxNode, list: SyntaxNode): Answer {
  const call = list.parent;
  const callee = call?.child("function") ?? call?.child("type");
  const shown = shortened(call?.text ?? node.text);
  if (call?.is("call_expression") && calledFromLibrary(call)?.effect === "none")
    return yes("flow.written", `\`${callee!.text}\` does nothing to its arguments`, node);
  if (/^(std::)?(move|swap|exchange|forward|ref|tie|getline)\b/.test(callee?.text ?? ""))
    return no("flow.written", `\`${shown}\` takes it by reference`, node);
  const place = list.parts.findIndex((part) => part.holds(node));
  const kinds =
    call?.is("call_expression") && callee ? parameterKinds(callee, place, list.parts.length) : undefined;
  if (kinds?.includes("reference")) return no("flow.written", `\`${shown}\` takes it by reference`, node);
  if (kinds !== undefined && kinds.length > 0)
    return yes("flow.written", `\`${callee!.text}\` takes it by value`, node);
  return unknown("flow.written", `\`${shown}\` could take it by reference`, node);
}

/** How the functions of this file that a name may mean take an argument; undefined where others could be meant. */
function parameterKinds(
  callee: SyntaxNode,
  place: number,
  count: number,
): readonly ("value" | "reference")[] | undefined {
  if (!callee.is("identifier")) return undefined;
  const to = referencesAt(callee).find((one) => one.to)?.to;
  if (to?.as !== "function") return undefined;
  return to.at.flatMap((at) => {
    const declarator = at.closest(["function_declarator"]);
    const list = declarator?.child("parameters")?.parts ?? [];
    if (!declarator || list.length < count)
      return list.some((one) => /\.\.\./.test(one.text)) ? ["reference" as const] : [];
    const parameter = list[place]!;
    const isReference =
      parameter.child("declarator")?.is(["reference_declarator", "abstract_reference_declarator"]) === true;
    const isConstant = parameter.parts.some((part) => part.is("type_qualifier") && part.text === "const");
    return [isReference && !isConstant ? ("reference" as const) : ("value" as const)];
  });
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
