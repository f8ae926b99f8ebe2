<?php
class Keeper {
    public $name = 'Ada';
    public $none = null;
    public function greet() { echo "hello\n"; return 'greeted'; }
}
class Magic {
    private $data = ['set' => 'yes', 'empty' => null];
    public $asked = [];
    public function __get($n) { $this->asked[] = "get $n"; return $this->data[$n] ?? null; }
    public function __isset($n) { $this->asked[] = "isset $n"; return array_key_exists($n, $this->data); }
}
function name($keeper) { return $keeper !== null ? $keeper->name : null; }
function called($keeper) { if ($keeper !== null) { $keeper->greet(); } }
function item($list) { return isset($list['a']) ? $list['a'] : 'default'; }
function byKey($list) { return array_key_exists('a', $list) ? $list['a'] : 'default'; }
function filled($x = null) { if ($x === null) { $x = 'filled'; } return $x; }
function falsy($x) { return $x ?: 'falsy'; }
function both($x) { if (!isset($x)) { $x = 1; } else { $x++; } return $x; }
$n = 0;
function nextOne() { global $n; return ++$n % 2 ? 'one' : null; }
function twice() { return nextOne() !== null ? nextOne() : 'none'; }

var_dump(name(new Keeper()), name(null));
called(new Keeper()); called(null);
var_dump(item([]), item(['a' => null]), item(['a' => 0]), item(['a' => '']));
var_dump(byKey([]), byKey(['a' => null]));
var_dump(filled(), filled(0), filled(''), filled(false));
var_dump(falsy(0), falsy('x'), both(null), both(0));
var_dump(twice(), $n);
$m = new Magic();
var_dump(isset($m->set) ? $m->set : 'no', isset($m->empty) ? $m->empty : 'no', $m->asked);
