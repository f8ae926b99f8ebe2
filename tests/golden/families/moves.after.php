<?php
namespace Shop;

function strncmp($a, $b, $n) { return 'own'; }

$rate = 2;
$later = 'outer';
$jars = ['lime' => 3, 'oak' => [1, 2]];
[$one, [, $two]] = ['a', ['b', 'c']];
foreach ([['x', 1], ['y', 2]] as [$name, $n]) echo $name, $n, "\n";
$double = fn($n) => $n * $rate;
$rate = 100;
$unset = function () { return isset($later) ? 'seen' : 'not seen'; };
$nested = fn($a) => fn($b) => $double($a) + $b;
$counted = 0;
$counts = function () use (&$counted) { return ++$counted; };
$counts();
echo $double(4), $unset(), $nested(1)(2), $counted, "\n";
foreach (['lime jar', 'jar', '', 'lime'] as $text) {
    echo (\str_contains($text, 'lime')) ? 'holds ' : 'none ',
        \str_starts_with($text, 'lime') ? 'begins ' : '',
        \str_ends_with($text, 'jar') ? 'ends ' : '',
        !str_starts_with($text, 'li') ? 'other ' : '',
        strncmp($text, 'li', strlen('li')) === 0 ? 'same' : 'own', "\n";
}
echo json_encode($jars), $one, $two, "\n";
