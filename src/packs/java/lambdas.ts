import {
  calledFromLibrary,
  classesNamed,
  isNamedLike,
  memberNamed,
  nameInFile,
  no,
  referencesAt,
  shortened,
  typeOf,
  unknown,
  yes,
} from "../../core.js";
import type { Answer, Declaration, SyntaxNode } from "../../core.js";

const isConstructor = (node: SyntaxNode): boolean => node.is("object_creation_expression");

/** The local variables of the function around that code uses. */
function* localsIn(code: SyntaxNode): Generator<{ node: SyntaxNode; to: Declaration }> {
  for (const node of code.descendants()) {
    if (!node.is("identifier")) continue;
    const to = referencesAt(node).find(({ member }) => !member)?.to;
    const isLocal =
      to &&
      !code.holds(to.at[0]!) &&
      !to.at[0]!.closest(["field_declaration"]) &&
      (to.as === "parameter" ||
        to.at[0]!.closest([
          "local_variable_declaration",
          "enhanced_for_statement",
          "resource",
          "catch_formal_parameter",
          "for_statement",
        ]) !== undefined);
    if (to && isLocal) yield { node, to };
  }
}

/** May code become the body of a lambda: does it use only variables that are never given another value? */
export function usesOnlyFinal(code: readonly SyntaxNode[]): Answer {
  for (const part of code) {
    for (const { node, to } of localsIn(part)) {
      const { references } = nameInFile(to.name, node.tree);
      const writes = references.filter(
        (one) => one.to === to && (one.does === "write" || one.does === "update"),
      );
      const isDeclared =
        writes.length === 0 || (writes.length === 1 && to.at.some((at) => at.same(writes[0]!.node)));
      if (!isDeclared)
        return no(
          "name.scope",
          `\`${to.name}\` is given a value more than once, so a lambda cannot use it`,
          writes[0]!.node,
        );
    }
  }
  return yes("name.scope", "a lambda can use all that is used here");
}

/** A lambda may throw nothing that must be declared, and may not leave the function around it. */
export function staysQuiet(code: readonly SyntaxNode[]): Answer {
  let doubt: Answer | undefined;
  for (const part of code) {
    const jumps = [...part.descendants()].find((node) =>
      node.is([
        "return_statement",
        "break_statement",
        "continue_statement",
        "yield_statement",
        "throw_statement",
      ]),
    );
    if (jumps)
      return no(
        "name.scope",
        `\`${shortened(jumps.text)}\` cannot leave a lambda as it leaves this code`,
        jumps,
      );
    for (const node of part.descendants()) {
      const says = isConstructor(node)
        ? constructsQuietly(node)
        : node.is(CALLS)
          ? callsQuietly(node)
          : undefined;
      if (says?.is === "no") return says;
      doubt ??= says;
    }
  }
  return doubt ?? yes("flow.throws", "nothing in it throws what must be declared");
}

const CALLS = ["method_invocation", "explicit_constructor_invocation"];

/** The exceptions that the head of a method or constructor declares. */
const declaredIn = (text: string): string | undefined =>
  /\bthrows\s+([^{;]+)/.exec(text.split("{")[0]!)?.[1]?.trim();

/** May making an object throw what must be declared? Undefined where it certainly does not. */
function constructsQuietly(node: SyntaxNode): Answer | undefined {
  const type = node.child("type");
  const name = (type?.is("generic_type") ? type.firstPart : type)?.text ?? "";
  const doubt = unknown("flow.throws", `\`new ${name}\` may throw an exception that must be declared`, node);
  const { classes, otherwise } = classesNamed(node.tree, name);
  const [own] = classes;
  if (own) {
    const declared = own.members
      .filter((one) => one.as === "constructor")
      .map(({ text }) => declaredIn(text))
      .find((one) => one !== undefined);
    return declared === undefined
      ? undefined
      : no("flow.throws", `\`new ${name}\` declares that it throws \`${declared}\``, node);
  }
  const isPlain = !node.parts.some((child) => child.is("class_body"));
  return isPlain && otherwise === undefined && isNamedLike(name, "made-quietly", node) ? undefined : doubt;
}

/** May calling a method throw what must be declared? Undefined where it certainly does not. */
function callsQuietly(call: SyntaxNode): Answer | undefined {
  const doubt = unknown(
    "flow.throws",
    `\`${shortened(call.text)}\` may throw an exception that must be declared`,
    call,
  );
  // What only works something out declares nothing in the library.
  if (calledFromLibrary(call)?.effect === "none") return undefined;
  const leaf = call.child("name");
  if (!leaf) return doubt;
  const heads = headsOf(call, leaf);
  if (!heads) return doubt;
  const declared = heads.map(declaredIn).find((one) => one !== undefined);
  return declared === undefined
    ? undefined
    : no("flow.throws", `\`${leaf.text}\` declares that it throws \`${declared}\``, call);
}

/** The methods that a call may mean, as they are written; undefined where they are not in the project. */
function headsOf(call: SyntaxNode, leaf: SyntaxNode): string[] | undefined {
  const to = referencesAt(leaf).find((one) => one.to)?.to;
  if (to?.as === "method") return to.at.flatMap((at) => at.closest(["method_declaration"])?.text ?? []);
  const object = call.child("object");
  const type = object && typeOf(object);
  const found = type && memberNamed(call, type.name, leaf.text);
  return found?.member ? [found.member.text] : undefined;
}
