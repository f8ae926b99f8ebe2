// === functions see no variables around them
$hive = 1;
function f() { return $hive; } //? $hive is outside
// === assignment makes a local
function f() { $jar = 1; return $jar; } //? $jar declares; $jar#2 reads 1
// === blocks are no scopes
function f($a) { if ($a) { $jar = 1; } return $jar; } //? $jar#2 reads 1; $jar#2 assigned no
// === global
$count = 0;
function add() { global $count; $count++; } //? $count#2 updates 1
// === closures take what they use
function f() { $n = 1;
  return function ($a) use ($n) { return $a + $n; }; } //? $a#2 reads 2; $n#2 reads 2; $n captures 1
// === closures do not see the rest
function f() { $n = 1; $m = 2;
  return function () use ($n) { return $m; }; } //? $m is outside
// === by reference
function f() { $n = 1;
  $g = function () use (&$n) { $n = 2; }; } //? $n captures 1
// === arrow functions see what is around
function f($n) { return fn($a) => $a + $n; } //? $n#2 captures 1; $a#2 reads 1
// === list and foreach
function f($all) { [$a, [$b]] = $all; foreach ($all as $k => $v) { g($k, $v); } } //? $a declares; $b declares; $k declares; $v#2 passes 1
// === references
function f() { $a = 1; $b = &$a; $b = 2; } //? $a#2 addresses 1; $b#2 writes 1
// === passed on, perhaps by reference
function f() { $a = 1; sort($a); } //? $a#2 passes 1
// === parameters
function f($a, &$b, ...$c) { return $a . $b; } //? $a declares; $b declares; $c declares; $a#2 reads 1
// === functions and classes whatever their case
function Weigh() {}
class Hive {}
weigh(); //? weigh reads 1
new HIVE(); //? HIVE reads 2
// === properties
class Hive { private $size = 1; //? size declares
  function get() { return $this->size; } } //? size means 1
// === methods
class Hive { function go() { $this->open(); self::close(); } //? open means 2; close means 3
  private function open() {}
  static function close() {} }
// === members of others
class Hive { public $n; function same($o) { return $o->n; } } //? n#2 is unknown
// === constants of a class
class Hive { const MAX = 1; function f() { return self::MAX; } } //? max declares; max#2 means 1
// === a method and a function of one name
function open() {}
class Hive { function open() { open(); } } //? open declares; open#2 reads 1
// === catch
function f() { try { g(); } catch (Error $e) { return $e; } } //? $e declares; $e#2 reads 1
// === static variables
function f() { static $n = 0; return $n++; } //? $n declares; $n#2 updates 1
// === strings hold variables
function f($n) { return "$n of {$n}"; } //? $n#2 reads 1; $n#3 reads 1
// === imports
use Hives\Box as Crate; //? crate declares
new Crate(); //? crate reads 1
// === promoted parameters
class Hive { function __construct(private $n) { $n; } //? n declares; n#2 reads 1
  function get() { return $this->n; } } //? n means 1
// === assigned on all ways of a match
function f($a) {
  $x = match ($a) { 1 => 2, default => throw new Error() };
  return $x; //? $x assigned yes
}
// === elseif without else
function f($a, $b) {
  if ($a) { $x = 1; } elseif ($b) { $x = 2; }
  return $x; //? $x assigned no
}
// === break out of two loops
function f($a) {
  while ($a) { foreach ($a as $b) { if ($b) { break 2; } } } //? leaves no
  return 1; //? leaves yes
}
// === there after isset
function f($a) {
  if (isset($a)) { g($a); } //? $a#2 missing unknown
  if (!isset($a)) { return; }
  return $a->b; //? $a missing unknown
}
// === there after a test, by value
function f($a) {
  if ($a === null) { return; }
  return $a->b; //? $a missing no
}
// === assigned where missing
function f($a) {
  $a ??= [];
  return $a[0]; //? $a missing no
}
// === exit does not come back
function f($a) {
  if ($a) { $x = 1; } else { exit; }
  return $x; //? $x assigned yes
}
// === finally
function f() {
  open();
  try {
    g(); //? reaches 6
  } finally {
    close();
  }
}
// === unchanged
function f($a) {
  $n = 1;
  g();
  return $n; //? $n unchanged since 2
}
// === passed on and perhaps changed
function f($a) {
  $n = 1;
  g($n);
  return $n; //? $n changed since 2 unknown
}
// === read later
function f() {
  $n = 1; //? $n after yes
  echo $n;
  $n = 2; //? $n after no
}
// === escapes by return
function f() {
  $n = make(); //? $n escapes yes
  return $n;
}
// === stays
function f() {
  $n = make(); //? $n escapes no
  $n->close();
}
