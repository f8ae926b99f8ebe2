import { condition, escaped, holes, no, ofKind, rule, text, trialsIn, unknown, yes } from "../../../core.js";
import type { Answer, Match } from "../../../core.js";
import { SHORT_NAMES } from "./short-names.js";

const { command } = holes({ command: { kind: "name", node: "command_name" } });

const fullNameOf = (name: string): string | undefined => SHORT_NAMES.get(name.toLowerCase());

/** Makes short names: itself, by a drive, or with what it brings in from elsewhere. */
const MAKES = String.raw`\b(?:set-alias|new-alias|remove-alias|sal|nal)\b[^\n|;]*`;
const BRINGS = /\b(?:import-module|import-alias|ipmo|ipal|using\s+module)\b|(?:^|[;{])\s*\.\s+\S/im;

/** A script can give a short name another meaning, as can what it brings in. */
function isOfTheLanguage(match: Match): Answer {
  const name = match.textOf(command);
  const word = `${escaped(name)}(?![\\w%?-])`;
  const named = new RegExp(`${MAKES}(?<![\\w%?-])${word}|\\balias:[\\\\/]?${word}`, "i");
  const worked = new RegExp(`${MAKES}[$(]`, "i");
  if (BRINGS.test(match.tree.text))
    return unknown("name.library", `what this file brings in could give \`${name}\` a meaning of its own`);
  const own = { path: "this file", text: match.tree.text };
  for (const { path, text: code } of [own, ...(match.around.files?.naming("alias") ?? [])]) {
    if (named.test(code)) return no("name.library", `${path} gives \`${name}\` a meaning of its own`);
    if (worked.test(code))
      return unknown("name.library", `${path} makes short names that are worked out when it runs`);
  }
  return yes("name.library", `\`${name}\` is a short name of PowerShell`, match.the(command));
}

const { rewrites, ignores, holds } = trialsIn("powershell");

export const fullName = rule({
  id: "powershell/full-name",
  kind: "idiom",
  title: "Call a command by its full name",
  why: "A short name says little to a reader who does not use it every day.",
  taste: true,
  was: ofKind(command, { when: ({ text }) => fullNameOf(text) !== undefined }),
  given: [condition("the short name is the one of PowerShell", isOfTheLanguage)],
  becomes: (match) => [text(fullNameOf(match.textOf(command))!)],
  trials: [
    rewrites(
      "$x | % { $_.Name } | ? Name -eq 'a'\n",
      "$x | ForEach-Object { $_.Name } | Where-Object Name -eq 'a'\n",
    ),
    rewrites(
      "$names = gci -Path $p | Select Name\n",
      "$names = Get-ChildItem -Path $p | Select-Object Name\n",
    ),
    rewrites("if (gi $jar) { & ri $jar }\n", "if (Get-Item $jar) { & Remove-Item $jar }\n"),
    rewrites(
      "Set-Alias $short Get-Hive\ngc $log\n",
      "Set-Alias $short Get-Hive\nGet-Content $log\n",
      "likely",
    ),
    rewrites("Import-Module Hives\ngc $log\n", "Import-Module Hives\nGet-Content $log\n", "likely"),
    rewrites(". ./hives.ps1\ngc $log\n", ". ./hives.ps1\nGet-Content $log\n", "likely"),
    holds("Set-Alias -Name gc -Value Get-Comb\ngc $log\n", "a meaning of its own"),
    holds("Set-Item -Path alias:gc -Value Get-Comb\ngc $log\n", "a meaning of its own"),
    holds("New-Alias ? Test-Hive -Force\n$x | ? { $_ }\n", "a meaning of its own"),
    holds("Remove-Alias gc\nfunction gc { 1 }\ngc\n", "a meaning of its own"),
    // These are programs where the script runs on another system.
    ignores("ls | sort\n"),
    ignores("foreach ($i in $x) { $i }\n"),
    ignores("Write-Output gc\n"),
    ignores("$gc = 'gci'\n"),
    ignores("function gc2 { 1 }\ngc2\n"),
    ignores("10 % 3\n"),
    ignores(".\\gc.ps1\n"),
  ],
});
