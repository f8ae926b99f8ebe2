import { csharp, holes, rule, trialsIn } from "../../index.js";

const { value } = holes({ value: "expression" });
const { rewrites, ignores } = trialsIn("csharp");

export const nullTest = rule({
  id: "csharp/null-test",
  kind: "idiom",
  title: "Ask for null with is null",
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
