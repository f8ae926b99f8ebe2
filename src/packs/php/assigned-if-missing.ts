import { filled, holes, php, rule, trialsIn } from "../../core.js";
import {
  asksAlone,
  functionsOfPhp,
  itemsMayBeNull,
  keepsFalsy,
  keepsNull,
  onlyNullIsLoose,
  readOnce,
  whatIsReadIsThere,
} from "./presence.js";

const { place, value } = holes({ place: "expression", value: "expression" });

const { rewrites, ignores, holds } = trialsIn("php");

export const assignedIfMissing = rule({
  id: "php/assigned-if-missing",
  kind: "idiom",
  title: "Use ??= to assign a missing value",
  why: "What is filled in is written twice, and the reader must check that both are the same.",
  target: "7.4",
  was: filled(place, value, { or: ["key", "loose"] }),
  given: [
    readOnce(),
    asksAlone(),
    whatIsReadIsThere("??="),
    onlyNullIsLoose(),
    functionsOfPhp(),
    itemsMayBeNull(),
  ],
  cautions: (match) => [...keepsNull("fills it in")(match), ...keepsFalsy(match)],
  becomes: php.expression`${place} ??= ${value}`,
  trials: [
    rewrites("<?php if (!isset($hive)) { $hive = new Hive(); }\n", "<?php $hive ??= new Hive();\n"),
    rewrites("<?php function f($h) { if ($h === null) $h = 1; }\n", "<?php function f($h) { $h ??= 1; }\n"),
    rewrites("<?php $hive = f(); if (null === $hive) $hive = 1;\n", "<?php $hive = f(); $hive ??= 1;\n"),
    rewrites("<?php if ($hive === null) $hive = 1;\n", "<?php $hive ??= 1;\n", "likely"),
    rewrites(
      `
      <?php
      if (is_null($this->hives)) {
          // read once
          $this->hives = $this->read();
      }
      `,
      `
      <?php
      // read once
      $this->hives ??= $this->read();
      `,
      "likely",
    ),
    rewrites("<?php static::$all = static::$all ?? [];\n", "<?php static::$all ??= [];\n"),
    rewrites(
      "<?php if (!array_key_exists($id, $lots)) { $lots[$id] = []; }\n",
      "<?php $lots[$id] ??= [];\n",
      "possible",
    ),
    holds("<?php if (!isset($a[next($ids)])) { $a[next($ids)] = 1; }\n", "calls something"),
    ignores("<?php function f($h) { if ($h === null) -$h = -1; }\n"),
    // Otherwise than null is also "" and 0 here.
    holds("<?php if ($hive == null) { $hive = 1; }\n", "can be false without being null"),
    rewrites(
      "<?php class A { private ?Hive $h = null; function h() { if ($this->h == null) { $this->h = new Hive(); } } }\n",
      "<?php class A { private ?Hive $h = null; function h() { $this->h ??= new Hive(); } }\n",
      "likely",
    ),
    rewrites(
      "<?php function f($hive) { if (null == $hive) { $hive = g(); } }\n",
      "<?php function f($hive) { $hive ??= g(); }\n",
      "possible",
    ),
    ignores("<?php if (empty($hive)) { $hive = 1; }\n"),
    holds("<?php if (!isset($hive)) { $hive = 1; } else { $n++; }\n", "is done as well"),
    holds("<?php if (!isset($hive)) { $hive = 1; $n++; }\n", "is done as well"),
    ignores("<?php if (!isset($hive)) { $hives = 1; }\n"),
    rewrites(
      "<?php function f($hive) { if (isset($hive)) { return; } $hive = 1; }\n",
      "<?php function f($hive) { $hive ??= 1; }\n",
    ),
    ignores("<?php $a = $b ?? $a;\n"),
    trialsIn("php", "7.3").ignores("<?php if (!isset($hive)) { $hive = 1; }\n"),
  ],
});
