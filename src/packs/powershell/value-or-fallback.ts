import {
  caution,
  choice,
  condition,
  filled,
  hasKey,
  holes,
  item,
  powershell,
  present,
  rule,
  shortened,
  trialsIn,
  unknown,
  yes,
} from "../../core.js";
import type { Answer, Evidence, Match, PresenceTest } from "../../core.js";
import { everyTest, testedOnce } from "../family/conditions.js";
import { asksForNull, isNoList } from "./values.js";

const { value, fallback, place, table, key } = holes({
  table: "expression",
  key: "expression",
  value: "expression",
  fallback: "expression",
  place: "expression",
});

/** What a block gives goes through the pipeline, which makes one thing of a list of one. */
function isNotUnrolled(match: Match): Answer {
  const throughBlock = match.has(value) && !match.found.isStatements && match.node.is("if_statement");
  return throughBlock ? isNoList(match.the(value)) : yes("value.kind", "no block gave it on");
}

/** ?? asks for $null alone. */
function isNeverFalse({ asks, subject }: PresenceTest): Answer {
  const shown = shortened(subject.text);
  if (asks === "key") return unknown("value.null", `\`${shown}\` could hold $null for the key`, subject);
  return asks === "truth"
    ? unknown("value.falsy", `\`${shown}\` could be 0, empty or false, which is not $null`, subject)
    : yes("value.falsy", "the test asks for $null");
}

function differsFor({ asks, subject }: PresenceTest): Evidence[] {
  const shown = shortened(subject.text);
  if (asks === "key")
    return [
      caution(
        "value.null",
        `when \`${shown}\` holds $null for the key, the new code falls back, and the old one did not`,
      ),
    ];
  return asks === "truth"
    ? [
        caution(
          "value.falsy",
          `when \`${shown}\` is 0, empty or false, the old code fell back and the new one does not`,
        ),
      ]
    : [];
}

const { rewrites, ignores, holds } = trialsIn("powershell", "7.2");

export const valueOrFallback = rule({
  id: "powershell/value-or-fallback",
  kind: "idiom",
  title: "Use ?? and ??= for values that are null",
  why: "The value is written twice, and the reader must check that both are the same.",
  target: "7.0",
  was: [
    filled(place, fallback, { or: ["truth"] }),
    choice(present(value, { or: ["truth"] }), value, fallback),
    choice(hasKey(item(table, key)), item(table, key), fallback),
  ],
  given: [
    testedOnce(),
    asksForNull(),
    everyTest("what is false or empty is missing", (_match, test) => isNeverFalse(test), {
      unknownIs: "possible",
    }),
    condition("a list is given on as it is", isNotUnrolled),
  ],
  cautions: (match) => match.tests.flatMap(differsFor),
  becomes: (match) =>
    match.has(key)
      ? powershell.expression`${table}[${key}] ?? ${fallback}`
      : match.has(place)
        ? powershell.statement`${place} ??= ${fallback}`
        : powershell.expression`${value} ?? ${fallback}`,
  trials: [
    rewrites("if ($null -eq $hive) { $hive = 1 }\n", "$hive ??= 1\n"),
    rewrites("if ($null -eq $script:hive) { $script:hive = Get-Hive 2 }\n", "$script:hive ??= Get-Hive 2\n"),
    rewrites("$hive = $hive ?? 1\n", "$hive ??= 1\n"),
    rewrites("if ($null -eq $name) { $n = 'none' } else { $n = $name }\n", "$n = $name ?? 'none'\n"),
    rewrites("$n = ($null -ne $name) ? $name : 'none'\n", "$n = $name ?? 'none'\n"),
    rewrites(
      "function f([string]$name) {\n  if ($name -ne $null) { return $name }\n  return 'none'\n}\n",
      "function f([string]$name) {\n  return $name ?? 'none'\n}\n",
    ),
    // A list of one thing came out of the block as that thing, and stays a list.
    rewrites("$n = if ($null -ne $name) { $name } else { 'none' }\n", "$n = $name ?? 'none'\n", "likely"),
    // With a list on the left the comparison filters.
    rewrites("if ($hive -eq $null) { $hive = 1 }\n", "$hive ??= 1\n", "likely"),
    rewrites(
      "Set-StrictMode -Version 3\nif ($null -eq $h) { $h = 1 }\n",
      "Set-StrictMode -Version 3\n$h ??= 1\n",
      "likely",
    ),
    rewrites("if ($null -eq $jars['a']) { $jars['a'] = 0 }\n", "$jars['a'] ??= 0\n", "likely"),
    rewrites(
      "if ($null -ne $hive.Name) { $n = $hive.Name } else { $n = 'none' }\n",
      "$n = $hive.Name ?? 'none'\n",
      "likely",
    ),
    holds("$n = if ($null -ne $h.Next()) { $h.Next() } else { 1 }\n", "calls something"),
    holds("if ($null -eq $hive) { $hive = 1 } else { $n = 1 }\n", "is done as well"),
    ignores("if ($null -eq $hive) { $hives = 1 }\n"),
    ignores("if ($null -eq $hive) { $hive += 1 }\n"),
    ignores("$n = if ($null -ne $name) { $other } else { 'none' }\n"),
    rewrites("$n = if ($name) { $name } else { 'none' }\n", "$n = $name ?? 'none'\n", "possible"),
    rewrites("if (-not $name) { $name = 'none' }\n", "$name ??= 'none'\n", "possible"),
    rewrites("if (!$name) { $name = 'none' }\n", "$name ??= 'none'\n", "possible"),
    rewrites(
      "$w = if ($jars.ContainsKey($k)) { $jars[$k] } else { 3 }\n",
      "$w = $jars[$k] ?? 3\n",
      "possible",
    ),
    ignores("$n = if ($name) { 'none' } else { $name }\n"),
    trialsIn("powershell", "5.1").ignores("$n = if ($null -ne $name) { $name } else { 'none' }\n"),
    trialsIn("powershell").holds("if ($null -eq $hive) { $hive = 1 }\n", "nothing says which version"),
  ],
});
