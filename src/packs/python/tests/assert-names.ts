import {
  classesNamed,
  condition,
  holes,
  no,
  ofKind,
  originOf,
  placeOf,
  rule,
  surroundingsOf,
  text,
  trialsIn,
  unknown,
  yes,
} from "../../../index.js";
import type { Answer, OwnClass, SyntaxNode, SyntaxTree } from "../../../index.js";

/** Old names of assertions, with what they are called now. */
const NAMES: Readonly<Record<string, string>> = {
  assert_: "assertTrue",
  assertAlmostEquals: "assertAlmostEqual",
  assertEquals: "assertEqual",
  assertItemsEqual: "assertCountEqual",
  assertNotAlmostEquals: "assertNotAlmostEqual",
  assertNotEquals: "assertNotEqual",
  assertNotRegexpMatches: "assertNotRegex",
  assertRaisesRegexp: "assertRaisesRegex",
  assertRegexpMatches: "assertRegex",
  failIf: "assertFalse",
  failIfEqual: "assertNotEqual",
  failUnless: "assertTrue",
  failUnlessAlmostEqual: "assertAlmostEqual",
  failUnlessEqual: "assertEqual",
  failUnlessRaises: "assertRaises",
};

const { read } = holes({ read: { kind: "expression", node: "attribute" } });

const MOST_PARENTS = 8;

/** Does a class of the project have a method of the old name, or what is it derived from? */
function ofProject(own: OwnClass, old: string, tree: SyntaxTree, depth: number): Answer {
  const here = surroundingsOf(tree).path === own.path ? classAt(own, tree) : undefined;
  if (here) return depth < MOST_PARENTS ? isTestCase(here, old, depth + 1) : deep;
  const name = own.name ?? "";
  const place = placeOf(own);
  if (own.members.some((member) => member.name === old))
    return no("name.library", `\`${name}\` (${place}) has a method \`${old}\` of its own`);
  const answers = own.parents.map((parent): Answer => {
    if (/^unittest\.(case\.)?\w*TestCase$/.test(parent))
      return yes("type.is", `\`${name}\` (${place}) is derived from \`${parent}\``);
    const above = classesNamed(tree, parent.split(".").at(-1)!).classes.filter(
      (one) => one.name !== own.name,
    );
    return above.length === 1 && depth < MOST_PARENTS
      ? ofProject(above[0]!, old, tree, depth + 1)
      : unknown("type.is", `what \`${parent}\` is derived from is not known`);
  });
  return (
    strongest(answers) ??
    unknown("type.not-known", `\`${name}\` (${place}) is not known to be a class of tests`)
  );
}

const deep = unknown("type.is", "the parents are too many to follow");

/** The class in this file that is meant. */
function classAt(own: OwnClass, tree: SyntaxTree): SyntaxNode | undefined {
  const names = tree.named(own.name ?? "").map((id) => tree.node(id));
  return names
    .map(({ parent }) => parent)
    .find((one) => one?.is("class_definition") && one.line === own.line);
}

/** A no counts before a yes, and a yes before what is not known: one parent that is a class of tests is enough. */
function strongest(answers: readonly Answer[]): Answer | undefined {
  const is = (what: Answer["is"]): Answer | undefined => answers.find((answer) => answer.is === what);
  return is("no") ?? is("yes") ?? is("unknown");
}

