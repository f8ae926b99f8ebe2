import { trialsIn, type Trial } from "../../../core.js";

const { rewrites, ignores, holds } = trialsIn("java", "17");
const imports = (...names: string[]): string => names.map((name) => `import ${name};\n`).join("");
const inMethod = (head: string, code: string): string =>
  `${head}\nclass A {\n    void f(Object a, Object b, String s, int n, List<String> list, Iterable<String> some, String[] all, byte[] raw) throws IOException {\n        ${code}\n    }\n}\n`;

const BASE = "com.google.common.base";
const COLLECT = "com.google.common.collect";
const GIVEN = ["java.io.*", "java.util.List"];

/** A call of a class that is imported, and what comes of it with the imports that it needs. */
const becomes = (
  was: string,
  old: string,
  now: string,
  needed: readonly string[],
  trust: "certain" | "likely" | "possible" = "certain",
): Trial =>
  rewrites(
    inMethod(imports(was, ...GIVEN), old),
    inMethod(imports(...[...GIVEN, ...needed].sort()), now),
    trust,
  );

export const trials: readonly Trial[] = [
  rewrites(
    "import com.google.common.collect.Lists;\nimport java.util.List;\n\nclass Yard {\n    List<Hive> hives = Lists.newArrayList();\n}\n",
    "import java.util.ArrayList;\nimport java.util.List;\n\nclass Yard {\n    List<Hive> hives = new ArrayList<>();\n}\n",
  ),
  becomes(
    `${BASE}.Preconditions`,
    "this.a = Preconditions.checkNotNull(a);",
    "this.a = Objects.requireNonNull(a);",
    ["java.util.Objects"],
  ),
  rewrites(
    inMethod(imports(`static ${BASE}.Preconditions.checkNotNull`), 'checkNotNull(a, "no hive " + n);'),
    inMethod(imports("java.util.Objects"), 'Objects.requireNonNull(a, "no hive " + n);'),
  ),
  // A method of its own could have the name.
  rewrites(
    inMethod(imports(`static ${BASE}.Preconditions.*`), "checkNotNull(a);\n        checkArgument(n > 0);"),
    inMethod(
      imports(`static ${BASE}.Preconditions.*`, "java.util.Objects"),
      "Objects.requireNonNull(a);\n        checkArgument(n > 0);",
    ),
    "possible",
  ),
  rewrites(
    inMethod("", `${BASE}.Preconditions.checkNotNull(a);`),
    inMethod("import java.util.Objects;\n", "Objects.requireNonNull(a);"),
  ),
  // The library takes anything for a message, and writes `null` for null.
  becomes(
    `${BASE}.Preconditions`,
    "Preconditions.checkNotNull(a, s);",
    "Objects.requireNonNull(a, s);",
    ["java.util.Objects"],
    "likely",
  ),
  holds(inMethod(imports(`${BASE}.Preconditions`), "Preconditions.checkNotNull(a, n);"), "and no text"),
  ignores(inMethod(imports(`${BASE}.Preconditions`), 'Preconditions.checkNotNull(a, "no hive %s", n);')),
  ignores(inMethod(imports(`${BASE}.Preconditions`), "g(Preconditions::checkNotNull);")),
  ignores(inMethod(imports("hive.Preconditions"), "Preconditions.checkNotNull(a);")),
  ignores(inMethod("", "checkNotNull(a);\n        f(a);\n        newArrayList();")),
  ignores(inMethod(imports(`${BASE}.Preconditions`), "g(a);\n        a.g(a, b);\n        checkState(a);")),

  // A class of the project's own hides that of the language.
  rewrites(
    inMethod(imports("com.google.common.primitives.Ints"), "g(Ints.compare(n, 3));") + "class Integer { }\n",
    inMethod("", "g(java.lang.Integer.compare(n, 3));") + "class Integer { }\n",
  ),
  ignores(inMethod("import java.util.*;\n", "g(hashCode(), Objects.equals(a, b));")),

  // The name of its class is taken: by the class that goes elsewhere, and stays here.
  rewrites(
    inMethod(imports(`${BASE}.Objects`), "g(Objects.equal(a, b), Objects.toStringHelper(this));"),
    inMethod(imports(`${BASE}.Objects`), "g(java.util.Objects.equals(a, b), Objects.toStringHelper(this));"),
  ),
  becomes(
    `${BASE}.MoreObjects`,
    "g(MoreObjects.firstNonNull(a, b));",
    "g(Objects.requireNonNullElse(a, b));",
    ["java.util.Objects"],
  ),
  trialsIn("java", "8").ignores(
    inMethod(imports(`${BASE}.MoreObjects`), "g(MoreObjects.firstNonNull(a, b));"),
  ),
  becomes(`${BASE}.Strings`, "g(Strings.repeat(s + n, n + 1));", "g((s + n).repeat(n + 1));", []),
  becomes(`${BASE}.Strings`, "g(Strings.nullToEmpty(s));", 'g(Objects.toString(s, ""));', [
    "java.util.Objects",
  ]),
  ignores(inMethod(imports(`${BASE}.Strings`), "g(Strings.isNullOrEmpty(s));")),
  becomes(`${BASE}.Charsets`, "g(s.getBytes(Charsets.UTF_8));", "g(s.getBytes(StandardCharsets.UTF_8));", [
    "java.nio.charset.StandardCharsets",
  ]),
  becomes(`${BASE}.Joiner`, 'g(Joiner.on(", ").join(list));', 'g(String.join(", ", list));', [], "likely"),
  holds(
    inMethod(imports(`${BASE}.Joiner`, "java.util.List"), 'List<Hive> h = g(); g(Joiner.on(", ").join(h));'),
    "and no texts",
  ),
  ignores(inMethod(imports(`${BASE}.Joiner`), 'g(Joiner.on(", ").skipNulls().join(list));')),
  ignores(inMethod(imports(`${BASE}.Joiner`), 'g(Joiner.on(", ").join(a, b));')),

  becomes(
    `${COLLECT}.Lists`,
    "List<String> l = Lists.newArrayList();",
    "List<String> l = new ArrayList<>();",
    ["java.util.ArrayList"],
  ),
  becomes(
    `${COLLECT}.Lists`,
    "g(Lists.<List<String>>newArrayListWithCapacity(n));",
    "g(new ArrayList<List<String>>(n));",
    ["java.util.ArrayList"],
  ),
  becomes(
    `${COLLECT}.Maps`,
    "Map<String, Integer> m = Maps.<String, Integer>newTreeMap();",
    "Map<String, Integer> m = new TreeMap<String, Integer>();",
    ["java.util.TreeMap"],
  ),
  becomes(`${COLLECT}.Lists`, "g(Lists.newArrayList(list));", "g(new ArrayList<>(list));", [
    "java.util.ArrayList",
  ]),
  becomes(
    `${COLLECT}.Lists`,
    'g(Lists.newArrayList("brood", s, all[0]));',
    'g(new ArrayList<>(Arrays.asList("brood", s, all[0])));',
    ["java.util.ArrayList", "java.util.Arrays"],
  ),
  becomes(
    `${COLLECT}.Sets`,
    'g(Sets.newHashSet("brood", s));',
    'g(new HashSet<>(Arrays.asList("brood", s)));',
    ["java.util.Arrays", "java.util.HashSet"],
    "likely",
  ),
  becomes(`${COLLECT}.Sets`, "g(Sets.newConcurrentHashSet());", "g(ConcurrentHashMap.newKeySet());", [
    "java.util.concurrent.ConcurrentHashMap",
  ]),
  // A number would be taken for a size.
  becomes(
    `${COLLECT}.Lists`,
    'g(Lists.newArrayList(n), Lists.newArrayList("brood"));',
    'g(new ArrayList<>(Arrays.asList(n)), new ArrayList<>(Arrays.asList("brood")));',
    ["java.util.ArrayList", "java.util.Arrays"],
  ),
  becomes(`${COLLECT}.Lists`, "g(Lists.newArrayList(all));", "g(new ArrayList<>(Arrays.asList(all)));", [
    "java.util.ArrayList",
    "java.util.Arrays",
  ]),
  holds(inMethod(imports(`${COLLECT}.Lists`), "g(Lists.newArrayList(some));"), "`some`"),
  becomes(
    `${COLLECT}.Lists`,
    "g(Lists.newArrayList(next()));",
    "g(new ArrayList<>(next()));",
    ["java.util.ArrayList"],
    "possible",
  ),
  ignores(inMethod(imports(`${COLLECT}.Lists`), "g(Lists.transform(list, x -> x), Lists.reverse(list));")),
  holds(inMethod(imports(`${COLLECT}.Iterables`), "g(Iterables.size(some));"), "`some`"),
  becomes(`${COLLECT}.Iterables`, "g(!Iterables.isEmpty(list));", "g(!list.isEmpty());", []),
  becomes("com.google.common.primitives.Ints", "g(Ints.compare(n, 3));", "g(Integer.compare(n, 3));", []),
  becomes(
    "com.google.common.io.ByteStreams",
    "raw = ByteStreams.toByteArray(open(s));",
    "raw = open(s).readAllBytes();",
    [],
  ),
  becomes(
    "com.google.common.io.BaseEncoding",
    "g(BaseEncoding.base64().encode(raw));",
    "g(Base64.getEncoder().encodeToString(raw));",
    ["java.util.Base64"],
  ),
  // The class that gave its name to the one of the standard library.
  rewrites(
    inMethod(imports("org.apache.commons.codec.binary.Base64"), "g(Base64.encodeBase64String(raw));"),
    inMethod(
      imports("org.apache.commons.codec.binary.Base64"),
      "g(java.util.Base64.getEncoder().encodeToString(raw));",
    ),
    "likely",
  ),
  becomes(
    "org.apache.commons.lang3.ObjectUtils",
    'g(ObjectUtils.defaultIfNull(s, "none"), ObjectUtils.equals(a, b));',
    'g(Objects.requireNonNullElse(s, "none"), Objects.equals(a, b));',
    ["java.util.Objects"],
  ),
  becomes(
    "org.apache.commons.lang3.ObjectUtils",
    "g(ObjectUtils.defaultIfNull(a, b));",
    "g(Objects.requireNonNullElse(a, b));",
    ["java.util.Objects"],
    "likely",
  ),
  becomes(
    "org.apache.commons.io.IOUtils",
    "try (InputStream in = open(s)) { raw = IOUtils.toByteArray(in); }",
    "try (InputStream in = open(s)) { raw = in.readAllBytes(); }",
    [],
  ),
  holds(
    inMethod(
      imports("org.apache.commons.io.IOUtils", ...GIVEN),
      "try (Reader in = open(s)) { raw = IOUtils.toByteArray(in); }",
    ),
    "`in`",
  ),
];
