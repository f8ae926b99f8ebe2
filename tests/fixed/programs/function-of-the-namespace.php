<?php
//! target 8.0
//! run
namespace Yard;

function is_null($x) { return $x === 0; }

function pick($hive) {
    return is_null($hive) ? 'none' : $hive;
}
echo pick(0), pick(2), "\n";
