import {
  caution,
  condition,
  copy,
  holes,
  php,
  rule,
  shortened,
  stepsFrom,
  trialsIn,
  unknown,
  yes,
} from "../../index.js";
import type { Match, Segment } from "../../index.js";
import { evaluatedOnce, formOf, type Form } from "../family/conditions.js";
import { readSafely, readsOn, type SafeStep } from "../family/guarded.js";
import { asksNoObject, isObjectOrMissing, isOfPhp, isThere } from "./values.js";
import { text } from "../../index.js";

const { subject, read, fallback } = holes({
  subject: "expression",
  read: "expression",
  fallback: "expression",
});

/** What the test of a form lets through: whatever is not null, or whatever is true; `isset` also takes what is not there. */
type Asks = "null" | "true" | "set";

const TESTS: readonly {
  readonly asks: Asks;
  readonly there: ReturnType<typeof php>;
  readonly gone?: ReturnType<typeof php>;
}[] = [
  { asks: "null", there: php`${subject} !== null`, gone: php`${subject} === null` },
  { asks: "null", there: php`!is_null(${subject})`, gone: php`is_null(${subject})` },
  { asks: "set", there: php`isset(${subject})`, gone: php`!isset(${subject})` },
  { asks: "true", there: php`${subject}`, gone: php`!${subject}` },
];

const READS: readonly Form<Asks>[] = TESTS.flatMap(({ asks, there, gone }): Form<Asks>[] => [
  { tests: asks, was: php.expression`${there} ? ${read} : ${fallback}` },
  ...(gone ? [{ tests: asks, was: php.expression`${gone} ? ${fallback} : ${read}` }] : []),
]);
const CALLS: readonly Form<Asks>[] = TESTS.map(({ asks, there }) => ({
  tests: asks,
  was: php`if (${there}) { ${read}; }`,
}));
const ALL = [...READS, ...CALLS];

/** Both object properties and methods, of one object only. */
export const SAFE: SafeStep = { tokens: { "->": "?->" } };

const isNull = (match: Match): boolean => /^null$/i.test(match.textOf(fallback));

/** May the subject be read as it stands, or must what is not there be passed over first? */
const mustPassOver = (match: Match): boolean =>
  formOf(ALL, match).tests === "set" && isThere(match.the(subject)).is !== "yes";

const CALL_KINDS = ["member_call_expression"];
const { rewrites, ignores, holds } = trialsIn("php", "8.0");

