import { condition, holes, python, rule, trialsIn, unknown } from "../../../core.js";
import type { Match, Snippet, SyntaxNode } from "../../../core.js";
import { isTestCase, ownerOf } from "./test-case.js";

const parts = holes({
  self: { kind: "expression", node: "identifier" },
  a: "expression",
  b: "expression",
  why: "expression",
});

/** Code with the names of the holes in braces. */
function snippet(code: string): Snippet {
  const texts = code.split(/\{\w+\}/);
  const filled = [...code.matchAll(/\{(\w+)\}/g)].map(([, name]) => parts[name as keyof typeof parts]);
  return python.statement(Object.assign(texts, { raw: texts }), ...filled);
}

/** What each assertion says of its values. */
const SAID: readonly (readonly [method: string, given: string, said: string])[] = [
  ["assertEqual", "{a}, {b}", "{a} == {b}"],
  ["assertNotEqual", "{a}, {b}", "{a} != {b}"],
  ["assertIs", "{a}, {b}", "{a} is {b}"],
  ["assertIsNot", "{a}, {b}", "{a} is not {b}"],
  ["assertIn", "{a}, {b}", "{a} in {b}"],
  ["assertNotIn", "{a}, {b}", "{a} not in {b}"],
  ["assertIsInstance", "{a}, {b}", "isinstance({a}, {b})"],
  ["assertNotIsInstance", "{a}, {b}", "not isinstance({a}, {b})"],
  ["assertGreater", "{a}, {b}", "{a} > {b}"],
  ["assertGreaterEqual", "{a}, {b}", "{a} >= {b}"],
  ["assertLess", "{a}, {b}", "{a} < {b}"],
  ["assertLessEqual", "{a}, {b}", "{a} <= {b}"],
  ["assertTrue", "{a}", "{a}"],
  ["assertFalse", "{a}", "not {a}"],
  ["assertIsNone", "{a}", "{a} is None"],
  ["assertIsNotNone", "{a}", "{a} is not None"],
];

const FORMS = SAID.flatMap(([method, given, said]) => [
  { method, was: snippet(`{self}.${method}(${given})`), becomes: snippet(`assert ${said}`) },
  { method, was: snippet(`{self}.${method}(${given}, {why})`), becomes: snippet(`assert ${said}, {why}`) },
  {
    method,
    was: snippet(`{self}.${method}(${given}, msg={why})`),
    becomes: snippet(`assert ${said}, {why}`),
  },
]);

/** The method with the object that it is called on. */
const calleeOf = (match: Match): SyntaxNode => match.the(parts.self).parent!;
const { rewrites, holds, ignores } = trialsIn("python");
const test = (code: string): string =>
  `import unittest\nclass T(unittest.TestCase):\n    def test_a(self):\n        ${code}\n`;

export const plainAssert = rule({
  id: "python/plain-assert",
  kind: "idiom",
  taste: true,
  title: "Say what a test expects with a plain assert",
  why: "An expression is read more easily than the name of a method, and there is none that one has to know.",
  was: FORMS.map(({ was }) => was),
  where: [
    (match) => ownerOf(calleeOf(match)) !== undefined,
    (match) => !match.has(parts.why) || !match.the(parts.why).is("keyword_argument"),
  ],
  given: [
    condition("the class is one of tests", (match) =>
      isTestCase(ownerOf(calleeOf(match))!, FORMS[match.alternative]!.method),
    ),
    condition("assertions are run", (match) =>
      unknown("value.result", "with `-O` Python leaves assert statements out", match.node),
    ),
  ],
  becomes: (match) => FORMS[match.alternative]!.becomes,
  trials: [
    rewrites(test("self.assertEqual(f(1), 2)"), test("assert f(1) == 2"), "likely"),
    rewrites(test("(self.assertFalse(a or b))"), test("assert not (a or b)"), "likely"),
    rewrites(test('self.assertEqual(a, b, "why not")'), test('assert a == b, "why not"'), "likely"),
    rewrites(test("self.assertTrue(a or b, msg=c)"), test("assert a or b, c"), "likely"),
    rewrites(test("self.assertEqual(a < b, True)"), test("assert (a < b) == True"), "likely"),
    rewrites(test("self.assertFalse(a or b)"), test("assert not (a or b)"), "likely"),
    rewrites(test("self.assertFalse(a == b)"), test("assert not a == b"), "likely"),
    rewrites(test("self.assertIsNone(a if b else c)"), test("assert (a if b else c) is None"), "likely"),
    rewrites(test("self.assertIn(x, [1, 2])  # both"), test("assert x in [1, 2]  # both"), "likely"),
    rewrites(test("self.assertEqual(lambda: 1, (1, 2))"), test("assert (lambda: 1) == (1, 2)"), "likely"),
    rewrites(
      test("self.assertIsInstance(a, (int, str))"),
      test("assert isinstance(a, (int, str))"),
      "likely",
    ),
    rewrites(
      "from hive import Base\nclass T(Base):\n    def test_a(self):\n        self.assertEqual(1, 1)\n",
      "from hive import Base\nclass T(Base):\n    def test_a(self):\n        assert 1 == 1\n",
      "likely",
    ),
    holds(
      "import unittest\nclass T(unittest.TestCase):\n    def assertEqual(self, a, b):\n        pass\n    def test_a(self):\n        self.assertEqual(1, 1)\n",
      "of its own",
    ),
    ignores(test("x = self.assertEqual(1, 1)")),
    ignores(test("other.assertEqual(1, 1)")),
    ignores(test("self.assertAlmostEqual(1, 1)")),
    ignores("self.assertEqual(1, 1)\n"),
  ],
});
