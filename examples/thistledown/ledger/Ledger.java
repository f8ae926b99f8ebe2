import java.io.BufferedReader;
import java.io.File;
import java.io.FileReader;
import java.io.FileWriter;
import java.io.IOException;
import java.io.Writer;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.HashMap;
import java.util.Iterator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;

/** What the co-operative owes its keepers, read from a list of deliveries. */
public class Ledger {
    private final Map<String, List<Double>> deliveries = new TreeMap<String, List<Double>>();
    private final Map<String, Integer> visits = new HashMap<String, Integer>();
    private final String season;

    public Ledger(String season) {
        if (season == null) {
            throw new NullPointerException("a season is needed");
        }
        this.season = season;
    }

    public void read(File file) throws IOException {
        BufferedReader in = new BufferedReader(new FileReader(file));
        try {
            String line = in.readLine(); // the heading
            while ((line = in.readLine()) != null) {
                String[] parts = line.split(",");
                deliver(parts[0], Double.parseDouble(parts[1]));
            }
        } finally {
            in.close();
        }
    }

    public void deliver(String keeper, double kilos) {
        List<Double> own = deliveries.get(keeper);
        if (own == null) {
            own = new ArrayList<Double>();
            deliveries.put(keeper, own);
        }
        own.add(kilos);
        if (visits.containsKey(keeper)) {
            visits.put(keeper, visits.get(keeper) + 1);
        } else {
            visits.put(keeper, 1);
        }
    }

    /** The keeper who brought most. */
    public Optional<String> best() {
        String best = null;
        double most = 0;
        for (Map.Entry<String, List<Double>> entry : deliveries.entrySet()) {
            double sum = 0;
            for (double kilos : entry.getValue()) {
                sum += kilos;
            }
            if (sum > most) {
                most = sum;
                best = entry.getKey();
            }
        }
        return best == null ? Optional.empty() : Optional.of(best);
    }

    public String bestName() {
        Optional<String> best = best();
        return best.isPresent() ? best.get() : "nobody";
    }

    public int visitsOf(String keeper) {
        return visits.containsKey(keeper) ? visits.get(keeper) : 0;
    }

    /** How often keepers came, all together. */
    public int visits() {
        int sum = 0;
        Iterator<Integer> it = visits.values().iterator();
        while (it.hasNext()) {
            sum += it.next();
        }
        return sum;
    }

    /** The keepers, those who came most often first. */
    public List<String> keepers() {
        List<String> names = new ArrayList<String>(deliveries.keySet());
        Collections.sort(names, new Comparator<String>() {
            @Override
            public int compare(String a, String b) {
                return visitsOf(b) - visitsOf(a);
            }
        });
        return names;
    }

    public void write(File file) throws IOException {
        Writer out = null;
        try {
            out = new FileWriter(file);
            out.write(season + ": " + bestName() + "\n");
            for (String keeper : deliveries.keySet()) {
                out.write(keeper + " " + visitsOf(keeper) + "\n");
            }
        } finally {
            if (out != null) {
                out.close();
            }
        }
    }

    public static void main(String[] args) throws IOException {
        File folder = new File(args[0]);
        Ledger ledger = new Ledger("summer");
        System.out.println(ledger.bestName());
        ledger.read(new File(folder, "deliveries.csv"));
        System.out.println(ledger.bestName() + " " + ledger.visitsOf("Cora Tansy") + " " + ledger.visitsOf("Nobody"));
        System.out.println(ledger.keepers() + " " + ledger.visits());
        File copy = File.createTempFile("ledger", ".txt");
        ledger.write(copy);
        BufferedReader in = new BufferedReader(new FileReader(copy));
        String line;
        while ((line = in.readLine()) != null) {
            System.out.println(line);
        }
        in.close();
        if (!copy.delete()) {
            System.out.println("left behind");
        }
        try {
            new Ledger(null);
        } catch (NullPointerException e) {
            System.out.println(e.getMessage());
        }
    }
}
