import java.util.*;
import java.util.concurrent.*;
import java.util.function.*;

/** Anonymous classes that may become lambdas, and those that may not. */
public class Moves {
    interface Taste { int of(String jar); default int none() { return 0; } }
    interface Noted { String LABEL = "noted"; String say(); }

    static class Hive {
        final String name;
        int bees;
        Hive(String name, int bees) { this.name = name; this.bees = bees; }
        String name() { return name; }
        static boolean full(Hive hive) { return hive.bees > 2; }
        @Override
        public boolean equals(Object other) {
            if (!(other instanceof Hive)) return false;
            Hive that = (Hive) other;
            return that.name.equals(name);
        }
        @Override
        public int hashCode() { return name.hashCode(); }
        @Override
        public String toString() { return "hive " + name; }
    }

    static final Comparator<Hive> BY_BEES = (a, b) -> {
        // The smaller first.
        return a.bees - b.bees;
    };

    private String label = "moves";
    private final Runnable early = new Runnable() {
        public void run() { System.out.println(late + label); }
    };
    private final String late = "late ";

    void names(List<Hive> hives) {
        String label = "local";
        Runnable shadows = new Runnable() {
            public void run() { String label = "inner"; System.out.println(label); }
        };
        shadows.run();
        Runnable itself = new Runnable() {
            public void run() { System.out.println(this.toString().isEmpty()); }
        };
        itself.run();
        Runnable outer = () -> System.out.println(Moves.this.label + label);
        outer.run();
        Noted noted = new Noted() {
            public String say() { return LABEL; }
        };
        System.out.println(noted.say());
        Taste taste = new Taste() {
            public int of(String jar) { return none() + jar.length(); }
        };
        System.out.println(taste.of("lime"));
        Taste plain = jar -> jar.length() * 2;
        System.out.println(plain.of("lime"));
        Object thing = new Runnable() {
            public void run() { }
        };
        System.out.println(thing instanceof Runnable);
        hives.sort((a, b) -> b.bees - a.bees);
        System.out.println(hives);
        hives.sort(BY_BEES);
        System.out.println(hives);
        String spot = "spot";
        System.out.println(spot);
    }

    static int total(List<Hive> hives) {
        int sum = 0;
        for (Hive hive : hives) {
            sum += hive.bees;
        }
        int[] weights = { 1, 2, 3 };
        for (int weight : weights) sum += weight;
        for (int i = 0; i < weights.length; i++) weights[i] = weights[i] + i;
        return sum + weights[2];
    }

    static String gone(List<Hive> hives) {
        List<Hive> rest = new ArrayList<>(hives);
        for (int i = 0; i < rest.size(); i++) {
            if (Hive.full(rest.get(i))) rest.remove(rest.get(i));
        }
        return rest.toString();
    }

    static String iterated(Collection<Hive> hives, Map<String, Integer> counts, List plain) {
        StringBuilder all = new StringBuilder();
        for (Hive hive : hives) {
            if (Hive.full(hive)) continue;
            all.append(hive.name());
        }
        String last = null;
        for (Map.Entry<String, Integer> entry : counts.entrySet()) {
            last = entry.getKey();
            all.append(last).append(entry.getValue());
        }
        for (Object item : plain) all.append((String) item);
        // What takes items out, or two at once, stays as it is.
        for (Iterator<String> it = counts.keySet().iterator(); it.hasNext();) if (it.next().length() > 1) it.remove();
        Iterator<Integer> pairs = counts.values().iterator();
        while (pairs.hasNext()) all.append(pairs.next() + (pairs.hasNext() ? pairs.next() : 0));
        return all + " " + last + counts;
    }

    static String kind(Object thing) {
        if (thing instanceof String && !((String) thing).isEmpty()) {
            String text = (String) thing;
            return "text " + text;
        }
        return "other";
    }

    static Map<String, List<Integer>> grown(List<String> keys) {
        Map<String, List<Integer>> found = new HashMap<>();
        // The key is no size.
        for (String key : keys) found.computeIfAbsent(key, k -> new ArrayList<>()).add(key.length());
        return found;
    }

    public static void main(String[] args) throws Exception {
        List<Hive> hives = new ArrayList<>(Arrays.asList(new Hive("oak", 3), new Hive("elm", 1), new Hive("ash", 2)));
        Moves moves = new Moves();
        moves.early.run();
        moves.names(hives);
        Map<String, Integer> counts = new TreeMap<>();
        for (String key : Arrays.asList("a", "b", "cc", "d")) counts.put(key, counts.size());
        System.out.println(iterated(new ArrayDeque<>(hives), counts, Arrays.asList("x", "y")));
        System.out.println(total(hives) + " " + gone(hives) + " " + kind("x") + kind("") + kind(3));
        System.out.println(new Hive("oak", 1).equals(new Hive("oak", 9)) + " " + new Hive("oak", 1).equals("oak"));
        Function<Hive, String> name = Hive::name;
        Predicate<Hive> full = Hive::full;
        Function<Integer, String> text = n -> n.toString();
        Supplier<List<String>> made = () -> { return new ArrayList<>(); };
        Thread thread = new Thread(() ->
                System.out.println(name.apply(hives.get(0)) + full.test(hives.get(0)) + text.apply(4) + made.get()));
        thread.start();
        thread.join();
        System.out.println(new TreeMap<>(grown(Arrays.asList("a", "bb", "a"))));
    }
}
