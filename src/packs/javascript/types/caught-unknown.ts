import {
  escaped,
  condition,
  holes,
  no,
  ofKind,
  referencesAt,
  referencesOf,
  rule,
  text,
  trialsIn,
  yes,
} from "../../../core.js";
import type { Answer, Match, SyntaxNode } from "../../../core.js";

const { type } = holes({ type: { kind: "type", node: "predefined_type" } });
const ts = trialsIn("typescript");

/** The name that a `catch` of type `any` gives the error. */
function caughtName(node: SyntaxNode): SyntaxNode | undefined {
  const clause = node.parent?.is("type_annotation") ? node.parent.parent : undefined;
  const name = clause?.is("catch_clause") ? clause.child("parameter") : undefined;
  return node.text === "any" && name?.is("identifier") ? name : undefined;
}

/** What may be done with a value of which nothing is known. */
function isFine(node: SyntaxNode): boolean {
  const { parent } = node;
  if (!parent) return false;
  if (parent.is(["throw_statement", "template_substitution"])) return true;
  if (parent.is("binary_expression")) {
    const operator = parent.child("operator")!.text;
    return operator === "instanceof" ? node.field === "left" : ["===", "!==", "==", "!="].includes(operator);
  }
  if (parent.is("unary_expression")) return ["typeof", "!"].includes(parent.child("operator")!.text);
  if (parent.is("as_expression")) return true;
  if (parent.is("shorthand_property_identifier")) return node.text === "cause";
  if (parent.is("pair")) return parent.child("key")?.text === "cause";
  const callee = parent.is("arguments") ? parent.parent!.child("function")?.text : undefined;
  if (callee !== undefined && /^(console\.\w+|String|Boolean|reject|Promise\.reject)$/.test(callee))
    return true;
  return isNarrowed(node);
}

/** Does it stand where `e instanceof …` is true? */
function isNarrowed(node: SyntaxNode): boolean {
  const test = new RegExp(`^\\(?${escaped(node.text)} instanceof [\\w.]+\\)?$`);
  let inner = node;
  for (const above of node.ancestors()) {
    if (above.is(["catch_clause", "arrow_function", "function_expression", "function_declaration"]))
      return false;
    if (above.is(["if_statement", "ternary_expression"]) && inner.field === "consequence")
      if (test.test(above.child("condition")!.text)) return true;
    const isBoth =
      above.is("binary_expression") && above.child("operator")!.text === "&&" && inner.field === "right";
    if (isBoth && test.test(above.child("left")!.text)) return true;
    inner = above;
  }
  return false;
}

function isUsedWithCare(match: Match): Answer {
  const name = caughtName(match.the(type))!;
  const to = referencesAt(name).find((one) => one.to)?.to;
  const uses = to ? referencesOf(to).filter(({ node }) => !node.same(name)) : [];
  const other = uses.find(({ node, does }) => does !== "read" || !isFine(node));
  return other
    ? no("value.kind", `\`${name.text}\` is used without a test of what it is`, other.node)
    : yes("value.kind", `nothing is taken for granted of \`${name.text}\``, name);
}

export const caughtUnknown = rule({
  id: "javascript/caught-unknown",
  kind: "idiom",
  title: "Say that nothing is known of a caught value",
  why: "Anything can be thrown; with any the compiler lets the code read members that may not be there.",
  was: ofKind(type, { when: (node) => caughtName(node) !== undefined }),
  mentions: ["any"],
  given: [condition("nothing is taken for granted of it", isUsedWithCare)],
  becomes: () => [text("unknown")],
  trials: [
    ts.rewrites(
      "try { f(); } catch (e: any) { console.error(e); throw e; }",
      "try { f(); } catch (e: unknown) { console.error(e); throw e; }",
    ),
    ts.rewrites(
      "try { f(); } catch (e: any) { if (e instanceof Error) g(e.message); else g(`${e}`); }",
      "try { f(); } catch (e: unknown) { if (e instanceof Error) g(e.message); else g(`${e}`); }",
    ),
    ts.rewrites(
      "try { f(); } catch (e: any) { g(e instanceof Error && e.message); throw new Error('x', { cause: e }); }",
      "try { f(); } catch (e: unknown) { g(e instanceof Error && e.message); throw new Error('x', { cause: e }); }",
    ),
    ts.rewrites("try { f(); } catch (e: any) { g(); }", "try { f(); } catch (e: unknown) { g(); }"),
    ts.holds("try { f(); } catch (e: any) { g(e.message); }", "without a test"),
    ts.holds("try { f(); } catch (e: any) { g(e); }", "without a test"),
    ts.holds("try { f(); } catch (e: any) { if (e instanceof Error) g(() => e.message); }", "without a test"),
    ts.holds("try { f(); } catch (e: any) { if (!(e instanceof Error)) g(e.message); }", "without a test"),
    ts.holds("try { f(); } catch (e: any) { e = 1; }", "without a test"),
    ts.ignores("try { f(); } catch (e: unknown) { g(e.message); }"),
    ts.ignores("try { f(); } catch (e) { g(e.message); }"),
    ts.ignores("function f(e: any) { throw e; }"),
  ],
});
