# === a function's own variables
function F { $jar = 1 #? jar declares
  $jar } #? jar reads 1
# === case does not count
function F { $Jar = 1
  $jAR } #? jAR reads 1
# === what is not assigned here may be the caller's
function F { $jar } #? jar is unknown
# === parameters
function F($a, $b = $a) { #? a declares; a#2 reads 1
  $b } #? b reads 1
# === param blocks
function F {
  param($a)
  $a } #? a reads 2
# === assigned in an inner function is another
$jar = 1
function F { $jar = 2 #? jar declares
  $jar } #? jar reads 2
# === the script's own variables
$jar = 1
$jar #? jar reads 1
# === seen in functions called from here
$jar = 1
function F { $jar } #? jar reads 1
# === names with a scope reach elsewhere
$script:jar = 1
$jar #? jar is unknown
# === foreach
foreach ($hive in $all) { $hive } #? hive declares; hive#2 reads 1
# === updates
$n = 1
$n += 2 #? n updates 1
$n++ #? n updates 1
# === several at once
$a, $b = 1, 2 #? a declares; b declares
$b #? b reads 1
# === strings hold variables
$n = 1
"$n of ${n}" #? n reads 1; n#2 reads 1
# === members are no variables
$n = 1
$jar.n = 2 #? jar is unknown
# === functions
function Get-Hive { } #? get-hive declares
Get-Hive #? get-hive reads 1
# === assigned on one way
function F($a) {
  if ($a) { $x = 1 }
  $x } #? x assigned no
# === assigned on all ways
function F($a, $b) {
  if ($a) { $x = 1 } elseif ($b) { $x = 2 } else { $x = 3 }
  $x } #? x assigned yes
# === throw leaves
function F($a) {
  if ($a) { $x = 1 } else { throw "x" }
  $x } #? x assigned yes
# === left early
function F($a) {
  if ($a) { return } #? leaves yes
  $a }
# === finally runs
function F {
  Open-Hive
  try {
    Use-Hive #? reaches 6
  } finally {
    Close-Hive
  }
}
# === do runs once at least
function F($a) {
  do { $x = 1 } while ($a)
  $x } #? x assigned yes
# === there after a test
function F($a) {
  if ($null -eq $a) { return }
  $a } #? a missing no
# === what stands behind ?? may not be evaluated
function F($a) {
  $b = $a ?? ($x = 1)
  $x } #? x assigned no
# === both ways of a conditional expression
function F($a) {
  $b = $a ? ($x = 1) : ($x = 2)
  $x } #? x assigned yes
# === one way of a conditional expression
function F($a) {
  $b = $a ? ($x = 1) : 2
  $x } #? x assigned no
# === what stands behind && may not run
function F($a) {
  Test-Hive && ($x = 1)
  $x } #? x assigned no
