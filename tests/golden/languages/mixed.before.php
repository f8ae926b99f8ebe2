<p><?php if ($always) { one(); } ?></p>
<?php
// Hives.
function weigh($hive)
{
    begin($hive);
    // the first frame
    $text = <<<EOT
    a $hive
      b
    EOT;
    $raw = 'x
  y';

    record($text, # as is
        $hive);
    finish($hive); // done
    if ($always) {
        // why not
        if ($hive->a) {
            f("x
    y");
        }
        g();
    }
    if ($always) { one(); two(); }
    return!$hive->a || times($hive->a + 1, -$b) ** 2 . times(1,2);
}
?>
<b><?= times($a, $b ?? 1) ?></b>
