import {
  condition,
  copy,
  holes,
  need,
  no,
  ofKind,
  options,
  rule,
  text,
  trialsIn,
  unknown,
  yes,
} from "../../../core.js";
import type { Edit, Match, Rule, Segment, SyntaxNode } from "../../../core.js";
import { argumentsOf, columnOf, relationOf, type Typed, type Unread } from "./columns.js";
import { isFrom, lastOf, mapper, needFor, type Mapper } from "./mapper.js";

const { made } = holes({ made: { kind: "statement", node: "assignment" } });

/** The old version, and how the new one calls it, of the call that an attribute of a class is given. */
function moveAt(node: SyntaxNode, table: Mapper): readonly [string, string] | undefined {
  const value = node.child("right");
  const isAttribute =
    node.child("left")?.is("identifier") === true &&
    node.child("type") === undefined &&
    node.parent?.is("expression_statement") === true &&
    node.parent.parent?.parent?.is("class_definition") === true;
  if (!isAttribute || !value?.is("call") || table.typed === undefined) return undefined;
  return [table.column, table.relation].find((move) => isFrom(value, move?.[0]));
}

function read(match: Match, table: Mapper): Typed | Unread {
  const call = match.the(made).child("right")!;
  return isFrom(call, table.column?.[0]) ? columnOf(call, table) : relationOf(call, table);
}

/** The type of the attribute: `Typed[Optional[int]]`, `Typed[list["Hive"]]`. */
function annotation({ type, is, mayBeMissing }: Typed, typed: string, match: Match): string {
  const own = type.includes(".") ? match.nameOf(needFor(type)) : type;
  const value = is === "value" ? own : `"${type}"`;
  if (is === "many") return `${typed}[list[${value}]]`;
  return `${typed}[${mayBeMissing ? `${match.nameOf(need("typing", "Optional"))}[${value}]` : value}]`;
}

/** The arguments that go, with their commas, and those that have another name. */
function argumentEdits(call: SyntaxNode, { goes }: Typed, table: Mapper): Edit[] {
  const all = argumentsOf(call);
  const stays = all.filter((part) => !goes.some((one) => one.same(part)));
  const renamed = stays.flatMap((part): Edit[] => {
    const name = part.is("keyword_argument") ? part.child("name") : undefined;
    const other = name && table.words[name.text];
    return name && other !== undefined ? [{ start: name.start, end: name.end, text: other }] : [];
  });
  const removed = goes.map((part): Edit => {
    const at = all.findIndex((one) => one.same(part));
    const kept = all.slice(0, at).findLast((one) => stays.includes(one));
    const next = all[at + 1];
    if (kept) return { start: all[at - 1]!.end, end: part.end, text: "" };
    return { start: part.start, end: next?.start ?? part.end, text: "" };
  });
  return [...renamed, ...removed].sort((a, b) => a.start - b.start);
}

const make = (table: Mapper): Rule =>
  rule({
    id: "python/typed-columns",
    kind: "deprecated",
    title: "Say the types of columns and relations in annotations",
    why: "Editors and checkers know what an annotated attribute holds; what an untyped column holds, only the database knows.",
    was: ofKind(made, { when: (node) => moveAt(node, table) !== undefined }),
    mentions: [table.column, table.relation].flatMap((move) => (move ? [lastOf(move[0])] : ["="])),
    target: "3.9",
    options: options(mapper, make),
    given: [
      condition("it is known what the attribute holds", (match) => {
        const found = read(match, table);
        if ("why" in found) return no("form.fits", found.why, found.at);
        return yes(
          "form.fits",
          found.is === "value"
            ? `its values are of type \`${found.type}\`${found.mayBeMissing ? ", or missing" : ""}`
            : `it leads to ${found.is === "one" ? "one row" : "many rows"}`,
          found.seen ?? match.the(made),
        );
      }),
      condition("the new version takes it so", (match) =>
        unknown(
          "name.library",
          "what the new version makes of an annotation, the config alone says",
          match.the(made),
        ),
      ),
    ],
    becomes: (match): Segment[] => {
      const node = match.the(made);
      const typed = read(match, table) as Typed;
      const [name, call] = [node.child("left")!, node.child("right")!];
      const callee = call.child("function")!;
      const [old, next] = moveAt(node, table)!;
      // Through a module that is imported whole, all of it is there.
      const through = callee.is("attribute") ? `${callee.child("object")!.text}.` : undefined;
      const called = (full: string): string =>
        through === undefined ? match.nameOf(needFor(full)) : `${through}${lastOf(full)}`;
      const word = old === next ? callee.text : called(next);
      return [
        copy(name.start, name.end),
        text(`: ${annotation(typed, called(table.typed!), match)} = ${word}`),
        copy(callee.end, call.end, argumentEdits(call, typed, table)),
      ];
    },
    trials,
  });

