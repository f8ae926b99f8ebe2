import { choice, condition, filled, holes, powershell, present, rule, trialsIn, yes } from "../../index.js";
import type { Answer, Match } from "../../index.js";
import { testedOnce } from "../family/conditions.js";
import { asksForNull, isNoList } from "./values.js";

const { value, fallback, place } = holes({
  value: "expression",
  fallback: "expression",
  place: { kind: "expression", text: /^\$[\w:]+(\.\w+)*$/ },
});

/** What a block gives goes through the pipeline, which makes one thing of a list of one. */
function isNotUnrolled(match: Match): Answer {
  const throughBlock = match.has(value) && !match.found.isStatements && match.node.is("if_statement");
  return throughBlock ? isNoList(match.the(value)) : yes("value.kind", "no block gave it on");
}

const { rewrites, ignores, holds } = trialsIn("powershell", "7.2");

export const valueOrFallback = rule({
  id: "powershell/value-or-fallback",
  kind: "idiom",
  title: "Use ?? and ??= for values that are null",
  why: "The value is written twice, and the reader must check that both are the same.",
  target: "7.0",
  was: [filled(place, fallback), choice(present(value), value, fallback)],
  given: [testedOnce(), asksForNull(), condition("a list is given on as it is", isNotUnrolled)],
  becomes: (match) =>
    match.has(place)
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
    holds("$n = if ($null -ne $h.Next()) { $h.Next() } else { 1 }\n", "calls something"),
    holds("if ($null -eq $hive) { $hive = 1 } else { $n = 1 }\n", "is done as well"),
    ignores("if ($null -eq $hive) { $hives = 1 }\n"),
    ignores("if ($null -eq $hive) { $hive += 1 }\n"),
    ignores("$n = if ($null -ne $name) { $other } else { 'none' }\n"),
    ignores("$n = if ($name) { $name } else { 'none' }\n"),
    trialsIn("powershell", "5.1").ignores("$n = if ($null -ne $name) { $name } else { 'none' }\n"),
    trialsIn("powershell").holds("if ($null -eq $hive) { $hive = 1 }\n", "nothing says which version"),
  ],
});
