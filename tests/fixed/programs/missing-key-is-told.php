<?php
//! target 8.0
//! run
function look(array $all, $key) {
    return $all[$key] !== null ? $all[$key] : 'none'; //! likely
}
set_error_handler(function ($no, $says) { echo $says, "\n"; });
echo look([], 'a'), "\n";
