import "uvran/node";
import {
  Engine,
  csharp,
  filesNaming,
  holes,
  java,
  javascript,
  php,
  python,
  ruby,
  textAfter,
} from "uvran/core";
import { SHIPPED } from "uvran/packs";
import { make, run } from "../rules/run-rule.js";

const { args, mods, body, value } = holes({
  args: "arguments",
  mods: "modifiers",
  body: "statements",
  value: "expression",
});

test.each([
  [
    "a.js",
    make({ was: javascript`old(${args})`, becomes: javascript`now(1, ${args})` }),
    "now(1)",
    "now(1, 2)",
  ],
  [
    "a.js",
    make({ was: javascript`old(${args})`, becomes: javascript`now(${args}, 1)` }),
    "now(1)",
    "now(2, 1)",
  ],
  [
    "a.py",
    make({ was: python`old(${args})`, becomes: python`now(a=1, ${args})` }),
    "now(a=1)",
    // A value behind a named one is no Python.
    "old(2)",
  ],
])("a list with nothing in it leaves no comma: %s", async (path, rule, empty, full) => {
  const end = path.endsWith(".js") ? ";" : "";
  const { now } = await run(rule, { [path]: `old()${end}\nold(2)${end}\n` });
  expect(now[path]).toBe(`${empty}${end}\n${full}${end}\n`);
});

test("modifiers that are not there leave no space", async () => {
  const rule = make({
    was: java`${mods} void old() { ${body} }`,
    becomes: java`${mods} void now() { ${body} }`,
  });
  const { now } = await run(rule, {
    "A.java": "class A {\n  void old() { a(); }\n  public void old() { b(); }\n}\n",
  });
  expect(now["A.java"]).toBe("class A {\n  void now() { a(); }\n  public void now() { b(); }\n}\n");
});

test("an assignment beside an operator stands in parentheses", async () => {
  const rule = make({ was: csharp`old(${value})`, becomes: csharp`x ?? ${value}` });
  const { now } = await run(rule, { "a.cs": "class A { object F() { return old(y = G()); } }\n" });
  expect(now["a.cs"]).toBe("class A { object F() { return x ?? (y = G()); } }\n");
});

const shipped = new Engine(
  SHIPPED.flatMap(({ rules }) => rules),
  {
    files: filesNaming([]),
    targets: { targetOf: () => ({ version: "9999", says: "by the test" }) },
  },
);

const rewritten = async (path: string, code: string): Promise<string> =>
  await textAfter(path, code, (await shipped.file(path, code))!.changes);

test("the lines of what stays move with the line that it hangs on", async () => {
  expect(
    await rewritten(
      "a.js",
      "function f(n) {\n  if (n !== null && n !== undefined) {\n    n.go(() => {\n      done(`\n   raw`);\n    });\n  }\n}\n",
    ),
  ).toBe("function f(n) {\n  n?.go(() => {\n    done(`\n   raw`);\n  });\n}\n");
});

test("parentheses that only the old code needed go", async () => {
  expect(await rewritten("a.js", "const g = (x) => !!(x && x.b);\nconst h = (x) => (x && x.b).c;\n")).toBe(
    "const g = (x) => !!x?.b;\nconst h = (x) => (x?.b).c;\n",
  );
  expect(await rewritten("a.php", "<?php function f(?Hive $x) { return !($x !== null ? $x : g()); }\n")).toBe(
    "<?php function f(?Hive $x) { return !($x ?? g()); }\n",
  );
});

test.each([
  ["a.py", make({ was: python`old(${args})`, becomes: python`now(a=1, ${args})` }), "old(2)\n"],
  ["a.rb", make({ was: ruby`old(${args})`, becomes: ruby`now(a: 1, ${args})` }), "old(2)\n"],
  ["a.php", make({ was: php`old(${args})`, becomes: php`now(a: 1, ${args})` }), "<?php\nold(2);\n"],
  [
    "a.cs",
    make({ was: csharp`Old(${args})`, becomes: csharp`Now(a: 1, ${args})` }),
    "class A { void F() { Old(2); } }\n",
  ],
])(
  "an argument without a name never comes to stand behind one that has one: %s",
  async (path, rule, code) => {
    const { now, plan } = await run(rule, { [path]: code });
    expect(now[path]).toBe(code);
    expect(plan.heldBack.map(({ reason }) => reason)).toEqual([
      "`2` would stand behind an argument that has a name",
    ]);
  },
);