export const guardedRead = rule({
  id: "php/guarded-read",
  kind: "idiom",
  title: "Read through what may be null with ?->",
  why: "The object is written twice, once to be tested and once to be used.",
  target: "8.0",
  was: ALL.map(({ was }) => was),
  where: [
    (match) => readsOn(match.the(subject), match.the(read), SAFE),
    // By itself only a call does something.
    (match) => match.has(fallback) || match.the(read).is(CALL_KINDS),
  ],
  given: [
    evaluatedOnce(subject),
    condition("what is tested is an object or null", (match) =>
      formOf(ALL, match).tests === "true"
        ? isObjectOrMissing(match, match.the(subject))
        : yes("value.which-missing", "the test is for null alone"),
    ),
    condition("nothing but being there or not is asked", (match) =>
      formOf(ALL, match).tests === "set"
        ? asksNoObject(match.the(subject))
        : yes("value.which-missing", "the old code read it too"),
    ),
    condition("the functions are those of PHP", (match) =>
      /\bis_null\b/i.test(match.node.text)
        ? isOfPhp("is_null", match)
        : yes("name.library", "no function is asked"),
    ),
    condition(
      "what is read is never null itself",
      (match) =>
        !match.has(fallback) || isNull(match)
          ? yes("value.null", "for an object nothing changes")
          : unknown(
              "value.result",
              `\`${shortened(match.textOf(read))}\` could be null itself, which the old code gave back`,
              match.node,
            ),
      { unknownIs: "possible" },
    ),
  ],
  cautions: (match) => {
    const { tests } = formOf(ALL, match);
    const name = shortened(match.textOf(subject));
    return [
      ...(match.has(fallback) && !isNull(match)
        ? [
            caution(
              "value.result",
              `when \`${shortened(match.textOf(read))}\` is null, the old result was null and the new one is the default`,
            ),
          ]
        : []),
      ...(tests === "true" && isObjectOrMissing(match, match.the(subject)).is !== "yes"
        ? [
            caution(
              "value.falsy",
              `when \`${name}\` is false, 0, "" or an empty list, the old code stopped and the new one fails`,
            ),
          ]
        : []),
    ];
  },
  becomes: (match): Segment[] => {
    const asked = match.the(subject);
    const plain = readSafely(asked, match.the(read), SAFE);
    const [first, ...rest] = plain;
    // `?->` warns of what is not there, and `??` does not.
    const base = stepsFrom(asked, match.the(read))[0]?.parts[0];
    const safe =
      mustPassOver(match) && base && first && "start" in first
        ? [text("("), copy(base.start, base.end), text(" ?? null)"), copy(base.end, first.end), ...rest]
        : plain;
    if (!match.has(fallback)) return [...safe, text(";")];
    if (isNull(match)) return safe;
    return [...safe, text(` ?? ${match.textOf(fallback)}`)];
  },
  trials: [
    rewrites("<?php $q = $hive !== null ? $hive->queen : null;\n", "<?php $q = $hive?->queen;\n"),
    rewrites(
      "<?php $q = $hive === null ? null : $hive->queen()->age;\n",
      "<?php $q = $hive?->queen()->age;\n",
    ),
    rewrites(
      "<?php function f(?Hive $hive) { return isset($hive) ? $hive->queen : null; }\n",
      "<?php function f(?Hive $hive) { return $hive?->queen; }\n",
    ),
    rewrites(
      "<?php function f(?Hive $hive) { if ($hive) { $hive->open(1); } }\n",
      "<?php function f(?Hive $hive) { $hive?->open(1); }\n",
    ),
    rewrites("<?php if ($hive !== null) { $hive->open(); }\n", "<?php $hive?->open();\n"),
    rewrites("<?php if ($hive) { $hive->open(); }\n", "<?php $hive?->open();\n", "likely"),
    rewrites(
      "<?php if (!is_null($this->hive)) $this->hive->open();\n",
      "<?php $this->hive?->open();\n",
      "likely",
    ),
    rewrites(
      "<?php $q = $hive ? $hive->queen : 'none';\n",
      "<?php $q = $hive?->queen ?? 'none';\n",
      "possible",
    ),
    // Behind ?-> the missing key would warn.
    rewrites(
      "<?php if (isset($hives[$id])) { $hives[$id]->open(); }\n",
      "<?php ($hives[$id] ?? null)?->open();\n",
      "likely",
    ),
    holds("<?php $h = false; $h = find($h); if ($h) { $h->open(); }\n", "is given `false` here"),
    holds(
      "<?php class A { private $h = false; function f() { if ($this->h) { $this->h->open(); } } }\n",
      "is given",
    ),
    holds("<?php $q = find() !== null ? find()->queen : null;\n", "calls something"),
    ignores("<?php if ($hive !== null) { $hive->open(); } else { $n++; }\n"),
    ignores("<?php if ($hive !== null) { $hive->open(); $n++; }\n"),
    ignores("<?php if ($hive !== null) { $hives->open(); }\n"),
    ignores("<?php if ($hive !== null) { $hive->queen = 1; }\n"),
    ignores("<?php if ($hive !== null) { $hive['queen']->open(); }\n"),
    ignores("<?php $q = $hive !== null ? $hive['queen'] : null;\n"),
    ignores("<?php $q = $hive != 3 ? $hive->queen : null;\n"),
    trialsIn("php", "7.4").ignores("<?php if ($hive !== null) { $hive->open(); }\n"),
    trialsIn("php").holds(
      "<?php if ($hive !== null) { $hive->open(); }\n",
      "the new code needs PHP 8.0 (`?->`), and nothing says which version",
    ),
  ],
});
