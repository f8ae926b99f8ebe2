// Examples for docs/codes.md, for the codes of which no trial of a shipped rule says anything.
import {
  builtin,
  byType,
  canLeaveEarly,
  condition,
  cpp,
  declarationOfHole,
  everyUseOf,
  everyWayReaches,
  holes,
  isCertainlyAssigned,
  isOfType,
  java,
  javascript,
  need,
  python,
  renamed,
  ruby,
  rule,
  text,
  typescript,
  use,
  usedAfter,
  valuesOf,
} from "uvran/core";

const { x, y, name, body } = holes({ x: "expression", y: "expression", name: "name", body: "statements" });

const made = (what, parts) => {
  const texts = { kind: "idiom", title: "Show a code", why: "It is an example.", trials: [] };
  return rule({ id: `own/${what}`, ...texts, ...parts });
};

/** Rules of the reader's own, by what they do, and the code for which they say something. */
const OWN = [
  [
    {
      "from-library": {
        was: python`${need("hives", "load")}(1)`,
        becomes: python`load(2)`,
      },
    },
    "hives.py",
    "n = load(1)\n",
  ],
  [
    {
      later: {
        was: python`weigh(${name})`,
        given: [usedAfter(name)],
        becomes: python`measure(${name})`,
      },
    },
    "hives.py",
    "def f(jars):\n    weigh(jars)\n    return jars\n",
  ],
  [
    { "built-in": { was: python`len(${x})`, given: [builtin("len")], becomes: python`${x}.size` } },
    "hives.py",
    "n = len(hives)\nexec(text)\n",
  ],
  [
    { renamed: { was: javascript`const ${name} = 1;`, uses: renamed(name, "weigh") } },
    "hives.js",
    "function f() {\n  const jars = 1;\n  return weigh(jars);\n}\n",
  ],
  [
    { renamed: { was: java`int ${name} = 1;`, uses: renamed(name, "pots") } },
    "Hives.java",
    "class Hives {\n  int f() {\n    int jars = 1;\n    return jars + jars;\n  }\n}\n",
  ],
  [
    {
      assigned: {
        was: python`weigh(${name})`,
        given: [
          condition("it has a value", (match) =>
            isCertainlyAssigned(declarationOfHole(match, name), match.the(name)),
          ),
        ],
        becomes: python`weighed(${name})`,
      },
    },
    "hives.py",
    "def f(n):\n    if n:\n        jar = 1\n    weigh(jar)\n",
  ],
  [
    {
      "to-the-end": {
        was: javascript`open(); ${body} close();`,
        given: [
          condition("its end is reached", (match) => everyWayReaches(match.nodes[0], match.nodes.at(-1))),
        ],
        becomes: javascript`held(() => { ${body} });`,
      },
    },
    "hives.js",
    "function f(n) {\n  open();\n  if (n) return;\n  close();\n}\n",
  ],
  [
    {
      leaves: {
        was: javascript`open(); ${body} close();`,
        given: [condition("it leaves", (match) => canLeaveEarly(match.nodes[1]))],
        becomes: javascript`held(() => { ${body} });`,
      },
    },
    "hives.js",
    "function f(n) {\n  open();\n  if (n) return;\n  close();\n}\n",
  ],
  [
    {
      "not-followed": {
        was: cpp`weigh(${name});`,
        given: [
          condition("it has a value", (match) =>
            isCertainlyAssigned(declarationOfHole(match, name), match.the(name)),
          ),
        ],
        becomes: cpp`weighed(${name});`,
      },
    },
    "hives.cpp",
    "void f(bool a) {\n  int jars;\n  if (a) goto end;\n  jars = 1;\n  end: weigh(jars);\n}\n",
  ],
  [
    {
      "may-be-missing": {
        was: typescript`weigh(${x})`,
        given: [
          condition("the hive is never missing", (match) => {
            const type = valuesOf(match, match.the(x));
            return byType("value.null", type, `\`hive\` is declared \`${type.text}\``);
          }),
        ],
        becomes: typescript`weighed(${x})`,
      },
    },
    "hives.ts",
    "function f(hive: string) {\n  weigh(hive);\n}\n",
  ],
  [
    { typed: { was: python`weigh(${x})`, given: [isOfType(x, "Hive")], becomes: python`weighed(${x})` } },
    "hives.py",
    "def f(hive):\n    weigh(hive)\n",
  ],
  [
    {
      broken: {
        was: javascript`weigh(${x});`,
        becomes: ({ node }) => [{ start: node.start, end: node.end - 2 }],
      },
    },
    "hives.js",
    "weigh(1);\nscale(2);\n",
  ],
  [
    { "no-comment": { was: javascript`weigh(${x})`, becomes: javascript`weighed()` } },
    "hives.js",
    "function f() {\n  return weigh( // why\n    1);\n}\n",
  ],
  [
    { "read-differently": { was: javascript`weigh(${x}, ${y})`, becomes: javascript`${y} - ${x}` } },
    "hives.js",
    "scale\nweigh(a, (b, c))\n",
  ],
  [
    { renamed: { was: javascript`const ${name} = 1;`, uses: renamed(name, "pots") } },
    "hives.js",
    "function f(text) {\n  const jars = 1;\n  eval(text);\n  return jars;\n}\n",
  ],
  [
    {
      both: {
        was: javascript`const ${name} = load();`,
        uses: everyUseOf(name, [
          use(javascript`weigh(${name}, ${y})`).becomes(javascript`left(${y})`),
          use(javascript`weigh(${y}, ${name})`).becomes(javascript`right(${y})`),
        ]),
        becomes: javascript`load();`,
      },
    },
    "hives.js",
    "function f() {\n  const jar = load();\n  weigh(jar, jar);\n}\n",
  ],
  [
    { "laid-out": { was: python`weigh(${x})`, becomes: () => [text("1 +\n  2")] } },
    "hives.py",
    "n = weigh(1)\n",
  ],
  [
    {
      there: { was: javascript`left(${x})`, becomes: javascript`right(${x})` },
      back: { was: javascript`right(${x})`, becomes: javascript`left(${x})` },
    },
    "hives.js",
    "left(1);\n",
  ],
  [
    { needed: { was: ruby`weigh(${x})`, becomes: ruby`${need("scales", "Scale")}.weigh(${x})` } },
    "hives.rb",
    "Scale = 1\nweigh(Scale)\n",
  ],
];

