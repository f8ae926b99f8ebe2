import {
  condition,
  copy,
  holes,
  nameInFile,
  no,
  ofKind,
  rule,
  shortened,
  trialsIn,
  yes,
} from "../../../core.js";
import type { Answer, Edit, Match, Segment, SyntaxNode } from "../../../core.js";
import {
  hasNames,
  isLibraryTuple,
  localOf,
  madeTuple,
  memberRead,
  namesFrom,
  putInto,
  suggested,
  tupleTypes,
  type MadeTuple,
} from "./tuple.js";

const { made } = holes({ made: { kind: "statement", node: "local_declaration_statement" } });

/** A variable that holds a tuple, and the uses of it. */
interface Held {
  readonly type: SyntaxNode;
  readonly name: SyntaxNode;
  readonly tuple: MadeTuple;
  readonly uses: readonly SyntaxNode[];
}

/** Reads `var t = Tuple.Create(a, b);`. */
function heldAt(statement: SyntaxNode): Held | undefined {
  const declaration = statement.firstPart;
  const [type, only, ...more] = declaration?.parts ?? [];
  const name = only?.child("name");
  const value = only?.lastPart;
  const tuple = value && madeTuple(value);
  if (declaration?.start !== statement.start) return undefined;
  if (!declaration?.is("variable_declaration") || !type || !name || !tuple || more.length > 0)
    return undefined;
  if (!type.is("implicit_type") && !tupleTypes(type)) return undefined;
  const to = localOf(name);
  if (!to) return undefined;
  const uses = nameInFile(to.name, statement.tree)
    .references.filter((one) => one.to === to && !one.node.same(name))
    .map((one) => one.node);
  return { type, name, tuple, uses };
}

const fits = (node: SyntaxNode): boolean => {
  const held = heldAt(node);
  return held !== undefined && held.uses.some((use) => memberRead(use));
};

function namesOf({ tuple, uses }: Held): readonly (string | undefined)[] {
  const reads = uses.flatMap((use) => memberRead(use) ?? []);
  return namesFrom(
    tuple.values.map((value, n) => [
      ...reads.filter(({ place }) => place === n).map(({ name }) => putInto(name.parent!)),
      suggested(value),
    ]),
    tuple.whole.tree,
  );
}

/** What is done with it beside reading its members may want the old type. */
function isOnlyRead(match: Match): Answer {
  const other = heldAt(match.the(made))!.uses.find((use) => !memberRead(use));
  return other
    ? no("name.other-uses", `\`${shortened(other.parent!.text)}\` uses the tuple as a whole`, other)
    : yes("name.other-uses", "only its members are read");
}

function named(match: Match): Segment[] {
  const statement = match.the(made);
  const held = heldAt(statement)!;
  const { type, tuple, uses } = held;
  const names = namesOf(held);
  const types = tuple.types ?? tupleTypes(type);
  const edits: Edit[] = [];
  if (types) {
    const list = types.map((one, n) => (names[n] === undefined ? one.text : `${one.text} ${names[n]}`));
    edits.push({ start: type.start, end: type.end, text: `(${list.join(", ")})` });
  }
  const list = tuple.whole.child("arguments")!;
  edits.push({ start: tuple.whole.start, end: list.start, text: "" });
  tuple.values.forEach((value, n) => {
    const name = types ? undefined : names[n];
    if (name !== undefined && name !== value.text)
      edits.push({ start: value.start, end: value.start, text: `${name}: ` });
  });
  const last = uses.reduce((most, { end }) => Math.max(most, end), statement.end);
  const block = statement.parent!;
  const end = block.parts.find((one) => one.end >= last)?.end ?? statement.end;
  for (const use of uses) {
    const read = memberRead(use)!;
    const name = names[read.place];
    if (name !== undefined) edits.push({ start: read.name.start, end: read.name.end, text: name });
  }
  return [
    copy(
      statement.start,
      Math.max(end, statement.end),
      edits.sort((a, b) => a.start - b.start),
    ),
  ];
}

/** The statements from the tuple to its last use. */
function together(node: SyntaxNode): SyntaxNode[] {
  const { uses } = heldAt(node)!;
  const last = uses.reduce((most, { start }) => Math.max(most, start), node.start);
  return node.parent!.parts.filter((one) => one.start >= node.start && one.start <= last);
}

const { rewrites, ignores, holds } = trialsIn("csharp");
const inMethod = (code: string): string =>
  `using System;\n\nclass A\n{\n    void F(string jar, int weight)\n    {\n        ${code}\n    }\n}\n`;

export const namedTuple = rule({
  id: "csharp/named-tuple",
  kind: "idiom",
  title: "Use a tuple with named members for a local one",
  why: "`Item2` says nothing, and whoever reads it must look up what was put there.",
  target: "7.1",
  was: ofKind(made, { when: fits, together }),
  mentions: ["Tuple"],
  given: [
    condition(
      "`Tuple` is the one of the library",
      (match) => isLibraryTuple(heldAt(match.the(made))!.tuple.whole),
      {
        unknownIs: "possible",
      },
    ),
    condition("only its members are read", isOnlyRead),
    condition("its members have names", (match) => hasNames(namesOf(heldAt(match.the(made))!), match)),
  ],
  becomes: named,
  trials: [
    rewrites(
      inMethod("var t = Tuple.Create(jar, weight);\n        Use(t.Item1, t.Item2);"),
      inMethod("var t = (jar, weight);\n        Use(t.jar, t.weight);"),
    ),
    rewrites(
      inMethod(
        "var t = Tuple.Create(Find(jar), 2 * weight);\n        var hive = t.Item1;\n        Log(); // now\n        if (t.Item2 > 3) { Use(t.Item2); }",
      ),
      inMethod(
        "var t = (hive: Find(jar), 2 * weight);\n        var hive = t.hive;\n        Log(); // now\n        if (t.Item2 > 3) { Use(t.Item2); }",
      ),
    ),
    rewrites(
      inMethod(
        "Tuple<string, long> t = new Tuple<string, long>(hive.Name, 3);\n        var size = t.Item2;\n        Use(t.Item1);",
      ),
      inMethod(
        "(string name, long size) t = (hive.Name, 3);\n        var size = t.size;\n        Use(t.name);",
      ),
    ),
    holds(
      inMethod("var t = Tuple.Create(jar, weight);\n        Use(t.Item1);\n        Keep(t);"),
      "as a whole",
    ),
    holds(inMethod("var t = Tuple.Create(1, 2);\n        Use(t.Item1);"), "nothing says what"),
    holds(inMethod("var t = Tuple.Create(jar, weight);\n        if (t == null) Use(t.Item1);"), "as a whole"),
    rewrites(
      "class A { void F(string jar, int weight) { var t = Tuple.Create(jar, weight); Use(t.Item1); } }",
      "class A { void F(string jar, int weight) { var t = (jar, weight); Use(t.jar); } }",
      "possible",
    ),
    ignores(inMethod("var t = Tuple.Create(jar);\n        Use(t.Item1);")),
    ignores(inMethod("var t = Tuple.Create(jar, weight);\n        Keep(t);")),
    ignores(inMethod("var t = Make(jar, weight);\n        Use(t.Item1);")),
    trialsIn("csharp", "7.0").ignores(
      inMethod("var t = Tuple.Create(jar, weight);\n        Use(t.Item1, t.Item2);"),
    ),
  ],
});
