import { holes, php, trialsIn } from "../../core.js";
import { calledIn, handleOf } from "../family/handles.js";
import { callWritten, leakRule } from "../family/leaks.js";
import { RESOURCES } from "./resources.js";

const { name, made } = holes({
  name: { kind: "expression", node: "variable_name" },
  made: { kind: "expression", node: "function_call_expression" },
});
const { reports, ignores } = trialsIn("php");

export const leakingResource = leakRule({
  id: "php/leaking-resource",
  was: [php`${name} = ${made};`],
  name,
  made,
  mentions: RESOURCES.map(calledIn),
  acquires: (match) => handleOf(RESOURCES, match.the(made))?.answer.is === "yes",
  release: (use, match) =>
    callWritten(
      use,
      match.textOf(name),
      RESOURCES.map(({ release }) => release),
    ),
  // PHP gives back what nothing refers to any more, so only what stands beside a release is worth a word.
  byException: false,
  never: false,
  yieldsTo: ["php/released-in-finally"],
  trials: [
    reports(
      "<?php function f($p) { $h = fopen($p, 'r'); if (!$p) { return 1; } fclose($h); return 2; }\n",
      "where `return 1;` leaves",
    ),
    reports("<?php function f($p) { $h = fopen($p, 'r'); if ($p) { fclose($h); } }\n", "not at the end"),
    ignores(
      "<?php function f($p) { $h = fopen($p, 'r'); try { return fread($h, 1); } finally { try { fclose($h); } catch (Exception $e) { log($e); } } }\n",
    ),
    ignores(
      "<?php function f($p) { $h = fopen($p, 'r'); if ($h === false) { return 1; } fclose($h); return 2; }\n",
    ),
    ignores("<?php function f($p) { $h = fopen($p, 'r'); if (!$h) { return 1; } fclose($h); return 2; }\n"),
    ignores("<?php function f($p) { $h = fopen($p, 'r'); return $h; }\n"),
    ignores("<?php function f($p) { $h = fopen($p, 'r'); g(); fclose($h); }\n"),
    ignores("<?php function f($p) { $h = fopen($p, 'r'); g(); }\n"),
    ignores(
      "<?php function f($p) { $h = fopen($p, 'r'); try { work(); $x = 1; } finally { if (is_resource($h)) { fclose($h); } } return $x; }\n",
    ),
    ignores(
      "<?php function f($p) { $h = fopen($p, 'r'); try { work(); $x = 1; } finally { if ($h) fclose($h); } return $x; }\n",
    ),
    ignores(
      "<?php function f($p) { $h = fopen($p, 'r'); try { work(); $x = 1; } finally { if ($h !== false) { fclose($h); } } return $x; }\n",
    ),
  ],
});
