import {
  condition,
  csharp,
  holes,
  orThrows,
  required,
  rule,
  trialsIn,
  typeOf,
  unknown,
  yes,
} from "../../core.js";
import type { Answer, Match } from "../../core.js";
import { testedOnce } from "../family/conditions.js";
import { asksForNull, isTypeInferred, nullableValue } from "./values.js";

const { value, error } = holes({ value: "name", error: "expression" });
/** `n ?? throw e` is an `int` for an `int?`, which counts where a type is inferred from it. */
function keepsType(match: Match): Answer {
  const node = match.the(value);
  const type = nullableValue(node);
  if (!isTypeInferred(match.place) || (type === undefined && typeOf(node)))
    return yes("type.same", "the value goes to a place of a type of its own");
  return unknown(
    "type.same",
    type === undefined
      ? `\`${node.text}\` could be an \`int?\` or its like, and what is inferred would be an \`int\``
      : `what is inferred was a \`${type}\`, and would be a \`${type.slice(0, -1)}\``,
    node,
  );
}

const { rewrites, ignores, holds } = trialsIn("csharp");

export const thrownIfMissing = rule({
  id: "csharp/thrown-if-missing",
  kind: "idiom",
  title: "Use ?? throw instead of a null check that throws",
  why: "The test and the assignment that it protects belong together and should not drift apart.",
  target: "7.0",
  was: [required(value, error), orThrows(value, error)],
  given: [testedOnce(), asksForNull(), condition("the type of what is written stays", keepsType)],
  becomes: csharp.expression`${value} ?? throw ${error}`,
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
      "interface IQueen { } class A { IQueen F(IQueen q) { if (q == null) throw new E(); return q; } }",
      "interface IQueen { } class A { IQueen F(IQueen q) { return q ?? throw new E(); } }",
    ),
    rewrites(
      "interface IQueen { } class A { IQueen F(IQueen q) { if (q is not null) { return q; } throw new E(); } }",
      "interface IQueen { } class A { IQueen F(IQueen q) { return q ?? throw new E(); } }",
    ),
    rewrites(
      "interface IQueen { } class A { IQueen F(IQueen q) { if (q != null) return q; else throw new E(); } }",
      "interface IQueen { } class A { IQueen F(IQueen q) { return q ?? throw new E(); } }",
    ),
    rewrites(
      "class A { void F(int? n) { if (n == null) throw new E(); var m = n; } }",
      "class A { void F(int? n) { var m = n ?? throw new E(); } }",
      "likely",
    ),
    rewrites(
      "class A { void F(int? n) { G(() => { if (n == null) throw new E(); return n; }); } }",
      "class A { void F(int? n) { G(() => { return n ?? throw new E(); }); } }",
      "likely",
    ),
    rewrites(
      "class A { void F(int? n) { if (n == null) throw new E(); int? m = n; } }",
      "class A { void F(int? n) { int? m = n ?? throw new E(); } }",
    ),
    ignores("class A { string F(string q) { if (q == null) throw new E(); return q.Trim(); } }"),
    ignores(
      "class A { string F(string q) { if (q == null) throw new E(); else if (b) return q; return q; } }",
    ),
    rewrites(
      "class A { A(Queen n) { if (n == null) { throw new E(); } _n = n; } }",
      "class A { A(Queen n) { _n = n ?? throw new E(); } }",
      "likely",
    ),
    rewrites(
      `
      class A {
          A(string a, string b) {
              if (a == null) throw new E("a");
              if (null == b) { throw new E("b"); }

              this.a = a;
              this.b = b;
          }
      }
      `,
      `
      class A {
          A(string a, string b) {
              this.a = a ?? throw new E("a");
              this.b = b ?? throw new E("b");
          }
      }
      `,
    ),
    // What is stored first can be seen where the second is missing.
    rewrites(
      "class A { void F(string a, string b) { if (b == null) throw new E(); _a = a; _b = b; } }",
      "class A { void F(string a, string b) { _a = a; _b = b ?? throw new E(); } }",
      "likely",
    ),
    // Others see what a constructor does to them, and to what all objects share.
    rewrites(
      "class A { static string all; A(string a, string b) { if (b == null) throw new E(); all = a; _b = b; } }",
      "class A { static string all; A(string a, string b) { all = a; _b = b ?? throw new E(); } }",
      "likely",
    ),
    rewrites(
      "class A { A(Q q, string b) { if (b == null) throw new E(); q.Of = this; _b = b; } }",
      "class A { A(Q q, string b) { q.Of = this; _b = b ?? throw new E(); } }",
      "likely",
    ),
    ignores("class A { A(string n, string m) { if (n == null) throw new E(m); m = k; _n = n; } }"),
    ignores("class A { A(string n) { if (n == null) throw new E(); n = n.Trim(); _n = n; } }"),
    holds("class A { A(string n) { if (n == null) throw new E(); Find().N = n; } }", "calls something"),
    ignores("class A { A(string n) { if (n == null) throw new E(); n = m; } }"),
    ignores("class A { A(string n) { if (n == null) throw new E(); Log(); _n = n; } }"),
    ignores("class A { A(string n) { if (n == null) { Log(); throw new E(); } _n = n; } }"),
    ignores("class A { A(string n) { if (n == null) return; _n = n; } }"),
    trialsIn("csharp", "6").ignores("class A { A(string n) { if (n == null) throw new E(); _n = n; } }"),
  ],
});
