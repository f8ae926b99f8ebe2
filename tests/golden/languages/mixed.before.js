/* Hives. */
function weigh(hive) {
  begin(hive);
  // the first frame
  const text = `a
  b ${hive}
`;

  record(text, // as is
    hive);
  finish(hive); // done
  if (always) {
    // why not
    if (hive.a) {
      f(`x
    y`);
    }
    g() // no semicolon
  }
  if (always) { one(); two(); }
  return!hive.a || times(hive.a + 1, -hive.b) ** 2 /* power */ / times(1,2);
}

const x = times(a, b)
;[1].map(y => times(y, (0, z)));
if (!a) b(); else if (always) { c(); }
var w = typeof times(a, b)