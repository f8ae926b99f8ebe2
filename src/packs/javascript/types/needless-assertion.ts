import { condition, copy, holes, ofKind, rule, trialsIn, unknown, valuesOf, yes } from "../../../core.js";
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

export const needlessAssertion = rule({
  id: "javascript/needless-assertion",
  kind: "idiom",
  title: "Remove a ! behind a value that is there anyway",
  why: "The sign silences the compiler, and goes on doing so when the value can be missing one day.",
  was: ofKind(asserted, { when: (node) => !node.firstPart!.is("non_null_expression") }),
  mentions: ["!"],
  where: [(match) => isThereAnyway(match) !== undefined],
  given: [condition("the value is there without the sign", (match) => isThereAnyway(match)!)],
  becomes: (match) => [copy(valueOf(match).start, valueOf(match).end)],
  trials: [
    ts.rewrites(
      "function f(hive: string) { return hive!.length; }",
      "function f(hive: string) { return hive.length; }",
    ),
    ts.rewrites("const n: number = g();\nf(n!);", "const n: number = g();\nf(n);"),
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
