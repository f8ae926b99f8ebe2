import { guarded, holes, isMissing, javascript, rule, takenSafely, trialsIn } from "../../core.js";
import type { Chain } from "../../core.js";
import { testedOnce } from "../family/conditions.js";
import { fallsBackByTruth, orElse } from "../family/guarded.js";
import { asksForMissing, differsFor } from "./presence-tests.js";
import { seenThrough } from "./types/seen-through.js";

const { subject, read, otherwise } = holes({
  subject: { kind: "expression", unlike: javascript`this` },
  read: "expression",
  otherwise: "expression",
});

/** What is read of an object and called is given the object, which a local is not. */
function isCalledAlike({ copied, links }: Chain): boolean {
  const isMember = copied!.value.is(["member_expression", "subscript_expression"]);
  return !isMember || !links[0]!.steps[0]!.is("call_expression");
}

const js = trialsIn("javascript");
const ts = trialsIn("typescript");

export const guardedCall = rule({
  id: "javascript/guarded-call",
  kind: "idiom",
  title: "Use ?. instead of a check before a call or a read",
  why: "The object is written twice, once to be tested and once to be used.",
  target: "2020",
  was: guarded(subject, read, otherwise, {
    as: ["statement", "choice"],
    or: ["callable"],
    copied: isCalledAlike,
  }),
  where: [
    (match) => match.chain.kind !== "statement" || match.the(read).is("call_expression"),
    // Where it stops, ?. gives undefined and not null.
    (match) =>
      match.chain.asksUse !== undefined ||
      !match.has(otherwise) ||
      (isMissing(match.the(otherwise)) && !match.the(otherwise).is("null")),
    // Only for what is called itself.
    ({ chain }) =>
      chain.links.every(
        ({ test, steps }, i) =>
          test.asks !== "callable" ||
          (i === chain.links.length - 1 && steps[0]!.is("call_expression") && steps.length === 1),
      ),
    // `eval?.(code)` evaluates in another scope.
    (match) => match.textOf(subject) !== "eval",
  ],
  given: [testedOnce(), asksForMissing("likely"), seenThrough],
  cautions: differsFor("did otherwise", "takes it for missing or not"),
  becomes: (match) =>
    match.chain.asksUse
      ? orElse(takenSafely(match.chain), match.the(otherwise), fallsBackByTruth(match) ? "||" : "??")
      : takenSafely(match.chain),
  trials: [
    js.rewrites("if (hive != null) { hive.open(1); }", "hive?.open(1);"),
    js.rewrites('if (typeof done === "function") { done(1); }\nlet done;', "done?.(1);\nlet done;", "likely"),
    ts.rewrites(
      'function f(done?: () => void) { if (typeof done === "function") done(); }',
      "function f(done?: () => void) { done?.(); }",
    ),
    js.rewrites(
      'function f(done) { if (done && typeof done === "function") { done(null, 1); } }',
      "function f(done) { done?.(null, 1); }",
      "likely",
    ),
    ts.rewrites(
      'function f(done: string[] | (() => void)) { if (typeof done === "function") done(); }',
      "function f(done: string[] | (() => void)) { done?.(); }",
      "likely",
    ),
    ts.rewrites(
      'function f(done: (() => void) | undefined) { if (typeof done === "function") done(); }',
      "function f(done: (() => void) | undefined) { done?.(); }",
    ),
    js.ignores('if (typeof hive.open === "function") hive.close();'),
    js.ignores('if (typeof hive === "function") hive.close();'),
    js.ignores('if (typeof done !== "function") done();'),
    js.holds('if (typeof done === "function") done();', "may not be declared"),
    js.rewrites("if (done !== undefined && done !== null) done(1);", "done?.(1);"),
    js.rewrites(
      "function f(y) { const hive = y.find(1); if (hive != null) hive.open(); }",
      "function f(y) { y.find(1)?.open(); }",
    ),
    js.rewrites(
      "function f(y) { const hive = y.find(1); if (hive != null) hive.open(hive.age); }",
      "function f(y) { const hive = y.find(1); hive?.open(hive.age); }",
    ),
    js.rewrites(
      "function f(y) { let hive = y.find(1); if (hive != null) { hive.open(); } hive = 1; }",
      "function f(y) { let hive = y.find(1); hive?.open(); hive = 1; }",
    ),
    js.rewrites(
      "function f(y) { const done = y.done; if (done != null) done(1); }",
      "function f(y) { const done = y.done; done?.(1); }",
    ),
    js.rewrites("const q = hive != null ? hive.queen : undefined;", "const q = hive?.queen;"),
    js.rewrites("const q = hive == null ? undefined : hive.queen.age;", "const q = hive?.queen.age;"),
    js.rewrites("const q = hives != null ? hives[0] : void 0;", "const q = hives?.[0];"),
    js.rewrites("const a = h != null && h.age != null ? h.age : 1;", "const a = h?.age ?? 1;", "likely"),
    js.rewrites(
      "function f(h) { if (h != null) return h.queen; return undefined; }",
      "function f(h) { return h?.queen; }",
    ),
    js.rewrites(
      "if (hive != null && hive.queen != null) hive.queen.mark();",
      "hive?.queen?.mark();",
      "likely",
    ),
    js.rewrites("const a = h != null && h.age ? h.age : 1;", "const a = h?.age || 1;", "likely"),
    ts.rewrites(
      "function f(h?: string[]) { if (h && h.length) return h.length; return 1; }",
      "function f(h?: string[]) { return h?.length || 1; }",
      "likely",
    ),
    js.rewrites("if (hive) hive.open();", "hive?.open();", "likely"),
    ts.holds(
      "function f(a?: Hive, b?: Hive) { const both = a && b && a.with(b); if (both) both.weigh(a.age); }",
      "no longer see for `a`",
    ),
    ts.rewrites(
      "function f(a?: Hive, b?: Hive) { const both = a && b && a.with(b); if (both) both.weigh(1); }",
      "function f(a?: Hive, b?: Hive) { const both = a && b && a.with(b); both?.weigh(1); }",
      "likely",
    ),
    js.rewrites("if (this.done) { this.done(1); }", "this.done?.(1);", "likely"),
    ts.rewrites(
      "const f = (h?: string[]) => { if (h) { h.sort(); } };",
      "const f = (h?: string[]) => { h?.sort(); };",
    ),
    ts.rewrites(
      "const f = (h: string[] | null) => { if (h !== null) h.sort(); };",
      "const f = (h: string[] | null) => { h?.sort(); };",
    ),
    ts.holds("const f = (s: string) => { if (s) s.trim(); };", "would do something else"),
    ts.rewrites(
      'const f = (h?: string[]) => { if (typeof h !== "undefined") h.sort(); };',
      "const f = (h?: string[]) => { h?.sort(); };",
    ),
    js.holds('if (typeof document !== "undefined") document.open();', "may not be declared"),
    js.holds("if (next() != null) next().open();", "calls something"),
    js.ignores("if (hive) { hive.open(); } else { close(); }"),
    js.ignores("if (hive) { hive.open(); n++; }"),
    js.ignores("if (hive) other.open();"),
    js.ignores("if (hive) hive.queen = 1;"),
    js.ignores("if (hive) delete hive.queen;"),
    js.ignores("const q = hive != null ? hive.queen : null;"),
    js.ignores("async function f() { if (hive) await hive.open(); }"),
    js.ignores("if (hive) new hive.Queen();"),
    js.ignores("if (tag) tag`x`;"),
    trialsIn("javascript", "2019").ignores("if (hive != null) { hive.open(1); }"),
  ],
});
