import { changesOf, choice, condition, holes, javascript, present, referencesAt, rule } from "../../core.js";
import { trialsIn, unknown, yes } from "../../core.js";
import type { Answer, Match } from "../../core.js";
import { testedOnce } from "../family/conditions.js";
import { oneSignature } from "./one-signature.js";
import { asksForMissing, byTruth, differsFor } from "./presence-tests.js";

const { value, fallback } = holes({ value: "expression", fallback: "expression" });

/** In TypeScript a variable has the type of what it is declared with, and may be given something else later. */
function keepsType({ choice: { alias, always }, place, tree }: Match): Answer {
  const declared = place.closest(["variable_declarator"]);
  const name = declared?.child("name");
  const isTyped =
    tree.language.id !== "javascript" && (alias ?? always) !== undefined && declared?.holds(place);
  const to = name && referencesAt(name).find((one) => one.to)?.to;
  if (!isTyped || declared?.child("type") || !to) return yes("type.same", "no inferred type depends on it");
  const writes = changesOf(to).filter(({ node, does }) => does === "write" && node.start > place.end);
  // The first is the one that becomes the fallback.
  const [, later] = writes;
  return later
    ? unknown(
        "type.same",
        `\`${name.text}\` is written again, for which its new type may be too narrow`,
        later.node,
      )
    : yes("type.same", `\`${name.text}\` is given nothing else later`);
}

const asks = asksForMissing();
const differs = differsFor("kept it", "falls back");

const js = trialsIn("javascript");
const ts = trialsIn("typescript");
const inYard = (code: string): string =>
  "class Yard { put(x: string): void; put(x: number): void; put(x: any) { } one(x: any) { } " +
  `f(n: string | null, m: string, zero: number) { ${code} } }`;

