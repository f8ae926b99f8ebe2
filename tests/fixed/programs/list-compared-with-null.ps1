#! target 7.2
param($Any, [string] $Name, [string[]] $Names)
if ($Any -ne $null) { 'any' } #! likely
if ($Name -ne $null) { 'name' } #! certain
if ($Names -ne $null) { 'names' } #! likely
[hashtable] $Config = @{}
if ($Config['x'] -eq $null) { 'x' } #! likely
