import {
  annotationOf,
  caution,
  condition,
  guarded,
  holes,
  rule,
  shortened,
  takenSafely,
  trialsIn,
  typeOf,
  unknown,
  yes,
} from "../../core.js";
import type { Answer, Match, Segment } from "../../core.js";
import { fitsBeside } from "./fits-beside.js";
import { typeOfMember } from "./member-types.js";
import { testedOnce } from "../family/conditions.js";
import { orElse } from "../family/guarded.js";
import {
  asksForNull,
  isNeverNullRead,
  assignsNothing,
  mayBeExpressionTree,
  membersOfValue,
  readComparesPlainly,
} from "./values.js";

const { subject, read, fallback } = holes({
  subject: "expression",
  read: "expression",
  fallback: { kind: "expression" },
});

/** Is the default null, or null as the nullable form of what is read: `(int?)null`? */
function fallsBackToNull(match: Match): boolean {
  const given = match.the(fallback);
  const isCast = given.is("cast_expression") && given.child("value")?.is("null_literal");
  if (!isCast) return given.is("null_literal");
  return given.child("type")?.text === `${typeOfMember(match.chain.use)}?`;
}
const fallsBack = (match: Match): boolean => match.has(fallback) && !fallsBackToNull(match);

/** Is the default given for what is read and is null itself, too? */
const mayFallBackElse = (match: Match): boolean =>
  fallsBack(match) && !match.chain.asksUse && !isNeverNullRead(match.chain.use);

/** Of a copy that is declared as something else, other members may be seen. */
function copyIsAlike({ chain: { copied, links } }: Match): Answer {
  const written = copied && annotationOf(copied.name);
  const isSame = yes("type.same", "the same members are seen");
  if (!written || written.is("implicit_type")) return isSame;
  // Handlers are called, whatever they are declared as.
  if (links[0]!.steps[0]!.is("invocation_expression")) return isSame;
  const type = typeOfMember(copied.value) ?? typeOf(copied.value)?.name;
  return type === written.text
    ? isSame
    : unknown(
        "type.same",
        `\`${shortened(copied.value.text)}\` could be another type than \`${written.text}\``,
        written,
      );
}

const { rewrites, ignores, holds } = trialsIn("csharp");
const inCall = (code: string): string =>
  "class Hive { public object What; public int Count; public long Weight; }\n" +
  "class A { void Put(object o) { } void Put(string s) { } void Put(int n) { } void Put(long n) { } void One(object o) { }\n" +
  `void F(Hive h, string none, int zero) { ${code} } }`;
const HIVE = "interface IHive { string Queen { get; } string Name { get; } void Open(int n); }\n";

