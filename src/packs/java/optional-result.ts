import {
  condition,
  copy,
  everyUseOf,
  holes,
  java,
  need,
  no,
  rule,
  runsLater,
  trialsIn,
  unknown,
  use,
  yes,
} from "../../core.js";
import type { Edit, Match, SyntaxNode } from "../../core.js";

const { marks, type, name, parameters, body, args, owner } = holes({
  marks: "modifiers",
  type: "type",
  name: "name",
  parameters: "parameters",
  body: "statements",
  args: "arguments",
  owner: "expression",
});

/** The values that the method itself gives back; those of lambdas and classes in it are not its own. */
function returned(match: Match): SyntaxNode[] {
  return match
    .all(body)
    .flatMap((statement) =>
      [...statement.descendants()].filter(
        (node) => node.is("return_statement") && !runsLater(node, statement),
      ),
    )
    .flatMap((node) => node.parts.slice(0, 1));
}

const Optional = need("java.util", "Optional");
const NEVER_NULL = ["object_creation_expression", "string_literal", "this", "array_creation_expression"];

function wrapped(value: SyntaxNode, optional: string): Edit {
  const { start, end } = value;
  if (value.is("null_literal")) return { start, end, text: `${optional}.empty()` };
  return { start, end, text: `${optional}.${value.is(NEVER_NULL) ? "of" : "ofNullable"}(${value.text})` };
}

/** Could a method of a parent class or an interface be what this one stands in for? */
function mayOverride(match: Match) {
  const modifiers = match.all(marks).map(({ text }) => text);
  if (modifiers.some((one) => /@Override/.test(one)))
    return no("type.stand-in", "it stands in for a method of a parent", match.node);
  if (modifiers.some((one) => /\b(private|static)\b/.test(one)))
    return yes("type.stand-in", "no other method can stand in for it");
  const around = match.node.closest(["class_declaration", "enum_declaration", "record_declaration"]);
  const parents = around?.parts.find((part) => part.is(["superclass", "super_interfaces"]));
  if (parents)
    return unknown("type.stand-in", `it may stand in for a method of \`${parents.text}\``, parents);
  return unknown("type.stand-in", "a derived class may have its own", match.node);
}

const { rewrites, holds, ignores } = trialsIn("java");
const inClass = (...members: string[]): string =>
  `import java.util.Map;\nimport java.util.Optional;\n\nclass Hives {\n    Map<String, Hive> hives;\n    ${members.join("\n    ")}\n}\n`;

export const optionalResult = rule({
  id: "java/optional-result",
  kind: "idiom",
  title: "Return Optional where the result may be missing",
  why: "Nothing in the signature says that the result may be null, so every caller must know it, and one will not.",
  taste: true,
  target: "8",
  was: java.member`${marks} ${type} ${name}(${parameters}) { ${body} }`,
  where: [
    (match) =>
      /^[A-Z][\w.]*(<.*>)?$|\[\]$/s.test(match.textOf(type)) && !/^Optional/.test(match.textOf(type)),
    (match) => returned(match).some((value) => value.is("null_literal")),
  ],
  given: [
    condition("it stands in for no other method", mayOverride),
    condition("nobody outside of the project calls it", (match) =>
      match.all(marks).some(({ text }) => /\b(public|protected)\b/.test(text))
        ? unknown("name.other-uses", "code outside of this project may call it", match.node)
        : yes("name.other-uses", "it is not public"),
    ),
    condition("it does not call itself", (match) => {
      const own = match.textOf(name);
      const call = match.all(body).flatMap((one) => one.mentions(own))[0];
      return call ? no("flow.order", "it calls itself", call) : yes("flow.order", "it does not call itself");
    }),
  ],
  uses: everyUseOf(name, [
    use(java`${name}(${args})`).becomes(java`${name}(${args}).orElse(null)`),
    use(java`${owner}.${name}(${args})`).becomes(java`${owner}.${name}(${args}).orElse(null)`),
  ]),
  becomes: (match) => {
    const optional = match.nameOf(Optional);
    const what = match.the(type);
    const { start, end } = match.found;
    const edits = [
      { start: what.start, end: what.start, text: `${optional}<` },
      { start: what.end, end: what.end, text: ">" },
      ...returned(match).map((value) => wrapped(value, optional)),
    ];
    return [copy(start, end, edits)];
  },
  trials: [
    rewrites(
      inClass(
        "private Hive find(String name) {",
        "    if (name.isEmpty()) return null;",
        "    return hives.get(name); // the first",
        "}",
        "int weight(String name) {",
        "    Hive hive = find(name);",
        "    return hive == null ? 0 : hive.weight();",
        "}",
      ),
      inClass(
        "private Optional<Hive> find(String name) {",
        "    if (name.isEmpty()) return Optional.empty();",
        "    return Optional.ofNullable(hives.get(name)); // the first",
        "}",
        "int weight(String name) {",
        "    Hive hive = find(name).orElse(null);",
        "    return hive == null ? 0 : hive.weight();",
        "}",
      ),
    ),
    rewrites(
      inClass("static Hive make(int n) {", "    if (n < 0) return null;", "    return new Hive(n);", "}"),
      inClass(
        "static Optional<Hive> make(int n) {",
        "    if (n < 0) return Optional.empty();",
        "    return Optional.of(new Hive(n));",
        "}",
      ),
    ),
    rewrites(
      inClass("public static Hive none() {", "    return null;", "}"),
      inClass("public static Optional<Hive> none() {", "    return Optional.empty();", "}"),
      "likely",
    ),
    holds(inClass("private Hive f(int n) { if (n == 0) return null; return f(n - 1); }"), "calls itself"),
    holds(inClass("@Override public Hive f(int n) { return null; }"), "stands in for"),
    holds(
      inClass(
        "private Hive f(String n) { return null; }",
        'void g() { hives.computeIfAbsent("a", this::f); }',
      ),
      "does not know",
    ),
    ignores(inClass("private Hive f(int n) { return hives.get(n); }")),
    ignores(inClass("private Optional<Hive> f(int n) { return null; }")),
    ignores(inClass("private void f(int n) { run(() -> { return null; }); }")),
    ignores(inClass("private int f(int n) { return 0; }")),
    trialsIn("java", "7").ignores(inClass("private Hive f(int n) { return null; }")),
  ],
});
