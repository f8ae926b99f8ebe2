import { holes, trialsIn } from "../../core.js";
import { needlessTestRule } from "../family/needless-tests.js";

const { what } = holes({ what: { kind: "expression", node: "identifier" } });
const { reports, ignores } = trialsIn("javascript");

export const needlessTest = needlessTestRule({
  id: "javascript/needless-test",
  what,
  trials: [
    reports("function f() { const h = new Hive(); if (h != null) h.open(); }", "always true"),
    reports("function f(h) { if (h == null) return; g(); if (h == null) g(h); }", "always false"),
    reports("function f(h) { h.open(); return h != null ? 1 : 2; }", "always true"),
    ignores("function f(h) { if (h != null) h.open(); }"),
    ignores("function f(h) { h.open(); h = next(); if (h != null) h.open(); }"),
    ignores("function f(h) { if (h.a != null) h.a.open(); if (h.a != null) g(); }"),
    ignores("let h = new Hive(); function f() { if (h != null) h.open(); }"),
    ignores("function f() { let h = new Hive(); g(() => { h = null; }); if (h != null) h.open(); }"),
    ignores("function f(h) { while (h != null) { h.open(); h = h.next; } }"),
  ],
});
