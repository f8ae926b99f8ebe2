<?php
//! target 8.0
//! run
class Hive { public $queen = 'q'; }
function gone(&$hive) { $hive = null; return true; }
function queen(?Hive $hive) {
    if ($hive !== null && gone($hive)) { $q = 1; }
    return $hive !== null ? $hive->queen : null; //! certain
}
function both(?Hive $hive) {
    return $hive !== null ? [gone($hive), $hive] : null;
}
var_dump(queen(new Hive()), both(new Hive()));
