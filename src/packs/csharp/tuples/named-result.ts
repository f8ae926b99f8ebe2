import {
  condition,
  copy,
  csharp,
  everyUseOf,
  holes,
  nameInFile,
  no,
  rule,
  shortened,
  trialsIn,
  unknown,
  use,
  yes,
} from "../../../core.js";
import type { Answer, Edit, EveryUse, Match, SyntaxNode } from "../../../core.js";
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
} from "./tuple.js";

const { marks, type, name, parameters, body, value } = holes({
  marks: "modifiers",
  type: "type",
  name: "name",
  parameters: "parameters",
  body: "statements",
  value: "expression",
});

/** The values that the method gives back. */
function returned(match: Match): SyntaxNode[] {
  if (match.has(value)) return [match.the(value)];
  const isInner = (node: SyntaxNode): boolean =>
    node
      .closest([
        "lambda_expression",
        "local_function_statement",
        "anonymous_method_expression",
        "method_declaration",
      ])
      ?.same(match.node) !== true;
  return match
    .all(body)
    .flatMap((statement) => [...statement.descendants()])
    .filter((node) => node.is("return_statement") && !isInner(node))
    .flatMap((node) => node.parts.slice(0, 1));
}

/** What a caller does with the tuple: reads one member at once, or puts it into a variable of which only members are read. */
interface Call {
  readonly reads: readonly { readonly place: number; readonly name: SyntaxNode }[];
  /** The type that is written for the variable. */
  readonly declared: SyntaxNode | undefined;
}

function callAt(use: SyntaxNode): Call | undefined {
  const callee = use.parent?.is("member_access_expression") && use.field === "name" ? use.parent : use;
  const call =
    callee.parent?.is("invocation_expression") && callee.field === "function" ? callee.parent : undefined;
  if (!call) return undefined;
  const direct = memberRead(call);
  if (direct) return { reads: [direct], declared: undefined };
  const holder = call.parent?.is("variable_declarator") ? call.parent : undefined;
  const to = holder && localOf(holder.child("name")!);
  const written = holder?.parent?.child("type");
  if (!to || !written || !(written.is("implicit_type") || tupleTypes(written))) return undefined;
  const uses = nameInFile(to.name, use.tree).references.filter(
    (one) => one.to === to && !one.node.same(holder.child("name")),
  );
  const reads = uses.flatMap(({ node }) => memberRead(node) ?? []);
  return reads.length === uses.length
    ? { reads, declared: written.is("implicit_type") ? undefined : written }
    : undefined;
}

/** All calls in this file, for the names that they suggest. */
function namesOf(match: Match): readonly (string | undefined)[] {
  const types = tupleTypes(match.the(type))!;
  const made = returned(match).flatMap((one) => madeTuple(one) ?? []);
  const own = match.the(name);
  const reads = nameInFile(own.text, own.tree).references.flatMap(({ node }) => callAt(node)?.reads ?? []);
  return namesFrom(
    types.map((_, n) => [
      ...made.map(({ values }) => suggested(values[n])),
      ...reads.filter(({ place }) => place === n).map((one) => putInto(one.name.parent!)),
    ]),
    match.tree,
  );
}

const typeText = (types: readonly SyntaxNode[], names: readonly (string | undefined)[]): string =>
  `(${types.map((one, n) => (names[n] === undefined ? one.text : `${one.text} ${names[n]}`)).join(", ")})`;

/** The calls, in whichever file: each with the reads that follow from it. */
function uses(match: Match): EveryUse {
  const names = namesOf(match);
  const types = tupleTypes(match.the(type))!;
  return everyUseOf(name, [
    use(csharp`${name}`)
      .in("block")
      .around()
      .when((at) => callAt(at.the(name)) !== undefined)
      .becomes((at) => {
        const { reads, declared } = callAt(at.the(name))!;
        const edits: Edit[] = reads.flatMap((read) => {
          const to = names[read.place];
          return to === undefined ? [] : [{ start: read.name.start, end: read.name.end, text: to }];
        });
        if (declared) edits.push({ start: declared.start, end: declared.end, text: typeText(types, names) });
        const block = at.node;
        return [
          copy(
            block.start,
            block.end,
            edits.sort((a, b) => a.start - b.start),
          ),
        ];
      }),
  ]);
}

/** A method that stands in for another one has its type from there. */
function mayOverride(match: Match): Answer {
  const modifiers = match.all(marks).map(({ text }) => text);
  if (modifiers.some((one) => /^(override|virtual|abstract)$/.test(one)))
    return no("type.stand-in", "other classes have a method of the same kind", match.node);
  if (modifiers.some((one) => /^(private|static)$/.test(one)) || !modifiers.includes("public"))
    return yes("type.stand-in", "no other method stands in for it");
  const around = match.node.closest(["class_declaration", "struct_declaration", "record_declaration"]);
  const parents = around?.parts.find((part) => part.is("base_list"));
  return parents
    ? unknown("type.stand-in", `it may be what \`${shortened(parents.text)}\` asks for`, parents)
    : yes("type.stand-in", "no other method stands in for it");
}

function givesTuples(match: Match): Answer {
  const other = returned(match).find((one) => !madeTuple(one));
  if (other)
    return no(
      "value.null",
      `\`${shortened(other.text)}\` is given back too, which a value tuple cannot be for sure`,
      other,
    );
  return yes("type.is", "it gives back tuples that it makes");
}

const isPublic = (match: Match): Answer =>
  match.all(marks).some(({ text }) => /^(public|protected)$/.test(text))
    ? unknown("name.other-uses", "code outside of this project may use the type of its result", match.node)
    : yes("name.other-uses", "it is not public");

