import {
  condition,
  holes,
  powershell,
  referencesAt,
  rule,
  shortened,
  trialsIn,
  unknown,
  yes,
} from "../../index.js";
import type { Answer, Match } from "../../index.js";

const { value } = holes({ value: "expression" });
const EQUAL = 0;

const LISTS = /array|list|collection|object\[\]/i;

/** A list on the left is filtered by the comparison, and what is left of it decides. */
function isNoList(match: Match): Answer {
  const node = match.the(value);
  const leaf = [...node.descendants()].find((one) => one.isLeaf);
  const at = leaf && referencesAt(leaf).find(({ to }) => to)?.to?.at[0];
  const type = /\[([\w.]+(?:\[\])?)\]\s*$/.exec(at ? at.tree.text.slice(0, at.start) : "")?.[1];
  if (at && type !== undefined && !LISTS.test(type) && !type.includes("[]"))
    return yes(`\`${node.text}\` is declared \`[${type}]\``, at);
  return unknown(`\`${shortened(node.text)}\` could be a list, which the old comparison filters`, node);
}

const { rewrites, ignores } = trialsIn("powershell");

export const nullFirst = rule({
  id: "powershell/null-first",
  kind: "smell",
  title: "Compare with $null on the left",
  why: "With a list on the left the comparison does not ask for null: it filters the list.",
  was: [powershell.expression`${value} -eq $null`, powershell.expression`${value} -ne $null`],
  where: [
    (match) => match.textOf(value) !== "$null",
    // Where $null already stands on the left, the operator has its sides swapped for matching only.
    (match) => match.found.start === match.the(value).start,
  ],
  given: [condition("the value is not a list", isNoList)],
  cautions: (match) => {
    if (isNoList(match).is === "yes") return [];
    const name = shortened(match.textOf(value));
    return match.alternative === EQUAL
      ? [
          `when \`${name}\` is a list with two or more nulls in it, the old test was true and the new one is false`,
        ]
      : [
          `when \`${name}\` is an empty list or one of a single 0 or "", the old test was false and the new one is true`,
        ];
  },
  becomes: (match) =>
    match.alternative === EQUAL ? powershell`$null -eq ${value}` : powershell`$null -ne ${value}`,
  trials: [
    rewrites("if ($hive -eq $null) { 1 }\n", "if ($null -eq $hive) { 1 }\n", "likely"),
    rewrites("if ($hive.Queen -ne $null) { 1 }\n", "if ($null -ne $hive.Queen) { 1 }\n", "likely"),
    rewrites(
      "function f([string]$name) { if ($name -eq $null) { 1 } }\n",
      "function f([string]$name) { if ($null -eq $name) { 1 } }\n",
    ),
    rewrites("$x = (Get-Hive 1) -EQ $NULL\n", "$x = $null -eq (Get-Hive 1)\n", "likely"),
    ignores("if ($null -eq $hive) { 1 }\n"),
    ignores("if ($hive -eq 0) { 1 }\n"),
    ignores("if ($hive -like $null) { 1 }\n"),
  ],
});
