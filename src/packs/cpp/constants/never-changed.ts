import { condition, copy, holes, ofKind, unknown, yes } from "../../../core.js";
import type { Answer, Match, Reference, RuleSpec, Segment, SyntaxNode } from "../../../core.js";
import { changeBy } from "./changed.js";
import { PARAMETERS, usesOfVariable, variableAt, type Variable } from "./variable.js";

/** What is changed somewhere is not what the rule speaks of. */
function fits(node: SyntaxNode): boolean {
  const variable = variableAt(node);
  const uses = variable && usesOfVariable(variable);
  if (variable && uses && (isReleased(variable, uses) || isOwner(variable))) return false;
  // An object that nobody uses is there for its end, as a lock is; a parameter of which nothing is said says enough.
  if (uses?.length === 0 && (variable!.is === "object" || node.is(PARAMETERS))) return false;
  if (node.is(PARAMETERS) && variable?.is === "object" && isOfCoroutine(node)) return false;
  return uses !== undefined && !uses.some((use) => changeBy(variable!, use).is === "no");
}

/** What a coroutine takes by value is moved into its frame, and a constant would be copied. */
function isOfCoroutine(parameter: SyntaxNode): boolean {
  const body = parameter.closest(["function_definition", "lambda_expression"])?.child("body");
  return [...(body?.descendants() ?? [])].some((one) =>
    one.is(["co_await_expression", "co_yield_statement", "co_return_statement"]),
  );
}

/** An owner or a lock is there to let go of something, and a constant one is nobody's wish. */
function isOwner({ type, value }: Variable): boolean {
  const code = `${type.text} ${value?.text ?? ""}`;
  return /\b(unique_ptr|shared_ptr|weak_ptr|make_unique|make_shared|\w+_lock|lock_guard|future|thread)\b/.test(
    code,
  );
}

/** What is made and released by hand is to get an owner first. */
function isReleased({ is, value }: Variable, uses: readonly Reference[]): boolean {
  if (is !== "pointer") return false;
  const releases = uses.some(({ node }) => {
    const call = node.parent?.is("argument_list") ? node.parent.parent : node.closest(["delete_expression"]);
    const method = node.parent?.is("field_expression") ? node.parent.child("field")?.text : undefined;
    const callee = call?.is("delete_expression") ? "delete" : (call?.child("function")?.text ?? method ?? "");
    return /free|close|release|destroy|delete|unref/i.test(callee);
  });
  return releases || value?.is("new_expression") === true;
}

/** The first use of which it is not known whether it changes the variable. */
function isNeverChanged(match: Match): Answer {
  const variable = variableAt(match.node)!;
  const answers = usesOfVariable(variable)!.map((use) => changeBy(variable, use));
  const doubt = answers.find((one) => one.is === "unknown");
  return doubt ?? yes("flow.written", `nothing gives \`${variable.name.text}\` another value`, variable.name);
}

const isSimple = (match: Match): boolean => {
  const { is } = variableAt(match.node)!;
  return is === "scalar" || is === "pointer";
};

/** An object is constructed from its value as before, but a class may have methods that need it to change. */
function mayBeConstant(match: Match): Answer {
  const { is, type } = variableAt(match.node)!;
  return is === "scalar" || is === "pointer"
    ? yes("type.is", "it is a number or a pointer", type)
    : unknown(
        "type.not-known",
        `an object of \`${type.text}\` could be meant to change, as a lock does`,
        type,
      );
}

function constant(match: Match): Segment[] {
  const node = match.node;
  const { type, name, is } = variableAt(node)!;
  const at = is === "pointer" ? name.start : type.start;
  // Only what stands ahead of the place is part of the change, not the loop's body.
  return [copy(node.start, node.end, [{ start: at, end: at, text: "const " }])];
}

/** What rules have in common that make constants of variables which these kinds of nodes declare. */
export function neverChanged(
  nodes: readonly string[],
): Pick<RuleSpec, "was" | "given" | "becomes" | "taste"> {
  const { declared } = holes({ declared: { kind: "statement", node: nodes } });
  return {
    taste: true,
    was: ofKind(declared, { when: fits, together: (node) => [node] }),
    given: [
      condition("nothing gives it another value", isNeverChanged, { when: isSimple }),
      condition("nothing changes the object", isNeverChanged, {
        when: (match) => !isSimple(match),
        unknownIs: "possible",
      }),
      condition("it may be a constant", mayBeConstant),
    ],
    becomes: constant,
  };
}
