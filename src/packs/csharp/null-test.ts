import { condition, copy, holes, no, rule, tested, text, trialsIn, typeOf, yes } from "../../core.js";
import type { Match, SyntaxNode } from "../../core.js";
import { isReferenceEquals, isValueType, mayBeExpressionTree, nullableValue } from "./values.js";

const { value } = holes({ value: "expression" });
const { rewrites, ignores } = trialsIn("csharp");

/** The test asks by a method, rather than by an operator. */
const byMethod = ({ tests: [test] }: Match): boolean =>
  test!.words.some((one) => /ReferenceEquals$/.test(one));

/** What is turned into an `object` only to be compared: `x` of `(object)x`. */
function castToObject(node: SyntaxNode): SyntaxNode | undefined {
  const isOne =
    node.is("cast_expression") && /^(object|(System\.)?Object)$/.test(node.child("type")?.text ?? "");
  return isOne ? node.child("value") : undefined;
}

const testedValue = (match: Match): SyntaxNode => castToObject(match.the(value)) ?? match.the(value);

export const nullTest = rule({
  id: "csharp/null-test",
  kind: "idiom",
  title: "Use is null to test for null",
  why: "A call or a cast only to keep an operator from being asked hides that nothing but null is meant.",
  target: "7.0",
  was: tested(value),
  where: [(match) => byMethod(match) || castToObject(match.the(value)) !== undefined],
  given: [
    condition("`ReferenceEquals` is the one of the language", (match) =>
      byMethod(match) ? isReferenceEquals(match.tests[0]!.test) : yes("name.library", "no method is called"),
    ),
    condition("the value is an object", (match) => {
      const node = testedValue(match);
      const type = typeOf(node);
      return type && isValueType(type.name, match.node) && nullableValue(node) === undefined
        ? no("value.null", `${type.why}, which is never null`, type.at)
        : yes("value.null", "it may be null");
    }),
    condition("the code is compiled and not read as an expression tree", (match) =>
      mayBeExpressionTree(match.node),
    ),
  ],
  becomes: (match) => {
    const { start, end } = testedValue(match);
    const [before, after] = match.tests[0]!.isThere ? ["!(", " is null)"] : ["", " is null"];
    return [text(before), copy(start, end), text(after)];
  },
  trials: [
    rewrites(
      "class A { bool F(A a) { return ReferenceEquals(a, null); } }",
      "class A { bool F(A a) { return a is null; } }",
    ),
    rewrites(
      "class A { bool F(A a) { return object.ReferenceEquals(null, a); } }",
      "class A { bool F(A a) { return a is null; } }",
    ),
    rewrites(
      "class A { bool F(A a) { return (object)a == null; } }",
      "class A { bool F(A a) { return a is null; } }",
    ),
    rewrites(
      "class A { bool F(A a) { return !Object.ReferenceEquals(a, null); } }",
      "class A { bool F(A a) { return !(a is null); } }",
    ),
    rewrites(
      "class A { bool F(A a) { return (object)a != null; } }",
      "class A { bool F(A a) { return !(a is null); } }",
    ),
    rewrites(
      "class A { bool F(A a) { return null == (System.Object)a.b; } }",
      "class A { bool F(A a) { return a.b is null; } }",
    ),
    ignores("class A { bool F(A a, A b) { return ReferenceEquals(a, b); } }"),
    ignores("class A { bool F(A a) { return (string)a == null; } }"),
    ignores("class A { bool F(A a) { return a == null; } }"),
    ignores("class A { bool F(A a) { return Same.ReferenceEquals(a, null); } }"),
    trialsIn("csharp", "6").ignores("class A { bool F(A a) { return ReferenceEquals(a, null); } }"),
  ],
});
