import "uvran/node";
import {
  cpp,
  everyUseOf,
  holes,
  java,
  javascript,
  php,
  python,
  renamed,
  typescript,
  use,
  type Rule,
  type RuleSpec,
} from "uvran";
import { make, run } from "./run-rule.js";

const { name, given, body, type, member } = holes({
  name: "name",
  given: "arguments",
  body: "statements",
  type: "type",
  member: "name",
});

const handle = make({
  was: cpp`${type} *${name} = open(${given});`,
  becomes: cpp`std::unique_ptr<${type}> ${name}(open(${given}));`,
  uses: everyUseOf(name, [
    use(cpp`release(${name});`).goes(),
    use(cpp`${name}->${member}`).stays(),
    use(cpp`${name}`)
      .as("argument")
      .becomes(cpp`${name}.get()`),
  ]),
});

test("each use becomes what its clause says", async () => {
  const code =
    "void f() {\n  Hive *h = open(1);\n  h->go();\n  weigh(h, h->size);\n  release(h); // done\n}\n";
  const { now, plan } = await run(handle, { "a.cpp": code });
  expect(now["a.cpp"]).toBe(
    "void f() {\n  std::unique_ptr<Hive> h(open(1));\n  h->go();\n  weigh(h.get(), h->size);\n  // done\n}\n",
  );
  expect(plan.changes[0]!.evidence).toContainEqual({
    answer: "yes",
    code: "name.other-uses",
    says: "all 4 other uses are known",
  });
});

test("of two clauses around a use the larger covers it", async () => {
  const raw = make({
    was: cpp`${type} *${name} = open(${given});`,
    becomes: cpp`std::unique_ptr<${type}> ${name}(open(${given}));`,
    uses: everyUseOf(name, [
      use(cpp`release(${name});`).goes(),
      use(cpp`if (${name}) { release(${name}); }`).goes(),
    ]),
  });
  const code = "void f() {\n  Hive *h = open(1);\n  if (h) {\n    release(h);\n  }\n}\n";
  const { now } = await run(raw, { "a.cpp": code });
  expect(now["a.cpp"]).toBe("void f() {\n  std::unique_ptr<Hive> h(open(1));\n}\n");
});

test.each([
  ["a use that no clause covers", "  Hive *h = open(1);\n  release(h);\n  return h;", "return h;"],
  ["one in a lambda", "  Hive *h = open(1);\n  auto g = [h] { return h->size; };", "auto g = [h]"],
  [
    "a statement that cannot simply go",
    "  Hive *h = open(1);\n  if (a) release(h);\n  g(1);",
    "cannot go from where",
  ],
  ["its address taken", "  Hive *h = open(1);\n  fill(&h);", "fill(&h)"],
  [
    "another variable of the name is not a use",
    "  Hive *h = open(1);\n  { int h = 2; g(h + 1); }",
    undefined,
  ],
])("%s", async (_title, lines, reason) => {
  const { plan } = await run(handle, { "a.cpp": `Hive *f() {\n${lines}\n}\n` });
  expect(plan.heldBack.map((entry) => entry.reason)).toEqual(
    reason === undefined ? [] : [expect.stringContaining(reason)],
  );
});

test("as a condition it says whether all uses are known", async () => {
  const idle = make({
    was: javascript`const ${name} = wrap(${given});`,
    given: [everyUseOf(name, [use(javascript`${name}.get()`).stays()])],
    becomes: javascript`const ${name} = box(${given});`,
  });
  const { plan } = await run(idle, {
    "a.js": "{ const h = wrap(1); h.get(); }\n{ const k = wrap(1); k.get(); send(k); }\n",
  });
  expect(plan.changes.map(({ line, trust }) => [line, trust])).toEqual([[1, "certain"]]);
  expect(plan.heldBack[0]).toMatchObject({ line: 2, reason: expect.stringContaining("send(k)") });
});

const renameTo = (was: RuleSpec["was"], newName: string): Rule =>
  make({ was, where: [(match) => match.textOf(name) === "jar"], uses: renamed(name, newName) });
const pyFunction = renameTo(
  python`
    def ${name}(${holes({ p: "parameters" }).p}):
        ${body}
  `,
  "pot",
);
const jsConstant = renameTo(javascript`const ${name} = ${holes({ v: "expression" }).v};`, "pot");

