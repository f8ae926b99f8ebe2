import { csharp, condition, holes, isSideEffectFree, rule, trialsIn, no, yes } from "../../index.js";
import { formOf, type Form } from "../family/conditions.js";
import { evaluatedOnce } from "../family/conditions.js";
import { nullTests } from "./tests.js";
import { comparesPlainly, isPath } from "./values.js";

const { value, error, place } = holes({ value: "name", error: "expression", place: "expression" });

const FORMS: readonly Form<"operator" | "plain">[] = nullTests(value).map(({ gone, byOperator }) => ({
  tests: byOperator ? "operator" : "plain",
  was: csharp`if (${gone}) { throw ${error}; } ${place} = ${value};`,
}));

const { rewrites, ignores, holds } = trialsIn("csharp");

export const thrownIfMissing = rule({
  id: "csharp/thrown-if-missing",
  kind: "idiom",
  title: "Assign or throw with ?? throw",
  why: "The test and the assignment that it protects belong together and should not drift apart.",
  target: "7.0",
  was: FORMS.map(({ was }) => was),
  where: [(match) => match.the(place).is(["identifier", "member_access_expression"])],
  given: [
    evaluatedOnce(value),
    condition("`== null` asks for null and nothing else", (match) =>
      formOf(FORMS, match).tests === "plain"
        ? yes("type.operator", "no operator is asked")
        : comparesPlainly(match.the(value)),
    ),
    condition("finding the place to assign to does nothing else", (match) => {
      const node = match.the(place);
      const object = node.child("expression");
      if (isPath(node) && object) return isSideEffectFree(object);
      return isPath(node)
        ? yes("flow.order", `\`${node.text}\` is a plain place`)
        : no("flow.order", `\`${node.text}\` is worked out first`, node);
    }),
  ],
  becomes: csharp`${place} = ${value} ?? throw ${error};`,
  trials: [
    rewrites(
      `
      interface IQueen { }
      class Hive {
          Hive(IQueen queen) {
              if (queen == null)
                  throw new ArgumentNullException("queen");
              this.queen = queen;
          }
      }
      `,
      `
      interface IQueen { }
      class Hive {
          Hive(IQueen queen) {
              this.queen = queen ?? throw new ArgumentNullException("queen");
          }
      }
      `,
    ),
    rewrites(
      "class A { A(string n) { if (n is null) { throw new E(); } _n = n; } }",
      "class A { A(string n) { _n = n ?? throw new E(); } }",
    ),
    rewrites(
      "class A { A(Queen n) { if (n == null) { throw new E(); } _n = n; } }",
      "class A { A(Queen n) { _n = n ?? throw new E(); } }",
      "likely",
    ),
    holds("class A { A(string n) { if (n == null) throw new E(); Find().N = n; } }", "worked out first"),
    ignores("class A { A(string n) { if (n == null) throw new E(); n = m; } }"),
    ignores("class A { A(string n) { if (n == null) throw new E(); Log(); _n = n; } }"),
    ignores("class A { A(string n) { if (n == null) { Log(); throw new E(); } _n = n; } }"),
    ignores("class A { A(string n) { if (n == null) return; _n = n; } }"),
    trialsIn("csharp", "6").ignores("class A { A(string n) { if (n == null) throw new E(); _n = n; } }"),
  ],
});
