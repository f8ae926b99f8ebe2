# Hives.
function Measure-Hive($hive) {
    Start-Span $hive
    # the first frame
    $text = @"
a $hive
  b
"@

    Write-Output $text -Wide  # as is
    Stop-Span $hive # done
    IF ($Always) {
        # why not
        if ($hive.A) {
            f "x
    y"
        }
        g
    }
    if ($always) { one; two }
    if (!$hive.A) { return $hive.Times($hive.A + 1, -$b) }
    $hive.times($hive.Times($a + 1, 2), 3)
}