export const valueOrFallback = rule({
  id: "javascript/value-or-fallback",
  kind: "idiom",
  title: "Use ?? for the default of a missing value",
  why: "The value is written up to three times, and the reader must check that all three are the same.",
  was: choice(present(value, { or: ["truth"] }), value, fallback),
  given: [
    testedOnce(),
    condition("what is declared keeps its type", keepsType),
    oneSignature(value, fallback),
    condition(
      "the test is for being missing, or stays one for being false",
      (match) => (byTruth(match) ? yes("value.falsy", "|| asks for the same") : asks.ask(match)),
      { unknownIs: "possible" },
    ),
  ],
  cautions: (match) => (byTruth(match) ? [] : differs(match)),
  becomes: (match) =>
    byTruth(match)
      ? javascript.expression`${value} || ${fallback}`
      : javascript.expression`${value} ?? ${fallback}`,
  trials: [
    ts.holds(inYard("if (n != null) this.put(n); else this.put(zero);"), "several signatures"),
    ts.rewrites(inYard("if (n != null) this.put(n); else this.put(m);"), inYard("this.put(n ?? m);")),
    ts.rewrites(inYard("if (n != null) this.one(n); else this.one(zero);"), inYard("this.one(n ?? zero);")),
    ts.rewrites(
      inYard("if (n != null) other.put(n); else other.put(zero);"),
      inYard("other.put(n ?? zero);"),
      "likely",
    ),
    trialsIn("javascript").ignores(
      "function f(x) { switch (x) { default: return x; case null: return 1; case undefined: } }",
    ),
    js.rewrites("f(x !== null && x !== undefined ? x : 1);", "f(x ?? 1);"),
    js.rewrites("const y = x == null ? [] : x;", "const y = x ?? [];"),
    js.rewrites("const y = (null != x) ? x : (a, b);", "const y = x ?? (a, b);"),
    js.rewrites("const y = x != null ? x : a || b;", "const y = x ?? (a || b);"),
    js.rewrites("const y = x != null ? x : a && b;", "const y = x ?? (a && b);"),
    js.rewrites("const y = x != null ? x : a ? b : c;", "const y = x ?? (a ? b : c);"),
    js.rewrites("const y = x != null ? x : () => 1;", "const y = x ?? (() => 1);"),
    js.rewrites("const y = x != null ? x : /* none */ 0;", "const y = x ?? /* none */ 0;"),
    js.rewrites(
      `
      const y = x != null // weighed
        ? x
        : 0;
      `,
      `
      const y = x // weighed
        ?? 0;
      `,
    ),
    js.rewrites("const y = a || (x != null ? x : 1);", "const y = a || (x ?? 1);"),
    js.rewrites("const y = hive.age != null ? hive.age : 1;", "const y = hive.age ?? 1;", "likely"),
    js.rewrites("const y = x !== undefined ? x : 1;", "const y = x ?? 1;", "possible"),
    ts.rewrites(
      "const f = (x: number | undefined) => (x !== undefined ? x : 1);",
      "const f = (x: number | undefined) => (x ?? 1);",
    ),
    ts.holds(
      "const f = (x?: number | null) => (x !== undefined ? x : 1);",
      "for null the code would do something else",
    ),
    js.rewrites(
      'const f = (x) => (typeof x !== "undefined" ? x : 1);',
      "const f = (x) => (x ?? 1);",
      "possible",
    ),
    ts.rewrites(
      'const f = (x?: string[]) => (typeof x === "undefined" ? [] : x);',
      "const f = (x?: string[]) => (x ?? []);",
    ),
    js.rewrites("if (x != null) y = x; else { y = 1 }", "y = x ?? 1;"),
    js.rewrites("function f(x) { if (x == null) return 1; return x; }", "function f(x) { return x ?? 1; }"),
    js.rewrites(
      "function f(x) { if (!(x == null)) { throw x; } else throw y; }",
      "function f(x) { throw x ?? y; }",
    ),
    js.rewrites("if (x !== undefined && x !== null) f(1, x); else f(1, 2);", "f(1, x ?? 2);"),
    js.rewrites("let y = g(); if (y == null) y = 1;", "let y = g() ?? 1;"),
    js.rewrites("let y = 1;\nif (x != null) {\n  y = x;\n}\n", "let y = x ?? 1;\n"),
    // `g` could read what has no value yet.
    js.rewrites("let y = f(); if (y == null) y = g();", "let y = f() ?? g();", "likely"),
    js.rewrites(
      "function h() { let y = f(); if (y == null) y = g(); return y; }",
      "function h() { let y = f() ?? g(); return y; }",
    ),
    js.rewrites("if (x != null) { var y = x; } else { var y = 1; }", "var y = x ?? 1;"),
    js.ignores("if (x != null) { let y = x; } else { let y = 1; }"),
    js.holds("let y = g(); if (x != null) { y = x; }", "calls something"),
    js.holds("if (x != null) f(g(), x); else f(g(), 1);", "calls something"),
    js.ignores("let y = g(); if (x != null) y = z;"),
    js.ignores("let y = y0.a; if (y.a == null) y = 1;"),
    js.ignores("if (x != null) f(x, 1); else f(1, 2);"),
    js.ignores("if (x != null) x = 1; else y = 1;"),
    js.ignores("x != null ? x.a() : y.a();"),
    js.ignores("if (x != null) { return x; } else if (z) { return y; } return 1;"),
    js.holds('const y = typeof module !== "undefined" ? module : null;', "may not be declared"),
    js.holds("const y = take() != null ? take() : 1;", "calls something"),
    js.ignores("const y = x != null ? z : 1;"),
    js.ignores("const y = x !== null && z !== undefined ? x : 1;"),
    js.ignores("const y = x != null && x > 0 ? x : 1;"),
    js.ignores("const y = x !== 0 ? x : 1;"),
    ts.rewrites(
      "function f() { let y = g(); if (y == null) y = 1; h(y); }",
      "function f() { let y = g() ?? 1; h(y); }",
    ),
    ts.rewrites(
      "function f() { let y = g(); if (y == null) y = 1; h(y); y = null; }",
      "function f() { let y = g() ?? 1; h(y); y = null; }",
      "likely",
    ),
    js.rewrites("const y = x ? x : 1;", "const y = x || 1;"),
    js.rewrites("const y = !x ? z : x;", "const y = x || z;"),
    js.rewrites("function f(x) { if (x) return x; return 1; }", "function f(x) { return x || 1; }"),
    ts.rewrites("const f = (x?: string[]) => (x ? x : []);", "const f = (x?: string[]) => (x ?? []);"),
    ts.rewrites("const f = (x?: string) => (x ? x : 'none');", "const f = (x?: string) => (x || 'none');"),
    js.ignores("const y = x ? x : x;"),
    js.rewrites("switch (x) { case null: case undefined: y = 1; break; default: y = x; }", "y = x ?? 1;"),
    js.rewrites(
      "function f(x) { switch (x) { default: return x; case undefined: case null: return 1; } }",
      "function f(x) { return x ?? 1; }",
    ),
    js.ignores("switch (x) { case null: case undefined: y = 1; default: y = x; }"),
    js.ignores(
      "outer: for (;;) { switch (x) { case null: case undefined: y = 1; break outer; default: y = x; } }",
    ),
    js.ignores("switch (x) { case null: case 0: y = 1; break; default: y = x; }"),
    js.ignores("switch (x) { case null: default: y = 1; break; case 1: y = x; }"),
  ],
});
