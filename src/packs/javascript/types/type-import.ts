import {
  condition,
  copy,
  holes,
  no,
  ofKind,
  referencesAt,
  referencesOf,
  rule,
  text,
  trialsIn,
} from "../../../core.js";
import { unknown, yes } from "../../../core.js";
import type { Answer, Edit, Match, Segment, SyntaxNode } from "../../../core.js";

const { statement } = holes({ statement: { kind: "statement", node: "import_statement" } });
const ts = trialsIn("typescript");

/** A name that a statement imports. */
interface Imported {
  readonly name: SyntaxNode;
  /** The specifier in a list; undefined for a default import and a namespace. */
  readonly listed: SyntaxNode | undefined;
  readonly isForTypes: boolean;
}

/** Does a name stand for a type here, and for no value? */
function isType(node: SyntaxNode): boolean {
  if (node.is("type_identifier")) return true;
  let whole = node;
  while (
    whole.parent?.is(["nested_type_identifier", "nested_identifier", "member_expression"]) &&
    whole.parent.firstPart?.same(whole)
  )
    whole = whole.parent;
  return (
    whole.is("nested_type_identifier") || whole.parent?.is(["nested_type_identifier", "type_query"]) === true
  );
}

function importedBy(node: SyntaxNode): Imported[] {
  const clause = node.parts.find((part) => part.is("import_clause"));
  const found: { name: SyntaxNode; listed: SyntaxNode | undefined }[] = [];
  for (const part of clause?.parts ?? []) {
    if (part.is("identifier")) found.push({ name: part, listed: undefined });
    else if (part.is("namespace_import")) found.push({ name: part.lastPart!, listed: undefined });
    else if (part.is("named_imports"))
      for (const one of part.parts)
        found.push({ name: one.child("alias") ?? one.child("name")!, listed: one });
  }
  return found.map((one) => ({ ...one, isForTypes: isForTypes(one.name) }));
}

function isForTypes(name: SyntaxNode): boolean {
  const uses = referencesAt(name)
    .flatMap(({ to }) => (to ? referencesOf(to) : []))
    .filter(({ node }) => !node.same(name));
  return uses.length > 0 && uses.every(({ node }) => isType(node));
}

const isMarked = (node: SyntaxNode): boolean => node.has("type") || node.has("typeof");

/** The names that are marked: all of a statement by one word, or each of them in its list. */
function markedIn(node: SyntaxNode): { all: boolean; listed: SyntaxNode[] } | undefined {
  if (isMarked(node)) return undefined;
  const names = importedBy(node);
  const types = names.filter(({ isForTypes: is }) => is);
  if (types.length === 0) return undefined;
  const hasTwoForms = names.some(({ listed }) => listed) && names.some(({ listed }) => !listed);
  if (types.length === names.length && !hasTwoForms) return { all: true, listed: [] };
  const listed = types.flatMap(({ listed: one }) => (one && !isMarked(one) ? [one] : []));
  return listed.length > 0 ? { all: false, listed } : undefined;
}

function written(match: Match): Segment[] {
  const node = match.the(statement);
  const { all, listed } = markedIn(node)!;
  const start = node.start + "import".length;
  const edits: Edit[] = all
    ? [
        { start, end: start, text: " type" },
        // What is marked one by one needs it no longer.
        ...importedBy(node).flatMap(({ listed: one }) => {
          const word = one?.children.find((child) => child.kind === "type");
          return word ? [{ start: word.start, end: one!.child("name")!.start, text: "" }] : [];
        }),
      ]
    : listed.map((one) => ({ start: one.start, end: one.start, text: "type " }));
  return [copy(node.start, node.end, edits), text("")];
}

/** Decorators can have a compiler write types down as values. */
function isOnlyType(match: Match): Answer {
  const { root } = match.tree;
  const [decorator] = root.tree.ofKinds(["decorator"]).map((n) => root.tree.node(n));
  return decorator
    ? no(
        "value.kind",
        "decorators may have the compiler keep types as values (`emitDecoratorMetadata`)",
        decorator,
      )
    : yes("value.kind", "the names stand for types only");
}

export const typeImport = rule({
  id: "javascript/type-import",
  kind: "idiom",
  title: "Import what is only a type as a type",
  why: "A reader, and a compiler that looks at one file at a time, cannot tell that nothing is loaded for it.",
  taste: true,
  was: ofKind(statement, {
    when: ({ tree }) => tree.language.id !== "javascript",
    together: (node) => (markedIn(node) ? [node] : undefined),
  }),
  mentions: ["import"],
  given: [
    condition("the names stand for types only", isOnlyType),
    condition("nothing is imported for what it does", (match) =>
      unknown(
        "flow.order",
        "where the compiler keeps unused imports (`verbatimModuleSyntax`), the module is not loaded here any more",
        match.the(statement),
      ),
    ),
  ],
  becomes: written,
  trials: [
    ts.rewrites(
      "import { Hive, Jar as J } from './hive';\nfunction f(h: Hive): J[] { return h.all; }",
      "import type { Hive, Jar as J } from './hive';\nfunction f(h: Hive): J[] { return h.all; }",
      "likely",
    ),
    ts.rewrites(
      "import { Hive, make } from './hive';\nlet h: Hive = make();",
      "import { type Hive, make } from './hive';\nlet h: Hive = make();",
      "likely",
    ),
    ts.rewrites(
      "import Hive from './hive';\nlet h: Map<string, Hive>;",
      "import type Hive from './hive';\nlet h: Map<string, Hive>;",
      "likely",
    ),
    ts.rewrites(
      "import * as bees from './hive';\nlet h: bees.Hive;",
      "import type * as bees from './hive';\nlet h: bees.Hive;",
      "likely",
    ),
    ts.rewrites(
      "import Hive, { Jar } from './hive';\nclass A implements Jar { h: Hive; }",
      "import Hive, { type Jar } from './hive';\nclass A implements Jar { h: Hive; }",
      "likely",
    ),
    ts.rewrites(
      "import { shelf } from './shelf';\nlet s: typeof shelf;",
      "import type { shelf } from './shelf';\nlet s: typeof shelf;",
      "likely",
    ),
    ts.rewrites(
      "import * as bees from './hive';\nlet h: bees.north.Hive; let g: typeof bees.north.make;",
      "import type * as bees from './hive';\nlet h: bees.north.Hive; let g: typeof bees.north.make;",
      "likely",
    ),
    ts.rewrites(
      "import { type Jar, Hive } from './hive';\nlet h: Hive | Jar;",
      "import type { Jar, Hive } from './hive';\nlet h: Hive | Jar;",
      "likely",
    ),
    ts.holds("import { Hive } from './hive';\n@a class B { constructor(h: Hive) {} }", "decorators"),
    ts.ignores("import { Hive } from './hive';\nclass A extends Hive {}\nlet h: Hive;"),
    ts.ignores("import { Hive } from './hive';\nlet h: Hive = new Hive();"),
    ts.ignores("import { Hive } from './hive';\nlet h: Hive;\nexport { Hive };"),
    ts.ignores("import { Hive } from './hive';\nlet h: Hive;\nif (x instanceof Hive) f();"),
    ts.ignores("import type { Hive } from './hive';\nlet h: Hive;"),
    ts.ignores("import './hive';\nimport { a } from 'a';"),
    ts.ignores(
      "import { Hive } from './hive';\nconst h: number = typeof Hive === 'function' ? 1 : 2; let g: Hive;",
    ),
    trialsIn("javascript").ignores("import { Hive } from './hive';\nf(Hive);"),
  ],
});