test("a rename follows imports and aliases, and leaves what only looks the same", async () => {
  const { now, plan } = await run(pyFunction, {
    "yard/a.py": "def jar(jar_size):\n    return jar_size\n\n\nprint('jar', jar(1), f(jar=2))\n",
    "yard/b.py": "from yard.a import jar\njar(1)\n\n\ndef g(jar):\n    return jar\n",
    "yard/c.py": "from .a import jar as glass\nglass(1)\n",
    "yard/d.py": "import yard.a\nyard.a.jar(1)\n",
    "yard/e.py": "from yard import a\na.jar(2)\n",
    "yard/f.py": "from yard.other import jar\njar(1)\n",
    "yard/g.py": "from .a import *\njar(3)\n",
  });
  expect(now).toEqual({
    "yard/a.py": "def pot(jar_size):\n    return jar_size\n\n\nprint('jar', pot(1), f(jar=2))\n",
    "yard/b.py": "from yard.a import pot\npot(1)\n\n\ndef g(jar):\n    return jar\n",
    "yard/c.py": "from .a import pot as glass\nglass(1)\n",
    "yard/d.py": "import yard.a\nyard.a.pot(1)\n",
    "yard/e.py": "from yard import a\na.pot(2)\n",
    "yard/f.py": "from yard.other import jar\njar(1)\n",
    "yard/g.py": "from .a import *\npot(3)\n",
  });
  const [change] = plan.changes;
  expect(change!.trust).toBe("likely");
  expect(change!.evidence).toContainEqual({
    answer: "unknown",
    code: "name.reflection",
    says: "'jar' may mean the name, and stays as it is",
    line: 5,
    range: { start: { line: 5, column: 7 }, end: { line: 5, column: 12 } },
  });
});

test("a rename in modules: exports, short forms, namespaces", async () => {
  const { now } = await run(jsConstant, {
    "a.js": "export const jar = 1;\nexport const box = { jar, lid: jar };\nexport { jar as glass };\n",
    "b.js": 'import { jar } from "./a.js";\nimport * as a from "./a.js";\nuse({ jar }, a.jar, a.glass);\n',
    "c.ts": 'import { jar as mine } from "./a";\nmine;\n',
    "d.js": "const jar = 2;\nexport { jar };\n",
  });
  expect(now).toEqual({
    "a.js": "export const pot = 1;\nexport const box = { jar: pot, lid: pot };\nexport { pot as glass };\n",
    "b.js":
      'import { pot } from "./a.js";\nimport * as a from "./a.js";\nuse({ jar: pot }, a.pot, a.glass);\n',
    "c.ts": 'import { pot as mine } from "./a";\nmine;\n',
    "d.js": "const pot = 2;\nexport { pot as jar };\n",
  });
});

test.each<[string, Rule, Record<string, string>, string]>([
  [
    "the new name is taken",
    jsConstant,
    { "a.js": "const jar = 1;\nlet pot;\n" },
    "`pot` is taken, at line 2",
  ],
  [
    "the new name is taken in another file",
    jsConstant,
    { "a.js": "export const jar = 1;\n", "b.js": 'import { jar } from "./a.js";\nconst pot = jar;\n' },
    "taken in b.js",
  ],
])("held back: %s", async (_title, one, files, reason) => {
  const { plan, now } = await run(one, files);
  expect(plan.heldBack.map((entry) => entry.reason)).toEqual([expect.stringContaining(reason)]);
  expect(now).toEqual(files);
});

