import { holes, trialsIn } from "../../core.js";
import { needlessTestRule } from "../family/needless-tests.js";

const { what } = holes({ what: { kind: "expression", node: "identifier" } });
const { reports, ignores } = trialsIn("csharp");
const inMethod = (code: string): string => `class A { void F(Hive h) { ${code} } }\n`;

export const needlessTest = needlessTestRule({
  id: "csharp/needless-test",
  what,
  trials: [
    reports(inMethod("var g = new Hive(); if (g != null) g.Open();"), "always true"),
    reports(inMethod("h.Open(); if (h == null) Close();"), "always false"),
    reports(inMethod("if (h == null) { return; } h.Open(); if (h is null) Close();"), "always false"),
    ignores(inMethod("if (h != null) h.Open();")),
    ignores(inMethod("h.Open(); h = Next(); if (h != null) h.Open();")),
    ignores(inMethod("h.Open(); Fill(out h); if (h != null) h.Open();")),
    ignores(inMethod("h?.Open(); if (h != null) Close();")),
    ignores("class A { Hive h = new Hive(); void F() { if (h != null) h.Open(); } }\n"),
  ],
});
