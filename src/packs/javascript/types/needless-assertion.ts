import {
  condition,
  copy,
  functionAround,
  holes,
  isCertainlyAssigned,
  isMissing,
  no,
  ofKind,
  referencesAt,
  rule,
  trialsIn,
  unknown,
  valuesOf,
  yes,
} from "../../../core.js";
import type { Answer, Match, SyntaxNode } from "../../../core.js";

const { asserted } = holes({ asserted: { kind: "expression", node: "non_null_expression" } });
const ts = trialsIn("typescript");

const valueOf = (match: Match): SyntaxNode => match.the(asserted).firstPart!;

/** Is the value there by its type? What the tests on the way show is left to the compiler, which may not see it. */
function isThereAnyway(match: Match): Answer | undefined {
  const value = valueOf(match);
  const type = valuesOf(match, value);
  if (!type || type.canBeNull || type.canBeUndefined) return undefined;
  const says = `\`${value.text}\` is ${type.how} \`${type.text}\`, which is never missing`;
  return type.unsure === undefined
    ? yes("value.null", says, type.at)
    : unknown("type.strict-null", type.unsure, type.at);
}

/**
 * Has the variable been given a value? The compiler asks that of one that is declared without, in the function that declares it,
 * and the sign silences that question too.
 */
function isGivenAnyway(match: Match): Answer {
  const value = valueOf(match);
  const to = value.is("identifier") ? referencesAt(value).find((one) => one.to)?.to : undefined;
  const declared = to?.at[0]?.parent;
  const first = declared?.child("value");
  // For the compiler itself, `!` is part of how it works out such a type.
  if (declared && first && isMissing(first) && !declared.child("type"))
    return no(
      "type.not-known",
      `\`${value.text}\` has the type of what it is given, which may be missing`,
      first,
    );
  if (!to || !declared?.is("variable_declarator") || first)
    return yes("flow.assigned", `\`${value.text}\` has a value from the start`, value);
  const [own, here] = [functionAround(declared), functionAround(value)];
  const isSame = own === undefined || here === undefined ? own === here : own.same(here);
  if (!isSame) return yes("flow.assigned", `\`${value.text}\` is declared around the function`, value);
  const { is, evidence } = isCertainlyAssigned(to, value);
  // What is not seen to be given a value here is none for the compiler.
  return is === "yes"
    ? yes("flow.assigned", evidence.says, value)
    : no("flow.assigned", evidence.says, value);
}

export const needlessAssertion = rule({
  id: "javascript/needless-assertion",
  kind: "idiom",
  title: "Remove a ! behind a value that is there anyway",
  why: "The sign silences the compiler, and goes on doing so when the value can be missing one day.",
  was: ofKind(asserted, { when: (node) => !node.firstPart!.is("non_null_expression") }),
  mentions: ["!"],
  where: [(match) => isThereAnyway(match) !== undefined],
  given: [
    condition("the value is there without the sign", (match) => isThereAnyway(match)!),
    condition("the compiler sees that it has been given a value", isGivenAnyway),
  ],
  becomes: (match) => [copy(valueOf(match).start, valueOf(match).end)],
  trials: [
    ts.rewrites(
      "function f(hive: string) { return hive!.length; }",
      "function f(hive: string) { return hive.length; }",
    ),
    ts.rewrites("const n: number = g();\nf(n!);", "const n: number = g();\nf(n);"),
    ts.rewrites(
      "let name: string;\nif (a) name = 'x'; else name = 'y';\nf(name!.length);",
      "let name: string;\nif (a) name = 'x'; else name = 'y';\nf(name.length);",
    ),
    ts.rewrites(
      "function f() { let name: string; g(() => name!.length); name = 'x'; }",
      "function f() { let name: string; g(() => name.length); name = 'x'; }",
    ),
    ts.holds(
      "function f() { let name: string; g((n) => (name = n)); return name!.length; }",
      "given no value",
    ),
    ts.holds(
      "function f(xs: string[]) { let name: string; for (const x of xs) name = x; return name!.length; }",
      "no value yet",
    ),
    ts.ignores("function f(h: Hive) { let q = null; if (h.open) { q = h.queen; g(q!.age); } }"),
    ts.ignores("function f(hive: Hive) { return hive!.age; }"),
    ts.ignores("function f(hive?: Hive) { if (!hive) return 0; return hive!.age; }"),
    ts.ignores("function f(hive?: Hive) { return hive!.age; }"),
    ts.ignores("function f(hive: Hive | undefined) { return hive!.age; }"),
    ts.ignores("function f(hives: Hive[]) { return hives[0]!.age; }"),
    ts.ignores("let hive: Hive | undefined;\nfunction f() { if (hive) g(() => hive!.age); }"),
    ts.ignores("function f<T>(x: T) { return x!; }"),
    ts.ignores("const x = !y;"),
  ],
});
