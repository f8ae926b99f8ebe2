#Requires -Version 5.1
# Reads the night's readings of the scales and writes down what weighs too little.
param([string] $Path, [string] $Report)

function Get-Reading([string] $Path) {
    $reader = [System.IO.StreamReader]::new($Path)
    $first = $reader.ReadLine()
    $reader.Dispose()
    if ($first -eq $null) { return 'nothing' }
    return $first
}

function Get-Light($Weights) {
    $light = @()
    foreach ($weight in $Weights) {
        if ($weight.Grams -lt 1000) {
            $light += $weight.Hive
        }
    }
    return $light
}

function Write-Report([string] $Path, $Readings) {
    $writer = [System.IO.StreamWriter]::new($Path)
    foreach ($reading in $Readings) {
        $writer.WriteLine($reading)
    }
    $writer.Close()
}

$readings = @(Get-Reading $Path)
$readings += Get-Light (Import-Csv $Path)
if ($readings.Count -gt 0) {
    Write-Report $Report $readings
}
