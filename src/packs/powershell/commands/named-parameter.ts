import { condition, copy, holes, ofKind, rule, trialsIn } from "../../../core.js";
import type { Edit, SyntaxNode } from "../../../core.js";
import { isOfPowerShell } from "../objects/new-object.js";
import { commandName } from "../streams/output.js";
import { positionsOf, SWITCHES, WITH_VALUE } from "./positions.js";

const { command } = holes({ command: { kind: "expression", node: "command" } });

/** An argument without a name, and the parameter that it is for. */
interface Positional {
  readonly argument: SyntaxNode;
  readonly parameter: string;
}

/** The arguments of a known command that stand without a name; undefined where one of its parts could be for anything. */
function positionalsOf(node: SyntaxNode): readonly Positional[] | undefined {
  const parameters = positionsOf.get(commandName(node));
  if (!parameters) return undefined;
  const elements =
    node.child("command_elements")?.parts.filter((one) => !one.is("command_argument_sep")) ?? [];
  const named = new Set<string>();
  const free: SyntaxNode[] = [];
  for (let i = 0; i < elements.length; i++) {
    const element = elements[i]!;
    if (!element.is("command_parameter")) {
      if (element.is(["redirection", "stop_parsing"]) || /^@\w|^[<>]|^--/.test(element.text))
        return undefined;
      free.push(element);
      continue;
    }
    const word = element.text.slice(1).toLowerCase();
    if (SWITCHES.has(word)) continue;
    const own = parameters.find((one) => one.toLowerCase() === word);
    if (own === undefined && !WITH_VALUE.has(word)) return undefined;
    if (own !== undefined) named.add(own);
    // The value of the parameter.
    if (!elements[++i] || elements[i]!.is("command_parameter")) return undefined;
  }
  const open = parameters.filter((one) => !named.has(one));
  if (free.length === 0 || free.length > open.length) return undefined;
  return free.map((argument, i) => ({ argument, parameter: open[i]! }));
}

const { rewrites, ignores, holds } = trialsIn("powershell");

export const namedParameter = rule({
  id: "powershell/named-parameter",
  kind: "idiom",
  title: "Name the parameters of a command",
  why: "What an argument is for is known to those only who know the order of the command's parameters.",
  taste: true,
  was: ofKind(command, { when: (node) => positionalsOf(node) !== undefined }),
  given: [condition("the command is the one of PowerShell", ({ node }) => isOfPowerShell(node))],
  becomes: ({ node }) => {
    const edits = positionalsOf(node)!.map(({ argument: { start }, parameter }): Edit => ({
      start,
      end: start,
      text: `-${parameter} `,
    }));
    return [copy(node.start, node.end, edits)];
  },
  trials: [
    rewrites(
      "Copy-Item $from 'shelf/jars' -Force\n",
      "Copy-Item -Path $from -Destination 'shelf/jars' -Force\n",
    ),
    rewrites(
      "$lines = Get-Content $path -Encoding utf8\n",
      "$lines = Get-Content -Path $path -Encoding utf8\n",
    ),
    rewrites(
      "Get-ChildItem -Recurse $path *.csv | Sort-Object Name\n",
      "Get-ChildItem -Recurse -Path $path -Filter *.csv | Sort-Object Name\n",
    ),
    rewrites(
      "if (Test-Path $path) { Start-Sleep 3 }\n",
      "if (Test-Path -Path $path) { Start-Sleep -Seconds 3 }\n",
    ),
    // What is named already leaves its place to the next.
    rewrites("Copy-Item -Path $from $to\n", "Copy-Item -Path $from -Destination $to\n"),
    rewrites("$lines | Add-Content $path\n", "$lines | Add-Content -Path $path\n"),
    rewrites("Get-Item $one, $other\n", "Get-Item -Path $one, $other\n"),
    ignores("Copy-Item -LiteralPath $from $to\n"),
    ignores("Copy-Item @options $to\n"),
    ignores("Copy-Item -Path $from -Destination $to\n"),
    ignores("Copy-Item $from $to $more\n"),
    ignores("Get-Content -Wonder $path\n"),
    ignores("Get-Jar $path\n"),
    ignores("Get-ChildItem\n"),
    holds("function Get-Content($Jar) { $Jar }\nGet-Content $jar\n", "a meaning of its own"),
  ],
});
