import java.io.*;
import java.util.*;

public class Traps {
    static int made = 0;

    static class Gate implements Closeable {
        final String name;
        final boolean jams;
        Gate(String name, boolean jams) { this.name = name; this.jams = jams; System.out.println("open " + name); }
        void pass(int n) { if (n < 0) throw new IllegalStateException("pass " + name); System.out.println(name + " " + n); }
        public void close() { System.out.println("close " + name); if (jams) throw new IllegalStateException("close " + name); }
    }

    static class Quiet implements Closeable {
        void pass(int n) { if (n < 0) throw new IllegalStateException("quiet"); }
        public void close() { }
    }

    static List<String> make(String key) { made++; return new ArrayList<>(Arrays.asList(key)); }

    static String resource(int n, boolean jams) {
        try {
            Gate gate = new Gate("a", jams);
            try {
                gate.pass(n);
                return "done";
            } finally {
                gate.close();
            }
        } catch (IllegalStateException e) {
            return e.getMessage();
        }
    }

    static String straight(int n) {
        try {
            Quiet gate = new Quiet();
            if (n == 0) return "early";
            gate.pass(n);
            gate.close();
            return "done";
        } catch (IllegalStateException e) {
            return e.getMessage();
        }
    }

    static String escapes() {
        Gate gate = new Gate("c", false);
        gate.pass(1);
        kept = gate;
        gate.close();
        return kept.name;
    }
    static Gate kept;

    static String nested(String path) throws IOException {
        Writer out = new StringWriter();
        try {
            try (Reader in = new StringReader(path)) {
                out.write(in.read());
            }
            return out.toString();
        } finally {
            out.close();
        }
    }

    static void maps() {
        Map<String, List<String>> lots = new TreeMap<>();
        for (String key : new String[] {"x", "y", "x"}) {
            List<String> lot = lots.computeIfAbsent(key, key_2 -> new ArrayList<>());
            lot.add(key + lots.size());
        }
        System.out.println(lots);
        Map<String, Integer> counts = new HashMap<>();
        for (String key : new String[] {"x", "y", "x"}) {
            counts.merge(key, 1, Integer::sum);
        }
        System.out.println(counts.containsKey("x") ? counts.get("x") : 0);
        System.out.println(counts.containsKey("z") ? counts.get("z") : -1);
        Map<String, List<String>> made = new HashMap<>();
        if (!made.containsKey("k")) made.put("k", make("k"));
        if (!made.containsKey("k")) made.put("k", make("k"));
        System.out.println(made + " " + Traps.made);
        Map<String, String> nulls = new HashMap<>();
        nulls.put("n", null);
        System.out.println(nulls.get("n") == null ? "none" : nulls.get("n"));
    }

    static String optional(Optional<String> queen) {
        return queen.orElse("none");
    }

    static int sideEffects = 0;
    static String expensive() { sideEffects++; return "made"; }
    static String lazily(Optional<String> queen) { return queen.orElseGet(Traps::expensive); }

    public static void main(String[] args) throws IOException {
        System.out.println(resource(1, false));
        System.out.println(resource(-1, false));
        System.out.println(straight(1) + " " + straight(-1) + " " + straight(0));
        System.out.println(escapes());
        System.out.println(nested("queen"));
        maps();
        System.out.println(optional(Optional.of("Ada")) + optional(Optional.empty()));
        System.out.println(lazily(Optional.of("Bo")) + sideEffects + lazily(Optional.empty()) + sideEffects);
        try {
            Object o = null;
            Objects.requireNonNull(o, "none given");
        } catch (NullPointerException e) {
            System.out.println(e.getMessage());
        }
    }
}
