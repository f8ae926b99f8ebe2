import {
  caution,
  condition,
  copy,
  csharp,
  holes,
  no,
  rule,
  shortened,
  stepsFrom,
  text,
  trialsIn,
  typeOf,
  unknown,
  yes,
} from "../../index.js";
import type { Match, Segment, SyntaxNode } from "../../index.js";
import { evaluatedOnce, formOf, type Form } from "../family/conditions.js";
import { readSafely, readsOn } from "../family/guarded.js";
import { nullTests } from "./tests.js";
import { comparesPlainly, mayBeExpressionTree, nullableValue, readComparesPlainly, SAFE } from "./values.js";

const { subject, read, fallback, right, callee, args } = holes({
  subject: "expression",
  read: "expression",
  fallback: "expression",
  right: "expression",
  callee: "expression",
  args: "arguments",
});

/** Where the old code reads what is tested: as a value, in a statement, or compared in the same test. */
type Shape = "value" | "call" | "compared";
interface Guard extends Form<"operator" | "plain"> {
  readonly shape: Shape;
}

const FORMS: readonly Guard[] = nullTests(subject).flatMap(({ there, gone, byOperator }) => {
  const tests = byOperator ? "operator" : "plain";
  return [
    { tests, shape: "value", was: csharp.expression`${there} ? ${read} : ${fallback}` },
    { tests, shape: "value", was: csharp.expression`${gone} ? ${fallback} : ${read}` },
    { tests, shape: "call", was: csharp`if (${there}) { ${callee}(${args}); }` },
    { tests, shape: "compared", was: csharp.expression`${there} && ${read} != null` },
    { tests, shape: "compared", was: csharp.expression`${gone} || ${read} == null` },
    { tests, shape: "compared", was: csharp.expression`${there} && ${read} == ${right}` },
  ] as const;
});

const LITERALS = [
  "string_literal",
  "verbatim_string_literal",
  "integer_literal",
  "real_literal",
  "character_literal",
  "boolean_literal",
];
/** What is read or called. */
const readIn = (match: Match): SyntaxNode =>
  match.has(callee) ? match.the(callee).parent! : match.the(read);
const shapeOf = (match: Match): Shape => (formOf(FORMS, match) as Guard).shape;
const fallsBackToNull = (match: Match): boolean => match.the(fallback).is("null_literal");

const { rewrites, ignores, holds } = trialsIn("csharp");
const HIVE = "interface IHive { string Queen { get; } string Name { get; } void Open(int n); }\n";

