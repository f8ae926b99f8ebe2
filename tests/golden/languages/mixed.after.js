/* Hives. */
function weigh(hive) {
  during(hive, () => {
    // the first frame
    const text = `a
  b ${hive}
`;

    log.record(text, // as is
      hive);
  }); // done
  // why not
  if (hive.a) {
    f(`x
    y`);
  }
  g() // no semicolon
  one(); two();
  return isNot(hive.a) || ((hive.a + 1) * -hive.b) ** 2 /* power */ / (1 * 2);
}

const x = a * b
;[1].map(y => y * (0, z));
if (isNot(a)) b(); else c();
var w = typeof (a * b)