const TABLE: Record<string, unknown> = {
  column: ["mapper.Column", "mapper.field"],
  relation: ["mapper.related", "mapper.related"],
  typed: "mapper.Typed",
  reference: "mapper.link",
  types: { Whole: "int", Text: "str", Remark: "str", Day: "datetime.date" },
  words: { primary_key: "key" },
};
const { rewrites, holds, ignores } = trialsIn("python", undefined, TABLE);

const trials = [
  rewrites(
    `
    from mapper import Base, Column, Remark, Text, Whole, link, related

    class Keeper(Base):
        table = "keeper"

        id = Column(Whole, primary_key=True)
        name = Column(Text(40), nullable=False)
        telephone = Column(Text(20))
        hives = related("Hive")

    class Hive(Base):
        table = "hive"

        id = Column(Whole, primary_key=True)
        remark = Column(Remark, default="")
        place = Column(Text, nullable=True)
        keeper_id = Column(Whole, link("keeper.id"), nullable=False)
        keeper = related("Keeper", back="hives")  # who looks after it
    `,
    `
    from mapper import Base, Remark, Text, Typed, field, link, related
    from typing import Optional

    class Keeper(Base):
        table = "keeper"

        id: Typed[int] = field(key=True)
        name: Typed[str] = field(Text(40))
        telephone: Typed[Optional[str]] = field(Text(20))
        hives: Typed[list["Hive"]] = related("Hive")

    class Hive(Base):
        table = "hive"

        id: Typed[int] = field(key=True)
        remark: Typed[Optional[str]] = field(Remark, default="")
        place: Typed[Optional[str]] = field()
        keeper_id: Typed[int] = field(link("keeper.id"))
        keeper: Typed["Keeper"] = related("Keeper", back="hives")  # who looks after it
    `,
    "likely",
  ),
  rewrites(
    `
    import mapper as m

    class Hive(m.Base):
        seen = m.Column(m.Day, nullable=False)
        boxes = m.related("Box", uselist=True)
        queen = m.related("Queen", uselist=False)

    class Box(m.Base):
        pass

    class Queen(m.Base):
        pass
    `,
    `
    from datetime import date
    import mapper as m
    from typing import Optional

    class Hive(m.Base):
        seen: m.Typed[date] = m.field()
        boxes: m.Typed[list["Box"]] = m.related("Box")
        queen: m.Typed[Optional["Queen"]] = m.related("Queen")

    class Box(m.Base):
        pass

    class Queen(m.Base):
        pass
    `,
    "likely",
  ),
  // By the names that the file has for them.
  rewrites(
    "from mapper import Column, Whole, field as f, Typed as T\nclass Hive(Base):\n    n = Column(Whole, nullable=False)\n",
    "from mapper import field as f, Typed as T\nclass Hive(Base):\n    n: T[int] = f()\n",
    "likely",
  ),
  // What was done before is understood.
  rewrites(
    `
    from mapper import Base, Typed, field, link, related
    class Hive(Base):
        table = "hive"
        keeper_id: Typed[int] = field(link("keeper.id"))
        keeper = related("Keeper")
    class Keeper(Base):
        table = "keeper"
    `,
    `
    from mapper import Base, Typed, field, link, related
    class Hive(Base):
        table = "hive"
        keeper_id: Typed[int] = field(link("keeper.id"))
        keeper: Typed["Keeper"] = related("Keeper")
    class Keeper(Base):
        table = "keeper"
    `,
    "likely",
  ),
  // Two references, or one from each side, do not tell which of them the relation goes by.
  holds(
    `
    from mapper import Base, link, related
    class Hive(Base):
        table = "hive"
        old_id: int = column(link("keeper.id"))
        keeper = related("Keeper")
    class Keeper(Base):
        table = "keeper"
    `,
    "one row or for many",
  ),
  holds(
    "from mapper import Base, related\nclass Hive(Base):\n    keeper = related('Keeper')\n",
    "not in this file",
  ),
  holds(
    "from mapper import Base, Column, Whole\nclass Hive(Base):\n    n = Column(Whole, nullable=MAYBE)\n",
    "only known when",
  ),
  holds(
    "from mapper import Base, Column, Odd\nclass Hive(Base):\n    n = Column(Odd)\n",
    "no type of values for `Odd`",
  ),
  holds(
    "from mapper import Base, Column, link\nclass Hive(Base):\n    n = Column(link('a.id'))\n",
    "does not say its type",
  ),
  holds(
    "from mapper import Base, Column, Whole\nclass Hive(Base):\n    n = Column(Whole, **more)\n",
    "not seen here",
  ),
  ignores("from hive import Base, Column, Whole\nclass Hive(Base):\n    n = Column(Whole)\n"),
  ignores("from mapper import Column, Whole\nn = Column(Whole)\n"),
  ignores(
    "from mapper import Base, Column, Whole\nclass Hive(Base):\n    def f(self):\n        n = Column(Whole)\n        return n\n",
  ),
  trialsIn("python").ignores(
    "from mapper import Base, Column, Whole\nclass Hive(Base):\n    n = Column(Whole)\n",
  ),
];

export const typedColumns = make(mapper.parse({}));
