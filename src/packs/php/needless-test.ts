import { holes, trialsIn } from "../../core.js";
import { needlessTestRule } from "../family/needless-tests.js";

const { what } = holes({ what: { kind: "expression", node: "variable_name" } });
const { reports, ignores } = trialsIn("php");

export const needlessTest = needlessTestRule({
  id: "php/needless-test",
  what,
  trials: [
    reports("<?php function f() { $h = new Hive(); if ($h !== null) { $h->open(); } }\n", "always true"),
    reports(
      "<?php function f($h) { if ($h === null) { return; } g(); if (is_null($h)) { g(); } }\n",
      "always false",
    ),
    ignores("<?php function f($h) { if ($h !== null) { $h->open(); } }\n"),
    ignores("<?php function f($h) { $h->open(); $h = next(); if ($h !== null) { $h->open(); } }\n"),
    ignores("<?php function f($h) { if ($h === null) { $h = find(); } if ($h === null) { g(); } }\n"),
    ignores("<?php $h = new Hive(); function f() { global $h; if ($h !== null) { $h->open(); } }\n"),
  ],
});
