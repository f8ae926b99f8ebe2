import { caution, condition, holes, php, rule, shortened, trialsIn, unknown, yes } from "../../index.js";
import type { Answer, Match } from "../../index.js";
import { evaluatedOnce, formOf, type Form } from "../family/conditions.js";
import { asksNoObject, isOfPhp, isThere } from "./values.js";

const { value, fallback, target } = holes({
  value: "expression",
  fallback: "expression",
  target: "expression",
});

/** What a form asks: whether the value is set and not null, whether it is not null, whether its key is there. */
type Asks = "set" | "null" | "key";

const { key, list } = holes({ key: "expression", list: "expression" });

const TESTS: readonly {
  readonly asks: Asks;
  readonly there: ReturnType<typeof php>;
  readonly gone: ReturnType<typeof php>;
}[] = [
  { asks: "set", there: php`isset(${value})`, gone: php`!isset(${value})` },
  { asks: "null", there: php`${value} !== null`, gone: php`${value} === null` },
  { asks: "null", there: php`!is_null(${value})`, gone: php`is_null(${value})` },
];

const FORMS: readonly Form<Asks>[] = [
  ...TESTS.flatMap(({ asks, there, gone }): Form<Asks>[] => [
    { tests: asks, was: php`${there} ? ${value} : ${fallback}` },
    { tests: asks, was: php`${gone} ? ${fallback} : ${value}` },
  ]),
  { tests: "key", was: php`array_key_exists(${key}, ${list}) ? ${list}[${key}] : ${fallback}` },
];
const BRANCHES: readonly Form<Asks>[] = TESTS.flatMap(({ asks, there, gone }): Form<Asks>[] => [
  { tests: asks, was: php`if (${there}) { ${target} = ${value}; } else { ${target} = ${fallback}; }` },
  { tests: asks, was: php`if (${gone}) { ${target} = ${fallback}; } else { ${target} = ${value}; }` },
]);
const RETURNS: readonly Form<Asks>[] = TESTS.flatMap(({ asks, there, gone }): Form<Asks>[] => [
  { tests: asks, was: php`if (${there}) { return ${value}; } return ${fallback};` },
  { tests: asks, was: php`if (${gone}) { return ${fallback}; } return ${value};` },
]);
const ALL = [...FORMS, ...BRANCHES, ...RETURNS];

const once = evaluatedOnce(value);

/** An item of a plain list is there to be read; an object in its place may run code. */
function readOnce(match: Match): Answer {
  const answer = once.ask(match);
  return answer.is === "unknown" && match.the(value).is("subscript_expression")
    ? asksNoObject(match.the(value))
    : answer;
}

const { rewrites, ignores, holds } = trialsIn("php");

export const valueOrFallback = rule({
  id: "php/value-or-fallback",
  kind: "idiom",
  title: "Fall back with ?? where a value is missing",
  why: "The value is written twice, and the reader must check that both are the same.",
  target: "7.0",
  was: ALL.map(({ was }) => was),
  where: [
    // A test against null that falls back to null chooses nothing.
    (match) => formOf(ALL, match).tests !== "null" || !/^null$/i.test(match.textOf(fallback)),
    (match) =>
      !match.has(target) ||
      match
        .the(target)
        .is([
          "variable_name",
          "member_access_expression",
          "subscript_expression",
          "scoped_property_access_expression",
        ]),
  ],
  given: [
    condition("the value is read once instead of twice, and nobody notices", (match) =>
      match.has(value) ? readOnce(match) : yes("effect.evaluated", "the item is read once, as before"),
    ),
    condition("nothing but being there or not is asked", (match) => {
      if (formOf(ALL, match).tests === "key") return yes("value.which-missing", "the key is asked for");
      return asksNoObject(match.the(value));
    }),
    condition("what is read is there, since ?? would pass over it in silence", (match) =>
      formOf(ALL, match).tests === "null"
        ? isThere(match.the(value))
        : yes("value.which-missing", "the old code asked for that as well"),
    ),
    condition("the functions are those of PHP", (match) => {
      const called = /^!?\s*(is_null|array_key_exists)\b/i.exec(
        match.node.is("if_statement")
          ? match.node.child("condition")!.text.replace(/^\(\s*/, "")
          : match.node.text,
      )?.[1];
      return called === undefined ? yes("name.library", "no function is asked") : isOfPhp(called, match);
    }),
    condition(
      "an item that is there is never null",
      (match) => {
        if (formOf(ALL, match).tests !== "key") return yes("value.which-missing", "null counts as missing");
        return unknown(
          "value.which-missing",
          `\`${shortened(match.textOf(list))}\` could hold null, which the old code kept`,
          match.node,
        );
      },
      { unknownIs: "possible" },
    ),
  ],
  cautions: (match) => {
    const { tests } = formOf(ALL, match);
    if (tests === "key") {
      const item = `${match.textOf(list)}[${match.textOf(key)}]`;
      return [
        caution(
          "value.which-missing",
          `when \`${shortened(item)}\` is null, the old code kept it and the new one falls back`,
        ),
      ];
    }
    return [];
  },
  becomes: (match) => {
    if (match.has(key)) return php`${list}[${key}] ?? ${fallback}`;
    if (match.has(target)) return php`${target} = ${value} ?? ${fallback};`;
    return match.alternative >= FORMS.length + BRANCHES.length
      ? php`return ${value} ?? ${fallback};`
      : php`${value} ?? ${fallback}`;
  },
  trials: [
    rewrites("<?php $name = isset($keeper) ? $keeper : 'nobody';\n", "<?php $name = $keeper ?? 'nobody';\n"),
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
    holds("<?php $w = weigh() !== null ? weigh() : 1;\n", "calls something"),
    // A loose comparison takes 0, '' and false for null as well.
    ignores("<?php $w = $weight != null ? $weight : 1;\n"),
    ignores("<?php $w = isset($a, $b) ? $a : 1;\n"),
    ignores("<?php $w = isset($a) ? $b : 1;\n"),
    ignores("<?php $w = !empty($a) ? $a : 1;\n"),
    ignores("<?php $w = $a !== null ? $a : null;\n"),
    trialsIn("php", "5.6").ignores("<?php $w = isset($a) ? $a : 1;\n"),
  ],
});
