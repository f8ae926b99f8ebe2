/**
 * What the arguments of commands are for that are written without a name, in their order: the parameters with a position in
 * the documentation of each command.
 */
const POSITIONS: Readonly<Record<string, string>> = {
  "Add-Content": "Path Value",
  "Clear-Content": "Path",
  "Copy-Item": "Path Destination",
  "Export-Csv": "Path",
  "Get-ChildItem": "Path Filter",
  "Get-Content": "Path",
  "Get-Item": "Path",
  "Get-Process": "Name",
  "Get-Service": "Name",
  "Import-Csv": "Path",
  "Import-Module": "Name",
  "Invoke-RestMethod": "Uri",
  "Invoke-WebRequest": "Uri",
  "Join-Path": "Path ChildPath",
  "Move-Item": "Path Destination",
  "New-Item": "Path",
  "Out-File": "FilePath",
  "Remove-Item": "Path",
  "Rename-Item": "Path NewName",
  "Resolve-Path": "Path",
  "Select-String": "Pattern Path",
  "Set-Content": "Path Value",
  "Set-Location": "Path",
  "Split-Path": "Path",
  "Start-Process": "FilePath ArgumentList",
  "Start-Sleep": "Seconds",
  "Test-Path": "Path",
};

/** The same by names in lower case. */
export const positionsOf: ReadonlyMap<string, readonly string[]> = new Map(
  Object.entries(POSITIONS).map(([name, parameters]) => [name.toLowerCase(), parameters.split(" ")]),
);

/** Parameters of these commands that take no value. */
export const SWITCHES: ReadonlySet<string> = new Set(
  (
    "append asbytestream confirm debug directory file force hidden leaf noclobber noextension nonewline noqualifier " +
    "notypeinformation parent passthru qualifier quiet raw readonly recurse resolve simplematch useculture verbose wait whatif"
  ).split(" "),
);

/** Parameters of these commands that take a value, and leave the positions of the others as they are. */
export const WITH_VALUE: ReadonlySet<string> = new Set(
  (
    "delimiter depth encoding erroraction errorvariable exclude filter header include itemtype tail totalcount value " +
    "warningaction"
  ).split(" "),
);
