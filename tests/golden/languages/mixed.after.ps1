# Hives.
function Measure-Hive($hive) {
    Use-Span $hive {
        # the first frame
        $text = @"
a $hive
  b
"@

        Write-Output $text -Wide  # as is
    } # done
    # why not
    if ($hive.A) {
        f "x
    y"
    }
    g
    one; two
    if (-not $hive.A) { return ($hive.A + 1) * -$b }
    ($a + 1) * 2 * 3
}
