import { condition, holes, ofKind, rule, text, trialsIn } from "../../../core.js";
import type { SyntaxNode } from "../../../core.js";
import { isTestCase, ownerOf } from "./test-case.js";

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
    when: (node) => Object.hasOwn(NAMES, oldOf(node)) && ownerOf(node) !== undefined && isNoTestOfNames(node),
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
    // Every object of JavaScript has something of this name.
    ignores(
      "import unittest\nclass T(unittest.TestCase):\n    def test_a(self):\n        self.toString()\n        self.assertEqual(assert_, 1)\n",
    ),
    ignores("class T:\n    def test_a(self):\n        other.assertEquals(1, 1)\n"),
    ignores(
      "import unittest\nclass T(unittest.TestCase):\n    def test_a(self):\n        self.assertEqual(1, 1)\n",
    ),
  ],
});
