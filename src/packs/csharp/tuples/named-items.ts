import {
  condition,
  copy,
  csharp,
  everyUseOf,
  holes,
  nameInFile,
  no,
  ofKind,
  referencesAt,
  rule,
  shortened,
  trialsIn,
  use,
  weakest,
  yes,
} from "../../../core.js";
import type { Answer, Edit, EveryUse, Match, Segment, SyntaxNode } from "../../../core.js";
import { isOfNamespace } from "../system.js";
import { elementsAt, type Elements } from "./elements.js";
import { hasNames, isLibraryTuple, namesFrom, putInto, suggested, tupleTypes } from "./tuple.js";

const { statement, name } = holes({
  statement: { kind: "statement", node: ["local_declaration_statement", "field_declaration"] },
  name: "name",
});

/** Collections of the library that hold whatever they are given. */
const COLLECTIONS =
  /^(?:List|IList|ICollection|IEnumerable|IReadOnlyList|IReadOnlyCollection|Queue|Stack|LinkedList|Dictionary|IDictionary|SortedDictionary|SortedList)$/;

/** A collection of tuples where it is declared. */
interface Declared {
  readonly name: SyntaxNode;
  readonly collection: SyntaxNode;
  /** The types of the tuple's members. */
  readonly types: readonly SyntaxNode[];
  /** All places in the declaration where the type of the tuple is written. */
  readonly written: readonly SyntaxNode[];
  /** What it is given at first. */
  readonly value: SyntaxNode | undefined;
}

function declaredAt(node: SyntaxNode): Declared | undefined {
  const declaration = node.parts.find((part) => part.is("variable_declaration"));
  const [type, only, ...more] = declaration?.parts ?? [];
  const named = only?.child("name");
  if (!type || !only || !named || more.length > 0) return undefined;
  const value = only.parts.find((part) => !part.same(named));
  const made = value?.child("type");
  const collection = type.is("implicit_type") ? made : type;
  if (!collection?.is("generic_name") || !COLLECTIONS.test(collection.firstPart?.text ?? ""))
    return undefined;
  const held = collection.parts.find((part) => part.is("type_argument_list"))?.lastPart;
  const types = tupleTypes(held);
  if (!held || !types) return undefined;
  const written = [...node.descendants()].filter((one) => tupleTypes(one) && one.text === held.text);
  return { name: named, collection, types, written, value };
}

/** `new List<…>()`, `new()`, with a size at most. */
function isMadeEmpty(value: SyntaxNode): boolean {
  if (!value.is(["object_creation_expression", "implicit_object_creation_expression"])) return false;
  const args = value.child("arguments")?.parts ?? [];
  return value.child("initializer") === undefined && args.every((one) => one.is("integer_literal"));
}

/** All that is known of the tuples, from all uses in the file. */
function elementsOf({ name: own }: Declared): Elements[] {
  const to = referencesAt(own).find((one) => one.to)?.to;
  return nameInFile(own.text, own.tree)
    .references.filter((one) => one.to === to && !one.node.same(own))
    .flatMap(({ node }) => elementsAt(node) ?? []);
}

function namesOf(declared: Declared): readonly (string | undefined)[] {
  const all = elementsOf(declared);
  return namesFrom(
    declared.types.map((_, n) => [
      ...all.flatMap(({ made }) => made.map(({ values }) => suggested(values[n]))),
      ...all.flatMap(({ reads }) =>
        reads.filter(({ place }) => place === n).map((read) => putInto(read.name.parent!)),
      ),
    ]),
    declared.name.tree,
  );
}

const typeText = ({ types }: Declared, names: readonly (string | undefined)[]): string =>
  `(${types.map((one, n) => (names[n] === undefined ? one.text : `${one.text} ${names[n]}`)).join(", ")})`;

/** What becomes of the code around a use. */
function renamed(around: SyntaxNode, { reads, made, declared, left }: Elements, of: Declared): Segment[] {
  const names = namesOf(of);
  const edits: Edit[] = [
    ...reads.flatMap(({ place, name: read }) => {
      const to = names[place];
      return to === undefined ? [] : [{ start: read.start, end: read.end, text: to }];
    }),
    ...made.map(({ whole }) => ({ start: whole.start, end: whole.child("arguments")!.start, text: "" })),
    ...declared.map(({ start, end }) => ({ start, end, text: typeText(of, names) })),
    ...left.map((type) => ({ start: type.start, end: type.nextPart?.start ?? type.end, text: "" })),
  ];
  return [
    copy(
      around.start,
      around.end,
      edits.sort((a, b) => a.start - b.start),
    ),
  ];
}

