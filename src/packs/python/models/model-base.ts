import {
  condition,
  copy,
  holes,
  indentUnit,
  no,
  ofKind,
  options,
  referencesAt,
  referencesOf,
} from "../../../core.js";
import { rule, text, trialsIn, unknown, yes } from "../../../core.js";
import type { Answer, Rule, SyntaxNode } from "../../../core.js";
import { argumentsOf } from "./columns.js";
import { isFrom, lastOf, mapper, needFor, type Mapper } from "./mapper.js";

const { made } = holes({ made: { kind: "statement", node: "assignment" } });

const isMade = (node: SyntaxNode, { base }: Mapper): boolean =>
  base !== undefined &&
  node.child("left")?.is("identifier") === true &&
  node.child("type") === undefined &&
  node.parent?.is("expression_statement") === true &&
  node.child("right")?.is("call") === true &&
  isFrom(node.child("right"), base[0]);

/** Is the class only derived from, or read of? */
function isOnlyBase(made: SyntaxNode): Answer {
  const code = "name.other-uses";
  const name = made.child("left")!;
  const to = referencesAt(name).find((one) => one.to)?.to;
  if (!to) return unknown(code, `what \`${name.text}\` is used for is not known`, name);
  for (const { node, does } of referencesOf(to)) {
    if (node.same(name)) continue;
    if (does !== "read") return no(code, `\`${name.text}\` is given another value`, node);
    const isBase =
      node.parent?.is("argument_list") === true && node.parent.parent?.is("class_definition") === true;
    if (!isBase)
      return unknown(code, `\`${name.text}\` is used otherwise than to derive a class from it`, node);
  }
  return yes(code, `\`${name.text}\` is only derived from`, name);
}

const make = (table: Mapper): Rule =>
  rule({
    id: "python/model-base",
    kind: "deprecated",
    title: "Derive the base class of models instead of having it made",
    why: "Editors and checkers know what a class is; what a function makes, only its library knows.",
    was: ofKind(made, { when: (node) => isMade(node, table), together: (node) => [node.parent!] }),
    mentions: [table.base ? lastOf(table.base[0]) : "="],
    options: options(mapper, make),
    given: [
      condition("the class is made without settings", (match) => {
        const [first] = argumentsOf(match.the(made).child("right")!);
        return first
          ? no("form.fits", `the class is made with \`${first.text}\`, which goes to another place`, first)
          : yes("form.fits", "the class is made without settings", match.the(made));
      }),
      condition("it is only derived from", (match) => isOnlyBase(match.the(made))),
      condition("the new version takes it so", (match) =>
        unknown(
          "name.library",
          "what the new version makes of the class, the config alone says",
          match.the(made),
        ),
      ),
    ],
    becomes: (match) => {
      const node = match.the(made);
      const name = node.child("left")!;
      const own = node.tree.indentAt(node.start);
      const inner = `${own}${indentUnit(node.tree, own)}`;
      return [
        text("class "),
        copy(name.start, name.end),
        text(`(${match.nameOf(needFor(table.base![1]))}):\n${inner}pass`),
      ];
    },
    trials,
  });

const { rewrites, holds, ignores } = trialsIn("python", undefined, {
  base: ["mapper.make_base", "mapper.Model"],
});

const trials = [
  rewrites(
    "from mapper import make_base\n\nBase = make_base()\n\n\nclass Hive(Base):\n    pass\n",
    "from mapper import Model\n\nclass Base(Model):\n    pass\n\n\nclass Hive(Base):\n    pass\n",
    "likely",
  ),
  rewrites(
    "import mapper\nBase = mapper.make_base()\nBase.tables.make()\n",
    "import mapper\nclass Base(mapper.Model):\n    pass\nBase.tables.make()\n",
    "likely",
  ),
  // By the name that the file has for it.
  rewrites(
    "from mapper import make_base, Model as M\nBase = make_base()\n",
    "from mapper import Model as M\nclass Base(M):\n    pass\n",
    "likely",
  ),
  holds("from mapper import make_base\nBase = make_base(cls=Own)\n", "goes to another place"),
  holds("from mapper import make_base\nBase = make_base()\nif x:\n    Base = other()\n", "another value"),
  ignores("from hive import make_base\nBase = make_base()\n"),
  ignores("from mapper import make_base\nself.Base = make_base()\n"),
  trialsIn("python").ignores("from mapper import make_base\nBase = make_base()\n"),
];

export const modelBase = make(mapper.parse({}));