export const guardedRead = rule({
  id: "csharp/guarded-read",
  kind: "idiom",
  title: "Use ?. to read from a value that may be null",
  why: "The object is written twice, once to be tested and once to be used; an event can lose its last handler in between.",
  target: "6.0",
  was: guarded(subject, read, fallback, {
    as: ["statement", "choice", "and", "or"],
    asks: ["missing"],
    copied: true,
  }),
  where: [
    // By itself only a call does something, and a truth of its own cannot be null.
    ({ chain, tree }) =>
      chain.kind !== "statement" || chain.use.is([...tree.language.calls, "conditional_access_expression"]),
    ({ chain }) => (chain.kind !== "and" && chain.kind !== "or") || chain.role !== "value",
    (match) => !match.has(fallback) || !match.the(fallback).is(["throw_expression", "default_expression"]),
  ],
  given: [
    testedOnce(),
    asksForNull(),
    membersOfValue(),
    condition("what is read is compared as what it is", ({ chain, node }) =>
      (chain.role === "asked" || chain.role === "compared") && chain.last.is("binary_expression")
        ? readComparesPlainly(chain.use)
        : yes("value.result", "it is not compared", node),
    ),
    condition("the copy is of the same type", copyIsAlike, {
      when: ({ chain }) => chain.copied !== undefined,
    }),
    condition("it gives no variable its value", ({ chain }) => assignsNothing(chain.use), {
      when: ({ chain }) => chain.kind === "and" || chain.kind === "or",
    }),
    condition(
      "what is read and its default fit in one expression",
      (match) => fitsBeside(match.chain.use, match.the(fallback), match.place, true),
      { when: (match) => match.chain.kind === "choice" && match.found.isStatements && match.has(fallback) },
    ),
    condition(
      "what is read is never null itself",
      (match) =>
        mayFallBackElse(match)
          ? unknown(
              "value.null",
              `\`${shortened(match.textOf(read))}\` could be null itself, which the old code gave back`,
              match.node,
            )
          : yes("value.null", "for an object nothing changes"),
      { unknownIs: "possible" },
    ),
    condition("the code is compiled and not read as an expression tree", (match) =>
      mayBeExpressionTree(match.node),
    ),
  ],
  cautions: (match) =>
    mayFallBackElse(match)
      ? [
          caution(
            "value.result",
            `when \`${shortened(match.textOf(read))}\` is null, the old result was null and the new one is the default`,
          ),
        ]
      : [],
  becomes: (match): Segment[] => {
    const safe = takenSafely(match.chain);
    return fallsBack(match) ? orElse(safe, match.the(fallback)) : safe;
  },
  trials: [
    holds(inCall("if (h != null) Put(h.What); else Put(none);"), "overloads"),
    holds(inCall("if (h == null) { Put(zero); } else { Put(h.Weight); }"), "overloads"),
    rewrites(inCall("if (h != null) Put(h.Count); else Put(zero);"), inCall("Put(h?.Count ?? zero);")),
    rewrites(inCall("if (h != null) Put(h.What); else Put(null);"), inCall("Put(h?.What);"), "likely"),
    rewrites(inCall("if (h != null) One(h.What); else One(null);"), inCall("One(h?.What);")),
    holds(inCall("object o; if (h != null) o = h.Weight; else o = zero;"), "one type"),
    rewrites(
      inCall("long o; if (h != null) o = h.Weight; else o = zero;"),
      inCall("long o; o = h?.Weight ?? zero;"),
    ),
    rewrites(
      "class Hive { public string Name; } class A { bool F(Hive h) { return h != null && h.Name.Length > 2; } }",
      "class Hive { public string Name; } class A { bool F(Hive h) { return h?.Name.Length > 2; } }",
    ),
    rewrites(
      "using System.Windows.Forms; class A { Form f; void F() { if (f != null) f.Show(); } }",
      "using System.Windows.Forms; class A { Form f; void F() { f?.Show(); } }",
    ),
    // Somebody else's class of that name, in a module that is brought in or stands around.
    rewrites(
      "using System.Windows.Forms; using Yard; class A { Form f; void F() { if (f != null) f.Show(); } }",
      "using System.Windows.Forms; using Yard; class A { Form f; void F() { f?.Show(); } }",
      "likely",
    ),
    rewrites(
      "using System; namespace Yard.Hives { class A { Form f; void F() { if (f != null) f.Show(); } } }",
      "using System; namespace Yard.Hives { class A { Form f; void F() { f?.Show(); } } }",
      "likely",
    ),
    rewrites(
      "using System; using Yard;\nnamespace Yard.Hives { } class A { Form f; void F() { if (f != null) f.Show(); } }",
      "using System; using Yard;\nnamespace Yard.Hives { } class A { Form f; void F() { f?.Show(); } }",
      "likely",
    ),
    rewrites(
      "using System; using Yard;\nnamespace Yard { } class A { Form f; void F() { if (f != null) f.Show(); } }",
      "using System; using Yard;\nnamespace Yard { } class A { Form f; void F() { f?.Show(); } }",
    ),
    rewrites(
      "using Form = System.Windows.Forms.Form; class A { Lid f; void F() { if (f != null) f.Show(); } }",
      "using Form = System.Windows.Forms.Form; class A { Lid f; void F() { f?.Show(); } }",
      "likely",
    ),
    // A variable that is bound by a pattern, and no field of its name.
    rewrites(
      "class Hive { } class A { Hive lid; void F(object o) { if (!(o is Odd lid)) return; if (lid != null) lid.Show(); } }",
      "class Hive { } class A { Hive lid; void F(object o) { if (!(o is Odd lid)) return; lid?.Show(); } }",
      "likely",
    ),
    // Somebody else's `Stack` may count in another way.
    rewrites(
      "class A { bool F(Stack<Hive> s) { return s != null && s.Count == 2; } }",
      "class A { bool F(Stack<Hive> s) { return s?.Count == 2; } }",
      "likely",
    ),
    rewrites(
      "using System.Collections.Generic; class A { bool F(Stack<Hive> s) { return s != null && s.Count == 2; } }",
      "using System.Collections.Generic; class A { bool F(Stack<Hive> s) { return s?.Count == 2; } }",
    ),
    // What a type parameter stands for may have an operator of its own.
    rewrites(
      "using System; class Box<T> { public T Item; } class A { void F(Box<A> b) { if (b.Item != null) b.Item.Show(); } }",
      "using System; class Box<T> { public T Item; } class A { void F(Box<A> b) { b.Item?.Show(); } }",
      "likely",
    ),
    rewrites(
      "using System; class A<T> where T : Hive { T t; void F() { if (t != null) t.Show(); } }",
      "using System; class A<T> where T : Hive { T t; void F() { t?.Show(); } }",
      "likely",
    ),
    rewrites(
      "class Hive { } class Yard { public Hive First; } class A { void F(Yard y) { if (y.First != null) y.First.Show(); } }",
      "class Hive { } class Yard { public Hive First; } class A { void F(Yard y) { y.First?.Show(); } }",
    ),
    rewrites(
      "class A { Hive Old { set { if (value != null) value.Show(); } } } class Hive { }",
      "class A { Hive Old { set { value?.Show(); } } } class Hive { }",
    ),
    holds(
      "class A { Hive Old { set { if (value != null) value.Show(); } } } class Hive { public static bool operator ==(Hive a, Hive b) => true; }",
      "operator",
    ),
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
      "class A { event EventHandler Done; void F() { EventHandler h = this.Done; if (h != null) h(this, e); } }",
      "class A { event EventHandler Done; void F() { this.Done?.Invoke(this, e); } }",
    ),
    rewrites(
      `
      class A {
          string Name { get; }
          A Next { get; set; }
          void Mark() { }
          void F(A a) {
              if (a != null) {
                  var b = a.Next;
                  if (b != null) {
                      b.Mark(); // its own
                  }
              }
          }
      }
      `,
      `
      class A {
          string Name { get; }
          A Next { get; set; }
          void Mark() { }
          void F(A a) {
              a?.Next?.Mark(); // its own
          }
      }
      `,
      "likely",
    ),
    rewrites(
      "class A : IDisposable { void F() { using var a = Make(); if (a != null) a.Run(); } }",
      "class A : IDisposable { void F() { using var a = Make(); a?.Run(); } }",
      "likely",
    ),
    rewrites(
      "class A { void F() { var h = Done; if (null != h) { h.Invoke(1); } } }",
      "class A { void F() { Done?.Invoke(1); } }",
      "likely",
    ),
    rewrites(
      "class A { Action<A> Done; void F() { var h = Done; if (h != null) h(h); } }",
      "class A { Action<A> Done; void F() { var h = Done; h?.Invoke(h); } }",
    ),
    rewrites(
      "class A { Action<int> Done; void F() { var h = Done; n++; if (h != null) h(1); } }",
      "class A { Action<int> Done; void F() { var h = Done; n++; h?.Invoke(1); } }",
    ),
    rewrites(
      HIVE + "class A { IHive Own { get; set; } void F() { var h = Own; if (null != h) { h.Open(1); } } }",
      HIVE + "class A { IHive Own { get; set; } void F() { Own?.Open(1); } }",
    ),
    rewrites(
      HIVE +
        "class A { IHive Own { get; set; } void F() { IHive h = Find(); if (h != null) { h.Open(1); } } }",
      HIVE + "class A { IHive Own { get; set; } void F() { Find()?.Open(1); } }",
      "likely",
    ),
    rewrites(
      HIVE + "class A { void F(IHive o) { var h = o; if (h != null) { h.Open(1); } log(h); } }",
      HIVE + "class A { void F(IHive o) { var h = o; h?.Open(1); log(h); } }",
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
    ),
    rewrites(
      "class A { void F() { if (hive.Queen != null) hive.Queen.Mark(); } }",
      "class A { void F() { hive.Queen?.Mark(); } }",
      "likely",
    ),
    // Nothing says what `IHive` is.
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
    holds("class A { bool F(A h) { return h != null && h.Weigh(out int w) == 3; } }", "only where the test"),
    ignores("class A { bool F() { return h != null && h.IsOpen; } }"),
    ignores("class A { bool F() { return h == null && h.Queen == null; } }"),
    trialsIn("csharp", "5").ignores("class A { void F(IHive h) { if (h != null) { h.Open(1); } } }"),
    rewrites(
      "class A { A n; bool F(A x) { return x is not null && x.n is not null; } }",
      "class A { A n; bool F(A x) { return x?.n is not null; } }",
    ),
    rewrites(
      "class A { A n; bool F(A x) { if (x is null || x.n is null) { return true; } return false; } }",
      "class A { A n; bool F(A x) { if (x?.n is null) { return true; } return false; } }",
    ),
  ],
});