function uses(match: Match): EveryUse {
  const declared = declaredAt(match.the(statement))!;
  const within = (part: string) =>
    use(csharp`${name}`)
      .in(part)
      .around()
      .when((at) => elementsAt(at.the(name)) !== undefined)
      .becomes((at) => renamed(at.node, elementsAt(at.the(name))!, declared));
  return everyUseOf(name, [within("block"), within("arrow_expression_clause")]);
}

/** What is given by other code has the type that it has there. */
function beginsEmpty(match: Match): Answer {
  const { value } = declaredAt(match.the(statement))!;
  return !value || isMadeEmpty(value)
    ? yes("type.same", "it is made empty", value)
    : no("type.same", `\`${shortened(value.text)}\` gives it items of the old type`, value);
}

/** Other classes, and other parts of this one, would have to be changed as well. */
function isOwn(match: Match): Answer {
  const node = match.the(statement);
  if (node.is("local_declaration_statement"))
    return yes("name.other-uses", "it is a variable of this method");
  const modifiers = node.parts.filter((part) => part.is("modifier")).map(({ text }) => text);
  const open = modifiers.find((one) => /^(?:public|protected|internal)$/.test(one));
  if (open) return no("name.other-uses", `it is ${open}, and other code may use it`, node);
  const marked = node.parts.find((part) => part.is("attribute_list"));
  if (marked)
    return no("name.other-uses", `\`${shortened(marked.text)}\` may hand it on to other code`, marked);
  const owner = node.closest(["class_declaration", "struct_declaration", "record_declaration"]);
  const isPartial = owner?.parts.some((part) => part.is("modifier") && part.text === "partial");
  return isPartial
    ? no("name.other-uses", "the class has other parts, which may use it", owner)
    : yes("name.other-uses", "it is private");
}

const { rewrites, holds, ignores } = trialsIn("csharp");
const inClass = (...members: string[]): string =>
  `using System;\nusing System.Collections.Generic;\nusing System.Linq;\n\nclass A\n{\n    ${members.join("\n    ")}\n}\n`;

