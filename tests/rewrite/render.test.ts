import "uvran/node";
import {
  applyEdits,
  Engine,
  fresh,
  holes,
  javascript,
  python,
  rule,
  type Becomes,
  type Snippet,
} from "uvran";

const { a, b, c, rest, body } = holes({
  a: "expression",
  b: "expression",
  c: "expression",
  rest: "arguments",
  body: "statements",
});

/** The code after one rule, with everything that could be done done; held-back reasons instead, if any. */
async function after(was: Snippet, becomes: Becomes, code: string): Promise<string> {
  const tried = rule({ id: "test/one", kind: "idiom", title: "t", why: "w", was, becomes, trials: [] });
  const file = was.language === "python" ? "a.py" : "a.js";
  const { changes, heldBack } = (await new Engine([tried]).file(file, code))!;
  if (heldBack.length > 0) return heldBack.map((entry) => entry.reason).join("; ");
  return applyEdits(
    code,
    changes.flatMap((change) => change.edits),
  );
}

const block = (was: string, now: string): [string, string] => [was, now];

test.each([
  block("if t:\n    go(1)\n", "with t:\n    go(1)\n"),
  block("if t: go(1)\n", "with t: go(1)\n"),
  block("if t:\n  go(1)\n  while u:\n    v()\n", "with t:\n  go(1)\n  while u:\n    v()\n"),
  block(
    "if t:\n\n    # first\n\n    go(1)  # one\n    # last\n\nx()\n",
    "with t:\n\n    # first\n\n    go(1)  # one\n    # last\n\nx()\n",
  ),
  block("if (t):   # why\n\tgo(1)\n", "with (t):   # why\n\tgo(1)\n"),
  block("if t:\r\n    go(1)\r\n", "with t:\r\n    go(1)\r\n"),
])("a block that stays as deep stays byte for byte: %j", async (code, expected) => {
  const was = python`
    if ${a}:
        ${body}
  `;
  const becomes = python`
    with ${a}:
        ${body}
  `;
  expect(await after(was, becomes, code)).toBe(expected);
});

const shallow = python`
  with gone(${a}):
      ${body}
`;
const raised = python`
  enter(${a})
  ${body}
`;

test.each([
  block("with gone(1):\n    x()\n", "enter(1)\nx()\n"),
  block(
    "def f():\n  with gone(1):\n    x()\n\n    y()\n  z()\n",
    "def f():\n  enter(1)\n  x()\n\n  y()\n  z()\n",
  ),
  block(
    'with gone(1):\n    x = """\n    raw\n"""\n    if x:\n        y()\n',
    'enter(1)\nx = """\n    raw\n"""\nif x:\n    y()\n',
  ),
  block("with gone(1):\n    f(2,\n      3)\n", "enter(1)\nf(2,\n  3)\n"),
  block("with gone(1):\n\tx()\n\tif y:\n\t\tz()\n", "enter(1)\nx()\nif y:\n\tz()\n"),
  block("with gone(1):  # why\n    # how\n    x()\n", "enter(1)  # why\n# how\nx()\n"),
  block("with gone(1):\n    x()\n# outside\n", "enter(1)\nx()\n# outside\n"),
  block("class A:\n    with gone(1):\n        x()  # end", "class A:\n    enter(1)\n    x()  # end"),
])("a block that moves out loses its indentation and nothing else: %j", async (code, expected) => {
  expect(await after(shallow, raised, code)).toBe(expected);
});

test.each([
  ["two(1, 2)", "2 - 1"],
  ["two(1, x - y)", "(x - y) - 1".replace("(x - y)", "x - y")],
  ["two(x - y, 1)", "1 - (x - y)"],
  ["two(x ? y : z, () => 1)", "(() => 1) - (x ? y : z)"],
  ["two(x, y) * 2", "(y - x) * 2"],
  ["-two(x, y)", "-(y - x)"],
  ["two(x, y).z", "(y - x).z"],
  ["z - two(x, y)", "z - (y - x)"],
  ["two(x, y) - z", "y - x - z"],
  ["[two(x, y)]", "[y - x]"],
  ["await two(x, y)", "the new code `y - x` would be read differently in this place"],
  ["`${two(x, y)}`", "`${y - x}`"],
  ["two((x, y), z)", "z - (x, y)"],
  ["two(x, y = 1)", "(y = 1) - x"],
  ["two(two(1, 2), 3)", "3 - (2 - 1)"],
  ["x\ntwo(y, z)", "x\nz - y"],
  ["x\ntwo(y, (z, 1))", "the new code `(z, 1) - y` would be read differently in this place"],
  ["x;\ntwo(y, (z, 1))", "x;\n(z, 1) - y"],
])("parentheses: %s becomes %s", async (code, expected) => {
  expect(await after(javascript`two(${a}, ${b})`, javascript`${b} - ${a}`, code)).toBe(expected);
});

test.each([
  ["x(/* p */ 1, 2)", "y(1, /* p */ 2)"],
  ["x(1 /* p */, 2)", "y(1, 2)"],
])("what cannot keep its comment is held back or keeps it: %s", async (code) => {
  const result = await after(javascript`x(${a}, ${b})`, javascript`y(${b}, ${a})`, code);
  expect(result).toContain("/* p */");
});

test("arguments are carried as they stand", async () => {
  const was = javascript`old(${a}, ${rest})`;
  const becomes = javascript`now(${rest})`;
  expect(await after(was, becomes, "old(1, x, // c\n  ...y)")).toBe("now(x, // c\n  ...y)");
});

test.each([
  ["for x in hives: pass", "for x, hive in numbered(hives): pass"],
  ["for x in self.boxes: pass", "for x, box in numbered(self.boxes): pass"],
  ["for x in entries: pass", "for x, entry in numbered(entries): pass"],
  ["for x in data: pass", "for x, item in numbered(data): pass"],
  ["for x in glass: pass", "for x, item in numbered(glass): pass"],
  ["for x in lists: pass", "for x, item in numbered(lists): pass"],
  ["for x in hives: hive()", "for x, item in numbered(hives): hive()"],
  ["item = 1\nfor x in data: pass", "item = 1\nfor x, item_2 in numbered(data): pass"],
  [
    "def f():\n  for x in hives: pass\nhive = 1",
    "def f():\n  for x, hive in numbered(hives): pass\nhive = 1",
  ],
  [
    "def f(hive):\n  def g():\n    for x in hives: pass",
    "def f(hive):\n  def g():\n    for x, item in numbered(hives): pass",
  ],
])("a fresh name hides nothing: %j", async (code, expected) => {
  const item = fresh("item", { singularOf: c });
  const was = python`
    for x in ${c}:
        ${body}
  `;
  const becomes = python`
    for x, ${item} in numbered(${c}):
        ${body}
  `;
  expect(await after(was, becomes, code)).toBe(expected);
});
