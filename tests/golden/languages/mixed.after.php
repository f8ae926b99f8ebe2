<p><?php one(); ?></p>
<?php
// Hives.
function weigh($hive)
{
    during($hive, function () {
        // the first frame
        $text = <<<EOT
    a $hive
      b
    EOT;
        $raw = 'x
  y';

        Log::record($text, # as is
            $hive);
    }); // done
    // why not
    if ($hive->a) {
        f("x
    y");
    }
    g();
    one(); two();
    return isNot($hive->a) || (($hive->a + 1) * -$b) ** 2 . 1 * 2;
}
?>
<b><?= $a * ($b ?? 1) ?></b>
