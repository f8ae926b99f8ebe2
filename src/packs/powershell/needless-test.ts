import { holes, trialsIn } from "../../core.js";
import { needlessTestRule } from "../family/needless-tests.js";

const { what } = holes({ what: { kind: "expression", node: "variable" } });
const { reports, ignores } = trialsIn("powershell");

export const needlessTest = needlessTestRule({
  id: "powershell/needless-test",
  what,
  trials: [
    reports("function F($h) { if ($null -eq $h) { return }; G; if ($null -eq $h) { G } }\n", "always false"),
    ignores("function F($h) { if ($null -ne $h) { $h.Open() } }\n"),
    ignores("function F($h) { if ($null -eq $h) { $h = Find-Hive }; if ($null -eq $h) { G } }\n"),
    ignores("function F($h) { $h.Open(); if ($null -eq $h) { G } }\n"),
    ignores("function F { if ($null -eq $script:h) { return }; if ($null -eq $script:h) { G } }\n"),
    ignores("function F($a, $h) { if ($null -eq $a) { return }; if ($null -eq $h) { G } }\n"),
  ],
});
