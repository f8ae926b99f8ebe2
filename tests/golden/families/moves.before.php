<?php
namespace Shop;

function strncmp($a, $b, $n) { return 'own'; }

$rate = 2;
$later = 'outer';
$jars = array('lime' => 3, 'oak' => array(1, 2));
list($one, list(, $two)) = array('a', array('b', 'c'));
foreach (array(array('x', 1), array('y', 2)) as list($name, $n)) echo $name, $n, "\n";
$double = function ($n) use ($rate) { return $n * $rate; };
$rate = 100;
$unset = function () { return isset($later) ? 'seen' : 'not seen'; };
$nested = function ($a) use ($double) { return function ($b) use ($a, $double) { return $double($a) + $b; }; };
$counted = 0;
$counts = function () use (&$counted) { return ++$counted; };
$counts();
echo $double(4), $unset(), $nested(1)(2), $counted, "\n";
foreach (array('lime jar', 'jar', '', 'lime') as $text) {
    echo (\strpos($text, 'lime') !== false) ? 'holds ' : 'none ',
        \strpos($text, 'lime') === 0 ? 'begins ' : '',
        \substr($text, -3) === 'jar' ? 'ends ' : '',
        substr($text, 0, 2) !== 'li' ? 'other ' : '',
        strncmp($text, 'li', strlen('li')) === 0 ? 'same' : 'own', "\n";
}
echo json_encode($jars), $one, $two, "\n";
