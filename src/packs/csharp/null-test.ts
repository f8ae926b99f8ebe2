import { condition, csharp, holes, no, rule, trialsIn, typeOf, yes } from "../../index.js";
import { isReferenceEquals, isValueType, mayBeExpressionTree, nullableValue } from "./values.js";

/** `(object)value == null`. */
const CAST = 6;

const { value } = holes({ value: "expression" });
const { rewrites, ignores } = trialsIn("csharp");

export const nullTest = rule({
  id: "csharp/null-test",
  kind: "idiom",
  title: "Use is null to test for null",
  why: "A call or a cast only to keep an operator from being asked hides that nothing but null is meant.",
  target: "7.0",
  was: [
    csharp`ReferenceEquals(${value}, null)`,
    csharp`ReferenceEquals(null, ${value})`,
    csharp`object.ReferenceEquals(${value}, null)`,
    csharp`object.ReferenceEquals(null, ${value})`,
    csharp`Object.ReferenceEquals(${value}, null)`,
    csharp`Object.ReferenceEquals(null, ${value})`,
    csharp`(object)${value} == null`,
  ],
  given: [
    condition("`ReferenceEquals` is the one of the language", (match) => {
      if (match.alternative === CAST) return yes("name.library", "no method is called");
      return isReferenceEquals(match.node);
    }),
    condition("the value is an object", (match) => {
      const type = typeOf(match.the(value));
      return type && isValueType(type.name, match.node) && nullableValue(match.the(value)) === undefined
        ? no("value.null", `${type.why}, which is never null`, type.at)
        : yes("value.null", "it may be null");
    }),
    condition("the code is compiled and not read as an expression tree", (match) =>
      mayBeExpressionTree(match.node),
    ),
  ],
  becomes: csharp`${value} is null`,
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
    ignores("class A { bool F(A a, A b) { return ReferenceEquals(a, b); } }"),
    ignores("class A { bool F(A a) { return (string)a == null; } }"),
    ignores("class A { bool F(A a) { return a == null; } }"),
    ignores("class A { bool F(A a) { return Same.ReferenceEquals(a, null); } }"),
    trialsIn("csharp", "6").ignores("class A { bool F(A a) { return ReferenceEquals(a, null); } }"),
  ],
});
