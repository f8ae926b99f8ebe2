import { Sandbox } from "../cli/run.js";
import { existsSync } from "node:fs";
import { testWith } from "../toolchains.js";

// A program that leans on a library of Debian's prints the same once it leans on the standard library, and needs the other
// one no more.

const LIBRARY = "/usr/share/java/guava.jar";
const RULES = ["java/standard-call", "java/standard-objects", "java/standard-optional"];
const CONFIG = {
  targets: { java: "11" },
  rules: { "java/standard-optional": true },
};

const PROGRAM: Readonly<Record<string, string>> = {
  "Hive.java": `import static com.google.common.base.Preconditions.checkNotNull;

import com.google.common.base.Objects;
import com.google.common.base.Optional;
import com.google.common.collect.Lists;
import java.util.List;

class Hive {
    final String name;
    private Optional<String> queen = Optional.absent();
    final List<Integer> frames;

    Hive(String name, Integer... frames) {
        this.name = checkNotNull(name, "a hive needs a name");
        this.frames = Lists.newArrayList(frames);
    }

    Hive with(String queen) {
        this.queen = Optional.fromNullable(queen);
        return this;
    }

    Optional<String> queen() {
        return queen;
    }

    @Override
    public boolean equals(Object o) {
        return o instanceof Hive && Objects.equal(name, ((Hive) o).name) && Objects.equal(queen, ((Hive) o).queen);
    }

    @Override
    public int hashCode() {
        return Objects.hashCode(name, frames);
    }
}
`,
  "Main.java": `import com.google.common.base.Charsets;
import com.google.common.base.Joiner;
import com.google.common.base.MoreObjects;
import com.google.common.base.Strings;
import com.google.common.collect.Lists;
import com.google.common.collect.Maps;
import com.google.common.collect.Sets;
import com.google.common.io.BaseEncoding;
import com.google.common.primitives.Ints;
import java.util.List;
import java.util.Map;
import java.util.Set;

public class Main {
    public static void main(String[] args) {
        Hive linden = new Hive("Linden", 1, 2).with("Ada");
        Hive meadow = new Hive("Meadow");
        List<Hive> hives = Lists.newArrayList(linden, meadow);
        Map<String, Integer> weights = Maps.newTreeMap();
        Set<String> queens = Sets.newHashSet();
        List<String> names = Lists.newArrayListWithCapacity(2);
        for (Hive hive : hives) {
            weights.put(hive.name, hive.queen().isPresent() ? hive.queen().get().length() : -1);
            queens.add(hive.queen().or("none"));
            names.add(hive.queen().transform(queen -> queen + "!").or(() -> hive.name));
            System.out.println(hive.queen().orNull() + " " + hive.hashCode());
        }
        List<String> copy = Lists.newArrayList(names);
        System.out.println(Joiner.on(", ").join(copy) + weights + queens.size());
        System.out.println(linden.equals(new Hive("Linden").with("Ada")) + " " + linden.equals(meadow));
        System.out.println(Strings.repeat("=", 3 + hives.size()) + Strings.nullToEmpty(null));
        System.out.println(BaseEncoding.base64().encode("honey".getBytes(Charsets.UTF_8)));
        System.out.println(Ints.compare(copy.size(), 7) + MoreObjects.firstNonNull(linden.name, "?"));
        try {
            new Hive(null);
        } catch (NullPointerException e) {
            System.out.println(e.getMessage());
        }
    }
}
`,
};

const missing = existsSync(LIBRARY) ? [] : ["libguava-java"];

testWith(
  ["javac", "java", ...missing],
  "a program needs the other library no more, and prints the same",
  async () => {
    const sandbox = new Sandbox({ ...PROGRAM, "uvran.config.json": JSON.stringify(CONFIG) });
    const printed = (path: string): string => {
      const { out, err, exit } = sandbox.run(
        "sh",
        "-c",
        `rm -f *.class; javac -nowarn -cp ${path} *.java && java -cp ${path} Main`,
      );
      return `${out}${err}exit ${exit}`;
    };
    const before = printed(`.:${LIBRARY}`);
    expect(before).toMatch(/exit 0$/);
    const rules = RULES.flatMap((id) => ["--rule", id]);
    expect(sandbox.uvran("propose", ...rules, "--trust", "likely").exit).toBe(0);
    expect(sandbox.uvran("apply", "--trust", "likely").exit).toBe(0);
    expect(sandbox.read("Main.java") + sandbox.read("Hive.java")).not.toContain("com.google");
    expect(printed(".")).toBe(before);
    expect(sandbox.uvran("undo").exit).toBe(0);
    expect(sandbox.read("Hive.java")).toBe(PROGRAM["Hive.java"]);
  },
);
