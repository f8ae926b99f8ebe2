import { caution, condition, guarded, holes, isOnlyTested, rule, shortened } from "../../core.js";
import { no, takenSafely, trialsIn, unknown, yes } from "../../core.js";
import type { Answer, Match, PresenceTest, Segment } from "../../core.js";
import { everyTest } from "../family/conditions.js";
import { fallsBackByTruth, orElse } from "../family/guarded.js";
import { functionsOfPhp, passesValue, readOnce } from "./presence.js";
import { asksNoObject, isObjectOrMissing, isThere } from "./values.js";

const { subject, read, fallback } = holes({
  subject: "expression",
  read: "expression",
  fallback: "expression",
});

const isNull = (match: Match): boolean => /^null$/i.test(match.textOf(fallback));
const fallsBack = (match: Match): boolean => match.has(fallback) && !isNull(match);

/** Does a test stop for more than null: for all that counts as false? */
const isOpen = ({ asks, staysAsked }: PresenceTest): boolean =>
  (asks === "truth" || asks === "loose") && !staysAsked;

/** May what is tested be read as it stands, or must what is not there be passed over first? */
const mustPassOver = ({ asks, subject }: PresenceTest): boolean =>
  asks === "set" && isThere(subject).is !== "yes";

/** Where an operand is missing, the old result was true or false and the new one may be null. */
function resultAlike({ chain, node }: Match): Answer {
  if (chain.kind === "choice" || chain.kind === "statement")
    return yes("value.result", "the result is the same");
  if (chain.role !== "value") return yes("value.result", "the result is a comparison's, as before", node);
  return isOnlyTested(node)
    ? yes("value.result", "only whether the result is true matters here", node)
    : no("value.result", "where it stopped, the result was false and would be null", node);
}

const { rewrites, ignores, holds } = trialsIn("php", "8.0");

export const guardedRead = rule({
  id: "php/guarded-read",
  kind: "idiom",
  title: "Use ?-> to read from a value that may be null",
  why: "The object is written twice, once to be tested and once to be used.",
  target: "8.0",
  was: guarded(subject, read, fallback, {
    as: ["statement", "choice", "and", "or"],
    copied: true,
    or: ["loose"],
  }),
  where: [
    // By itself only a call does something.
    ({ chain }) =>
      chain.kind !== "statement" ||
      chain.use.is(["member_call_expression", "nullsafe_member_call_expression"]),
  ],
  given: [
    readOnce(),
    everyTest("what is tested is an object or null", (match, test) =>
      isOpen(test)
        ? isObjectOrMissing(match, test.subject)
        : yes("value.which-missing", "the test is for null alone"),
    ),
    everyTest("nothing but being there or not is asked", (_match, { asks, subject }) =>
      asks === "set" ? asksNoObject(subject) : yes("value.which-missing", "the old code read it too"),
    ),
    functionsOfPhp(),
    passesValue(),
    condition("the result is the same where the chain stops", resultAlike),
    condition(
      "what is read is never null itself",
      (match) =>
        fallsBack(match) && !match.chain.asksUse
          ? unknown(
              "value.result",
              `\`${shortened(match.textOf(read))}\` could be null itself, which the old code gave back`,
              match.node,
            )
          : yes("value.null", "for an object nothing changes"),
      { unknownIs: "possible" },
    ),
  ],
  cautions: (match) => [
    ...(fallsBack(match) && !match.chain.asksUse
      ? [
          caution(
            "value.result",
            `when \`${shortened(match.textOf(read))}\` is null, the old result was null and the new one is the default`,
          ),
        ]
      : []),
    ...match.tests
      .filter((test) => isOpen(test) && isObjectOrMissing(match, test.subject).is !== "yes")
      .map((test) =>
        caution(
          "value.falsy",
          `when \`${shortened(test.subject.text)}\` is false, 0, "" or an empty list, the old code stopped and the new one fails`,
        ),
      ),
  ],
  becomes: (match): Segment[] => {
    // `?->` warns of what is not there, and `??` does not.
    const safe = takenSafely(match.chain, ({ test }) =>
      mustPassOver(test) ? ["(", " ?? null)"] : undefined,
    );
    return fallsBack(match) ? orElse(safe, match.the(fallback), fallsBackByTruth(match) ? "?:" : "??") : safe;
  },
  trials: [
    rewrites(
      "<?php function f(?Hive $h) { return $h != null ? $h->name : null; }\n",
      "<?php function f(?Hive $h) { return $h?->name; }\n",
    ),
    rewrites(
      "<?php function f($h) { if ($h != null) { if ($h->queen !== null) { return $h->queen->name; } } return null; }\n",
      "<?php function f($h) { return $h?->queen?->name; }\n",
      "likely",
    ),
    holds("<?php function f(int $h) { return $h != null ? $h->name : null; }\n", "without being null"),
    rewrites(
      "<?php function f(Yard $y) { $hive = $y->hive(); if ($hive !== null) { $hive->open(1); } }\n",
      "<?php function f(Yard $y) { $y->hive()?->open(1); }\n",
    ),
    rewrites(
      "<?php function f(Yard $y) { $hive = $y->hive(); if ($hive !== null) { $hive->open(1); } return $hive; }\n",
      "<?php function f(Yard $y) { $hive = $y->hive(); $hive?->open(1); return $hive; }\n",
    ),
    rewrites(
      "<?php function f(?Hive $h) { if ($h !== null) { $q = $h->queen(); if ($q !== null) { $q->mark(); } } }\n",
      "<?php function f(?Hive $h) { $h?->queen()?->mark(); }\n",
    ),
    rewrites(
      "<?php function f(array $y) { $hive = &$y['hive']; if ($hive !== null) { $hive->open(1); } }\n",
      "<?php function f(array $y) { $hive = &$y['hive']; $hive?->open(1); }\n",
    ),
    rewrites(
      "<?php function f() { $hive = new Hive(); if ($hive !== null) { $hive->open(1); } }\n",
      "<?php function f() { $hive = new Hive(); $hive?->open(1); }\n",
    ),
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
      "<?php function f(?Hive $h) { return $h && $h->age ? $h->age : 1; }\n",
      "<?php function f(?Hive $h) { return $h?->age ?: 1; }\n",
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
    holds(
      "<?php function f($m, $i) { return isset($m[$i]) && $m[$i]->isOpen(); }\n",
      "was false and would be null",
    ),
    rewrites(
      "<?php function f($m, $i) { if (isset($m[$i]) && $m[$i]->isOpen()) { g(); } }\n",
      "<?php function f($m, $i) { if (($m[$i] ?? null)?->isOpen()) { g(); } }\n",
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