export const namedItems = rule({
  id: "csharp/named-items",
  kind: "idiom",
  title: "Keep tuples with named members in a collection",
  why: "Whoever reads an item must know by heart what `Item1` and `Item2` are.",
  target: "7.0",
  was: ofKind(statement, {
    when: (node) => declaredAt(node) !== undefined,
    fills: (node) => [[name, [declaredAt(node)!.name]]],
  }),
  mentions: ["Tuple"],
  given: [
    condition(
      "`Tuple` is the one of the library",
      (match) => {
        const { collection, written } = declaredAt(match.the(statement))!;
        const of = collection.firstPart!.text;
        return weakest([
          isLibraryTuple(written[0]!),
          isOfNamespace(of, "System.Collections.Generic", collection),
        ]);
      },
      { unknownIs: "possible" },
    ),
    condition("it is made empty", beginsEmpty),
    condition("nobody else uses the collection", isOwn),
    condition("its members have names", (match) =>
      hasNames(namesOf(declaredAt(match.the(statement))!), match),
    ),
  ],
  uses,
  becomes: (match) => {
    const node = match.the(statement);
    const declared = declaredAt(node)!;
    const type = typeText(declared, namesOf(declared));
    const edits = declared.written.map(({ start, end }) => ({ start, end, text: type }));
    return [copy(node.start, node.end, edits)];
  },
  trials: [
    rewrites(
      inClass(
        "private readonly List<Tuple<string, double>> rows = new List<Tuple<string, double>>();",
        "void Add(string name, double kg) { rows.Add(Tuple.Create(name, kg)); }",
        "double Total()",
        "{",
        "    double total = 0;",
        "    foreach (var row in rows) { Use(row.Item1); total += row.Item2; }",
        "    return total;",
        "}",
      ),
      inClass(
        "private readonly List<(string name, double kg)> rows = new List<(string name, double kg)>();",
        "void Add(string name, double kg) { rows.Add((name, kg)); }",
        "double Total()",
        "{",
        "    double total = 0;",
        "    foreach (var row in rows) { Use(row.name); total += row.kg; }",
        "    return total;",
        "}",
      ),
    ),
    rewrites(
      inClass(
        "Dictionary<string, Tuple<int, int>> ranges = new Dictionary<string, Tuple<int, int>>();",
        "void F(string key, int min, int max)",
        "{",
        "    ranges[key] = new Tuple<int, int>(min, max);",
        "    Tuple<int, int> one = this.ranges[key];",
        "    Use(one.Item1, ranges[key].Item2, ranges.Count);",
        "}",
      ),
      inClass(
        "Dictionary<string, (int min, int max)> ranges = new Dictionary<string, (int min, int max)>();",
        "void F(string key, int min, int max)",
        "{",
        "    ranges[key] = (min, max);",
        "    (int min, int max) one = this.ranges[key];",
        "    Use(one.min, ranges[key].max, ranges.Count);",
        "}",
      ),
    ),
    rewrites(
      inClass(
        "void F(string jar, int grams)",
        "{",
        "    var jars = new List<Tuple<string, int>>();",
        "    jars.Add(Tuple.Create(jar, grams));",
        "    foreach (Tuple<string, int> one in jars.Where(j => j.Item2 > 3).OrderBy(j => j.Item1)) Use(one.Item1);",
        "    Use(jars.First().Item2, jars.Sum((Tuple<string, int> j) => j.Item2), jars.Any());",
        "}",
      ),
      inClass(
        "void F(string jar, int grams)",
        "{",
        "    var jars = new List<(string jar, int grams)>();",
        "    jars.Add((jar, grams));",
        "    foreach ((string jar, int grams) one in jars.Where(j => j.grams > 3).OrderBy(j => j.jar)) Use(one.jar);",
        "    Use(jars.First().grams, jars.Sum((j) => j.grams), jars.Any());",
        "}",
      ),
    ),
    // Nothing is null where there is no item.
    holds(
      inClass(
        "List<Tuple<string, int>> jars = new List<Tuple<string, int>>();",
        "void F(string jar, int n) { jars.Add(Tuple.Create(jar, n)); var one = jars.FirstOrDefault(); if (one != null) Use(one.Item1); }",
      ),
      "which the rule does not know",
    ),
    holds(
      inClass(
        "Dictionary<string, Tuple<string, int>> jars = new Dictionary<string, Tuple<string, int>>();",
        "void F(string jar, int n) { jars.Add(jar, Tuple.Create(jar, n)); Tuple<string, int> one; if (jars.TryGetValue(jar, out one)) Use(one.Item1); }",
      ),
      "which the rule does not know",
    ),
    holds(
      inClass(
        "List<Tuple<string, int>> jars = new List<Tuple<string, int>>();",
        "void F(string jar, int n) { jars.Add(Tuple.Create(jar, n)); Show(jars); }",
      ),
      "which the rule does not know",
    ),
    holds(
      inClass(
        "List<Tuple<string, int>> jars = new List<Tuple<string, int>>();",
        "void F(string jar, int n) { jars.Add(Tuple.Create(jar, n)); jars.Add(null); }",
      ),
      "which the rule does not know",
    ),
    holds(
      inClass(
        "List<Tuple<string, int>> jars = new List<Tuple<string, int>>();",
        "void F(string jar, int n) { jars.Add(Tuple.Create(jar, n)); foreach (var one in jars) Show(one); }",
      ),
      "which the rule does not know",
    ),
    holds(
      inClass(
        "List<Tuple<string, int>> jars = new List<Tuple<string, int>>();",
        "void F(string jar, int n) { jars.Add(Tuple.Create(jar, n)); Use(jars.Select(j => j)); }",
      ),
      "which the rule does not know",
    ),
    holds(
      inClass(
        "List<Tuple<string, int>> jars = new List<Tuple<string, int>>();",
        "void F(string jar, int n) { jars.Add(Tuple.Create(jar, n)); Use(jars.Select(j => new { j.Item1 })); }",
      ),
      "which the rule does not know",
    ),
    holds(
      inClass(
        "List<Tuple<string, int>> jars = new List<Tuple<string, int>>();",
        "void F(string jar, int n) { jars.Add(Tuple.Create(jar, n)); Use(nameof(jars[0].Item1)); }",
      ),
      "which the rule does not know",
    ),
    holds(
      inClass(
        "public List<Tuple<string, int>> jars = new List<Tuple<string, int>>();",
        "void F(string jar, int n) { jars.Add(Tuple.Create(jar, n)); }",
      ),
      "other code may use it",
    ),
    holds(
      inClass(
        "[Kept] List<Tuple<string, int>> jars = new List<Tuple<string, int>>();",
        "void F(string jar, int n) { jars.Add(Tuple.Create(jar, n)); }",
      ),
      "may hand it on",
    ),
    holds(
      inClass(
        "List<Tuple<int, int>> jars = new List<Tuple<int, int>>();",
        "void F() { jars.Add(Tuple.Create(1, 2)); }",
      ),
      "nothing says what",
    ),
    holds(
      inClass(
        "void F(string jar) { List<Tuple<string, int>> jars = Load(jar); foreach (var one in jars) Use(one.Item1); }",
      ),
      "items of the old type",
    ),
    holds(
      inClass(
        'List<Tuple<string, int>> jars = new List<Tuple<string, int>> { Tuple.Create("a", 1) };',
        "void F() { foreach (var one in jars) Use(one.Item1); }",
      ),
      "items of the old type",
    ),
    ignores(inClass("List<string> jars = new List<string>();")),
    ignores(inClass("Shelf<Tuple<int, int>> jars = new Shelf<Tuple<int, int>>();")),
  ],
});
