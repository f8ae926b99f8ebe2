import { holes, trialsIn } from "../../core.js";
import { needlessTestRule } from "../family/needless-tests.js";

const { what } = holes({ what: { kind: "expression", node: "identifier" } });
const { reports, ignores } = trialsIn("java");
const inMethod = (code: string): string => `class A { void f(Hive h) { ${code} } }\n`;

export const needlessTest = needlessTestRule({
  id: "java/needless-test",
  what,
  trials: [
    reports(inMethod("Hive g = new Hive(); if (g != null) g.open();"), "always true"),
    reports(inMethod("h.open(); if (h == null) close();"), "always false"),
    reports(inMethod("if (h == null) { return; } h.open(); if (h != null) close();"), "always true"),
    ignores(inMethod("if (h != null) h.open();")),
    ignores(inMethod("h.open(); h = next(); if (h != null) h.open();")),
    ignores(inMethod("if (open && h != null) h.open(); if (h != null) close();")),
    ignores(inMethod("try { h.open(); } catch (Exception e) { } if (h != null) close();")),
    ignores("class A { Hive h = new Hive(); void f() { if (h != null) h.open(); } }\n"),
  ],
});
