import { caution, condition, holes, php, rule, shortened, trialsIn, unknown, yes } from "../../index.js";
import { formOf, type Form } from "../family/conditions.js";
import { asksNoObject, isOfPhp, isThere, isVariable } from "./values.js";
import { isSideEffectFree } from "../../index.js";

const { place, value, key, list } = holes({
  place: "expression",
  value: "expression",
  key: "expression",
  list: "expression",
});

type Asks = "set" | "null" | "key";

const FORMS: readonly Form<Asks>[] = [
  { tests: "set", was: php`if (!isset(${place})) { ${place} = ${value}; }` },
  { tests: "null", was: php`if (${place} === null) { ${place} = ${value}; }` },
  { tests: "null", was: php`if (is_null(${place})) { ${place} = ${value}; }` },
  { tests: "set", was: php`${place} = ${place} ?? ${value};` },
  { tests: "key", was: php`if (!array_key_exists(${key}, ${list})) { ${list}[${key}] = ${value}; }` },
];

const { rewrites, ignores, holds } = trialsIn("php");

export const assignedIfMissing = rule({
  id: "php/assigned-if-missing",
  kind: "idiom",
  title: "Assign with ??= where a value is missing",
  why: "What is filled in is written twice, and the reader must check that both are the same.",
  target: "7.4",
  was: FORMS.map(({ was }) => was),
  given: [
    condition("what is filled in is read once instead of twice, and nobody notices", (match) => {
      if (match.has(key)) return isSideEffectFree(match.the(key));
      const node = match.the(place);
      return isVariable(node)
        ? yes("effect.getter", `\`${node.text}\` is a variable`, node)
        : isSideEffectFree(node);
    }),
    condition("nothing but being there or not is asked", (match) =>
      match.has(place) ? asksNoObject(match.the(place)) : yes("value.which-missing", "the key is asked for"),
    ),
    condition("what is read is there, since ??= would pass over it in silence", (match) =>
      formOf(FORMS, match).tests === "null"
        ? isThere(match.the(place))
        : yes("value.which-missing", "the old code asked for that as well"),
    ),
    condition("the functions are those of PHP", (match) => {
      const called = /^\(?\s*!?\s*(is_null|array_key_exists)\b/i.exec(
        match.node.child("condition")?.text ?? "",
      )?.[1];
      return called === undefined ? yes("name.library", "no function is asked") : isOfPhp(called, match);
    }),
    condition(
      "an item that is there is never null",
      (match) =>
        formOf(FORMS, match).tests !== "key"
          ? yes("value.which-missing", "null counts as missing")
          : unknown(
              "value.which-missing",
              `\`${shortened(match.textOf(list))}\` could hold null, which the old code kept`,
              match.node,
            ),
      { unknownIs: "possible" },
    ),
  ],
  cautions: (match) =>
    formOf(FORMS, match).tests !== "key"
      ? []
      : [
          caution(
            "value.which-missing",
            `when the item of \`${shortened(match.textOf(list))}\` is null, the old code kept it and the new one fills it in`,
          ),
        ],
  becomes: (match) => (match.has(key) ? php`${list}[${key}] ??= ${value};` : php`${place} ??= ${value};`),
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
    // Otherwise than null is also "" and 0 here.
    ignores("<?php if ($hive == null) { $hive = 1; }\n"),
    ignores("<?php if (empty($hive)) { $hive = 1; }\n"),
    ignores("<?php if (!isset($hive)) { $hive = 1; } else { $n++; }\n"),
    ignores("<?php if (!isset($hive)) { $hive = 1; $n++; }\n"),
    ignores("<?php if (!isset($hive)) { $hives = 1; }\n"),
    ignores("<?php $a = $b ?? $a;\n"),
    trialsIn("php", "7.3").ignores("<?php if (!isset($hive)) { $hive = 1; }\n"),
  ],
});
