import {
  choice,
  condition,
  csharp,
  holes,
  present,
  rule,
  shortened,
  trialsIn,
  typeOf,
  unknown,
  yes,
} from "../../core.js";
import type { Answer, Match } from "../../core.js";
import { fitsBeside } from "./fits-beside.js";
import { testedOnce } from "../family/conditions.js";
import { asksForNull, isTypeInferred, mayBeExpressionTree, nullableValue } from "./values.js";

const { value, fallback } = holes({
  value: "expression",
  fallback: "expression",
});

/** Of an `int?` the old choice gave an `int?` again, and `??` gives an `int`. */
function sameType(match: Match): Answer {
  const type = nullableValue(match.the(value));
  const { choice, place } = match;
  const declared = place.closest(["variable_declaration"])?.child("type");
  const isDeclared = (choice.alias ?? choice.always) !== undefined && declared?.is("implicit_type") === true;
  if (isDeclared && type === undefined && !typeOf(match.the(value)))
    return unknown(
      "type.same",
      `\`var\` could have a nullable type, and takes its type from \`${shortened(match.textOf(fallback))}\` as well now`,
      place,
    );
  if (isDeclared && type !== undefined)
    return unknown(
      "type.same",
      `the variable was a \`${type}\`, and would be a \`${type.slice(0, -1)}\``,
      place,
    );
  const isInferred = place.parent?.is("return_statement") && isTypeInferred(place);
  if (isInferred && match.tests[0]!.asks !== "value" && (type !== undefined || !typeOf(match.the(value))))
    return unknown(
      "type.same",
      "the type that the lambda gives is inferred, and could be another one now",
      place,
    );
  if (type === undefined || match.found.isStatements || match.tests[0]!.asks === "value")
    return yes("type.same", "it is an object, or the type of the result is written down");
  const holder = match.node.closest(["variable_declaration"])?.child("type")?.text;
  const isSaid =
    match.node.parent?.is(["return_statement", "assignment_expression"]) ||
    (holder !== undefined && holder !== "var");
  return isSaid
    ? yes("type.same", "the type of the result is written down")
    : unknown(
        "type.same",
        `the result was a \`${type}\`, and would be a \`${type.slice(0, -1)}\``,
        match.node,
      );
}

const { rewrites, ignores, holds } = trialsIn("csharp");

