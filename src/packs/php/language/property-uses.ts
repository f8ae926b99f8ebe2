import { calledFromLibrary, functionAround, no, shapeOf, shortened, unknown, yes } from "../../../core.js";
import type { Answer, SyntaxNode } from "../../../core.js";
import { writesToArgument } from "../by-reference.js";

const READS = ["member_access_expression", "nullsafe_member_access_expression"];
const CONSTRUCTOR = /^__construct$/i;

/** What is read or written as a property of this name in code, of whatever object. */
export const accessesOf = (code: SyntaxNode, name: string): readonly SyntaxNode[] =>
  code
    .mentions(name)
    .flatMap(({ parent }) => (parent?.is(READS) && parent.child("name")?.text === name ? [parent] : []));

/** A property that is reached by a name that is worked out when the code runs. */
export const reachedByName = (code: SyntaxNode): SyntaxNode | undefined =>
  [...code.descendants()].find((node) => node.is(READS) && node.child("name")?.is("name") === false);

/** Is this a constructor's own statement that gives the property its value, one time each time that it runs? */
export function isGivenInConstructor(access: SyntaxNode): boolean {
  const { parent } = access;
  if (!parent?.is("assignment_expression") || access.field !== "left") return false;
  const method = functionAround(access);
  return (
    access.kind === "member_access_expression" &&
    access.child("object")?.text === "$this" &&
    parent.parent?.is("expression_statement") === true &&
    method?.is("method_declaration") === true &&
    CONSTRUCTOR.test(method.child("name")?.text ?? "") &&
    ![...access.ancestors()].some(
      (above) => method.holds(above) && ["loop", "each"].includes(shapeOf(above)?.is ?? ""),
    )
  );
}

/** Does a use only read the property, and what it holds? What is reached through an object in it does not count. */
export function onlyReads(access: SyntaxNode): Answer {
  const name = access.child("name")!.text;
  let at = access;
  while (at.parent?.is("subscript_expression") && at.parent.firstPart?.same(at)) at = at.parent;
  const parent = at.parent!;
  const isWritten =
    parent.is([
      "update_expression",
      "unset_statement",
      "reference_assignment_expression",
      "by_ref",
      "list_literal",
    ]) ||
    (parent.is(["assignment_expression", "augmented_assignment_expression"]) && at.field === "left") ||
    (parent.is("pair") && parent.parent?.is("list_literal") === true) ||
    (parent.is("foreach_statement") && (!parent.firstPart!.same(at) || isTakenByReference(parent))) ||
    (parent.is("pair") && parent.parent?.is("foreach_statement") === true);
  if (isWritten) return no("flow.written", `\`${name}\` is written here`, access);
  const given = parent.is("argument") ? parent.parent : parent;
  if (given?.is("arguments")) return isTakenAsItIs(given.parent!, at, name);
  return isGivenByReference(at)
    ? no("flow.written", `\`${name}\` is given by reference, so that others may write to it`, access)
    : yes("flow.written", `\`${name}\` is only read`);
}

const isTakenByReference = (loop: SyntaxNode): boolean =>
  loop.parts[1]?.is("by_ref") === true ||
  (loop.parts[1]?.is("pair") === true && loop.parts[1].lastPart?.is("by_ref") === true);

function isGivenByReference(at: SyntaxNode): boolean {
  const method = functionAround(at);
  const isGiven = at.parent?.is(["return_statement", "yield_expression", "arrow_function"]) === true;
  return isGiven && method?.parts.some((part) => part.is("reference_modifier")) === true;
}

/** Does what is called take an argument as a value? By what is known of PHP's own functions, else by a declaration in this file. */
function isTakenAsItIs(call: SyntaxNode, argument: SyntaxNode, name: string): Answer {
  const called = call.is("function_call_expression") ? call.child("function")?.text : undefined;
  const place = call.child("arguments")?.parts.findIndex((part) => part.holds(argument)) ?? -1;
  if (called !== undefined && writesToArgument(called, place))
    return no("flow.written", `\`${called}\` may write to \`${name}\``, argument);
  const effect = calledFromLibrary(call)?.effect;
  if (effect === "none" || effect === "reads") return yes("flow.written", `\`${name}\` is only read`);
  const declared = declaredAs(call);
  if (declared.length === 0)
    return unknown(
      "flow.written",
      `\`${shortened(call.text)}\` could take \`${name}\` by reference`,
      argument,
    );
  const takes = declared.find((one) =>
    one.child("parameters")?.parts.some((part) => part.child("reference_modifier") !== undefined),
  );
  return takes
    ? no("flow.written", `\`${shortened(call.text)}\` takes arguments by reference`, argument)
    : yes("flow.written", `\`${name}\` is only read`);
}

/** The functions of this file that a call may be of: by the name of a function, or of a method of the class around it. */
function declaredAs(call: SyntaxNode): readonly SyntaxNode[] {
  const isOwn =
    (call.is("member_call_expression") && call.child("object")?.text === "$this") ||
    (call.is("scoped_call_expression") && /^(self|static)$/i.test(call.child("scope")?.text ?? ""));
  const wanted = (call.child("name") ?? call.child("function"))?.text;
  if (wanted === undefined || !(isOwn || call.is("function_call_expression"))) return [];
  const root = isOwn ? call.closest(["class_declaration"]) : call.tree.root;
  return (root?.mentions(wanted) ?? []).flatMap(({ parent }) =>
    parent?.is(isOwn ? "method_declaration" : "function_definition") && parent.child("name")?.text === wanted
      ? [parent]
      : [],
  );
}
