package hives;

/** About. */
class Hive {
    @Override
    public int weigh(Hive hive) {
        begin(hive);
        // the first frame
        String text = """
            a
          b
            """;

        record(text, // as is
            hive);
        finish(hive); // done
        if (always) {
            // why not
            if (hive.a) {
                f();
            }
            g(); /* end */
        }
        if (always) { one(); two(); }
        if (!hive.a) return times(hive.a + 1, -hive.b) % times(1,2);
        return!hive.a ? 1 : (int) times(a ? b : c, d);
    }
}
