import { choice, holes, item, php, present, rule, trialsIn, truthy } from "../../core.js";
import type { Match } from "../../core.js";
import {
  asksAlone,
  itemsMayBeNull,
  functionsOfPhp,
  keepsFalsy,
  keepsNull,
  onlyNullIsLoose,
  passesValue,
  readOnce,
  whatIsReadIsThere,
} from "./presence.js";

const { value, fallback, list, key } = holes({
  value: "expression",
  fallback: "expression",
  list: "expression",
  key: "expression",
});

/** Casts of what is there, the defaults that each leaves as they are, and the new code. */
const CASTS = [
  { read: php`(string) ${value}`, same: /^(['"])[^'"$\\]*\1$/, now: php`(string) (${value} ?? ${fallback})` },
  { read: php`(int) ${value}`, same: /^-?\d+$/, now: php`(int) (${value} ?? ${fallback})` },
  { read: php`(float) ${value}`, same: /^-?\d+\.\d+$/, now: php`(float) (${value} ?? ${fallback})` },
  { read: php`(bool) ${value}`, same: /^(true|false)$/i, now: php`(bool) (${value} ?? ${fallback})` },
  { read: php`(array) ${value}`, same: /^(\[\]|array\(\))$/i, now: php`(array) (${value} ?? ${fallback})` },
];
const PLAIN = 3;
const castIn = ({ alternative }: Match) => CASTS[alternative - PLAIN];

const { rewrites, ignores, holds } = trialsIn("php");

export const valueOrFallback = rule({
  id: "php/value-or-fallback",
  kind: "idiom",
  title: "Use ?? for the default of a missing value",
  why: "The value is written twice, and the reader must check that both are the same.",
  target: "7.0",
  was: [
    choice(present(value, { or: ["loose"] }), value, fallback),
    choice(truthy(value), value, fallback),
    choice(present(item(list, key), { or: ["key"] }), item(list, key), fallback),
    ...CASTS.map(({ read }) => choice(present(value), read, fallback)),
  ],
  // A test against null that falls back to null chooses nothing.
  where: [
    (match) => match.tests[0]!.asks !== "missing" || !/^null$/i.test(match.textOf(fallback)),
    // The default must be what the cast makes of it.
    (match) => castIn(match)?.same.test(match.textOf(fallback)) ?? true,
  ],
  given: [
    readOnce(),
    asksAlone(),
    whatIsReadIsThere("??"),
    onlyNullIsLoose(),
    functionsOfPhp(),
    itemsMayBeNull(),
    passesValue(),
  ],
  cautions: (match) => [...keepsNull("falls back")(match), ...keepsFalsy(match)],
  becomes: (match) =>
    castIn(match)?.now ??
    (match.tests[0]!.asks === "truth"
      ? php.expression`${value} ?: ${fallback}`
      : match.has(key)
        ? php.expression`${list}[${key}] ?? ${fallback}`
        : php.expression`${value} ?? ${fallback}`),
  trials: [
    rewrites("<?php $name = isset($keeper) ? $keeper : 'nobody';\n", "<?php $name = $keeper ?? 'nobody';\n"),
    rewrites(
      "<?php function f(array $hive) { return isset($hive['age']) ? (string) $hive['age'] : ''; }\n",
      "<?php function f(array $hive) { return (string) ($hive['age'] ?? ''); }\n",
    ),
    rewrites(
      "<?php function f(array $hive) { if (!isset($hive['n'])) { return 0; } return (int)$hive['n']; }\n",
      "<?php function f(array $hive) { return (int) ($hive['n'] ?? 0); }\n",
    ),
    ignores(
      "<?php class A { public $q; function &f(array $m) { if (isset($m['k'])) { return $m['k']; } return $this->q; } }\n",
    ),
    ignores("<?php function f($k, $q) { if ($k !== null) { $y = &$k; } else { $y = &$q; } return $y; }\n"),
    holds(
      "<?php function g(array $o = array(), &$x) {} function f($k, $q) { if (isset($k)) { g([], $k); } else { g([], $q); } }\n",
      "by reference",
    ),
    rewrites(
      "<?php function g($x): int { return 1; } function f($k, $q) { if (isset($k)) { g($k); } else { g($q); } }\n",
      "<?php function g($x): int { return 1; } function f($k, $q) { g($k ?? $q); }\n",
    ),
    // A method of the name is not what is called, and `sort` takes a variable.
    rewrites(
      "<?php class D { function sort($x) {} } function f($k, $q) { if (isset($k)) { sort($k); } else { sort($q); } }\n",
      "<?php class D { function sort($x) {} } function f($k, $q) { sort($k ?? $q); }\n",
      "likely",
    ),
    rewrites(
      "<?php function f($o, $k, $q) { if (isset($k)) { $o->g($k); } else { $o->g($q); } }\n",
      "<?php function f($o, $k, $q) { $o->g($k ?? $q); }\n",
      "likely",
    ),
    ignores("<?php $n = isset($a) ? (int) $a : '';\n"),
    ignores("<?php $n = isset($a) ? (int) $a : null;\n"),
    rewrites(
      "<?php $age = isset($hive['queen']['age']) ? $hive['queen']['age'] : null;\n",
      "<?php $age = $hive['queen']['age'] ?? null;\n",
      "likely",
    ),
    rewrites(
      "<?php function f(array $hive) { return isset($hive['age']) ? $hive['age'] : 1; }\n",
      "<?php function f(array $hive) { return $hive['age'] ?? 1; }\n",
    ),
    rewrites(
      "<?php $n = isset($this->note) ? $this->note : '';\n",
      "<?php $n = $this->note ?? '';\n",
      "likely",
    ),
    rewrites(
      "<?php function f($weight) { $w = $weight !== null ? $weight : 10; }\n",
      "<?php function f($weight) { $w = $weight ?? 10; }\n",
    ),
    rewrites(
      "<?php function f($weight) { $w = null === $weight ? 10 : $weight; }\n",
      "<?php function f($weight) { $w = $weight ?? 10; }\n",
    ),
    rewrites(
      "<?php $weight = f(); $w = is_null($weight) ? $a . 'b' : $weight;\n",
      "<?php $weight = f(); $w = $weight ?? $a . 'b';\n",
    ),
    // Of what is not there a comparison warns, and ?? does not.
    rewrites(
      "<?php $w = $hive['w'] !== null ? $hive['w'] : 10;\n",
      "<?php $w = $hive['w'] ?? 10;\n",
      "likely",
    ),
    rewrites("<?php $w = $weight !== null ? $weight : 10;\n", "<?php $w = $weight ?? 10;\n", "likely"),
    holds(
      "<?php class A { function __get($n) { return 1; } function f() { return isset($this->p) ? $this->p : 2; } }\n",
      "no `__isset`",
    ),
    holds(
      "<?php namespace A; function is_null($x) { return true; } function f($w) { return is_null($w) ? 1 : $w; }\n",
      "a meaning of its own",
    ),
    rewrites("<?php $w = 'a' . (isset($x) ? $x : 'b');\n", "<?php $w = 'a' . ($x ?? 'b');\n"),
    rewrites(
      `
      <?php
      function weight($given) {
          if (isset($given)) {
              return $given;
          }
          return 10; // kilograms
      }
      `,
      `
      <?php
      function weight($given) {
          return $given ?? 10; // kilograms
      }
      `,
    ),
    rewrites(
      `
      <?php
      $given = f();
      if ($given === null) {
          $weight = 10;
      } else {
          $weight = $given;
      }
      `,
      `
      <?php
      $given = f();
      $weight = $given ?? 10;
      `,
    ),
    rewrites(
      "<?php $w = array_key_exists('w', $hive) ? $hive['w'] : 1;\n",
      "<?php $w = $hive['w'] ?? 1;\n",
      "possible",
    ),
    rewrites(
      "<?php $w = $hive->weigh(); if ($w === null) { $w = 10; }\n",
      "<?php $w = $hive->weigh() ?? 10;\n",
    ),
    rewrites(
      "<?php $w = $hive['w']; if ($w === null) { $w = 10; }\n",
      "<?php $w = $hive['w'] ?? 10;\n",
      "likely",
    ),
    holds("<?php $w = weigh() !== null ? weigh() : 1;\n", "calls something"),
    // A loose comparison takes 0, '' and false for null as well.
    rewrites("<?php $w = $weight != null ? $weight : 1;\n", "<?php $w = $weight ?? 1;\n", "possible"),
    holds("<?php function f(int $w) { return $w != null ? $w : 1; }\n", "can be false without being null"),
    rewrites(
      "<?php function f(?Hive $h, Hive $d) { return $h == null ? $d : $h; }\n",
      "<?php function f(?Hive $h, Hive $d) { return $h ?? $d; }\n",
    ),
    rewrites("<?php $w = $weight ? $weight : 10;\n", "<?php $w = $weight ?: 10;\n"),
    rewrites(
      "<?php function f($w) { if (!$w) { return 10; } return $w; }\n",
      "<?php function f($w) { return $w ?: 10; }\n",
    ),
    trialsIn("php", "8.0").rewrites(
      "<?php function f($w) { return match ($w) { null => 10, default => $w }; }\n",
      "<?php function f($w) { return $w ?? 10; }\n",
    ),
    // `case null` takes 0 as well.
    ignores("<?php switch ($w) { case null: $x = 10; break; default: $x = $w; }\n"),
    holds("<?php $w = weigh() ? weigh() : 10;\n", "calls something"),
    ignores("<?php $w = isset($a, $b) ? $a : 1;\n"),
    ignores("<?php $w = isset($a) ? $b : 1;\n"),
    ignores("<?php $w = !empty($a) ? $a : 1;\n"),
    ignores("<?php $w = $a !== null ? $a : null;\n"),
    trialsIn("php", "5.6").ignores("<?php $w = isset($a) ? $a : 1;\n"),
  ],
});
