<?php
//! target 8.0
class Hive { public $queen; function open() {} }
class Magic { function __get($n) { return 1; } }
class Yard {
    private $hive = false;
    function off() { $this->hive = false; }
    function open() { if ($this->hive) { $this->hive->open(); } }
}
function key(array $all, $k) { if (isset($all[$k])) { $all[$k]->open(); } } //! certain
function lies(Magic $o) { return isset($o->p) ? $o->p : 'none'; }
