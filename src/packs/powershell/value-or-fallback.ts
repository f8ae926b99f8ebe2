import { holes, isSideEffectFree, powershell, rule, shortened, trialsIn } from "../../index.js";
import type { Match } from "../../index.js";

const { value, fallback, target } = holes({
  value: "expression",
  fallback: "expression",
  target: { kind: "expression", text: /^\$[\w:]+(\.\w+)*$/ },
});
const { reports, ignores } = trialsIn("powershell", "7.2");

/** What to write instead; the grammar does not know `??` yet, so nothing can be written and checked. */
function shorter(match: Match): string {
  const filled = match.has(value) ? `= ${match.textOf(value)} ??` : "??=";
  return `write \`${shortened(`${match.textOf(target)} ${filled} ${match.textOf(fallback)}`)}\``;
}

export const valueOrFallback = rule({
  id: "powershell/value-or-fallback",
  kind: "idiom",
  title: "Fall back with ?? and fill in with ??= where a value is null",
  why: "The value is written twice, and the reader must check that both are the same.",
  target: "7.0",
  was: [
    powershell`if ($null -eq ${target}) { ${target} = ${fallback} }`,
    powershell`if ($null -ne ${value}) { ${target} = ${value} } else { ${target} = ${fallback} }`,
    powershell`if ($null -eq ${value}) { ${target} = ${fallback} } else { ${target} = ${value} }`,
    powershell`${target} = if ($null -ne ${value}) { ${value} } else { ${fallback} }`,
    powershell`${target} = if ($null -eq ${value}) { ${fallback} } else { ${value} }`,
  ],
  where: [(match) => !match.has(value) || isSideEffectFree(match.the(value)).is !== "no"],
  advice: shorter,
  trials: [
    reports("if ($null -eq $hive) { $hive = 1 }\n", "write `$hive ??= 1`"),
    reports(
      "if ($null -eq $script:hive) { $script:hive = Get-Hive 2 }\n",
      "write `$script:hive ??= Get-Hive 2`",
    ),
    reports("$n = if ($null -ne $name) { $name } else { 'none' }\n", "write `$n = $name ?? 'none'`"),
    reports("if ($null -eq $name) { $n = 'none' } else { $n = $name }\n", "write `$n = $name ?? 'none'`"),
    ignores("$n = if ($null -ne $h.Next()) { $h.Next() } else { 1 }\n"),
    ignores("if ($null -eq $hive) { $hive = 1 } else { $n = 1 }\n"),
    ignores("if ($null -eq $hive) { $hives = 1 }\n"),
    ignores("if ($null -eq $hive) { $hive += 1 }\n"),
    ignores("$n = if ($null -ne $name) { $other } else { 'none' }\n"),
    ignores("$n = if ($name) { $name } else { 'none' }\n"),
    trialsIn("powershell", "5.1").ignores("$n = if ($null -ne $name) { $name } else { 'none' }\n"),
    trialsIn("powershell").holds("if ($null -eq $hive) { $hive = 1 }\n", "nothing says which version"),
  ],
});
