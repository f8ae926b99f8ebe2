# Read by parser and people only: no PowerShell is installed where the tests run.
function Read-First([string] $Path) {
    $reader = [System.IO.StreamReader]::new($Path)
    $line = $reader.ReadLine()
    $reader.Dispose()
    if ($line -eq $null) { return 'nothing' }
    return $line
}
function Read-Maybe([string] $Path) {
    $reader = [System.IO.StreamReader]::new($Path)
    if (-not $reader) { return }
    $reader.ReadLine()
    $reader.Close()
}
function Keep-Open([string] $Path) {
    $reader = [System.IO.File]::OpenText($Path)
    if ($Path) { return $reader }
    $reader.Close()
}
function Test-List($List) {
    if ($List -eq $null) { 'some are null' }
    if (@() -ne $null) { 'never' }
}
function Add-Jar($Jars, $Jar) {
    $seen = [System.Collections.Generic.HashSet[string]]::new()
    $null = $seen.Add($Jar)
    $Jars.Take(2) | Out-Null
    $text = "Jar " + $Jar + ': ' + $seen.Count
    $text + " and " + $Jar
}
