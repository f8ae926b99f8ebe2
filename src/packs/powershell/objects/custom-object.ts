import { caution, condition, copy, holes, ofKind, rule, text, trialsIn } from "../../../core.js";
import type { Match, SyntaxNode } from "../../../core.js";
import { areForCommand, endOf, isOfPowerShell, madeBy } from "./new-object.js";

const { made, inBrackets } = holes({
  made: { kind: "expression", node: "command" },
  inBrackets: { kind: "expression", node: "parenthesized_expression" },
});

/** The table of properties, as it is written, and whether it keeps its order already. */
function propertiesOf(
  command: SyntaxNode,
): { readonly table: SyntaxNode; readonly isOrdered: boolean } | undefined {
  const { type, args, properties } = madeBy(command) ?? {};
  if (!properties || args?.length !== 0 || !/^(system\.management\.automation\.)?psobject$/i.test(type ?? ""))
    return undefined;
  if (properties.is("hash_literal_expression")) return { table: properties, isOrdered: false };
  const [, ordered] = /^\(\s*\[ordered\]\s*(@\{[^]*\})\s*\)$/i.exec(properties.text) ?? [];
  const table = [...properties.descendants()].find((one) => one.is("hash_literal_expression"));
  return table && table.text === ordered ? { table, isOrdered: true } : undefined;
}

const commandOf = (match: Match): SyntaxNode =>
  match.has(made) ? match.the(made) : match.the(inBrackets).firstPart!;
const tableOf = (match: Match) => propertiesOf(commandOf(match))!;

/** Where it stands for itself or goes on in a pipeline, an object of PowerShell is one thing. */
const isAlone = ({ parent }: SyntaxNode): boolean => parent?.is("command_elements") !== true;

const { rewrites, ignores, holds } = trialsIn("powershell");

export const customObject = rule({
  id: "powershell/custom-object",
  kind: "idiom",
  title: "Make an object from a table of its properties",
  why: "A command that is given a table is slower, and loses the order in which the properties are written.",
  target: "3.0",
  was: [
    ofKind(made, {
      when: (node) => isAlone(node) && !areForCommand(node.parent!) && propertiesOf(node) !== undefined,
    }),
    ofKind(inBrackets, {
      when: (node) => areForCommand(node) && propertiesOf(node.firstPart!) !== undefined,
    }),
  ],
  given: [condition("New-Object is the one of PowerShell", (match) => isOfPowerShell(commandOf(match)))],
  cautions: (match) => {
    const { table, isOrdered } = tableOf(match);
    const entries = [...table.descendants()].filter((one) => one.is("hash_entry"));
    return isOrdered || entries.length < 2
      ? []
      : [
          caution(
            "value.result",
            "the properties come in the order in which they are written, and came in any order before",
          ),
        ];
  },
  becomes: (match) => {
    const { start, end } = tableOf(match).table;
    return [text("[pscustomobject]"), copy(start, end), text(endOf(commandOf(match)))];
  },
  trials: [
    rewrites(
      "$jar = New-Object PSObject -Property @{ Size = 1 }\n",
      "$jar = [pscustomobject]@{ Size = 1 }\n",
    ),
    rewrites(
      "function f {\n    New-Object -TypeName psobject -Property @{\n        Name = $name # of the hive\n        Size = 2\n    }\n}\n",
      "function f {\n    [pscustomobject]@{\n        Name = $name # of the hive\n        Size = 2\n    }\n}\n",
      "likely",
    ),
    rewrites(
      "$jar = New-Object PSObject -Property ([ordered]@{ Name = 'a'; Size = 1 })\n",
      "$jar = [pscustomobject]@{ Name = 'a'; Size = 1 }\n",
    ),
    rewrites(
      "New-Object System.Management.Automation.PSObject -Prop @{ Size = 1 } | Export-Csv $path\n",
      "[pscustomobject]@{ Size = 1 } | Export-Csv $path\n",
    ),
    rewrites(
      "$jars.Add((New-Object PSObject -Property @{ Size = 1 }))\n",
      "$jars.Add([pscustomobject]@{ Size = 1 })\n",
    ),
    holds("function New-Object { 1 }\n$jar = New-Object PSObject -Property @{ Size = 1 }\n", "of its own"),
    ignores("$jar = New-Object PSObject -Property $table\n"),
    ignores("$jar = New-Object PSObject\n"),
    ignores("$jar = New-Object Jar -Property @{ Size = 1 }\n"),
    trialsIn("powershell", "2.0").ignores("$jar = New-Object PSObject -Property @{ Size = 1 }\n"),
  ],
});