/** Shipped rules by their ids, and the code for which they say something. */
const SHIPPED = [
  ["javascript/guarded-read", "notes.md", "A hive:\n\n```js\nconst w = hive && hive.weight;\n```\n"],
  [
    "javascript/guarded-read",
    "hives.js",
    "// uvran-keep javascript/guarded-read: the form asks for it\nconst w = hive && hive.weight;\n",
  ],
  [
    "cpp/null-pointer",
    "hives.cpp",
    "void weigh() {\n  int *jars = NULL;\n}\nvoid load() {\n  return 1 +;\n}\n",
  ],
  [
    "javascript/value-or-fallback",
    "hives.ts",
    "const n = (hive: string | undefined) => (hive !== null ? hive : load());\n",
  ],
  ["javascript/guarded-read", "hives.js", "const w =\n  hive && // eslint-disable-line\n  hive.weight;\n"],
  [
    "csharp/null-test",
    "Hives.cs",
    "class Hives {\n  bool F(Hive hive) {\n    return !hive?.Queen.Old && (object)hive == null;\n  }\n}\n",
  ],
  [
    "csharp/scoped-resource",
    "Hives.cs",
    "using System.IO;\n\nclass Hives {\n  void F(string path) {\n    var scale = new Scale(path);\n    try {\n      scale.Weigh();\n    } finally {\n      scale.Close();\n    }\n  }\n}\n\nclass Scale : System.IDisposable {\n  public void Dispose() {}\n  public void Close() {}\n}\n",
  ],
  [
    "powershell/released-in-finally",
    "hives.ps1",
    "function F($path) {\n    $file = [System.IO.File]::OpenRead($path)\n    Weigh $file\n    $file.Dispose()\n}\n",
  ],
];

/** The examples; `packs` are those that ship. */
export function codeExamples(packs) {
  const all = packs.flatMap(({ rules }) => rules);
  return [
    ...OWN.map(([rules, path, text]) => ({
      rules: Object.entries(rules).map(([id, parts]) => made(id, parts)),
      path,
      text,
    })),
    ...SHIPPED.map(([id, path, text]) => ({ rules: all.filter((one) => one.id === id), path, text })),
  ];
}
