import type { LibraryCalls, LibraryClasses } from "../facts.js";
import { rowsOf } from "./words.js";

const { calls, classes } = rowsOf("powershell");

/** Commands that come with PowerShell. */
export const CALLS: readonly LibraryCalls[] = [
  calls("Test-Path", { effect: "reads", gives: "bool" }),
  calls("Join-Path Split-Path Get-Date", { effect: "reads" }),
  calls("Write-Host Write-Verbose Write-Warning Write-Debug", {
    effect: "prints",
    asksArguments: true,
    orMissing: true,
  }),
];

export const CLASSES: readonly LibraryClasses[] = [
  classes(
    "string char int int32 int64 long byte bool boolean switch double single float decimal datetime timespan guid " +
      "version uri scriptblock regex xml",
    ["single"],
  ),
];
