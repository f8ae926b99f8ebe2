import "uvran/node";
import {
  after,
  before,
  compile,
  containing,
  each,
  Engine,
  fresh,
  holes,
  inside,
  java,
  javascript,
  maybe,
  need,
  not,
  python,
  rule,
  textAfter,
  typescript,
  type Narrowing,
  type Snippet,
} from "uvran/core";

const { a, b, x, y, args, body, name, type } = holes({
  a: "expression",
  b: "expression",
  x: "expression",
  y: "expression",
  args: "arguments",
  body: "statements",
  name: "name",
  type: "type",
});

async function rewritten(
  code: string,
  was: Snippet | Snippet[],
  becomes: Snippet,
  where: readonly Narrowing[] = [],
  path = "a.ts",
): Promise<string> {
  const about = { id: "hive/one", kind: "idiom", title: "Move on", why: "It is old." } as const;
  const engine = new Engine([rule({ ...about, was, becomes, where, trials: [] })]);
  return textAfter(path, code, (await engine.file(path, code))!.changes);
}

test.each([
  [
    "inside",
    [inside(javascript`function ${name}() { ${body} }`)],
    "function f() { old(1); }\nold(2);",
    "function f() { fresh(1, f); }\nold(2);",
  ],
  [
    "inside, up to the next function",
    [inside(javascript`if (${name}) { ${body} }`, { upTo: "function" })],
    "if (ready) { old(1); () => old(2); }",
    "if (ready) { fresh(1, ready); () => old(2); }",
  ],
  [
    "containing",
    [containing(javascript`queen.${name}`)],
    "old(queen.age); old(worker.age);",
    "fresh(queen.age, age); old(worker.age);",
  ],
  [
    "before",
    [before(javascript`close(${name});`)],
    "old(1);\nx();\nclose(lid);\nold(2);",
    "fresh(1, lid);\nx();\nclose(lid);\nold(2);",
  ],
  [
    "directly before",
    [before(javascript`close(${name});`, { directly: true })],
    "old(1);\nx();\nold(2);\nclose(lid);",
    "old(1);\nx();\nfresh(2, lid);\nclose(lid);",
  ],
  [
    "after",
    [after(javascript`const ${name} = open();`)],
    "old(1);\nconst lid = open();\nx(old(2));",
    "old(1);\nconst lid = open();\nx(fresh(2, lid));",
  ],
] as const)("%s narrows, and fills the holes of its own pattern", async (_, where, code, now) => {
  expect(await rewritten(code, javascript`old(${x})`, javascript`fresh(${x}, ${name})`, where)).toBe(now);
});

test("not is the opposite; a hole in both means the same code", async () => {
  const where = [not(inside(javascript`if (has(${x})) { ${body} }`))];
  const code = "if (has(a)) { old(a); old(b); }";
  const now = "if (has(a)) { old(a); fresh(b); }";
  expect(await rewritten(code, javascript`old(${x})`, javascript`fresh(${x})`, where)).toBe(now);
});

test("an optional part is matched with and without, and rendered where its holes stand for something", async () => {
  const was = typescript`function ${name}(${x})${maybe(typescript`: ${type}`)} { old(); }`;
  const becomes = typescript`function ${name}(${x})${maybe(typescript`: Promise<${type}>`)} { fresh(); }`;
  const code = "function f(q): number { old(); }\nfunction g(q) { old(); }";
  expect(await rewritten(code, was, becomes)).toBe(
    "function f(q): Promise<number> { fresh(); }\nfunction g(q) { fresh(); }",
  );
});

test("a hole is narrowed by text, pattern and kind of node", async () => {
  const { getter, call, digits } = holes({
    getter: { kind: "name", text: /^get[A-Z]/ },
    call: { kind: "expression", like: javascript`weigh(${y})`, unlike: javascript`weigh(0)` },
    digits: { kind: "expression", node: ["number", "string"] },
  });
  expect(
    await rewritten("a.getBox(); a.setBox();", javascript`${a}.${getter}()`, javascript`${a}.${getter}`),
  ).toBe("a.getBox; a.setBox();");
  expect(
    await rewritten(
      "f(weigh(b), weigh(0), b);f(weigh(0), 1, 1)",
      javascript`f(${call}, ${args})`,
      javascript`g(${y}, ${args})`,
    ),
  ).toBe("g(b, weigh(0), b);f(weigh(0), 1, 1)");
  expect(await rewritten('f(1); f("a"); f(b);', javascript`f(${digits})`, javascript`g(${digits})`)).toBe(
    'g(1); g("a"); f(b);',
  );
});

test("a comparison fits with its sides either way, also where a hole occurs twice", async () => {
  const missing = javascript`${a} === null || ${a} === undefined`;
  const code = "x(null === q || q === undefined, q === null || undefined === r);";
  expect(await rewritten(code, missing, javascript`none(${a})`)).toBe(
    "x(none(q), q === null || undefined === r);",
  );
  const choice = javascript`${a} === ${b} ? ${a} : 0`;
  expect(await rewritten("x(p === q ? q : 0);", choice, javascript`same(${a}, ${b})`)).toBe("x(same(q, p));");
});

