<?php
//! target 8.0
class Hive { function open() {} }
function kept(?Hive $hive) { if ($hive) { $hive->open(); } } //! certain php/guarded-read
function given(?Hive $hive) {
    $hive = $_GET['hive'];
    if ($hive) { $hive->open(); } //! likely php/guarded-read
}
function made(?Hive $hive) {
    $hive = new Hive();
    if ($hive) { $hive->open(); } //! certain php/guarded-read
}
function walked(array $all, ?Hive $hive) {
    foreach ($all as $hive) {
        if ($hive) { $hive->open(); } //! likely php/guarded-read
    }
}