export const guardedRead = rule({
  id: "csharp/guarded-read",
  kind: "idiom",
  title: "Read and call through what may be null with ?.",
  why: "The object is written twice, once to be tested and once to be used; an event can lose its last handler in between.",
  target: "6.0",
  was: FORMS.map(({ was }) => was),
  where: [
    (match) => readsOn(match.the(subject), readIn(match), SAFE),
    (match) => !match.has(right) || match.the(right).is(LITERALS),
    (match) => !match.has(fallback) || !match.the(fallback).is(["throw_expression", "default_expression"]),
    // What `==` compares is `?.` itself, whatever the grammar says.
    (match) => !/\?\s*[.[]/.test(readIn(match).text),
  ],
  given: [
    evaluatedOnce(subject),
    condition("`!= null` asks for null and nothing else", (match) =>
      formOf(FORMS, match).tests === "plain"
        ? yes("type.operator", "no operator is asked")
        : comparesPlainly(match.the(subject)),
    ),
    condition("the member is one of what is there, and not of the nullable value", (match) => {
      const member = stepsFrom(match.the(subject), readIn(match))[0]?.child("name")?.text ?? "";
      if (!/^(Value|HasValue|GetValueOrDefault)$/.test(member))
        return yes("type.is", "it is a member of the object");
      const type = nullableValue(match.the(subject));
      if (type !== undefined)
        return no(
          "type.is",
          `\`${match.textOf(subject)}\` is a \`${type}\`, whose value has no \`${member}\``,
          match.node,
        );
      return typeOf(match.the(subject))
        ? yes("type.is", "it is a member of the object")
        : unknown(
            "type.is",
            `\`${match.textOf(subject)}\` could be a nullable value, which has no \`${member}\` behind ?.`,
            match.node,
          );
    }),
    condition("what is read is compared as what it is", (match) =>
      shapeOf(match) === "compared"
        ? readComparesPlainly(match.the(read))
        : yes("value.result", "it is not compared"),
    ),
    condition(
      "what is read is never null itself",
      (match) => {
        if (!match.has(fallback) || fallsBackToNull(match))
          return yes("value.null", "for an object nothing changes");
        return unknown(
          "value.null",
          `\`${shortened(match.textOf(read))}\` could be null itself, which the old code gave back`,
          match.node,
        );
      },
      { unknownIs: "possible" },
    ),
    condition("the code is compiled and not read as an expression tree", (match) =>
      mayBeExpressionTree(match.node),
    ),
  ],
  cautions: (match) =>
    match.has(fallback) && !fallsBackToNull(match)
      ? [
          caution(
            "value.result",
            `when \`${shortened(match.textOf(read))}\` is null, the old result was null and the new one is the default`,
          ),
        ]
      : [],
  becomes: (match): Segment[] => {
    const node = readIn(match);
    const safe = readSafely(match.the(subject), node, SAFE);
    if (shapeOf(match) === "call") return [...safe, text(";")];
    if (shapeOf(match) === "compared") return [...safe, copy(node.end, match.found.end)];
    return fallsBackToNull(match)
      ? safe
      : [...safe, text(" ?? "), copy(match.the(fallback).start, match.the(fallback).end)];
  },
  trials: [
    rewrites(
      HIVE + "class A { string F(IHive h) { return h != null ? h.Queen : null; } }",
      HIVE + "class A { string F(IHive h) { return h?.Queen; } }",
    ),
    rewrites(
      HIVE + "class A { string F(IHive h) { return h == null ? null : h.Queen().Name; } }",
      HIVE + "class A { string F(IHive h) { return h?.Queen().Name; } }",
    ),
    rewrites(
      "class A { string F(string[] h) { return h != null ? h[0] : null; } }",
      "class A { string F(string[] h) { return h?[0]; } }",
    ),
    rewrites(
      HIVE + "class A { void F(IHive h) { if (h != null) { h.Open(1); } } }",
      HIVE + "class A { void F(IHive h) { h?.Open(1); } }",
    ),
    rewrites(
      "class A { event EventHandler Swarmed; void F() { if (Swarmed != null) Swarmed(this, e); } }",
      "class A { event EventHandler Swarmed; void F() { Swarmed?.Invoke(this, e); } }",
    ),
    rewrites(
      "class A { Action<int> done; void F() { if (done != null) { done(1); } } }",
      "class A { Action<int> done; void F() { done?.Invoke(1); } }",
    ),
    rewrites(
      HIVE + "class A { bool F(IHive h) { return h != null && h.Queen != null; } }",
      HIVE + "class A { bool F(IHive h) { return h?.Queen != null; } }",
    ),
    rewrites(
      HIVE + "class A { bool F(IHive h) { return h == null || h.Queen == null; } }",
      HIVE + "class A { bool F(IHive h) { return h?.Queen == null; } }",
    ),
    rewrites(
      HIVE + 'class A { bool F(IHive h) { return h != null && h.Name == "a"; } }',
      HIVE + 'class A { bool F(IHive h) { return h?.Name == "a"; } }',
    ),
    rewrites(
      "class A { int F(string s) { return s != null ? s.Length : 0; } }",
      "class A { int F(string s) { return s?.Length ?? 0; } }",
      "possible",
    ),
    rewrites(
      "class A { void F() { if (hive.Queen != null) hive.Queen.Mark(); } }",
      "class A { void F() { hive.Queen?.Mark(); } }",
      "likely",
    ),
    // Nothing says what \`IHive\` is.
    rewrites(
      "class A { void F(IHive h) { if (h != null) { h.Open(1); } } }",
      "class A { void F(IHive h) { h?.Open(1); } }",
      "likely",
    ),
    holds(
      "class A { int? n; string F() { return n != null ? n.Value.ToString() : null; } }",
      "has no `Value`",
    ),
    holds("class A { void F() { if (Next() != null) Next().Open(); } }", "calls something"),
    ignores("class A { void F() { if (h != null) h.Open(); else Close(); } }"),
    ignores("class A { void F() { if (h != null) { h.Open(); n++; } } }"),
    ignores("class A { void F() { if (h != null) h.Queen = null; } }"),
    ignores("class A { void F() { if (h != null) g.Open(); } }"),
    ignores("class A { async Task F() { if (h != null) await h.Open(); } }"),
    ignores("class A { bool F() { return h != null && h.Name == g.Name; } }"),
    ignores("class A { bool F() { return h != null && h.Age != 3; } }"),
    ignores("class A { bool F() { return h != null && h.IsOpen; } }"),
    ignores("class A { bool F() { return h == null && h.Queen == null; } }"),
    trialsIn("csharp", "5").ignores("class A { void F(IHive h) { if (h != null) { h.Open(1); } } }"),
  ],
});
