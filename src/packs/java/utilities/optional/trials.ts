import { trialsIn, type Trial } from "../../../../core.js";

const { rewrites, ignores, holds } = trialsIn("java", "9");

const OLD = "import com.google.common.base.Optional;\n\n";
const NEW = "import java.util.Optional;\n\n";
const file = (head: string, ...members: string[]): string =>
  `${head}class Yard {\n${members.map((member) => `    ${member}\n`).join("")}}\n`;
const moves = (
  old: readonly string[],
  now: readonly string[],
  files?: Record<string, [string, string]>,
): Trial => rewrites(file(OLD, ...old), file(NEW, ...now), "likely", files);
const stays = (because: string, ...members: string[]): Trial => holds(file(OLD, ...members), because);

export const trials: readonly Trial[] = [
  moves(
    [
      "private Optional<String> label = Optional.absent();",
      "private Optional<String> named(String name) { return Optional.fromNullable(name); }",
      'String shown() { return label.or("none") + named("a").orNull(); }',
    ],
    [
      "private Optional<String> label = Optional.empty();",
      "private Optional<String> named(String name) { return Optional.ofNullable(name); }",
      'String shown() { return label.orElse("none") + named("a").orElse(null); }',
    ],
  ),
  // Through all files, with those that only use what others give.
  moves(
    [
      "Optional<Queen> queen(Hive hive) { return hive.queen(); }",
      "boolean isCalm(Hive hive) { return queen(hive).isPresent(); }",
    ],
    [
      "Optional<Queen> queen(Hive hive) { return hive.queen(); }",
      "boolean isCalm(Hive hive) { return queen(hive).isPresent(); }",
    ],
    {
      "Hive.java": [
        "import com.google.common.base.Optional;\nclass Hive {\n    public Optional<Queen> queen() { return Optional.of(new Queen()); }\n    void take(Optional<Queen> queen) { }\n}\n",
        "import java.util.Optional;\nclass Hive {\n    public Optional<Queen> queen() { return Optional.of(new Queen()); }\n    void take(Optional<Queen> queen) { }\n}\n",
      ],
      "Zander.java": [
        "class Zander {\n    Queen f(Hive hive) { hive.take(hive.queen()); return hive.queen().or(new Queen()); }\n}\n",
        "class Zander {\n    Queen f(Hive hive) { hive.take(hive.queen()); return hive.queen().orElse(new Queen()); }\n}\n",
      ],
    },
  ),
  moves(
    [
      "int f(Optional<String> a, Optional<Integer> b, Function<String, Integer> g, Supplier<Integer> s) {",
      "    Optional<Integer> n = a.transform(g).or(b);",
      "    return n.or(() -> 3) + n.or(s) + a.transform(x -> 1).get();",
      "}",
    ],
    [
      "int f(Optional<String> a, Optional<Integer> b, Function<String, Integer> g, Supplier<Integer> s) {",
      "    Optional<Integer> n = a.map(g::apply).or(() -> b);",
      "    return n.orElseGet(() -> 3) + n.orElseGet(s::get) + a.map(x -> 1).get();",
      "}",
    ],
  ),
  // What the library gives is turned into the other type; of names in full the package changes.
  moves(
    [
      "Optional<String> f(List<String> all) { return Iterables.tryFind(all, x -> x.isEmpty()); }",
      "com.google.common.base.Optional<String> g(java.util.Optional<String> o) { return Optional.fromJavaUtil(o); }",
      "List<Optional<String>> h(List<String> all) { return Lists.transform(all, Optional::fromNullable); }",
      "String i(List<String> all) { return Iterables.tryFind(all, x -> x.isEmpty()).orNull(); }",
    ],
    [
      "Optional<String> f(List<String> all) { return Iterables.tryFind(all, x -> x.isEmpty()).toJavaUtil(); }",
      "java.util.Optional<String> g(java.util.Optional<String> o) { return o; }",
      "List<Optional<String>> h(List<String> all) { return Lists.transform(all, Optional::ofNullable); }",
      "String i(List<String> all) { return Iterables.tryFind(all, x -> x.isEmpty()).orNull(); }",
    ],
  ),
  // A value of which nothing is known could be a function of the library.
  rewrites(
    file(OLD, "String f(Optional<String> a) { return a.or(next()); }"),
    file(NEW, "String f(Optional<String> a) { return a.orElse(next()); }"),
    "possible",
  ),
  // `or` of something else is left alone.
  moves(
    [
      'Optional<String> a = Optional.of("a");',
      "Predicate<String> f(Predicate<String> p) { return p.or(p); }",
    ],
    [
      'Optional<String> a = Optional.of("a");',
      "Predicate<String> f(Predicate<String> p) { return p.or(p); }",
    ],
  ),
  // A method of another library could have the name.
  rewrites(
    file(
      OLD,
      "Optional<String> label() { return Optional.of(name); }",
      "String f() { return next().label().orNull(); }",
    ),
    file(
      NEW,
      "Optional<String> label() { return Optional.of(name); }",
      "String f() { return next().label().orElse(null); }",
    ),
    "possible",
  ),
  stays("comment here would be lost", "String f(Optional<String> a) { return a.orNull(/* no queen */); }"),
  stays("has no `asSet`", "Set<String> f(Optional<String> a) { return a.asSet(); }"),
  stays(
    "has no `presentInstances`",
    "Object f(List<Optional<String>> a) { return Optional.presentInstances(a); }",
  ),
  stays("may take the library's own type", "void f(Optional<String> a) { elsewhere.send(a); }"),
  stays("may give the library's own type", "Optional<String> f() { return elsewhere.label(); }"),
  stays("nobody can tell", "String f(List<Optional<String>> all) { return all.get(0).orNull(); }"),
  stays(
    "stands in for a method of another library",
    "@Override public Optional<String> f() { return null; }",
  ),
  stays(
    "may do something",
    "Optional<String> f(Optional<String> a) { return a.or(g()); }",
    "Optional<String> g() { count++; return Optional.absent(); }",
  ),
  stays(
    "no lambda can read it",
    "Optional<String> f(Optional<String> a, Optional<String> b) { b = g(b); return a.or(b); }",
    "Optional<String> g(Optional<String> b) { return b; }",
  ),
  holds(
    "import com.google.common.base.Optional;\n\nclass Yard implements Serializable {\n    private Optional<String> label = Optional.absent();\n}\n",
    "is written with its object",
  ),
  holds(
    "import static com.google.common.base.Optional.absent;\nimport com.google.common.base.Optional;\n\nclass Yard {\n    Optional<String> label = absent();\n}\n",
    "imported by their names",
  ),
  trialsIn("java", "8").holds(
    file(OLD, "Optional<String> f(Optional<String> a, Optional<String> b) { return a.or(b); }"),
    "needs Java 9",
  ),
  ignores(file("import java.util.Optional;\n\n", "Optional<String> label = Optional.empty();")),
  ignores(file("import com.yard.Optional;\n\n", "Optional<String> label = Optional.absent();")),
];
