package hives;

/** About. */
class Hive {
    @Override
    public int weigh(Hive hive) {
        try (var span = during(hive)) {
            // the first frame
            String text = """
            a
          b
            """;

            log.record(text, // as is
                hive);
        } // done
        // why not
        if (hive.a) {
            f();
        }
        g(); /* end */
        one(); two();
        if (isNot(hive.a)) return (hive.a + 1) * -hive.b % (1 * 2);
        return isNot(hive.a) ? 1 : (int) ((a ? b : c) * d);
    }
}
