import { condition, copy, holes, no, ofKind, rule, text, trialsIn, yes } from "../../../core.js";
import type { Answer, Match, Segment, SyntaxNode } from "../../../core.js";
import { isNoList } from "../values.js";
import { areForCommand, endOf, isOfPowerShell, madeBy, type Made } from "./new-object.js";

const { made, inBrackets } = holes({
  made: { kind: "expression", node: "command" },
  inBrackets: { kind: "expression", node: "parenthesized_expression" },
});

/** The base of PowerShell's own objects is no class with a constructor for scripts. */
const isOrdinary = (type: string): boolean =>
  !/^(system\.management\.automation\.)?ps(custom)?object$/i.test(type);

const isMade = (node: SyntaxNode): boolean => {
  const found = madeBy(node);
  return found?.type !== undefined && !found.properties && isOrdinary(found.type);
};

const commandOf = (match: Match): SyntaxNode =>
  match.has(made) ? match.the(made) : match.the(inBrackets).firstPart!;
const call = (match: Match): Made => madeBy(commandOf(match))!;

/** A command gives a list as one thing; an expression that stands for itself gives its items one by one. */
function staysWhole(match: Match): Answer {
  const { parent } = commandOf(match);
  const isHeld = parent?.is("parenthesized_expression") === true || commandOf(match).field === "value";
  return isHeld
    ? yes("value.result", "the object is held as it is")
    : no("value.result", "where the object is a list, its items would come out one by one", commandOf(match));
}

/** A list that is passed alone is taken apart into arguments. */
function isOneArgument(match: Match): Answer {
  const [only, ...more] = call(match).args;
  if (!only || more.length > 0) return yes("value.kind", "the arguments are listed");
  return only.is(only.tree.language.literals) || only.is(only.tree.language.strings)
    ? yes("value.kind", `\`${only.text}\` is one value`)
    : isNoList(only);
}

const { rewrites, holds, ignores } = trialsIn("powershell");

export const constructorCall = rule({
  id: "powershell/constructor-call",
  kind: "idiom",
  title: "Make an object with ::new() instead of New-Object",
  why: "A constructor that is called is checked against its arguments, and is many times faster than a command.",
  target: "5.0",
  was: [
    ofKind(made, { when: (node) => isMade(node) && !areForCommand(node.parent!) }),
    ofKind(inBrackets, { when: (node) => areForCommand(node) && isMade(node.firstPart!) }),
  ],
  given: [
    condition("New-Object is the one of PowerShell", (match) => isOfPowerShell(commandOf(match))),
    condition("the object is not taken apart", staysWhole),
    condition("each argument is one", isOneArgument),
    condition("the type is looked up while the script runs", (match) => {
      const around = commandOf(match).closest(["class_statement"]);
      return around
        ? no("name.not-resolved", "within a class a type must be known before the script runs", around)
        : yes("name.not-resolved", "the type is looked up where the code runs, as before");
    }),
  ],
  becomes: (match): Segment[] => {
    const { type, args } = call(match);
    const [first, last] = [args[0], args.at(-1)];
    const listed = first && last ? [copy(first.start, last.end)] : [];
    return [text(`[${type}]::new(`), ...listed, text(`)${endOf(commandOf(match))}`)];
  },
  trials: [
    rewrites(
      "$list = New-Object System.Collections.ArrayList\n",
      "$list = [System.Collections.ArrayList]::new()\n",
    ),
    rewrites(
      "$jars = New-Object -TypeName 'System.Collections.Generic.List[string]'\n",
      "$jars = [System.Collections.Generic.List[string]]::new()\n",
    ),
    rewrites(
      "$reader = New-Object System.IO.StreamReader($path, $encoding)\n",
      "$reader = [System.IO.StreamReader]::new($path, $encoding)\n",
    ),
    rewrites(
      "$at = New-Object Place(\n    $x, # east\n    $y\n)\n",
      "$at = [Place]::new(\n    $x, # east\n    $y\n)\n",
    ),
    rewrites("$day = new-object datetime 2026, 5, 1\n", "$day = [datetime]::new(2026, 5, 1)\n"),
    rewrites(
      "$hive.Date = New-Object -Type DateTime -Arg @(2026, $month, 1)\n",
      "$hive.Date = [DateTime]::new(2026, $month, 1)\n",
    ),
    rewrites("$uri = New-Object Uri 'urn:hive'\n", "$uri = [Uri]::new('urn:hive')\n"),
    rewrites(
      "$text = (New-Object Net.WebClient).DownloadString($uri)\n",
      "$text = [Net.WebClient]::new().DownloadString($uri)\n",
    ),
    rewrites("$jars.Add((New-Object Jar 3))\n", "$jars.Add([Jar]::new(3))\n"),
    rewrites("$jar = (New-Object Jar)\n", "$jar = [Jar]::new()\n"),
    rewrites("Add-Hive (New-Object Hive 3)\n", "Add-Hive ([Hive]::new(3))\n"),
    rewrites(
      "function f([string]$path) {\n  $reader = New-Object System.IO.StreamReader $path\n}\n",
      "function f([string]$path) {\n  $reader = [System.IO.StreamReader]::new($path)\n}\n",
    ),
    // A list that is passed alone becomes the arguments.
    rewrites(
      "$reader = New-Object System.IO.StreamReader $path\n",
      "$reader = [System.IO.StreamReader]::new($path)\n",
      "likely",
    ),
    // What stands for itself is taken apart where it is a list, and an empty one is gone.
    holds("function f { return New-Object System.Collections.ArrayList }\n", "one by one"),
    holds("New-Object System.Collections.ArrayList | Measure-Object\n", "one by one"),
    holds("function New-Object { 1 }\n$jar = New-Object Jar\n", "of its own"),
    holds("class Yard {\n  [void] Open() {\n    $jar = New-Object Jar\n  }\n}\n", "before the script runs"),
    ignores("$sheet = New-Object -ComObject Excel.Sheet\n"),
    ignores("$jar = New-Object Jar -Property @{ Size = 1 }\n"),
    ignores("$jar = New-Object $type\n"),
    ignores("$jar = New-Object PSObject\n"),
    ignores("$jar = New-Object Jar @options\n"),
    ignores("$jar = New-Object Jar (, $sizes)\n"),
    ignores("$jar = New-Object Uri urn:hive\n"),
    ignores("$jar = New-Object Jar -ErrorAction Stop\n"),
    trialsIn("powershell", "4.0").ignores("$list = New-Object System.Collections.ArrayList\n"),
  ],
});