test.each<[string, Rule, Record<string, string>, string]>([
  [
    "a file that cannot be read",
    jsConstant,
    { "a.js": "export const jar = 1;\n" },
    "code outside of this project may use `jar`",
  ],
  [
    "brought in while running",
    jsConstant,
    { "a.js": "export const jar = 1;\n", "b.js": 'import("./a.js").then((m) => m.jar);\n' },
    "b.js:1: a.js is brought in here in a way that is not followed",
  ],
  [
    "scripts in pages",
    jsConstant,
    {
      "a.js": "export const jar = 1;\n",
      "b.html": '<script type="module">import { jar } from "./a.js";</script>\n',
    },
    "b.html names `jar` and is not followed",
  ],
  [
    "packages by name",
    jsConstant,
    { "lib/hive.js": "export const jar = 1;\n", "b.js": 'import { jar } from "@yard/hive";\n' },
    "b.js:1: `@yard/hive` may be lib/hive.js",
  ],
  [
    "a module reached as an object",
    pyFunction,
    { "a.py": "def jar():\n    return 1\n\n\nsys.modules['a'].jar()\n" },
    "`jar` is a member of `sys.modules['a']`, whose class is not known",
  ],
  [
    "arguments by their names",
    make({
      was: python`
        def f(${name}):
            ${body}
      `,
      uses: renamed(name, "pot"),
    }),
    { "a.py": "def f(jar):\n    return jar\n\n\nf(jar=1)\n" },
    "`jar` may be passed by its name here",
  ],
  [
    "members of unknown objects",
    renameTo(java.member`private int ${name};`, "pot"),
    { "A.java": "class A {\n  private int jar;\n  boolean same(B o) { return o.jar == jar; }\n}\n" },
    "`jar` is a member of `o`, whose class is not known",
  ],
  [
    "variables by their names",
    make({
      was: php`${name} = ${holes({ v: "expression" }).v};`,
      where: [(m) => m.textOf(name) === "$jar"],
      uses: renamed(name, "pot"),
    }),
    { "a.php": "<?php\nfunction f() { $jar = 1; return compact('jar'); }\n" },
    "`compact` can reach `jar` by its name",
  ],
])("said where not all uses can be known: %s", async (_title, one, files, says) => {
  const { plan } = await run(one, files);
  const [change] = plan.changes;
  expect(change!.trust).not.toBe("certain");
  const placed = change!.evidence.map((ground) =>
    ground.path === undefined ? ground.says : `${ground.path}:${ground.line}: ${ground.says}`,
  );
  expect(placed).toContainEqual(expect.stringContaining(says));
});

test("changes that reach into one another's files are settled, the later one held back whole", async () => {
  const both = make({
    was: typescript`export const ${name} = ${holes({ v: "expression" }).v};`,
    where: [(match) => !match.textOf(name).endsWith("_2")],
    uses: renamed(name, (match) => `${match.textOf(name)}_2`),
  });
  const files = {
    "a.ts": "export const jar = 1;\n",
    "b.ts": 'import { jar } from "./a";\nexport const lid = jar;\n',
  };
  const { plan, now } = await run(both, files);
  expect(plan.changes.length + plan.heldBack.length).toBe(2);
  expect(now["a.ts"]).toContain("jar_2");
  expect(now["b.ts"]).toContain("{ jar_2 }");
});

test.each<[string, Rule, Record<string, string>, Record<string, string>]>([
  [
    "a method in header and source",
    renameTo(cpp.member`int ${name}();`, "pot"),
    {
      "hive.h": "class Hive {\n  int jar();\n  int twice() { return jar() * 2; }\n};\n",
      "hive.cpp": '#include "hive.h"\nint Hive::jar() { return 1; }\nint Box::jar() { return 2; }\n',
    },
    {
      "hive.h": "class Hive {\n  int pot();\n  int twice() { return pot() * 2; }\n};\n",
      "hive.cpp": '#include "hive.h"\nint Hive::pot() { return 1; }\nint Box::jar() { return 2; }\n',
    },
  ],
  [
    "a static method in a package",
    renameTo(java.member`static int ${name}() { return 1; }`, "pot"),
    {
      "yard/Hive.java": "package yard;\nclass Hive {\n  static int jar() { return 1; }\n}\n",
      "yard/Box.java": "package yard;\nclass Box {\n  int f() { return Hive.jar(); }\n}\n",
      "shed/Box.java": "package shed;\nclass Box {\n  int f(int jar) { return jar; }\n}\n",
    },
    {
      "yard/Hive.java": "package yard;\nclass Hive {\n  static int pot() { return 1; }\n}\n",
      "yard/Box.java": "package yard;\nclass Box {\n  int f() { return Hive.pot(); }\n}\n",
    },
  ],
  [
    "a function in a namespace",
    renameTo(
      php`
        function ${name}() {
            ${body}
        }
      `,
      "pot",
    ),
    {
      "a.php": "<?php\nnamespace Yard;\nfunction jar() { return 1; }\n",
      "b.php": "<?php\nnamespace Yard;\necho jar() + JAR();\n",
      "c.php": "<?php\nnamespace Shed;\necho jar();\n",
    },
    {
      "a.php": "<?php\nnamespace Yard;\nfunction pot() { return 1; }\n",
      "b.php": "<?php\nnamespace Yard;\necho pot() + pot();\n",
    },
  ],
])("a rename follows %s", async (_title, one, files, changed) => {
  const { now, plan } = await run(one, files);
  expect(plan.heldBack).toEqual([]);
  expect(now).toEqual({ ...files, ...changed });
});