const { rewrites, holds, ignores } = trialsIn("csharp");
const inClass = (...members: string[]): string =>
  `using System;\n\nclass A\n{\n    ${members.join("\n    ")}\n}\n`;

export const namedResult = rule({
  id: "csharp/named-result",
  kind: "idiom",
  title: "Return a tuple with named members",
  why: "Every caller must know by heart what `Item1` and `Item2` are.",
  target: "7.0",
  was: [
    csharp.member`${marks} ${type} ${name}(${parameters}) { ${body} }`,
    csharp.member`${marks} ${type} ${name}(${parameters}) => ${value};`,
  ],
  where: [
    (match) => tupleTypes(match.the(type)) !== undefined,
    (match) => returned(match).some((one) => madeTuple(one)),
  ],
  given: [
    condition("`Tuple` is the one of the library", (match) => isLibraryTuple(match.the(type)), {
      unknownIs: "possible",
    }),
    condition("it gives back tuples that it makes", givesTuples),
    condition("it does not call itself", (match) => {
      const own = match.textOf(name);
      const call = (match.has(value) ? [match.the(value)] : match.all(body)).flatMap((one) =>
        one.mentions(own),
      )[0];
      return call ? no("flow.order", "it calls itself", call) : yes("flow.order", "it does not call itself");
    }),
    condition("no other method stands in for it", mayOverride),
    condition("nobody outside of the project uses it", isPublic),
    condition("its members have names", (match) => hasNames(namesOf(match), match)),
  ],
  uses,
  becomes: (match) => {
    const what = match.the(type);
    const names = namesOf(match);
    const { start, end } = match.found;
    const edits: Edit[] = [{ start: what.start, end: what.end, text: typeText(tupleTypes(what)!, names) }];
    for (const one of returned(match)) {
      const { whole } = madeTuple(one)!;
      edits.push({ start: whole.start, end: whole.child("arguments")!.start, text: "" });
    }
    return [
      copy(
        start,
        end,
        edits.sort((a, b) => a.start - b.start),
      ),
    ];
  },
  trials: [
    rewrites(
      inClass(
        "private Tuple<string, int> Best(int n)",
        "{",
        '    if (n == 0) return Tuple.Create("none", 0);',
        "    string jar = Find(n);",
        "    return new Tuple<string, int>(jar, n); // found",
        "}",
        "void F()",
        "{",
        "    var best = Best(1);",
        "    int count = best.Item2;",
        "    Use(best.Item1, Best(2).Item1);",
        "}",
      ),
      inClass(
        "private (string jar, int count) Best(int n)",
        "{",
        '    if (n == 0) return ("none", 0);',
        "    string jar = Find(n);",
        "    return (jar, n); // found",
        "}",
        "void F()",
        "{",
        "    var best = Best(1);",
        "    int count = best.count;",
        "    Use(best.jar, Best(2).jar);",
        "}",
      ),
    ),
    rewrites(
      inClass(
        "static Tuple<string, long> Of(Jar jar, long weight) => Tuple.Create(jar.Name, weight);",
        "void F() { Tuple<string, long> t = A.Of(jar, 1); Use(t.Item1); }",
      ),
      inClass(
        "static (string name, long weight) Of(Jar jar, long weight) => (jar.Name, weight);",
        "void F() { (string name, long weight) t = A.Of(jar, 1); Use(t.name); }",
      ),
    ),
    rewrites(
      inClass(
        "private Tuple<string, int> Of(string jar, int n) { return Tuple.Create(jar, n); }",
        'static void F() { var a = new A(); Use(a.Of("x", 1).Item1); }',
      ),
      inClass(
        "private (string jar, int) Of(string jar, int n) { return (jar, n); }",
        'static void F() { var a = new A(); Use(a.Of("x", 1).jar); }',
      ),
    ),
    rewrites(
      inClass(
        "public static Tuple<string, long> Of(string jar, long weight) { return Tuple.Create(jar, weight); }",
      ),
      inClass(
        "public static (string jar, long weight) Of(string jar, long weight) { return (jar, weight); }",
      ),
      "likely",
      {
        "b.cs": [
          'class B { void G() { var t = A.Of("x", 1); Use(t.Item2); } }',
          'class B { void G() { var t = A.Of("x", 1); Use(t.weight); } }',
        ],
      },
    ),
    holds(
      inClass(
        "private Tuple<string, int> Of(string jar, int n) { if (n == 0) return null; return Tuple.Create(jar, n); }",
      ),
      "given back too",
    ),
    holds(
      inClass(
        "private Tuple<string, int> Of(string jar, int n) { return Tuple.Create(jar, n); }",
        "void F() { Keep(Of(jar, 1)); }",
      ),
      "which the rule does not know",
    ),
    holds(
      inClass(
        "private Tuple<string, int> Of(string jar, int n) { return Tuple.Create(jar, n); }",
        "void F() { var t = Of(jar, 1); if (t != null) Use(t.Item1); }",
      ),
      "which the rule does not know",
    ),
    holds(
      inClass("public override Tuple<string, int> Of(string jar, int n) { return Tuple.Create(jar, n); }"),
      "same kind",
    ),
    holds(inClass("private Tuple<int, int> Of() { return Tuple.Create(1, 2); }"), "nothing says what"),
    holds(
      inClass(
        "private Tuple<string, int> Of(string jar, int n) { if (n > 1) { Tuple<string, int> t = Of(jar, 1); Use(t.Item1); } return Tuple.Create(jar, n); }",
      ),
      "calls itself",
    ),
    ignores(inClass("private Tuple<string, int> Of(string jar, int n) { return Find(jar); }")),
    ignores(inClass("private Box<string, int> Of(string jar, int n) { return Tuple.Create(jar, n); }")),
  ],
});
