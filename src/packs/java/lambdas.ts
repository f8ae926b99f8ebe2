import { nameInFile, no, referencesAt, shortened, unknown, yes } from "../../index.js";
import type { Answer, Declaration, SyntaxNode } from "../../index.js";

/** Constructors of the standard library that throw nothing which must be declared. */
const QUIET =
  /^(ArrayList|LinkedList|HashMap|LinkedHashMap|TreeMap|ConcurrentHashMap|HashSet|LinkedHashSet|TreeSet|ArrayDeque|PriorityQueue|CopyOnWriteArrayList|Object|String|StringBuilder|AtomicInteger|AtomicLong|AtomicBoolean|Integer|Long|Date|Random|ReentrantLock|CountDownLatch|EnumMap|BitSet|\w*(?:RuntimeException|IllegalArgumentException|IllegalStateException|NoSuchElementException|NullPointerException|UnsupportedOperationException))$/;

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
          `\`${to.name}\` is given a value more than once, so a lambda cannot use it`,
          writes[0]!.node,
        );
    }
  }
  return yes("a lambda can use all that is used here");
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
    if (jumps) return no(`\`${shortened(jumps.text)}\` cannot leave a lambda as it leaves this code`, jumps);
    for (const node of part.descendants()) {
      if (isConstructor(node)) {
        const type = node.child("type");
        const name = (type?.is("generic_type") ? type.parts[0] : type)?.text ?? "";
        if (QUIET.test(name) && !node.parts.some((child) => child.is("class_body"))) continue;
        doubt ??= unknown(`\`new ${name}\` may throw an exception that must be declared`, node);
      } else if (node.is(["method_invocation", "explicit_constructor_invocation"])) {
        doubt ??= unknown(`\`${shortened(node.text)}\` may throw an exception that must be declared`, node);
      }
    }
  }
  return doubt ?? yes("nothing in it throws what must be declared");
}