/** Is a class derived from the library's class for tests, and does none on the way have a method of the old name? */
function isTestCase(owner: SyntaxNode, old: string, depth = 0): Answer {
  const name = owner.child("name")?.text ?? "";
  const defines = [...owner.descendants()].find(
    (node) => node.is("function_definition") && node.child("name")?.text === old,
  );
  if (defines) return no("name.library", `\`${name}\` has a method \`${old}\` of its own`, defines);
  const bases = owner.child("superclasses")?.parts.filter((part) => !part.is("keyword_argument")) ?? [];
  const answers = bases.map((base): Answer => {
    const last = base.text.split(".").at(-1)!;
    if (originOf(base)?.module.split(".")[0] === "unittest" && /TestCase$/.test(last))
      return yes("type.is", `\`${name}\` is derived from \`${base.text}\` of unittest`, base);
    const { classes } = classesNamed(owner.tree, last);
    return classes.length === 1
      ? ofProject(classes[0]!, old, owner.tree, depth)
      : unknown("type.is", `what \`${base.text}\` is derived from is not known`, base);
  });
  return (
    strongest(answers) ?? unknown("type.not-known", `\`${name}\` is not known to be a class of tests`, owner)
  );
}

/** A read of an old name on the object of a class. */
function ownerOf(node: SyntaxNode): SyntaxNode | undefined {
  const object = node.child("object");
  const method = [...node.ancestors()].filter((above) => above.is("function_definition"));
  const self = method
    .map((one) => one.child("parameters")?.firstPart?.text)
    .find((one) => one === object?.text);
  return self === undefined ? undefined : node.closest(["class_definition"]);
}

/** A test of the old names themselves stays: one that expects their warnings, or that only mentions them. */
function isNoTestOfNames(node: SyntaxNode): boolean {
  const around = [...node.ancestors()].find(
    (above) =>
      above.is("with_statement") &&
      /\bassertWarns/.test(
        above.child("body") ? above.text.slice(0, above.child("body")!.start - above.start) : "",
      ),
  );
  return around === undefined && node.parent?.is("call") === true && node.field === "function";
}

const oldOf = (node: SyntaxNode): string => node.child("attribute")!.text;

const { rewrites, ignores, holds } = trialsIn("python");

export const assertNames = rule({
  id: "python/assert-names",
  kind: "breaks",
  title: "Use the present names of assertions",
  why: "The old names are gone in Python 3.12.",
  was: ofKind(read, {
    when: (node) => NAMES[oldOf(node)] !== undefined && ownerOf(node) !== undefined && isNoTestOfNames(node),
  }),
  mentions: Object.keys(NAMES),
  target: "3.2",
  given: [
    condition("the class is one of tests", (match) => {
      const node = match.the(read);
      return isTestCase(ownerOf(node)!, oldOf(node));
    }),
  ],
  becomes: (match) => [text(`${match.the(read).child("object")!.text}.${NAMES[oldOf(match.the(read))]!}`)],
  trials: [
    rewrites(
      "import unittest\nclass T(unittest.TestCase):\n    def test_a(self):\n        self.assertEquals(1, 1)\n        self.assert_(True)\n",
      "import unittest\nclass T(unittest.TestCase):\n    def test_a(self):\n        self.assertEqual(1, 1)\n        self.assertTrue(True)\n",
    ),
    rewrites(
      "from unittest import TestCase\nclass Base(TestCase):\n    pass\nclass T(Base):\n    def test_a(self):\n        with self.assertRaisesRegexp(E, 'x'):\n            f()\n",
      "from unittest import TestCase\nclass Base(TestCase):\n    pass\nclass T(Base):\n    def test_a(self):\n        with self.assertRaisesRegex(E, 'x'):\n            f()\n",
    ),
    rewrites(
      "from hive import Base\nclass T(Base):\n    def test_a(self):\n        self.assertEquals(1, 1)\n",
      "from hive import Base\nclass T(Base):\n    def test_a(self):\n        self.assertEqual(1, 1)\n",
      "likely",
    ),
    holds(
      "import unittest\nclass T(unittest.TestCase):\n    def assertEquals(self, a, b): ...\n    def test_a(self):\n        self.assertEquals(1, 1)\n",
      "of its own",
    ),
    ignores("class T:\n    def test_a(self):\n        other.assertEquals(1, 1)\n"),
    ignores(
      "import unittest\nclass T(unittest.TestCase):\n    def test_a(self):\n        self.assertEqual(1, 1)\n",
    ),
  ],
});
