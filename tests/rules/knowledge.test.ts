import "uvran/node";
import {
  all,
  any,
  condition,
  Engine,
  escapes,
  holes,
  isOfType,
  not,
  onlyUse,
  rule,
  unknown,
  usedAfter,
  yes,
  type Condition,
  type LanguageId,
  type Snippet,
} from "uvran/core";
import * as core from "uvran/core";

const { x, given } = holes({ x: "expression", given: "arguments" });
const { n } = holes({ n: "name" });
const SUFFIX: Partial<Record<LanguageId, string>> = {
  python: "py",
  javascript: "js",
  typescript: "ts",
  java: "java",
  php: "php",
  ruby: "rb",
  csharp: "cs",
  cpp: "cpp",
};

/** What a condition answers for the first match of `look(x)` in some code. */
async function answer(language: LanguageId, code: string, asked: Condition, was?: Snippet): Promise<string> {
  const tag = core[language as "python"];
  const one = rule({
    id: "test/asks",
    kind: "idiom",
    title: "t",
    why: "w",
    was: was ?? tag`look(${x})`,
    given: [asked],
    becomes: was ? core.javascript`const ${n} = seen();` : tag`seen()`,
    trials: [],
  });
  const result = (await new Engine([one]).file(`a.${SUFFIX[language]}`, code))!;
  if (result.heldBack[0]) return `no: ${result.heldBack[0].reason}`;
  const [change] = result.changes;
  return `${change!.trust}: ${change!.evidence[0]!.says}`;
}

test.each<[LanguageId, string, Condition, string]>([
  ["python", "a = []\nlook(a)", isOfType(x, "list"), "certain: `[]` is a literal"],
  ["python", "a = []\na = ()\nlook(a)", isOfType(x, "list"), "possible"],
  ["python", "a = []\nfill(globals())\nlook(a)", isOfType(x, "list"), "possible"],
  ["python", "def f(a: Hive):\n    look(a)", isOfType(x, "Hive"), "certain: `a` is declared `Hive`"],
  [
    "python",
    "from yard import Hive\na = Hive()\nlook(a)",
    isOfType(x, "Hive", { module: "yard" }),
    "certain: `Hive()` makes one",
  ],
  [
    "python",
    "from shed import Hive\na = Hive()\nlook(a)",
    isOfType(x, "Hive", { module: "yard" }),
    "possible",
  ],
  ["python", "class Box: pass\na = Box()\nlook(a)", isOfType(x, "Hive"), "no"],
  ["python", "class Box(Hive): pass\na = Box()\nlook(a)", isOfType(x, "Hive"), "certain"],
  [
    "python",
    "class Box(List[Hive], metaclass=Hive): pass\na = Box()\nlook(a)",
    isOfType(x, "Hive"),
    "possible",
  ],
  ["java", "class Box extends Crate<Hive> { void f() { look(this); } }", isOfType(x, "Hive"), "possible"],
  ["python", "def make() -> Hive: pass\nlook(make())", isOfType(x, "Hive"), "certain: `make` returns `Hive`"],
  ["javascript", "const a = new Map();\nlook(a)", isOfType(x, "Map"), "certain"],
  ["typescript", "class A { f() { look(this); } }", isOfType(x, "A"), "certain"],
  ["java", "class A { void f(java.util.List a) { look(a); } }", isOfType(x, "List"), "certain"],
  ["java", "class A { void f() { var a = new Hive(); look(a); } }", isOfType(x, "Hive"), "certain"],
  ["csharp", "class A { void F() { Hive a = Make(); look(a); } }", isOfType(x, "Hive"), "certain"],
  ["cpp", "void f(Hive *a) { look(a); }", isOfType(x, "Hive"), "certain"],
  ["php", "<?php function f(Hive $a) { look($a); }", isOfType(x, "Hive"), "certain"],
  ["ruby", "a = Hive.new\nlook(a)", isOfType(x, "Hive"), "certain"],
  [
    "python",
    "def f(a):\n    look(a)",
    isOfType(x, "Hive"),
    "possible: nothing in this file says what `a` is",
  ],
])("%s: `%s`", async (language, code, asked, expected) => {
  expect(await answer(language, code, asked)).toContain(expected);
});

test("the type that a function of another file is declared to return", async () => {
  const one = rule({
    id: "test/asks",
    kind: "idiom",
    title: "t",
    why: "w",
    was: core.python`look(${x})`,
    given: [isOfType(x, "Hive")],
    becomes: core.python`seen()`,
    trials: [],
  });
  const files = core.filesNaming([
    {
      path: "yard/make.py",
      text: "from .hive import Hive\ndef make() -> Hive: pass\nasync def later() -> Hive: pass\n",
    },
  ]);
  const code = "from .make import make, later\nh = make()\nlook(h)\nlook(later())\n";
  const { changes } = (await new Engine([one], { files }).file("yard/a.py", code))!;
  expect(changes.map(({ line, trust }) => [line, trust])).toEqual([
    [3, "certain"],
    [4, "possible"],
  ]);
  expect(changes[0]!.evidence[0]!.says).toBe("`make` returns `Hive` in yard/make.py");
});

const jar = core.javascript`const ${n} = open(${given});`;

test.each<[string, Condition, string]>([
  ["{ const a = open(1); a.go(); }", usedAfter(n), "certain: `a` is read later"],
  ["{ const a = open(1); }", usedAfter(n), "no"],
  ["{ const a = open(1); }", not(usedAfter(n)), "certain: `a` is not read later"],
  ["{ const a = open(1); f(() => a); }", not(usedAfter(n)), "likely"],
  ["{ const a = open(1); }", onlyUse(n), "certain"],
  ["const a = open(1); export { a };", onlyUse(n), "no: `a` is used here too"],
  ["export const a = open(1);", onlyUse(n), "likely: `a` can be used in files that were not looked at"],
  ["export const a = open(1);", not(usedAfter(n)), "likely: `a` can be read from outside"],
  ["{ const a = open(1); a.go(); }", onlyUse(n), "no: `a` is used here too"],
  ["function f() { const a = open(1); return a; }", escapes(n), "certain: `a` is returned"],
  ["function f() { const a = open(1); a.go(); }", escapes(n), "no: `a` stays"],
  ["function f() { const a = open(1); keep(a); }", not(escapes(n)), "likely: `a` is passed on"],
])("javascript: `%s`", async (code, asked, expected) => {
  expect(await answer("javascript", code, asked, jar)).toContain(expected);
});

const says = (is: core.Answer): Condition => condition("said", () => is);
const [Y, N, U] = [says(yes("own.y", "y")), says(core.no("own.n", "n")), says(unknown("own.u", "u"))];

test.each<[string, Condition, string]>([
  ["all, yes", all(Y, Y), "certain"],
  ["all, unknown", all(Y, U), "likely"],
  ["all, no", all(U, N), "no: n"],
  ["any, yes", any(N, U, Y), "certain"],
  ["any, unknown", any(N, U), "likely"],
  ["any, no", any(N, N), "no"],
  ["not yes", not(Y), "no"],
  ["not no", not(N), "certain"],
  ["not unknown", not(U), "likely"],
  [
    "the lowest trust of all",
    all(
      condition("p", () => unknown("own.p", "p"), { unknownIs: "possible" }),
      U,
    ),
    "possible",
  ],
])("conditions together: %s", async (_title, asked, expected) => {
  expect(await answer("python", "look(1)", asked)).toContain(expected);
});
