import {
  condition,
  copy,
  functionAround,
  holes,
  no,
  ofKind,
  oncePerNode,
  referencesAt,
  rule,
  shortened,
  trialsIn,
  yes,
} from "../../core.js";
import type { Answer, Edit, Match, Segment, SyntaxNode } from "../../core.js";

const { declared } = holes({ declared: { kind: "statement", node: "local_declaration_statement" } });

/** So many statements may stand between a declaration and the call that fills it. */
const MOST_BETWEEN = 8;
/** What is declared in the expression of one of these is known to the end of the block around it. */
const LETS_OUT = [
  "expression_statement",
  "local_declaration_statement",
  "return_statement",
  "throw_statement",
];

/** Variables that are declared without a value, and the statement that is the first to name them, as what a call fills. */
interface Filled {
  readonly type: SyntaxNode;
  readonly names: readonly SyntaxNode[];
  /** The arguments that name them first. */
  readonly places: readonly SyntaxNode[];
  readonly between: readonly SyntaxNode[];
  readonly use: SyntaxNode;
}

const filledAt = oncePerNode((statement): Filled | undefined => {
  const declaration = statement.firstPart;
  if (!declaration?.is("variable_declaration") || declaration.start !== statement.start) return undefined;
  const [type, ...declarators] = declaration.parts;
  if (!type || type.is(["implicit_type", "ref_type", "pointer_type"]) || declarators.length === 0)
    return undefined;
  const names = declarators.flatMap((one) => (one.parts.length === 1 ? [one.firstPart!] : []));
  if (names.length < declarators.length || !statement.parent?.is("block")) return undefined;
  const between: SyntaxNode[] = [];
  let use = statement.nextPart;
  for (; use && !names.some((name) => use!.mentions(name.text).length > 0); use = use.nextPart) {
    if (between.length === MOST_BETWEEN || use.is(["labeled_statement"]) || use.kind.startsWith("preproc"))
      return undefined;
    between.push(use);
  }
  if (!use) return undefined;
  const places = names.flatMap((name) => use.mentions(name.text).slice(0, 1));
  const areFilled = places.every((place) => place.parent?.is("argument") && place.parent.has("out"));
  return areFilled && places.length === names.length ? { type, names, places, between, use } : undefined;
});

/** Is what a call declares known as far as the variable was? */
function isKnownAsFar(match: Match): Answer {
  const { use, places, names } = filledAt(match.the(declared))!;
  for (const place of places) {
    const to = referencesAt(names.find(({ text }) => text === place.text)!).find((one) => one.to)?.to;
    if (!to || !referencesAt(place).some((one) => one.to === to))
      return no("name.not-resolved", `\`${place.text}\` may be another variable here`, place);
    const holder = use.is("if_statement") ? use.child("condition") : use;
    const isIn = holder?.holds(place) === true && (use.is(LETS_OUT) || use.is("if_statement"));
    if (!isIn || place.closest(["query_expression"]))
      return no("name.scope", `\`${shortened(use.text)}\` keeps what it declares to itself`, use);
    if (!functionAround(place)?.same(functionAround(use)))
      return no("name.scope", `\`${place.text}\` is filled in a function of its own`, place);
  }
  return yes("name.scope", `\`${names[0]!.text}\` is known to the end of the same block`, use);
}

function declaredInCall(match: Match): Segment[] {
  const { type, places, between, use } = filledAt(match.the(declared))!;
  const edits = [...places]
    .sort((a, b) => a.start - b.start)
    .map(({ start }): Edit => ({ start, end: start, text: `${type.text} ` }));
  return [copy((between[0] ?? use).start, use.end, edits)];
}

const { rewrites, ignores, holds } = trialsIn("csharp");
const inMethod = (code: string): string =>
  `class A\n{\n    int F(string s, string[] all)\n    {\n        ${code}\n    }\n}\n`;

export const outVariable = rule({
  id: "csharp/out-variable",
  kind: "idiom",
  title: "Declare a variable where a call fills it",
  why: "A variable that has no value yet stands apart from the call that gives it one.",
  target: "7.0",
  was: ofKind(declared, {
    when: (node) => filledAt(node) !== undefined,
    together: (node) => {
      const { between, use } = filledAt(node)!;
      return [node, ...between, use];
    },
  }),
  mentions: ["out"],
  given: [condition("the variable is known as far as before", isKnownAsFar)],
  becomes: declaredInCall,
  trials: [
    rewrites(
      inMethod("int jars;\n        if (int.TryParse(s, out jars)) return jars;\n        return jars - 1;"),
      inMethod("if (int.TryParse(s, out int jars)) return jars;\n        return jars - 1;"),
    ),
    rewrites(
      inMethod(
        "Dictionary<string, int> lots; // by name\n        Log(s);\n        bool ok = Find(s, out lots);\n        return ok ? lots.Count : 0;",
      ),
      inMethod(
        "// by name\n        Log(s);\n        bool ok = Find(s, out Dictionary<string, int> lots);\n        return ok ? lots.Count : 0;",
      ),
    ),
    rewrites(
      inMethod("int a, b;\n        Split(s, out b, out a);\n        return a + b;"),
      inMethod("Split(s, out int b, out int a);\n        return a + b;"),
    ),
    rewrites(
      inMethod("int n;\n        return int.TryParse(s, out n) || int.TryParse(all[0], out n) ? n : 0;"),
      inMethod("return int.TryParse(s, out int n) || int.TryParse(all[0], out n) ? n : 0;"),
    ),
    // What a loop declares in its head is gone behind it, and new in each round.
    holds(inMethod("int n;\n        while (Next(out n)) { }\n        return n;"), "keeps what it declares"),
    holds(
      inMethod("int n;\n        foreach (var x in All(out n)) { }\n        return n;"),
      "keeps what it declares",
    ),
    holds(
      inMethod("int n;\n        if (s == null) Read(out n); else n = 1;\n        return n;"),
      "keeps what it",
    ),
    holds(
      inMethod("int n;\n        Func<bool> f = () => Read(out n);\n        return 1;"),
      "a function of its own",
    ),
    ignores(inMethod("int n = 0;\n        Read(out n);\n        return n;")),
    ignores(inMethod("int n;\n        Read(s, ref n);\n        return n;")),
    ignores(inMethod("int n;\n        n = 1;\n        Read(out n);\n        return n;")),
    ignores(inMethod("int a, b;\n        Read(out a);\n        Read(out b);\n        return a + b;")),
    ignores(inMethod('switch (s) { case "a": int n; Read(out n); return n; default: n = 2; return n; }')),
    trialsIn("csharp", "6.0").ignores(inMethod("int n;\n        Read(out n);\n        return n;")),
  ],
});