export const valueOrFallback = rule({
  id: "csharp/value-or-fallback",
  kind: "idiom",
  title: "Use ?? for the default of a value that is null",
  why: "The value is written twice, and the reader must check that both are the same.",
  was: choice(present(value, { or: ["value"] }), value, fallback),
  where: [
    // null for null chooses nothing, and what is thrown or passed by reference is no value.
    (match) =>
      !match.the(fallback).is(["null_literal", "throw_expression", "default_expression", "ref_expression"]),
    (match) => !match.the(value).is("ref_expression"),
  ],
  given: [
    testedOnce(),
    asksForNull(),
    condition("value and default fit in one expression", (match) =>
      match.found.isStatements
        ? fitsBeside(match.the(value), match.the(fallback), match.place, match.tests[0]!.asks === "value")
        : yes("flow.order", "they stood in one expression before"),
    ),
    condition("the result has the same type", sameType),
    condition("the code is compiled and not read as an expression tree", (match) =>
      mayBeExpressionTree(match.node),
    ),
  ],
  becomes: csharp.expression`${value} ?? ${fallback}`,
  trials: [
    rewrites(
      'class A { string F(string n) { return n != null ? n : "none"; } }',
      'class A { string F(string n) { return n ?? "none"; } }',
    ),
    rewrites(
      'class A { string F(string n) { return null == n ? "none" : n; } }',
      'class A { string F(string n) { return n ?? "none"; } }',
    ),
    rewrites(
      "class A { int? w; void F() { int? x = w == null ? 1 : w; } }",
      "class A { int? w; void F() { int? x = w ?? 1; } }",
    ),
    rewrites(
      "class A { int? w; void F() { var x = w == null ? 1 : w; } }",
      "class A { int? w; void F() { var x = w ?? 1; } }",
      "likely",
    ),
    rewrites(
      "class A { Q queen; void F() { var x = queen is null ? Find() : queen; } }",
      "class A { Q queen; void F() { var x = queen ?? Find(); } }",
    ),
    rewrites(
      "class A { Q Top { get { return Make(); } } void F() { var x = Top is null ? Find() : Top; } }",
      "class A { Q Top { get { return Make(); } } void F() { var x = Top ?? Find(); } }",
      "likely",
    ),
    rewrites(
      "class A { void F() { var x = hive.Queen != null ? hive.Queen : q; } }",
      "class A { void F() { var x = hive.Queen ?? q; } }",
      "likely",
    ),
    rewrites(
      `
      interface IHive { }
      class Hive : IHive { }
      class A {
          IHive F(IHive given) {
              if (given != null)
                  return given;
              return new Hive(); // a fresh one
          }
      }
      `,
      `
      interface IHive { }
      class Hive : IHive { }
      class A {
          IHive F(IHive given) {
              return given ?? new Hive(); // a fresh one
          }
      }
      `,
    ),
    // Two classes that only meet in what is returned.
    holds(
      "class Q { } class D { } class A { object F(Q a, D b) { if (a != null) return a; return b; } }",
      "neither",
    ),
    rewrites(
      `
      class A {
          void F(string note) {
              if (note == null) {
                  this.note = "";
              } else {
                  this.note = note;
              }
          }
      }
      `,
      `
      class A {
          void F(string note) {
              this.note = note ?? "";
          }
      }
      `,
    ),
    rewrites(
      "class Hive { } class A { Hive F(Hive h) { return h != null ? h : Find(); } }",
      "class Hive { } class A { Hive F(Hive h) { return h ?? Find(); } }",
    ),
    rewrites(
      "class A { string F() { string n = G(); if (n == null) n = string.Empty; return n; } }",
      "class A { string F() { string n = G() ?? string.Empty; return n; } }",
      "likely",
    ),
    // `var` could be an `int?`, which the new code makes an `int`.
    rewrites(
      "class A { void F() { var n = G(); if (n is null) n = 1; H(n); } }",
      "class A { void F() { var n = G() ?? 1; H(n); } }",
      "likely",
    ),
    holds(
      "class Hive { public static bool operator ==(Hive a, Hive b) => true; } class A { Hive F(Hive h) { return h != null ? h : Find(); } }",
      "has an operator",
    ),
    rewrites(
      'class A { void F() { q.Select(h => h.Name != null ? h.Name : ""); } }',
      'class A { void F() { q.Select(h => h.Name ?? ""); } }',
      "likely",
    ),
    holds("class A { void F() { var x = Next() != null ? Next() : 1; } }", "calls something"),
    // Which overload is called hangs on the type of what is passed.
    rewrites(
      "class Q { } class D : Q { } class A { void F(D a, Q b) { if (a != null) G(a); else G(b); } }",
      "class Q { } class D : Q { } class A { void F(D a, Q b) { G(a ?? b); } }",
      "likely",
    ),
    rewrites(
      "class Q { } class D : Q { } class A { void G(Q q) { } void F(D a, Q b) { if (a != null) G(a); else G(b); } }",
      "class Q { } class D : Q { } class A { void G(Q q) { } void F(D a, Q b) { G(a ?? b); } }",
    ),
    holds(
      "class A { void G(object o) { } void G(string s) { } void F(object a, string b) { if (a != null) G(a); else G(b); } }",
      "overloads",
    ),
    holds("class A { void F(int? a, int b) { if (a != null) G(a); else G(b); } }", "overloads"),
    rewrites(
      "class A { void F(int? a, int b) { if (a.HasValue) G(a.Value); else G(b); } }",
      "class A { void F(int? a, int b) { G(a ?? b); } }",
    ),
    holds("class A { void F(int? a, long b) { if (a.HasValue) G(a.Value); else G(b); } }", "overloads"),
    holds(
      "class B { public string Why; } class A : B { Exception e; void F() { if (e != null) G(e); else G(Why); } }",
      "overloads",
    ),
    holds(
      "class I { } class Q : I { } class D : I { } class A { I F(D a, Q b) { if (a != null) return a; return b; } }",
      "neither",
    ),
    rewrites(
      "class A { object F(List<int> a, List<string> b) { if (a != null) return a; return b; } }",
      "class A { object F(List<int> a, List<string> b) { return a ?? b; } }",
      "likely",
    ),
    rewrites(
      'class A { string F(string s) { return s switch { null => "a", _ => s }; } }',
      'class A { string F(string s) { return s ?? "a"; } }',
    ),
    rewrites(
      "class A { void F(int? n) { G(() => { if (n != null) return n; return 0; }); } }",
      "class A { void F(int? n) { G(() => { return n ?? 0; }); } }",
      "likely",
    ),
    rewrites(
      'class A { void F(string s) { G(() => { if (s != null) return s; return ""; }); } }',
      'class A { void F(string s) { G(() => { return s ?? ""; }); } }',
    ),
    ignores('class A { string F(string s) { return s switch { null => "a", "" => "b", _ => s }; } }'),
    ignores('class A { string F(string s, bool c) { return s switch { null when c => "a", _ => s }; } }'),
    ignores("class A { void F() { var x = a != null ? b : c; } }"),
    ignores("class A { void F(string a) { if (a != null) { string b = a; } else { string b = c; } } }"),
    ignores("class A { void F() { var x = a != null ? a : null; } }"),
    ignores("class A { void F() { var x = a != 0 ? a : c; } }"),
    ignores("class A { int F() { if (a != null) return a; n++; return b; } }"),
    ignores("class A { void F() { if (a != null) { x = a; } else { y = b; } } }"),
  ],
});
