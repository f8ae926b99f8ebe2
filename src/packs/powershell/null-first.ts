import { caution, condition, holes, no, powershell, rule, shortened, trialsIn, yes } from "../../core.js";
import type { Answer, Match, SyntaxNode } from "../../core.js";
import { isNoList } from "./values.js";

const { value } = holes({ value: "expression" });
const EQUAL = 0;

/** Where the comparison is more than a test, what is left of a list is what somebody wants. */
function isOnlyAsked(match: Match): Answer {
  if (isNoList(match.the(value)).is === "yes") return yes("value.kind", "it is not a list");
  return isTest(match.node)
    ? yes("value.kind", "only whether it is true matters here")
    : no("value.kind", `\`${shortened(match.node.text)}\` may be there to filter a list`, match.node);
}

function isTest(node: SyntaxNode): boolean {
  const { parent } = node;
  if (!parent) return false;
  if (/^(if|elseif|while|do|for)_/.test(parent.kind) && node.field === "condition") return true;
  if (
    /^(if_statement|elseif_clause|while_condition|while_statement|do_statement|for_condition)$/.test(
      parent.kind,
    )
  )
    return true;
  if (parent.is("logical_expression")) return true;
  if (/unary/.test(parent.kind)) return /^(-not|!)/i.test(parent.text);
  return parent.parts.length === 1 && !parent.is("statement_list") && isTest(parent);
}

const { rewrites, ignores, holds } = trialsIn("powershell");

export const nullFirst = rule({
  id: "powershell/null-first",
  kind: "smell",
  title: "Put $null on the left of a comparison",
  why: "With a list on the left the comparison does not ask for null: it filters the list.",
  was: [powershell.expression`${value} -eq $null`, powershell.expression`${value} -ne $null`],
  where: [
    (match) => match.textOf(value) !== "$null",
    // Where $null already stands on the left, the operator has its sides swapped for matching only.
    (match) => match.found.start === match.the(value).start,
  ],
  given: [
    condition("the value is not a list", (match) => isNoList(match.the(value))),
    condition("the comparison is a test, and does not filter", isOnlyAsked),
  ],
  cautions: (match) => {
    if (isNoList(match.the(value)).is === "yes") return [];
    const name = shortened(match.textOf(value));
    return match.alternative === EQUAL
      ? [
          caution(
            "value.kind",
            `when \`${name}\` is a list with two or more nulls in it, the old test was true and the new one is false`,
          ),
        ]
      : [
          caution(
            "value.kind",
            `when \`${name}\` is an empty list or one of a single 0 or "", the old test was false and the new one is true`,
          ),
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
    rewrites("if ((Get-Hive 1) -EQ $NULL) { 1 }\n", "if ($null -eq (Get-Hive 1)) { 1 }\n", "likely"),
    rewrites(
      "while (-not ($hive -eq $null) -and $n) { 1 }\n",
      "while (-not ($null -eq $hive) -and $n) { 1 }\n",
      "likely",
    ),
    holds("$xs = $hives -ne $null\n", "filter a list"),
    holds("f($hives -ne $null)\n", "filter a list"),
    // The type of a table says nothing of what is in it.
    rewrites(
      "function f([string]$c) { if ($c['x'] -ne $null) { 1 } }\n",
      "function f([string]$c) { if ($null -ne $c['x']) { 1 } }\n",
      "likely",
    ),
    ignores("if ($null -eq $hive) { 1 }\n"),
    ignores("if ($hive -eq 0) { 1 }\n"),
    ignores("if ($hive -like $null) { 1 }\n"),
  ],
});
