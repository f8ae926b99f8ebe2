<?php
//! target 8.0
//! run
function loose($a) {
    switch ($a) { //! likely php/match-value
        case '': return 'empty';
        case 'x': return 'x';
        default: return 'else';
    }
}
function number(string $a) {
    switch ($a) { //! likely php/match-value
        case '1': return 'one';
        case '10': return 'ten';
        default: return 'else';
    }
}
function word(string $a) {
    switch ($a) { //! certain php/match-value
        case 'one': $n = 1; break;
        case 'two': $n = 2; break;
        default: $n = 0;
    }
    return $n;
}
function size(int $a) {
    switch (true) { //! certain php/match-value
        case $a > 9: return 'large';
        case $a > 3: return 'middle';
    }
    return 'small';
}
echo loose(null), loose('x'), number('1e1'), number('01'), word('two'), word(7), size(10), size('4'), size(1), "\n";