test("what stood on the other side of a swapped comparison is not lost", async () => {
  const was = javascript`${a} === null`;
  expect(
    await rewritten("x(null === q, r === null);", was, javascript`ready && ${a} === null`, [
      not(inside(javascript`ready && ${b}`)),
    ]),
  ).toBe("x(ready && q === null, ready && r === null);");
});

test("text is matched in any quotes that change nothing, and only there", async () => {
  const { part } = holes({ part: "text" });
  const was = javascript`icon("bee-${part}")`;
  const code = `icon('bee-queen'); icon("bee-it's"); icon('bee-"x"'); icon("wasp");`;
  expect(await rewritten(code, was, javascript`icon("new/${part}.svg")`)).toBe(
    `icon("new/queen.svg"); icon("new/it's.svg"); icon('bee-"x"'); icon("wasp");`,
  );
});

const Hive = need("yard", "Hive");

test.each([
  ["a.py", "from yard import Hive\nHive.mark(1)\n", "certain"],
  ["a.py", "from yard import Hive as Box\nBox.mark(1)\n", "certain"],
  ["a.py", "import yard\nyard.Hive.mark(1)\n", "certain"],
  ["a.py", "import yard as y\ny.Hive.mark(1)\n", "certain"],
  ["a.py", "from shed import Hive\nHive.mark(1)\n", undefined],
  ["a.py", "class Hive: pass\nHive.mark(1)\n", undefined],
  ["a.py", "import yard\ndef f(yard):\n    yard.Hive.mark(1)\n", undefined],
  ["a.py", "from yard import *\nHive.mark(1)\n", "possible"],
  ["a.py", "# of the yard\nHive.mark(1)\n", "possible"],
  ["a.js", 'import { Hive } from "yard";\nHive.mark(1);\n', "certain"],
  ["a.js", 'import { Hive as Box } from "yard";\nBox.mark(1);\n', "certain"],
  ["a.js", 'import * as yard from "yard";\nyard.Hive.mark(1);\n', "certain"],
  ["a.js", 'const { Hive } = require("yard");\nHive.mark(1);\n', "certain"],
  ["a.js", 'import { Hive } from "./yard.js";\nHive.mark(1);\n', undefined],
  ["A.java", "import yard.Hive;\nclass A { void f() { Hive.mark(1); } }\n", "certain"],
  ["A.java", "class A { void f() { yard.Hive.mark(1); } }\n", "certain"],
  ["A.java", "import shed.Hive;\nclass A { void f() { Hive.mark(1); } }\n", undefined],
])("need() in a pattern fits all that names it, in %s: %j", async (path, code, trust) => {
  const tag = path.endsWith(".py") ? python : path.endsWith(".js") ? javascript : java;
  const marked = rule({
    id: "hive/marked",
    kind: "idiom",
    title: "Stamp it",
    why: "It is old.",
    was: tag`${Hive}.mark(${x})`,
    becomes: tag`${Hive}.stamp(${x})`,
    trials: [],
  });
  const result = await new Engine([marked]).file(path, code);
  expect(result?.changes.map((change) => change.trust)).toEqual(trust === undefined ? [] : [trust]);
  if (trust !== undefined && trust !== "possible")
    expect(await textAfter(path, code, result!.changes)).toBe(code.replace(".mark(", ".stamp("));
});

test("each puts a snippet in the place of every piece, with the parentheses that it needs there", async () => {
  const [was, now] = [
    python`weigh(${x})`,
    python`${each(python`net(${y})`, { in: x }).becomes(python`${y} - tare`)}`,
  ];
  expect(await rewritten("n = weigh(2 * net(jar) + net(lid))\n", was, now, [], "a.py")).toBe(
    "n = 2 * (jar - tare) + (lid - tare)\n",
  );
});

test("what each gives can be the code of another each; of pieces that overlap the outermost counts", async () => {
  const once = each(python`net(${y})`, { in: x }).becomes(y);
  const twice = each(python`gross(${y})`, { in: once }).becomes(python`full(${y})`);
  expect(
    await rewritten(
      "n = weigh(net(1) + gross(net(2)))\n",
      python`weigh(${x})`,
      python`kept(${twice})`,
      [],
      "a.py",
    ),
  ).toBe("n = kept(1 + full(net(2)))\n");
});

test("backslashes in a snippet are the code's own", async () => {
  expect(
    await rewritten('x.split("\\n")\n', python`${x}.split("\n")`, python`${x}.lines()`, [], "a.py"),
  ).toBe("x.lines()\n");
});

test("what only a replacement can have is refused in a pattern", () => {
  const about = { id: "hive/one", kind: "idiom", title: "Move on", why: "It is old.", trials: [] } as const;
  const wrong = javascript`${each(javascript`f`, { in: x }).becomes(y)}(1)`;
  const says = "go into replacements";
  expect(() => rule({ ...about, was: wrong, becomes: javascript`f(${x})` })).toThrow(says);
  expect(() => inside(javascript`f(${fresh("hive")})`)).toThrow(says);
});

test("a snippet with too many optional parts says so", () => {
  const p = maybe(javascript`, 1`);
  const many = javascript`f(${x}${p}${p}${p}${p}${p}${p}${p})`;
  expect(() => compile(many, "javascript")).toThrow("too many optional parts");
});
